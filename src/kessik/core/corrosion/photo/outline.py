"""Where the blade is in a picture: proposed from the picture, for a hand to put right."""

from dataclasses import dataclass
from itertools import pairwise

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.corrosion.photo.colour import LIGHT_OF_CODE, Doubles, lab
from kessik.core.corrosion.photo.view import Bools

Outline = tuple[tuple[float, float], ...]
"""Corners (x, y) in picture pixels."""
_SMALL_PX = 480
_BORDER_SHARE = 0.05
_SECTIONS = 36
_LEAST_SHARE, _MOST_SHARE = 0.02, 0.75
_LONG = 1.6
"""How much longer than wide a blade is at least."""


@dataclass(frozen=True)
class Axis:
    """Centre (x, y), direction of the length in radians, and half lengths along and across it."""

    centre: tuple[float, float]
    angle_rad: float
    half_length: float
    half_width: float


def axis_of(mask: Bools) -> Axis:
    """Principal axis of a mask by its second moments; half lengths are those of an equal bar."""
    y, x = np.nonzero(mask)
    cx, cy = float(x.mean()), float(y.mean())
    spread = np.cov(np.stack([x - cx, y - cy]))
    values, vectors = np.linalg.eigh(spread)
    along = vectors[:, 1] if vectors[0, 1] >= 0 else -vectors[:, 1]
    half = np.sqrt(3 * np.maximum(values, 1e-9))
    return Axis((cx, cy), float(np.arctan2(along[1], along[0])), float(half[1]), float(half[0]))


def propose_outline(rgb: NDArray[np.uint8]) -> Outline | None:
    """Corners around what stands out from the picture's border and is long, as a blade is; None
    where nothing does.
    """
    step = max(1, max(rgb.shape[:2]) // _SMALL_PX)
    small = rgb[::step, ::step]
    if min(small.shape[:2]) < 24:
        return None
    mask = blade_in(small)
    if mask is None:
        return None
    return tuple((x * step + step / 2, y * step + step / 2) for x, y in _sections(mask))


def blade_in(small: NDArray[np.uint8]) -> Bools | None:
    """The blade in a picture of a few hundred pixels across."""
    colours = scipy.ndimage.gaussian_filter(lab(LIGHT_OF_CODE[small].astype(float)), (1.0, 1.0, 0))
    apart = _apart_from_border(colours)
    found = apart > _between(apart)
    found = scipy.ndimage.binary_closing(found, iterations=3)
    parts, count = scipy.ndimage.label(scipy.ndimage.binary_opening(found, iterations=2))
    best, best_size = None, 0.0
    for part in range(1, count + 1):
        own = scipy.ndimage.binary_fill_holes(parts == part)
        share = float(own.mean())
        if not _LEAST_SHARE < share < _MOST_SHARE:
            continue
        axis = axis_of(own)
        if axis.half_length >= _LONG * axis.half_width and share > best_size:
            best, best_size = own, share
    return best


def _apart_from_border(colours: Doubles) -> Doubles:
    """How unlike each pixel is to what lies along the border of the picture."""
    height, width, _ = colours.shape
    dy, dx = max(2, int(_BORDER_SHARE * height)), max(2, int(_BORDER_SHARE * width))
    border = np.ones((height, width), bool)
    border[dy:-dy, dx:-dx] = False
    around = colours[border]
    middle = np.median(around, axis=0)
    spread = 1.4826 * np.median(np.abs(around - middle), axis=0) + np.array([4.0, 1.5, 1.5])
    return np.asarray(np.sqrt((((colours - middle) / spread) ** 2).sum(axis=-1)))


def _between(values: Doubles) -> float:
    """The value that parts the picture into two kinds best (Otsu), on the log scale."""
    logs = np.log(values + 0.5)
    counts, edges = np.histogram(logs, bins=128)
    middle = (edges[:-1] + edges[1:]) / 2
    below = np.cumsum(counts)
    above = below[-1] - below
    sums = np.cumsum(counts * middle)
    with np.errstate(divide="ignore", invalid="ignore"):
        gap = sums / below - (sums[-1] - sums) / above
        between = np.nan_to_num(below * above * gap**2)
    return float(np.exp(middle[int(between.argmax())]) - 0.5)


def _sections(mask: Bools) -> list[tuple[float, float]]:
    """Upper and lower border at places along the blade, round it once."""
    axis = axis_of(mask)
    y, x = np.nonzero(mask)
    cos, sin = np.cos(axis.angle_rad), np.sin(axis.angle_rad)
    along = (x - axis.centre[0]) * cos + (y - axis.centre[1]) * sin
    across = -(x - axis.centre[0]) * sin + (y - axis.centre[1]) * cos
    edges = np.linspace(along.min(), along.max(), _SECTIONS + 1)
    upper, lower = [], []
    for start, end in pairwise(edges):
        inside = across[(along >= start) & (along <= end)]
        if inside.size:
            upper.append(((start + end) / 2, float(inside.min())))
            lower.append(((start + end) / 2, float(inside.max())))
    upper[0], lower[0] = (edges[0], upper[0][1]), (edges[0], lower[0][1])
    upper[-1], lower[-1] = (edges[-1], upper[-1][1]), (edges[-1], lower[-1][1])
    return [
        (axis.centre[0] + a * cos - b * sin, axis.centre[1] + a * sin + b * cos)
        for a, b in [*upper, *reversed(lower)]
    ]
