"""Which pixels of a blade are rust, which are stain, and which nobody can tell by colour.

Method: page "rust from a photograph" of docs/decisions; seeds of sure colour grown by hysteresis,
kept where they have borders, shared out over mixed pixels in linear light.
"""

from dataclasses import dataclass

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.corrosion.photo.colour import LUMINANCE, Array
from kessik.core.corrosion.photo.steel import (
    SteelPixels,
    Tones,
    local_mean,
    spread_of,
    tones_of,
    usual_colour,
)
from kessik.core.corrosion.photo.view import Bools, View

Labels = NDArray[np.int32]
_WARM_SEED, _WARM_GROW = 0.30, 0.12
_DARK_SEED = 0.35
_WARM_FOR_DARK = 0.13
_WARM_AS_A_WHOLE = 0.10
_BLACK = 0.55
_OUTSIDE_PX, _ALIKE, _STRIP_PX = 12, 0.6, 40
_SPECK_WARM, _SPECK_DARK, _SPECK_PX2 = 0.2, 0.55, 16
_COOL, _LIGHTER = 0.07, 0.35
_LIGHT_SHOWS = 0.2
_NARROW_PX, _WIDE_PX = 14.0, 34.0
_BORDER_SHARE = 0.055
"""A border whose steepest change, by pixel, is less than this share of the height is smooth."""
_LEAST_FILM = 0.06
_MIXED_PX = 3
_ALL = np.ones((3, 3), bool)


@dataclass(frozen=True)
class Classes:
    """Maps of one blade, each of the view's shape: `strength` of rust in each pixel of accepted
    spots (0 to 1, half of the pixel at 0.5), `weak` spots whose colour hardly stands out, `specks`
    too small to be kept, `doubtful` dark spots without colour, `smooth` warm areas without borders,
    `stain` the blue-grey of patina, `lighter` grains on the steel, `beyond` the blade where the
    mask is too wide; and the steel they were held against.
    """

    strength: Array
    weak: Bools
    specks: Bools
    doubtful: Bools
    smooth: Bools
    stain: Bools
    lighter: Bools
    beyond: Bools
    steel: SteelPixels


def classify(view: View, least_spot_px: float) -> Classes:
    """Sort the pixels of a blade; spots under `least_spot_px` across are dust."""
    tones = tones_of(view)
    steel, smooth_warm = clean_steel(view, tones)
    noise = steel.warmth_noise
    grow = max(_WARM_GROW, 3.0 * noise)
    seed = max(_WARM_SEED, 5.0 * noise)
    dark_enough = steel.darkness > max(_DARK_SEED, 4 * steel.darkness_noise)
    warm_for_dark = scipy.ndimage.gaussian_filter(steel.warmth, 1.5) > max(
        _WARM_FOR_DARK, 2.5 * noise
    )
    seeds = ((steel.warmth > seed) | (dark_enough & warm_for_dark)) & view.mask
    body = (steel.warmth > grow) | (dark_enough & (steel.warmth > 0.5 * _WARM_FOR_DARK))
    beyond = _beyond_the_blade(view)
    spots, count = scipy.ndimage.label(body & view.mask & ~beyond, _ALL)
    strength = _strength_of(steel)
    sharp = _sharp_spots(spots, count, seeds, strength, view.mask) & _coloured(spots, count, steel)
    large = np.bincount(spots.ravel(), minlength=count + 1) >= np.pi / 4 * least_spot_px**2
    kept = sharp & large
    rust = kept[spots]
    black = _black(steel, rust, view.mask, least_spot_px)
    weak = _weak(spots, kept, steel)
    cool = scipy.ndimage.gaussian_filter(_relative_warmth(tones, view), 2.0) < -max(
        _COOL, 3 * noise
    )
    stain = cool & view.mask & ~rust & ~black
    lighter = (steel.darkness < -_LIGHTER) & (np.abs(steel.warmth) < _WARM_SEED) & view.mask
    strength = np.where(beyond, 0, _strengths(view, steel, rust)).astype(np.float32)
    apart = ~scipy.ndimage.binary_dilation(rust | black, _ALL, iterations=_MIXED_PX + 1)
    specks = _specks(steel, view.mask & apart)
    return Classes(
        strength, weak, specks, black, smooth_warm & ~rust, stain, lighter, beyond, steel
    )


def _strength_of(steel: SteelPixels) -> Array:
    total = np.maximum(steel.warmth, 0) + 0.5 * np.maximum(steel.darkness, 0)
    return np.asarray(total, np.float32)


def clean_steel(view: View, tones: Tones) -> tuple[SteelPixels, Bools]:
    """The local clean steel, found in rounds: first what is like the usual colour, then what is
    smoothly unlike it, leaving out ever better what stands out.
    """
    warmth = _relative_warmth(tones, view)
    usual_y = float(np.median(tones.y[view.mask]))
    noise = spread_of(warmth[view.mask & (np.abs(warmth) < 0.15)])
    smooth = _smooth_parts(warmth, view.mask, max(0.10, 3 * noise))
    clean = view.mask & ((np.abs(warmth) < max(0.12, 3 * noise)) | smooth)
    film, around = warmth, tones.y
    for reach in (_WIDE_PX, _NARROW_PX, _NARROW_PX):
        weights = clean.astype(np.float32)
        film = local_mean(warmth, weights, reach)
        around = local_mean(tones.y, weights, reach)
        rest, dark = warmth - film, around - tones.y
        noise = spread_of(rest[clean])
        dark_noise = spread_of(dark[clean])
        usual = (np.abs(rest) < max(0.08, 3 * noise)) & (np.abs(dark) < max(0.25, 3 * dark_noise))
        clean = view.mask & usual & ((np.abs(warmth) < max(0.15, 3 * noise)) | smooth)
    rest, dark = warmth - film, around - tones.y
    weights = clean.astype(np.float32)
    local = np.stack(
        [local_mean(view.light[..., c], weights, _NARROW_PX) for c in range(3)], axis=-1
    )
    filmed = view.mask & smooth & (film > _LEAST_FILM)
    noise = spread_of(rest[clean])
    found = SteelPixels(
        rest, dark, noise, spread_of(dark[clean]), local, film, float(np.exp(usual_y))
    )
    return found, filmed


def _relative_warmth(tones: Tones, view: View) -> Array:
    u0, w0 = usual_colour(tones, view.mask)
    return np.asarray((tones.u - u0) + 0.5 * (tones.w - w0), np.float32)


def _smooth_parts(warmth: Array, mask: Bools, above: float) -> Bools:
    """Warm or cool parts whose borders are gradual: films, tints, reflections, patina."""
    smooth = np.zeros_like(mask)
    for values in (warmth, -warmth):
        parts, count = scipy.ndimage.label((values > above) & mask, _ALL)
        if count == 0:
            continue
        steepness = _steepness(parts, count, values, mask)
        smooth |= np.concatenate([[False], steepness < _BORDER_SHARE])[parts]
    return smooth


def _steepness(parts: Labels, count: int, values: Array, mask: Bools) -> Array:
    """Of each part: the change by pixel at its border, as a share of how high it stands."""
    soft = scipy.ndimage.gaussian_filter(values, 0.7)
    change = np.hypot(scipy.ndimage.sobel(soft, 0), scipy.ndimage.sobel(soft, 1)) / 8
    nearby = scipy.ndimage.maximum_filter(change, 5)
    inside = scipy.ndimage.binary_erosion(parts > 0, _ALL)
    rim = (
        (parts > 0)
        & ~inside
        & scipy.ndimage.binary_erosion(mask, _ALL, iterations=2, border_value=0)
    )
    index = np.arange(1, count + 1)
    size = np.maximum(np.bincount(parts[rim], minlength=count + 1)[1:], 1)
    at_rim = np.bincount(parts[rim], weights=nearby[rim], minlength=count + 1)[1:] / size
    height = np.maximum(scipy.ndimage.maximum(soft, parts, index), 1e-3)
    return np.asarray(at_rim / height, np.float32)


def _sharp_spots(spots: Labels, count: int, seeds: Bools, strength: Array, mask: Bools) -> Bools:
    """Of each label: whether it is a spot with a border, not a strip along the rim; label 0, the
    rest, is none.
    """
    if count == 0:
        return np.zeros(1, bool)
    area = np.bincount(spots.ravel(), minlength=count + 1)[1:]
    seeded = np.bincount(spots[seeds], minlength=count + 1)[1:] > 0
    steep = _steepness(spots, count, strength, mask) >= _BORDER_SHARE
    rim = mask & ~scipy.ndimage.binary_erosion(mask, _ALL, iterations=4, border_value=0)
    at_rim = np.bincount(spots[rim], minlength=count + 1)[1:]
    strip = at_rim > 0.8 * area
    return np.concatenate([[False], seeded & steep & ~strip])


def _beyond_the_blade(view: View) -> Bools:
    """Pixels along the mask's rim that look like what is outside: a mask drawn too wide."""
    near = scipy.ndimage.distance_transform_cdt(view.mask, "chessboard")
    far_out = ~scipy.ndimage.binary_dilation(view.mask, _ALL, iterations=_OUTSIDE_PX // 2)
    nothing = np.zeros_like(view.mask)
    if not far_out.any():
        return nothing
    nearest = scipy.ndimage.distance_transform_edt(
        ~far_out, return_distances=False, return_indices=True
    )
    shallow = view.mask & (near <= _OUTSIDE_PX)
    rows, columns = nearest[0][shallow], nearest[1][shallow]
    apart = np.zeros(rows.shape, np.float32)
    for c in range(3):
        logs = scipy.ndimage.gaussian_filter(np.log(np.maximum(view.raw[..., c], 0) + 0.01), 1.0)
        apart += np.abs(logs[shallow] - logs[rows, columns])
    alike = nothing.copy()
    alike[shallow] = apart < _ALIKE
    parts, count = scipy.ndimage.label(alike, _ALL)
    touching = np.bincount(parts[(near == 1) & alike], minlength=count + 1)
    strip = touching >= _STRIP_PX
    strip[0] = False
    wide = scipy.ndimage.binary_dilation(strip[parts], _ALL, iterations=_MIXED_PX)
    return np.asarray(wide & shallow)


def _coloured(spots: Labels, count: int, steel: SteelPixels) -> Bools:
    """Of each label: whether it is warm as a whole; specks of colour in black are noise."""
    if count == 0:
        return np.zeros(1, bool)
    index = np.arange(1, count + 1)
    warmth = scipy.ndimage.mean(steel.warmth, spots, index)
    return np.concatenate([[False], warmth > _WARM_AS_A_WHOLE])


def _black(steel: SteelPixels, rust: Bools, mask: Bools, least_px: float) -> Bools:
    """Dark without colour: black rust, an etched mark, a pit in shadow."""
    dark = steel.darkness > max(_BLACK, 5 * steel.darkness_noise)
    beside = scipy.ndimage.binary_dilation(rust, _ALL, iterations=2)
    parts, count = scipy.ndimage.label(dark & mask & ~beside, _ALL)
    area = np.bincount(parts.ravel(), minlength=count + 1)
    large = area >= np.pi / 4 * least_px**2
    large[0] = False
    return np.asarray(large[parts])


def _specks(steel: SteelPixels, where: Bools) -> Bools:
    """Points of a few pixels that stand out from the steel: too fine for their size to be read."""
    warm = steel.warmth > max(_SPECK_WARM, 6 * steel.warmth_noise)
    dark = steel.darkness > max(_SPECK_DARK, 8 * steel.darkness_noise)
    parts, count = scipy.ndimage.label((warm | dark) & where, _ALL)
    small = np.bincount(parts.ravel(), minlength=count + 1) < _SPECK_PX2
    small[0] = False
    return np.asarray(small[parts])


def _weak(spots: Labels, kept: Bools, steel: SteelPixels) -> Bools:
    """Spots whose colour hardly stands out: kept, but out of the lower bound."""
    index = np.arange(kept.size)
    if kept.size == 1:
        return np.zeros_like(spots, bool)
    warmth = scipy.ndimage.mean(steel.warmth, spots, index)
    return np.asarray((kept & (warmth < 1.4 * max(_WARM_GROW, 3 * steel.warmth_noise)))[spots])


def _strengths(view: View, steel: SteelPixels, rust: Bools) -> Array:
    """How much of each pixel in and about the spots is rust, in linear light; light rust shows
    beyond its border more than dark rust does, and has to cover more of a pixel to count as half.
    """
    near = scipy.ndimage.binary_dilation(rust, _ALL, iterations=_MIXED_PX) & view.mask
    core = scipy.ndimage.binary_erosion(rust, _ALL)
    core = np.where(core.any(), core, rust)
    weights = core * np.clip(np.abs(steel.warmth) + np.abs(steel.darkness), 0.05, 1.5) ** 3
    weights = weights.astype(np.float32)
    total = scipy.ndimage.gaussian_filter(weights, 4.0) + 1e-6
    along, over = np.zeros(view.shape, np.float32), np.full(view.shape, 1e-6, np.float32)
    rust_y, clean_y = np.zeros(view.shape, np.float32), np.full(view.shape, 1e-6, np.float32)
    for c in range(3):
        oxide = scipy.ndimage.gaussian_filter(view.light[..., c] * weights, 4.0) / total
        apart = oxide - steel.clean[..., c]
        along += (view.light[..., c] - steel.clean[..., c]) * apart
        over += apart**2
        rust_y += LUMINANCE[c] * oxide
        clean_y += LUMINANCE[c] * np.maximum(steel.clean[..., c], 0)
    half = 0.5 + _LIGHT_SHOWS * np.clip(rust_y / clean_y, 0, 0.5)
    share = np.clip(along / over, 0, 1) ** (np.log(0.5) / np.log(half)) * near
    deep = scipy.ndimage.binary_erosion(rust, _ALL, iterations=3)
    return np.asarray(np.where(deep & (share < 0.7), 0.7, share), np.float32)
