"""The border of a blade, to the pixel, and corners around it."""

from dataclasses import dataclass, replace

import numpy as np
import scipy

from kessik.core.corrosion.photo.axes import Axis, Point
from kessik.core.corrosion.photo.colour import Array, Doubles
from kessik.core.corrosion.photo.ground import Scene
from kessik.core.corrosion.photo.steel import local_mean
from kessik.core.corrosion.photo.view import Bools

_FAINT = 0.16
"""Light on both sides of a border that differs by less than this of its brighter side is faint."""
_SMOOTH_SHARE, _NOTCH_SHARE = 0.03, 0.07
"""Of the blade's length: bumps and notches of the border shorter than these are not the blade's."""
_GUARD_SHARE, _GUARD_WIDER = 0.10, 1.08
"""A guard lies within so much of the length from the plunge line and is so much wider."""
_CORNERS = 40
_SHARP_PX, _STEP_COST = 1.2, 0.3


@dataclass(frozen=True)
class Bordered:
    """The blade's mask, and the share of its border along which both sides look alike."""

    mask: Bools
    faint_share: float


def bordered(scene: Scene, rough: Bools, sure: int) -> Bordered:
    """The mask moved to where the light changes from that of its inside to that outside nearby;
    the border is wrong by up to `sure` pixels.

    Mixed pixels are shared in linear light; logs would draw the border towards the darker side.
    """
    inside = scipy.ndimage.binary_erosion(rough, iterations=sure)
    outside = ~scipy.ndimage.binary_dilation(rough, iterations=sure)
    if not inside.any() or not outside.any():
        return Bordered(rough, 1.0)
    within = _near(scene.light, inside, 2.5 * sure)
    beyond = _near(scene.light, outside, 1.5 * sure)
    step = within - beyond
    size = np.maximum((step**2).sum(-1), 1e-8)
    share = ((scene.light - beyond) * step).sum(-1) / size
    found = inside | (~outside & (share > 0.5))
    found = scipy.ndimage.binary_opening(found, iterations=1) | inside
    mask = scipy.ndimage.binary_fill_holes(found)
    border = mask & ~scipy.ndimage.binary_erosion(mask)
    brighter = np.maximum((within**2).sum(-1), (beyond**2).sum(-1))
    faint = np.sqrt(size / np.maximum(brighter, 1e-6)) < _FAINT
    return Bordered(np.asarray(mask), float(faint[border].mean()))


def _near(light: Array, where: Bools, reach_px: float) -> Array:
    """Mean light of what is nearby in a mask."""
    weights = where.astype(np.float32)
    return np.stack([local_mean(light[..., c], weights, reach_px) for c in range(3)], -1)


@dataclass(frozen=True)
class Sides:
    """Both sides of a blade beside its axis, in pixels: how far across `upper` and `lower` lie at
    each place `along`; sections lean by `lean` pixels along for each across, as the plunge line.
    """

    axis: Axis
    lean: float
    along: Doubles
    upper: Doubles
    lower: Doubles

    @property
    def corners(self) -> tuple[Point, ...]:
        """Corners round the blade, closer together towards both ends, where it bends most."""
        turn = np.linspace(0, np.pi, _CORNERS)
        places = np.unique(np.round((1 - np.cos(turn)) / 2 * (len(self.along) - 1)).astype(int))
        there = [(places, self.upper), (places[::-1], self.lower)]
        return tuple(
            self.axis.at(float(self.along[n] + self.lean * side[n]), float(side[n]))
            for order, side in there
            for n in order
        )


def sides_of(mask: Bools, axis: Axis, lean: float) -> Sides:
    """The sides of a mask without the guard before it."""
    y, x = np.nonzero(mask)
    straight, across = axis.seen_from(x, y)
    along = straight - lean * across
    first = int(np.floor(along.min()))
    place = np.floor(along).astype(int) - first
    count = int(place.max()) + 1
    upper, lower = np.full(count, np.inf), np.full(count, -np.inf)
    np.minimum.at(upper, place, across - 0.5)
    np.maximum.at(lower, place, across + 0.5)
    seen = np.flatnonzero(np.isfinite(upper))
    seen = seen[_guard_places(lower[seen] - upper[seen]) :]
    upper, lower = -_smooth(-upper[seen]), _smooth(lower[seen])
    return Sides(axis, lean, np.asarray(seen + first + 0.5, float), upper, lower)


def snapped(scene: Scene, sides: Sides, reach: int) -> Sides:
    """Both sides moved by up to `reach` pixels to where the light changes most sharply: shadows
    beside a blade end softly, steel does not.
    """
    upper = _snapped(scene, sides, sides.upper, reach)
    lower = _snapped(scene, sides, sides.lower, reach)
    return _up_to_tip(replace(sides, upper=-_smooth(-upper), lower=_smooth(lower)))


def _up_to_tip(sides: Sides) -> Sides:
    """Without the places where both sides would meet or cross."""
    apart = np.flatnonzero(sides.lower - sides.upper >= 1)
    return replace(
        sides, along=sides.along[apart], upper=sides.upper[apart], lower=sides.lower[apart]
    )


def _snapped(scene: Scene, sides: Sides, side: Doubles, reach: int) -> Doubles:
    offsets = np.arange(-reach - 2, reach + 3)
    across = side[None, :] + offsets[:, None]
    x, y = sides.axis.places_at(sides.along[None, :] + sides.lean * across, across)
    steps = [
        scipy.ndimage.gaussian_filter1d(
            scipy.ndimage.map_coordinates(scene.light[..., c], [y, x], order=1, mode="nearest"),
            _SHARP_PX,
            axis=0,
            order=1,
        )
        for c in range(3)
    ]
    steep = scipy.ndimage.gaussian_filter1d(np.sqrt(np.square(steps).sum(axis=0)), 2.0, axis=1)
    steep = steep[2:-2] / np.maximum(steep[2:-2].max(axis=0), 1e-6)
    return side + _best_path(steep) - reach


def _best_path(worth: Doubles) -> Doubles:
    """The row at each column of the path of most worth that moves by at most one row a column."""
    rows, columns = worth.shape
    sums, came = worth[:, 0], np.zeros((columns, rows), int)
    for column in range(1, columns):
        padded = np.pad(sums, 1, constant_values=-np.inf)
        ways = np.stack([padded[:-2] - _STEP_COST, padded[1:-1], padded[2:] - _STEP_COST])
        best = ways.argmax(axis=0)
        came[column] = best - 1
        sums = ways[best, np.arange(rows)] + worth[:, column]
    path = np.empty(columns, int)
    path[-1] = int(sums.argmax())
    for column in range(columns - 1, 0, -1):
        path[column - 1] = path[column] + came[column, path[column]]
    return path.astype(float)


def _smooth(side: Doubles) -> Doubles:
    """One side, outwards positive: notches filled, as of rust at the edge, and bumps taken off."""
    notch = max(3, int(_NOTCH_SHARE * len(side)))
    window = max(3, int(_SMOOTH_SHARE * len(side)) | 1)
    over = min(2 * notch, len(side) - 1)
    long = np.pad(side, over, mode="reflect", reflect_type="odd")
    flat = scipy.ndimage.median_filter(long, window)
    filled = scipy.ndimage.grey_closing(flat, notch)
    smooth = scipy.ndimage.uniform_filter1d(filled, max(1, window // 2))
    return np.asarray(smooth[over : over + len(side)])


def _guard_places(widths: Doubles) -> int:
    """How many places from the plunge line on are a guard's, wider than the blade beyond it."""
    reach = int(_GUARD_SHARE * len(widths))
    if reach < 3:
        return 0
    places = np.arange(2 * reach)
    slope, start = np.polyfit(places[reach:], widths[reach : 2 * reach], 1)
    expected = start + slope * places[:reach]
    wide = np.flatnonzero(widths[:reach] > _GUARD_WIDER * expected)
    return int(wide[-1]) + 2 if wide.size else 0
