"""Ratings by rusted area, borrowed from standards that were written for coatings.

References
----------
[1] ISO 10289, rating of corroded metallic coatings: the table decides; R = 3 (2 − log10 A) is the
    idea behind it and rounds differently in places. Table recalled from memory.
[2] ASTM D610, evaluating degree of rusting on painted steel surfaces. Recalled from memory.
[3] ISO 4628-3, degree of rusting, Ri 0 to Ri 5. Recalled from memory.
"""

import math
from dataclasses import dataclass
from typing import Literal

from kessik.core.errors import OutOfRangeError

Standard = Literal["iso_10289", "astm_d610", "iso_4628_3"]
POINTS_A_DECADE = 3.0
"""Rating points between an area and one ten times as large."""
STANDARDS: tuple[Standard, ...] = ("iso_10289", "astm_d610", "iso_4628_3")

_UPPER_PERCENT: dict[Standard, tuple[tuple[float, int], ...]] = {
    "iso_10289": (
        (0.0, 10), (0.1, 9), (0.25, 8), (0.5, 7), (1, 6), (2.5, 5), (5, 4), (10, 3), (25, 2),
        (50, 1), (100, 0),
    ),
    "astm_d610": (
        (0.01, 10), (0.03, 9), (0.1, 8), (0.3, 7), (1, 6), (3, 5), (10, 4), (16, 3), (33, 2),
        (50, 1), (100, 0),
    ),
    "iso_4628_3": ((0.0, 0), (0.05, 1), (0.5, 2), (1, 3), (8, 4), (100, 5)),
}  # fmt: skip  # tables are read by their rows
"""For each grade the largest area, per cent, that still has it."""
_BETTER_IS_MORE: dict[Standard, bool] = {
    "iso_10289": True, "astm_d610": True, "iso_4628_3": False,
}  # fmt: skip


@dataclass(frozen=True)
class Rating:
    """Grade by one standard: of the area itself, and the worst and best that its interval allows.

    `grade` is None where the area is known by its bounds only.
    """

    standard: Standard
    grade: int | None
    worst: int
    best: int

    @property
    def is_one(self) -> bool:
        return self.worst == self.best


def grade_of(standard: Standard, rust_percent: float) -> int:
    """The grade of an area in per cent of the surface [1, 2, 3]; OutOfRangeError outside 0 to
    100.
    """
    if not 0 <= rust_percent <= 100:
        raise OutOfRangeError(
            f"{rust_percent:g} % of a surface is out of range: give 0 to 100 %",
            field="rust_percent",
            value=rust_percent,
        )
    for upper, grade in _UPPER_PERCENT[standard]:
        if rust_percent <= upper:
            return grade
    raise AssertionError("every table ends at 100 %")


def most_percent(standard: Standard, grade: int) -> float:
    """The largest area, per cent, that still has a grade; OutOfRangeError for one it has not."""
    for upper, known in _UPPER_PERCENT[standard]:
        if known == grade:
            return upper
    raise OutOfRangeError(f"there is no grade {grade}", field="grade", value=grade)


def ratings(rust_percent: float | None, low: float, high: float) -> tuple[Rating, ...]:
    """The grades by every standard, of an area with its bounds in per cent."""
    if low > high:
        raise OutOfRangeError(
            f"the minimum, {low:g} %, is above the maximum, {high:g} %", field="low"
        )
    return tuple(
        Rating(
            standard,
            None if rust_percent is None else grade_of(standard, rust_percent),
            grade_of(standard, high),
            grade_of(standard, low),
        )
        for standard in STANDARDS
    )


def area_of(standard: Standard, grade: int) -> tuple[float, float]:
    """The areas, per cent, above the first and up to the second, that have a grade.

    OutOfRangeError where the standard has no such grade.
    """
    below = 0.0
    for upper, each in _UPPER_PERCENT[standard]:
        if each == grade:
            return below, upper
        below = upper
    grades = [each for _, each in _UPPER_PERCENT[standard]]
    raise OutOfRangeError(
        f"there is no grade {grade}; give {min(grades)} to {max(grades)}",
        field="grade",
        value=grade,
    )


def rating_points(rust_percent: float) -> float:
    """The idea behind ISO 10289 [1] as a scale without steps: 3 (2 − log10 A), 12 at most."""
    return POINTS_A_DECADE * (2 - math.log10(max(rust_percent, 0.01)))
