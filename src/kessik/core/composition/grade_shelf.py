"""The grades of a shelf made ready for many assays."""

import difflib
from collections.abc import Mapping
from dataclasses import dataclass
from itertools import takewhile

from kessik.core.composition.grades import Grade, find_grade
from kessik.core.composition.means import Calibration
from kessik.core.composition.separation import overlaps
from kessik.core.composition.table import Floats, GradeTable, grade_table
from kessik.core.errors import UnknownError

_NAMES_SUGGESTED = 3


@dataclass(frozen=True)
class GradeShelf:
    """Grades by their names, as a table, and how far every two of them look alike."""

    grades: Mapping[str, Grade]
    table: GradeTable
    overlap: Floats
    calibration: Calibration

    @classmethod
    def of(
        cls,
        grades: Mapping[str, Grade],
        calibration: Calibration | None = None,
    ) -> "GradeShelf":
        used = calibration or Calibration()
        table = grade_table(grades)
        return cls(grades, table, overlaps(table, used), used)

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
