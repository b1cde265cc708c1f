"""What the clean steel looks like, all over the blade, so that rust can be told from light.

Shading, shadow and the slope of light fall out of ratios of channels; what is left, warm
reflections and thin films, is smooth, and rust has borders.
"""

from dataclasses import dataclass

import numpy as np
import scipy

from kessik.core.corrosion.photo.colour import LUMINANCE, Array
from kessik.core.corrosion.photo.view import Bools, View

_DARKEST = 0.006
"""Light that a camera's own noise hides, as a share of white."""
_BIN, _BINS = 0.02, 200
_NEUTRAL = 0.45
"""How far from neutral, in log ratios, steel under a badly balanced light is still expected."""
_COARSE = 4


@dataclass(frozen=True)
class Tones:
    """Every pixel in log ratios: `u` red over green, `w` green over blue, `y` lightness."""

    u: Array
    w: Array
    y: Array


@dataclass(frozen=True)
class SteelPixels:
    """Pixels beside the clean steel around them: `warmth` towards rust, `darkness` below it, both
    in log ratios; their own noise; and the clean steel's light of shape (h, w, 3).

    `film` is how warm the steel's own local colour is beside the usual one; `level` how light the
    usual one is, white at 1.
    """

    warmth: Array
    darkness: Array
    warmth_noise: float
    darkness_noise: float
    clean: Array
    film: Array
    level: float


def tones_of(view: View) -> Tones:
    """Log ratios and lightness, a little blurred against noise."""
    soft = np.stack(
        [scipy.ndimage.gaussian_filter(view.light[..., c], 0.8) for c in range(3)], axis=-1
    )
    logs = np.log(np.maximum(soft, 0) + np.float32(_DARKEST))
    lightness = np.log(np.maximum(soft @ LUMINANCE, 0) + np.float32(_DARKEST))
    return Tones(logs[..., 0] - logs[..., 1], logs[..., 1] - logs[..., 2], lightness)


def usual_colour(tones: Tones, mask: Bools) -> tuple[float, float]:
    """The commonest (u, w) on the blade, if it is not too far from neutral."""
    u, w = tones.u[mask], tones.w[mask]
    reach = _BIN * _BINS / 2
    counts, edges, _ = np.histogram2d(u, w, bins=_BINS, range=[[-reach, reach]] * 2)
    middle = (edges[:-1] + edges[1:]) / 2
    prior = np.exp(-(middle[:, None] ** 2 + middle[None, :] ** 2) / (2 * _NEUTRAL**2))
    smooth = scipy.ndimage.gaussian_filter(counts, 1.5) * prior
    i, j = np.unravel_index(int(smooth.argmax()), smooth.shape)
    near = (np.abs(u - middle[i]) < 3 * _BIN) & (np.abs(w - middle[j]) < 3 * _BIN)
    if not near.any():
        return float(middle[i]), float(middle[j])
    return float(np.median(u[near])), float(np.median(w[near]))


def spread_of(values: Array) -> float:
    """Standard deviation by the median absolute deviation; 0 where there are no values."""
    if values.size == 0:
        return 0.0
    return float(1.4826 * np.median(np.abs(values - np.median(values))))


def local_mean(values: Array, weights: Array, reach_px: float) -> Array:
    """Weighted means around each pixel (normalised convolution); where nothing weighs, the whole
    mean.
    """
    small = tuple(-(-side // _COARSE) for side in values.shape)
    whole = float((values * weights).sum() / max(float(weights.sum()), 1e-6))
    weight = _blocks(weights, small)
    above = _blocks((values - whole) * weights, small)
    sigma = reach_px / _COARSE
    weight = scipy.ndimage.gaussian_filter(weight, sigma) + np.float32(1e-4)
    mean = scipy.ndimage.gaussian_filter(above, sigma) / weight
    return np.asarray(whole + _enlarged(mean, values.shape), np.float32)


def _blocks(plane: Array, small: tuple[int, ...]) -> Array:
    over = [(0, n * _COARSE - side) for n, side in zip(small, plane.shape, strict=True)]
    padded = np.pad(plane, over, mode="edge")
    split = padded.reshape(small[0], _COARSE, small[1], _COARSE)
    return np.asarray(split.mean(axis=(1, 3)), np.float32)


def _enlarged(plane: Array, shape: tuple[int, ...]) -> Array:
    """Bilinear, block centres kept in their place."""
    rows = np.clip((np.arange(shape[0]) + 0.5) / _COARSE - 0.5, 0, plane.shape[0] - 1)
    columns = np.clip((np.arange(shape[1]) + 0.5) / _COARSE - 0.5, 0, plane.shape[1] - 1)
    top, left = rows.astype(int), columns.astype(int)
    down = np.minimum(top + 1, plane.shape[0] - 1)
    right = np.minimum(left + 1, plane.shape[1] - 1)
    dy = (rows - top).astype(np.float32)[:, None]
    dx = (columns - left).astype(np.float32)[None, :]
    upper = plane[top][:, left] * (1 - dx) + plane[top][:, right] * dx
    lower = plane[down][:, left] * (1 - dx) + plane[down][:, right] * dx
    return np.asarray(upper * (1 - dy) + lower * dy, np.float32)
