"""How a mask lies in its picture."""

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from kessik.core.corrosion.photo.colour import Doubles
from kessik.core.corrosion.photo.view import Bools

Point = tuple[float, float]
_Places = NDArray[np.floating] | NDArray[np.integer]


@dataclass(frozen=True)
class Axis:
    """Centre (x, y), direction of the length in radians, and half lengths along and across it."""

    centre: Point
    angle_rad: float
    half_length: float
    half_width: float

    def at(self, along: float, across: float = 0.0) -> Point:
        """The place so far along and across from the centre."""
        x, y = self.places_at(np.array(along), np.array(across))
        return float(x), float(y)

    def places_at(self, along: _Places, across: _Places) -> tuple[Doubles, Doubles]:
        """The places (x, y) so far along and across from the centre."""
        cos, sin = np.cos(self.angle_rad), np.sin(self.angle_rad)
        x, y = self.centre
        return x + along * cos - across * sin, y + along * sin + across * cos

    def seen_from(self, x: _Places, y: _Places) -> tuple[Doubles, Doubles]:
        """How far along and across from the centre places (x, y) lie."""
        cos, sin = np.cos(self.angle_rad), np.sin(self.angle_rad)
        off_x, off_y = x - self.centre[0], y - self.centre[1]
        return off_x * cos + off_y * sin, off_y * cos - off_x * sin

    def times(self, factor: float) -> "Axis":
        """The same axis in a picture of another size."""
        x, y = self.centre
        shifted = ((x + 0.5) * factor - 0.5, (y + 0.5) * factor - 0.5)
        return Axis(shifted, self.angle_rad, self.half_length * factor, self.half_width * factor)

    def turned_round(self) -> "Axis":
        return replace(self, angle_rad=self.angle_rad + np.pi)


def axis_of(mask: Bools) -> Axis:
    """Principal axis of a mask by its second moments; half lengths are those of an equal bar."""
    y, x = np.nonzero(mask)
    cx, cy = float(x.mean()), float(y.mean())
    spread = np.cov(np.stack([x - cx, y - cy]))
    values, vectors = np.linalg.eigh(spread)
    along = vectors[:, 1] if vectors[0, 1] >= 0 else -vectors[:, 1]
    half = np.sqrt(3 * np.maximum(values, 1e-9))
    return Axis((cx, cy), float(np.arctan2(along[1], along[0])), float(half[1]), float(half[0]))


def axis_between(start: Point, end: Point) -> Axis:
    """The axis from one point to another, its centre at the start."""
    dx, dy = end[0] - start[0], end[1] - start[1]
    return Axis(start, float(np.arctan2(dy, dx)), float(np.hypot(dx, dy)), 0.0)
