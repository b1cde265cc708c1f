"""Two pictures of one blade laid over each other: the mask of the last look carried over.

By the moments of the blade in both pictures, then by phase correlation of what is on it [1].

References
----------
[1] Kuglin and Hines, The phase correlation image alignment method, 1975.
"""

from dataclasses import dataclass

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.corrosion.photo.axes import axis_of
from kessik.core.corrosion.photo.colour import LIGHT_OF_CODE, LUMINANCE, Array, Doubles
from kessik.core.corrosion.photo.ground import thing_in
from kessik.core.corrosion.photo.outline import Outline
from kessik.core.corrosion.photo.view import Bools

_SMALL_PX = 480
_FINE_PX = 560
_OUTLINE_PX = 4
"""Around the blade, so that its outline is part of what is compared."""
_LEAST_LIKENESS, _SURE_LIKENESS = 0.06, 0.3
_TURNS_DEG = (-1.2, -0.5, 0.5, 1.2)
_SCALES = (-0.015, -0.006, 0.006, 0.015)


@dataclass(frozen=True)
class Laid:
    """How the earlier picture lies on the later one: later = `turn` · earlier + `shift`, in picture
    pixels (x, y); `likeness` of what is on the blade, 0 to 1.
    """

    turn: tuple[tuple[float, float], tuple[float, float]]
    shift: tuple[float, float]
    likeness: float

    def carried(self, outline: Outline) -> Outline:
        """Corners of the earlier picture, in the later one."""
        there = np.asarray(outline) @ np.asarray(self.turn).T + np.asarray(self.shift)
        return tuple((float(x), float(y)) for x, y in there)


def lay_beside(earlier: NDArray[np.uint8], mask: Bools, later: NDArray[np.uint8]) -> Laid | None:
    """How an earlier picture lies on a later one that was taken from the same place, by a shift
    alone; as `lay_over` finds it where that is not so.
    """
    if earlier.shape == later.shape:
        step = max(1, max(earlier.shape[:2]) // _FINE_PX)
        pair = _Pair(_relief(earlier, step), mask[::step, ::step], _relief(later, step), step)
        laid = pair.shifted(_laid(np.eye(2), np.zeros(2), 0.0))
        if laid.likeness >= _SURE_LIKENESS:
            return laid
    return lay_over(earlier, mask, later)


def lay_over(earlier: NDArray[np.uint8], mask: Bools, later: NDArray[np.uint8]) -> Laid | None:
    """How an earlier picture with the mask of its blade lies on a later one; None where no blade
    like it is found.

    Both pictures are sRGB of shape (h, w, 3), the mask of the earlier one's shape.
    """
    step = max(1, max(*earlier.shape[:2], *later.shape[:2]) // _SMALL_PX)
    before = mask[::step, ::step]
    if not before.any():
        return None
    found, found_before = thing_in(later, step), thing_in(earlier, step)
    tries = [_laid(np.eye(2), np.zeros(2), 0.0)]
    if found is not None:
        same = [m for m in (before, found_before) if m is not None]
        tries += [each for m in same for each in _by_axes(m, found, step)]
    fine = max(1, max(*earlier.shape[:2], *later.shape[:2]) // _FINE_PX)
    pair = _Pair(_relief(earlier, fine), mask[::fine, ::fine], _relief(later, fine), fine)
    best = pair.refined(max(map(pair.shifted, tries), key=lambda laid: laid.likeness))
    return best if best.likeness >= _LEAST_LIKENESS else None


def _by_axes(before: Bools, found: Bools, step: int) -> list[Laid]:
    """Either way round, so that the axes of both shapes agree; none where their sizes do not."""
    scale = np.sqrt(float(found.sum()) / float(before.sum()))
    if not 0.5 < scale < 2:
        return []
    one, other = axis_of(before), axis_of(found)
    laid = []
    for flip in (0.0, np.pi):
        turn = _turn(other.angle_rad - one.angle_rad + flip, scale)
        shift = np.asarray(other.centre) * step - turn @ (np.asarray(one.centre) * step)
        laid.append(_laid(turn, shift, 0.0))
    return laid


def _turn(angle_rad: float, scale: float) -> Doubles:
    cos, sin = scale * np.cos(angle_rad), scale * np.sin(angle_rad)
    return np.array([[cos, -sin], [sin, cos]])


def _laid(turn: Doubles, shift: Doubles, likeness: float) -> Laid:
    (a, b), (c, d) = turn.tolist()
    return Laid(((a, b), (c, d)), (float(shift[0]), float(shift[1])), likeness)


def _relief(rgb: NDArray[np.uint8], step: int) -> Array:
    """Lightness without the slow changes of light."""
    light = LIGHT_OF_CODE[rgb[::step, ::step]] @ LUMINANCE
    logs = np.log(light + np.float32(0.02))
    return np.asarray(
        scipy.ndimage.gaussian_filter(logs, 1.0) - scipy.ndimage.gaussian_filter(logs, 12.0)
    )


@dataclass(frozen=True)
class _Pair:
    """Both reliefs at one reduced size."""

    earlier: Array
    mask: Bools
    later: Array
    step: int

    def refined(self, start: Laid) -> Laid:
        """Moved to where both agree best: a shift first, then small turns and scales."""
        best = self.shifted(start)
        for fineness in (1.0, 0.4):
            for values, make in ((_TURNS_DEG, self._turned), (_SCALES, self._scaled)):
                tried = [self.shifted(make(best, fineness * value)) for value in values]
                best = max([best, *tried], key=lambda laid: laid.likeness)
        return self.shifted(best)

    def _about_blade(self, laid: Laid, more: Doubles) -> Laid:
        y, x = np.nonzero(self.mask)
        centre = np.array([x.mean(), y.mean()]) * self.step
        turn = np.asarray(laid.turn)
        moved = turn @ more
        return _laid(moved, turn @ centre + np.asarray(laid.shift) - moved @ centre, 0.0)

    def _turned(self, laid: Laid, angle_deg: float) -> Laid:
        return self._about_blade(laid, _turn(np.radians(angle_deg), 1.0))

    def _scaled(self, laid: Laid, more: float) -> Laid:
        return self._about_blade(laid, _turn(0.0, 1 + more))

    def shifted(self, laid: Laid) -> Laid:
        """Shifted by phase correlation of the blade alone, to parts of a pixel."""
        inverse = np.linalg.inv(np.asarray(laid.turn))
        back = -inverse @ np.asarray(laid.shift) / self.step
        swapped = inverse[::-1, ::-1]  # arrays go by (y, x)
        shape = self.later.shape
        warp = {"matrix": swapped, "offset": back[::-1], "output_shape": shape, "order": 1}
        seen = scipy.ndimage.affine_transform(self.earlier, **warp)
        inside = scipy.ndimage.affine_transform(self.mask.astype(np.float32), **warp)
        wide = scipy.ndimage.binary_dilation(inside > 0.5, iterations=_OUTLINE_PX)
        inside = scipy.ndimage.gaussian_filter(wide.astype(np.float32), 2)
        one, other = (_even(each * inside) for each in (seen, self.later))
        dy, dx, likeness = _peak(one, other)
        shift = np.asarray(laid.shift) + np.array([dx, dy]) * self.step
        return _laid(np.asarray(laid.turn), shift, likeness)


def _even(values: Doubles) -> Doubles:
    spread = float(values.std())
    return np.asarray(values / spread if spread > 0 else values)


def _peak(one: Doubles, other: Doubles) -> tuple[float, float, float]:
    """The shift from one to the other, and how much alike they are there."""
    cross = scipy.fft.rfft2(other) * np.conj(scipy.fft.rfft2(one))
    phase = cross / np.maximum(np.abs(cross), 1e-9)
    soft = scipy.fft.irfft2(scipy.ndimage.fourier_gaussian(phase, 1.2, n=one.shape[1]), s=one.shape)
    height, width = one.shape
    reach_y, reach_x = max(4, height // 6), max(4, width // 6)
    near = np.zeros_like(soft)
    for rows in (slice(0, reach_y), slice(height - reach_y, height)):
        for columns in (slice(0, reach_x), slice(width - reach_x, width)):
            near[rows, columns] = soft[rows, columns]
    row, column = np.unravel_index(int(near.argmax()), near.shape)
    dy = _vertex(near, int(row), int(column), 0)
    dx = _vertex(near, int(row), int(column), 1)
    moved = scipy.ndimage.shift(one, (dy, dx), order=1)
    return dy, dx, float(np.clip((moved * other).mean(), 0, 1))


def _vertex(values: Doubles, row: int, column: int, axis: int) -> float:
    """The top of a parabola through the peak and its neighbours; far ends count backwards."""
    size = values.shape[axis]
    at = (row, column)[axis]
    line = values[:, column] if axis == 0 else values[row, :]
    before, here, after = line[(at - 1) % size], line[at], line[(at + 1) % size]
    bend = before - 2 * here + after
    part = 0.5 * (before - after) / bend if bend < 0 else 0.0
    return float((at if at <= size // 2 else at - size) + np.clip(part, -1, 1))
