"""The grades of a shelf as arrays: ranges with their allowances, and what their melts are like."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from kessik.core.composition.allowances import (
    allowance_percent,
    as_melted,
    least_width_percent,
    residual_limit_percent,
    widened,
)
from kessik.core.composition.elements import ELEMENTS, visibility
from kessik.core.composition.grades import Grade, Range

Floats = NDArray[np.float64]

_EVENLY = 12.0**-0.5
"""Standard deviation of what lies evenly over a range, as a share of its width."""
_OPEN_ABOVE = 0.3
_ANYTHING = 5.0
_ALLOWANCE_USED = 0.5
"""How much of the product allowance pieces use, as a share: common practice, no source."""
_BALANCE, _NEVER_COMPARED = "Fe", frozenset({"Cl", "K", "Ca", "H", "O"})
_TRAMP = {"P": 0.02, "S": 0.02}
_RESIDUAL_SHARE = 0.25
"""Where in its limit a residual usually lies: common practice, no source."""


@dataclass(frozen=True)
class GradeTable:
    """`low` and `high` with allowances, `centre` and `spread` of what melts are like, mass per
    cent, all of shape (grades, elements); `unseen`, shape (grades,), is what no analyser sees of
    each.
    """

    grades: tuple[Grade, ...]
    elements: tuple[str, ...]
    low: Floats
    high: Floats
    centre: Floats
    spread: Floats
    unseen: Floats

    @cached_property
    def _places(self) -> Mapping[str, int]:
        return {grade.name: place for place, grade in enumerate(self.grades)}

    def has(self, name: str) -> bool:
        return name in self._places

    def place(self, name: str) -> int:
        return self._places[name]

    def only(self, names: Sequence[str]) -> "GradeTable":
        """The table of some of its grades, in that order."""
        rows = [self.place(name) for name in names]
        return GradeTable(
            tuple(self.grades[row] for row in rows),
            self.elements,
            self.low[rows],
            self.high[rows],
            self.centre[rows],
            self.spread[rows],
            self.unseen[rows],
        )


def is_compared(symbol: str) -> bool:
    """Whether an element tells grades apart where it was read: neither the balance, nor dirt, nor
    what no method of the trade reads.
    """
    return symbol != _BALANCE and symbol not in _NEVER_COMPARED


COMPARED = tuple(symbol for symbol in ELEMENTS if is_compared(symbol))


def grade_table(grades: Mapping[str, Grade]) -> GradeTable:
    """All grades that have ranges, over every element that an analyser compares: what a grade does
    not list it may only have as a residual.
    """
    kept = tuple(grade for grade in grades.values() if grade.ranges)
    elements = COMPARED
    ends = np.empty((4, len(kept), len(elements)))
    for place, grade in enumerate(kept):
        by_symbol = {found.element: as_melted(found) for found in grade.ranges}
        for column, symbol in enumerate(elements):
            found = by_symbol.get(symbol)
            ends[:, place, column] = (*widened(found, symbol), *expected_content(found, symbol))
    unseen = np.array([_unseen(grade.ranges) for grade in kept])
    low, high, centre, spread = ends
    return GradeTable(kept, elements, low, high, centre, spread, unseen)


def expected_content(found: Range | None, symbol: str) -> tuple[float, float]:
    """Centre and standard deviation of what melts of a grade hold of an element, mass per cent: as
    much as if every content in the range were equally likely.
    """
    if found is None and visibility(symbol) == "not_seen":
        return _ANYTHING, _ANYTHING
    if found is None:
        usual = _TRAMP.get(symbol, _RESIDUAL_SHARE * residual_limit_percent(symbol))
        return usual, usual
    low = found.low_percent or 0.0
    high = found.high_percent if found.high_percent is not None else (1 + _OPEN_ABOVE) * low
    if found.high_percent is None and not low:
        return _ANYTHING, _ANYTHING
    width = high - low + _ALLOWANCE_USED * allowance_percent(symbol, high)
    return 0.5 * (low + high), max(width, least_width_percent(symbol, high)) * _EVENLY


def _unseen(ranges: Sequence[Range]) -> float:
    return sum(r.middle_percent for r in ranges if visibility(r.element) == "not_seen")
