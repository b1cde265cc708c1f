"""A look without a camera: a grade in words, or spots by count and size; both are intervals."""

import math
from dataclasses import dataclass, replace

from kessik.core.corrosion.course import Bounds
from kessik.core.corrosion.ratings import area_of
from kessik.core.corrosion.soaks import Look
from kessik.core.errors import OutOfRangeError
from kessik.core.limits import check_limit

_SIZE_FACTOR = 2.0
"""An area of spots judged by eye is right to about a factor of two; common practice, no source."""


@dataclass(frozen=True)
class GradeInWords:
    """A grade of ISO 10289, the areas that have it (per cent, above and up to), and what they look
    like on a knife blade.
    """

    grade: int
    above_percent: float
    up_to_percent: float
    looks_like: str


_LOOKS_LIKE = {
    10: "nothing",
    9: "a pinhead or two",
    8: "a few pinheads",
    7: "a sprinkling of pinheads, or one lentil",
    6: "a lentil or two",
    5: "several lentils",
    4: "a fingernail in all",
    3: "a thumbnail in all",
    2: "a quarter of the side at most",
    1: "up to half of the side",
    0: "more than half",
}


def grades_in_words() -> tuple[GradeInWords, ...]:
    """Every grade of ISO 10289, the cleanest first."""
    return tuple(
        GradeInWords(grade, *area_of("iso_10289", grade), words)
        for grade, words in _LOOKS_LIKE.items()
    )


def area_of_spots(count: int, size_mm: float, side_cm2: float) -> Bounds:
    """The share of a side that so many spots cover, per cent, from their usual size across."""
    check_limit("pits", count, "count")
    if not 0 < size_mm <= 100:
        raise OutOfRangeError(f"a spot of {size_mm:g} mm is out of range: give up to 100 mm",
                              field="size_mm")  # fmt: skip
    if not 0.5 <= side_cm2 <= 2000:
        raise OutOfRangeError(
            f"a side of {side_cm2:g} cm² is out of range: give 0.5 to 2000 cm²", field="side_cm2"
        )
    best = 100 * count * math.pi / 4 * (size_mm / 10) ** 2 / side_cm2
    return Bounds(min(best / _SIZE_FACTOR, 100.0), min(best * _SIZE_FACTOR, 100.0), None)


def graded(look: Look, grade: int) -> Look:
    """The look with the area of a grade of ISO 10289."""
    low, high = area_of("iso_10289", grade)
    said = f"ISO 10289 grade {grade}"
    return replace(look, rust_percent=None, rust_low=low, rust_high=high, how="grade", said=said)


def spotted(look: Look, count: int, size_mm: float, side_cm2: float) -> Look:
    """The look with the area of so many spots of a size across on a side."""
    area = area_of_spots(count, size_mm, side_cm2)
    said = f"{count} spots of {size_mm:g} mm on {side_cm2:g} cm²"
    return replace(
        look, rust_percent=None, rust_low=area.low, rust_high=area.high, how="spots", said=said
    )
