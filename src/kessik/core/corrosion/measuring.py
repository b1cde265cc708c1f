"""How an area was read off a picture: every choice, so that anyone can do it again."""

from dataclasses import dataclass
from typing import Annotated, Literal

import numpy as np
from numpy.typing import NDArray

from kessik.core.corrosion.photo.axes import Point
from kessik.core.corrosion.photo.outline import Outline
from kessik.core.corrosion.photo.view import WORK_PX
from kessik.core.errors import OutOfRangeError
from kessik.core.limits import check_limit, most
from kessik.core.records import Within

BrushKind = Literal["rust", "clean"]
_LEAST_SCALE_PX = 10
METHOD_VERSION = 1
"""Rises when the same choices would give another area."""


@dataclass(frozen=True)
class Stroke:
    """A stroke of the brush: what it says, how wide, and where it went, in picture pixels."""

    kind: BrushKind
    width_px: float
    points: Outline


@dataclass(frozen=True)
class Ends:
    """Both ends of a blade as they were pressed, in picture pixels: its plunge line and its tip."""

    plunge: Point
    tip: Point


@dataclass(frozen=True)
class KnownLength:
    """A length in a picture: two places, and how many mm lie between them."""

    start: Point
    end: Point
    length_mm: Annotated[float, Within("scale_mm")]

    @property
    def mm_per_px(self) -> float:
        return self.length_mm / float(np.hypot(*np.subtract(self.end, self.start)))


@dataclass(frozen=True)
class Measuring:
    """The choices of one measurement, in picture pixels: the blade's outline, the card (None where
    there is none), outlines that do not count, the brush, where the slider stood, and about how
    many pixels along the blade are worked on; `scale` is a known length in the picture.
    """

    outline: Outline
    white_point: tuple[float, float] | None = None
    left_out: tuple[Outline, ...] = ()
    strokes: tuple[Stroke, ...] = ()
    threshold: Annotated[float, Within("rust_threshold")] = 0.5
    least_spot_px: Annotated[float, Within("least_spot_px")] = 3.0
    work_px: Annotated[int, Within("work_px")] = WORK_PX
    scale: KnownLength | None = None
    version: int = METHOD_VERSION


def check_measuring(measuring: Measuring, width_px: int, height_px: int) -> None:
    """Refuse an outline that is none or lies outside the picture, and a card outside of it."""
    check_outline(measuring.outline, width_px, height_px, "outline")
    crossing = crossing_sides(measuring.outline)
    if crossing is not None:
        one, other = crossing
        raise OutOfRangeError(
            f"the outline crosses itself, at the sides after corners {one + 1} and {other + 1}:"
            " press its corners in order around the blade, or drag them apart",
            field="outline",
        )
    for each in measuring.left_out:
        check_outline(each, width_px, height_px, "left_out")
    if sum(len(stroke.points) for stroke in measuring.strokes) > most("brush_points"):
        raise OutOfRangeError("the brush went through too many points", field="strokes")
    check_limit("rust_threshold", measuring.threshold, "threshold")
    check_limit("least_spot_px", measuring.least_spot_px, "least_spot_px")
    check_limit("work_px", measuring.work_px, "work_px")
    if measuring.scale is not None:
        check_scale(measuring.scale, width_px, height_px)
    if measuring.white_point is not None:
        x, y = measuring.white_point
        if not (0 <= x < width_px and 0 <= y < height_px):
            raise OutOfRangeError(
                f"the card at {x:.0f}, {y:.0f} lies outside of a picture of {width_px} ×"
                f" {height_px} pixels",
                field="white_point",
            )


def check_scale(scale: KnownLength, width_px: int, height_px: int) -> None:
    """Refuse a length that is none, or lies outside of the picture."""
    check_limit("scale_mm", scale.length_mm, "scale.length_mm")
    for point in (scale.start, scale.end):
        _check_inside(point, width_px, height_px, "scale")
    if np.hypot(*np.subtract(scale.end, scale.start)) < _LEAST_SCALE_PX:
        raise OutOfRangeError(
            "both ends of the known length lie on one place: press further apart",
            field="scale",
        )


def check_ends(ends: Ends, width_px: int, height_px: int) -> None:
    """Refuse an end that lies outside of the picture."""
    _check_inside(ends.plunge, width_px, height_px, "plunge")
    _check_inside(ends.tip, width_px, height_px, "tip")


def _check_inside(point: Point, width_px: int, height_px: int, field: str) -> None:
    x, y = point
    if not (0 <= x <= width_px and 0 <= y <= height_px):
        raise OutOfRangeError(
            f"{x:.0f}, {y:.0f} lies outside of the picture, which has {width_px} × {height_px}"
            " pixels",
            field=field,
        )


def check_outline(outline: Outline, width_px: int, height_px: int, field: str) -> None:
    """Refuse fewer than three corners, and an outline that lies wholly outside the picture."""
    if len(outline) < 3:
        raise OutOfRangeError("draw around the blade first: an outline has three corners or more",
                              field=field)  # fmt: skip
    if len(outline) > most("corners"):
        raise OutOfRangeError(f"an outline has up to {most('corners')} corners", field=field)
    if not any(0 <= x <= width_px and 0 <= y <= height_px for x, y in outline):
        raise OutOfRangeError(
            f"this outline lies outside of the picture, which has {width_px} × {height_px} pixels",
            field=field,
        )


def crossing_sides(outline: Outline) -> tuple[int, int] | None:
    """The first two sides of an outline that cross, by the places of the corners they begin at;
    None where it goes round once.

    Two segments cross where the ends of each lie on either side of the other [1].

    References
    ----------
    [1] T. H. Cormen et al., Introduction to Algorithms, on computational geometry; from memory.
    """
    start = np.array(outline, dtype=float).reshape(-1, 2)
    count = len(start)
    if count < 4:
        return None
    end = np.roll(start, -1, axis=0)
    side = end - start

    def turn(points: NDArray[np.float64]) -> NDArray[np.float64]:
        """On which side of each side (rows) each point (columns) lies."""
        away = points[None, :, :] - start[:, None, :]
        return np.asarray(
            np.sign(side[:, None, 0] * away[:, :, 1] - side[:, None, 1] * away[:, :, 0])
        )

    of_start, of_end = turn(start), turn(end)
    parted = of_start * of_end < 0
    crosses = np.triu(parted & parted.T, k=2)
    crosses[0, count - 1] = False
    found = np.argwhere(crosses)
    return (int(found[0][0]), int(found[0][1])) if len(found) else None


def is_same_place(one: Outline, other: Outline) -> bool:
    """Whether two outlines go round one thing: the middle of each lies inside the other."""
    return _holds(one, _middle(other)) and _holds(other, _middle(one))


def _middle(outline: Outline) -> Point:
    x, y = np.mean(np.array(outline, dtype=float).reshape(-1, 2), axis=0)
    return float(x), float(y)


def _holds(outline: Outline, point: Point) -> bool:
    """Whether a point lies inside: a ray from it crosses the sides an odd number of times."""
    start = np.array(outline, dtype=float).reshape(-1, 2)
    end = np.roll(start, -1, axis=0)
    x, y = point
    spans = (start[:, 1] > y) != (end[:, 1] > y)
    rise = np.where(spans, end[:, 1] - start[:, 1], 1.0)
    crossing_x = start[:, 0] + (y - start[:, 1]) * (end[:, 0] - start[:, 0]) / rise
    return bool(np.count_nonzero(spans & (crossing_x > x)) % 2)
