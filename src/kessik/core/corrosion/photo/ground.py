"""What lies on the ground in a picture, told from the ground by colour and lightness."""

from dataclasses import dataclass

import numpy as np
import scipy

from kessik.core.corrosion.photo.colour import LIGHT_OF_CODE, LUMINANCE, Array, Codes
from kessik.core.corrosion.photo.view import Bools, reduced

_SCALES = np.array([0.25, 0.06, 0.08], np.float32)
"""What counts as a difference in ln Y, ln(R/G) and ln(G/B)."""
_DARKEST = np.float32(0.006)
_BORDER_SHARE = 0.06
_FIT_ROUNDS, _FIT_REACH, _LEAST_SCATTER = 5, 2.5, 0.25
_BINS, _REACH = 24, 12.0
_SOFT_PX = 1.6
"""Blurred by so much the grain of a ground scatters less, and a thing of its tone stands out."""
_ROUNDS = 4
_OVERLAP, _ALIKE_WEIGHT = 0.1, 0.4
"""How much of a part lies on what was found where it belongs to it, and from what share of its
weight on another part is a second thing.
"""
_INSIDE_BONUS, _OUTSIDE_COST = 0.7, 0.12
"""For a pixel of the last object, and for each pixel away from it, in log ratios."""


@dataclass(frozen=True)
class Scene:
    """A picture small enough to search in: `light` of shape (h, w, 3), white about 1; `tones` in
    ln Y, ln(R/G) and ln(G/B), each over what counts as a difference; `step` picture pixels a pixel.
    """

    light: Array
    tones: Array
    step: int


def scene_of(rgb: Codes, most_px: int) -> Scene:
    """The picture, reduced to at most about `most_px` across, in light of its brightest parts."""
    return _reduced_scene(rgb, max(1, -(-max(rgb.shape[:2]) // most_px)))


def _reduced_scene(rgb: Codes, step: int) -> Scene:
    planes = [reduced(LIGHT_OF_CODE[rgb[..., c]], step) for c in range(3)]
    light = np.stack(planes, axis=-1)
    white = np.maximum(np.percentile(light.reshape(-1, 3), 99, axis=0), 0.05)
    light = np.asarray(light / white, np.float32)
    return Scene(light, tones_of_light(light), step)


def tones_of_light(light: Array) -> Array:
    logs = np.log(np.maximum(light, 0) + _DARKEST)
    lightness = np.log(np.maximum(light @ LUMINANCE, 0) + _DARKEST)
    tones = np.stack([lightness, logs[..., 0] - logs[..., 1], logs[..., 1] - logs[..., 2]], -1)
    return np.asarray(tones / _SCALES, np.float32)


def thing_in(rgb: Codes, step: int) -> Bools | None:
    """The mask of the long thing in a picture, a pixel for `step` of the picture's."""
    return object_in(_reduced_scene(rgb, step))


def object_in(scene: Scene) -> Bools | None:
    """The one long thing on the ground, whatever it is made of; None where there is none."""
    apart = above_ground(scene.tones)
    soft = scipy.ndimage.gaussian_filter(scene.tones, (_SOFT_PX, _SOFT_PX, 0))
    found = _first_guess(above_ground(soft))
    for _ in range(_ROUNDS):
        kept = main_part(found)
        if kept is None:
            return None
        found = told_apart(apart, kept, ~kept)
    return main_part(found)


def above_ground(tones: Array) -> Array:
    """What is left of each tone when the ground under it is taken away, over the ground's scatter.

    The ground is a curved surface in lightness and a plane in colour, fitted to the picture's
    border without what stands out there.
    """
    height, width, _ = tones.shape
    y, x = np.mgrid[-1 : 1 : height * 1j, -1 : 1 : width * 1j].astype(np.float32)
    plane = np.stack([np.ones_like(x), x, y], -1)
    curved = np.concatenate([plane, np.stack([x * x, x * y, y * y], -1)], -1)
    border = _border(height, width)
    left = [
        _without_ground(tones[..., tone], curved if tone == 0 else plane, border)
        for tone in range(3)
    ]
    return np.stack(left, -1)


def _border(height: int, width: int) -> Bools:
    dy, dx = max(2, int(_BORDER_SHARE * height)), max(2, int(_BORDER_SHARE * width))
    border = np.ones((height, width), bool)
    border[dy:-dy, dx:-dx] = False
    return border


def _without_ground(tone: Array, shape: Array, border: Bools) -> Array:
    at, value = shape[border], tone[border]
    kept = np.ones(len(value), bool)
    scatter = 1.0
    left = value
    for _ in range(_FIT_ROUNDS):
        fit, *_ = np.linalg.lstsq(at[kept], value[kept], rcond=None)
        left = value - at @ fit
        scatter = max(1.4826 * float(np.median(np.abs(left[kept]))), _LEAST_SCATTER)
        kept = np.abs(left) < _FIT_REACH * scatter
    return np.asarray((tone - shape @ fit) / scatter, np.float32)


def _first_guess(apart: Array) -> Bools:
    far = np.sqrt((apart**2).sum(-1))
    return np.asarray(far > between(far))


def between(values: Array) -> float:
    """The value that parts a picture into two kinds best (Otsu), on the log scale."""
    logs = np.log(values + 0.5)
    counts, edges = np.histogram(logs, bins=128)
    middle = (edges[:-1] + edges[1:]) / 2
    below = np.cumsum(counts)
    above = below[-1] - below
    sums = np.cumsum(counts * middle)
    with np.errstate(divide="ignore", invalid="ignore"):
        gap = sums / below - (sums[-1] - sums) / above
        parted = np.nan_to_num(below * above * gap**2)
    return float(np.exp(middle[int(parted.argmax())]) - 0.5)


def told_apart(apart: Array, inside: Bools, outside: Bools) -> Bools:
    """Where the tones are rather those seen `inside` than those seen `outside`, near the inside."""
    ratio = scipy.ndimage.gaussian_filter(_log_ratio(apart, inside, outside), 1.2)
    away = scipy.ndimage.distance_transform_edt(~inside)
    ratio = ratio + np.where(inside, _INSIDE_BONUS, -_OUTSIDE_COST * away)
    return np.asarray(ratio > 0)


def _log_ratio(apart: Array, inside: Bools, outside: Bools) -> Array:
    places = np.clip((apart / _REACH + 1) / 2 * _BINS, 0, _BINS - 1).astype(np.int32)
    flat = (places[..., 0] * _BINS + places[..., 1]) * _BINS + places[..., 2]

    def often(part: Bools) -> Array:
        counts = np.bincount(flat[part], minlength=_BINS**3).reshape((_BINS,) * 3)
        smooth = scipy.ndimage.gaussian_filter(counts.astype(np.float32), 1.0)
        return np.asarray(smooth / max(float(smooth.sum()), 1.0) + 2e-5)

    ratio = np.log(often(inside)) - np.log(often(outside))
    return np.asarray(ratio.ravel()[flat], np.float32)


def main_part(found: Bools) -> Bools | None:
    """The part that is large, long, in the middle and not cut by the picture's border."""
    closed = scipy.ndimage.binary_closing(np.pad(found, 3), iterations=2)[3:-3, 3:-3]
    labels, _ = scipy.ndimage.label(scipy.ndimage.binary_opening(closed, iterations=1))
    best, best_weight = None, 0.0
    for part, place in enumerate(scipy.ndimage.find_objects(labels), start=1):
        own = labels[place] == part
        weight = _weight(own, place, found.shape)
        if weight > best_weight:
            best, best_weight = part, weight
    if best is None:
        return None
    return np.asarray(scipy.ndimage.binary_fill_holes(labels == best))


def has_another(scene: Scene, mask: Bools) -> bool:
    """Whether a second thing, about as large and as long, lies beside the one that was found."""
    soft = scipy.ndimage.gaussian_filter(scene.tones, (_SOFT_PX, _SOFT_PX, 0))
    guess = scipy.ndimage.binary_opening(_first_guess(above_ground(soft)), iterations=1)
    labels, _ = scipy.ndimage.label(guess)
    weights: list[tuple[float, bool]] = []
    for part, place in enumerate(scipy.ndimage.find_objects(labels), start=1):
        own = labels[place] == part
        is_found = float((own & mask[place]).sum()) > _OVERLAP * float(own.sum())
        weights.append((_weight(own, place, mask.shape), is_found))
    found = max((weight for weight, is_found in weights if is_found), default=0.0)
    other = max((weight for weight, is_found in weights if not is_found), default=0.0)
    return found > 0 and other > _ALIKE_WEIGHT * found


def _weight(own: Bools, place: tuple[slice, slice], shape: tuple[int, ...]) -> float:
    """How much a part is like the thing that was photographed; 0 where it cannot be."""
    size = float(own.sum())
    share = size / (shape[0] * shape[1])
    if not 0.004 < share < 0.7:
        return 0.0
    y, x = np.nonzero(own)
    spread = np.linalg.eigvalsh(np.cov(np.stack([x, y])))
    long = float(np.sqrt(spread[1] / max(spread[0], 0.1)))
    if long < 1.5:
        return 0.0
    cy, cx = y.mean() + place[0].start, x.mean() + place[1].start
    off = np.hypot(2 * cy / shape[0] - 1, 2 * cx / shape[1] - 1)
    ends = [place[0].start == 0, place[0].stop == shape[0],
            place[1].start == 0, place[1].stop == shape[1]]  # fmt: skip
    return float(size * min(long, 5.0) * np.exp(-off) * 0.4 ** sum(ends))
