"""The grades of a shelf made ready for many assays."""

import difflib
from collections.abc import Collection, Mapping
from dataclasses import dataclass
from functools import cached_property
from itertools import takewhile

import numpy as np

from kessik.core.composition.grades import Grade, find_grade
from kessik.core.composition.means import Calibration
from kessik.core.composition.separation import looks_variance, overlaps
from kessik.core.composition.table import Floats, GradeTable, grade_table
from kessik.core.errors import UnknownError

_NAMES_SUGGESTED = 3


@dataclass(frozen=True)
class GradeShelf:
    """Grades by their names, as a table, and the calibration of the analyser they are read by."""

    grades: Mapping[str, Grade]
    table: GradeTable
    calibration: Calibration

    @classmethod
    def of(
        cls, grades: Mapping[str, Grade], calibration: Calibration | None = None
    ) -> "GradeShelf":
        return cls(grades, grade_table(grades), calibration or Calibration())

    @cached_property
    def _variance(self) -> Floats:
        return looks_variance(self.table, self.calibration)

    def overlap_with(self, name: str, also: Collection[str] = ()) -> Floats:
        """How far a grade looks like every other to the analyser, shape (grades,); `also` names the
        elements that another method has read.
        """
        place = self.table.place(name)
        return np.asarray(overlaps(self.table, self._variance, [place], also)[0])

    def all_overlaps(self) -> Floats:
        """How far every two grades look alike, shape (grades, grades)."""
        return overlaps(self.table, self._variance, range(len(self.table.grades)))

    def claimed(self, claim: str, field: str = "claim") -> Grade:
        """The grade of a claim; UnknownError with the nearest names where no grade with a
        composition bears it.
        """
        found = find_grade(claim, self.grades)
        if found is None:
            names = [*self.grades, *(other for g in self.grades.values() for other in g.also)]
            close = difflib.get_close_matches(claim, names, 4 * _NAMES_SUGGESTED, 0.6)
            close.sort(key=lambda name: -_begin_alike(name, claim))
            nearest = " or ".join(f"“{name}”" for name in close[:_NAMES_SUGGESTED])
            hint = f"; is {nearest} meant?" if close else ""
            raise UnknownError(f"no grade on the shelf is called “{claim}”{hint}", field=field)
        if not found.ranges:
            raise UnknownError(
                f"the shelf knows {found.name} but not what it is made of; add its ranges first",
                field=field,
            )
        return found


def _begin_alike(one: str, other: str) -> int:
    """How many letters two names have in common from their first on."""
    alike = (a == b for a, b in zip(one, other, strict=False))
    return sum(1 for _ in takewhile(bool, alike))
