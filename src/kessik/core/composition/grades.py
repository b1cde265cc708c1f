"""Grades: what a designation promises of each element, how it is made and hardened, what it is
called elsewhere.
"""

import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Literal

from kessik.core.composition.elements import element
from kessik.core.errors import OutOfRangeError
from kessik.core.facts import Provenance
from kessik.core.limits import LIMITS, most
from kessik.core.records import Within

RangeStanding = Literal[
    "standard", "literature", "measured_here", "measured_elsewhere", "claimed", "recalled",
    "guessed",
]  # fmt: skip  # a table is read by its rows
RANGE_STANDINGS: tuple[RangeStanding, ...] = (
    "standard", "literature", "measured_here", "measured_elsewhere", "claimed", "recalled",
    "guessed",
)  # fmt: skip  # a table is read by its rows
"""How a range is known; *recalled* is from memory, until someone holds it against the standard."""

Route = Literal["", "ingot", "powder", "spray_formed", "remelted"]
ROUTES: tuple[Route, ...] = ("", "ingot", "powder", "spray_formed", "remelted")
Nearness = Literal["same", "near"]


@dataclass(frozen=True)
class Range:
    """What a grade promises of one element, mass per cent; None is an open end."""

    element: str
    low_percent: float | None
    high_percent: float | None
    standing: RangeStanding = "recalled"
    source: str = ""

    @property
    def is_recalled(self) -> bool:
        return self.standing == "recalled"

    @property
    def is_nominal(self) -> bool:
        """Whether one figure is stated, as in sheets, and no range."""
        return self.low_percent is not None and self.low_percent == self.high_percent

    @property
    def middle_percent(self) -> float:
        """Halfway, an open low end taken as nothing and an open high end as a little above the
        low.
        """
        low = self.low_percent or 0.0
        high = self.high_percent if self.high_percent is not None else 1.3 * low
        return 0.5 * (low + high)


@dataclass(frozen=True)
class Equivalent:
    """Another standard's name for a grade: the *same* steel, or only *near* to it."""

    name: str
    nearness: Nearness


@dataclass(frozen=True)
class Grade:
    """A steel designation: its composition, making route, equivalents and usual hardness.

    `also` are other names of the very same entry. `standing` and `source` are those of the usual
    hardness; each range has its own.
    """

    name: str
    usual_low_hrc: float | None = None
    usual_high_hrc: float | None = None
    standing: Provenance = "guessed"
    source: str = ""
    also: Annotated[tuple[str, ...], Within("elements")] = ()
    standard: str = ""
    route: Route = ""
    ranges: Annotated[tuple[Range, ...], Within("elements")] = ()
    equivalents: Annotated[tuple[Equivalent, ...], Within("elements")] = ()

    def range_of(self, symbol: str) -> Range | None:
        return next((found for found in self.ranges if found.element == symbol), None)

    def middle(self, symbol: str) -> float:
        """The middle of an element's range in mass per cent; 0 where the grade does not list it."""
        found = self.range_of(symbol)
        return found.middle_percent if found else 0.0

    @property
    def is_recalled(self) -> bool:
        """Whether any of its ranges is known from memory only."""
        return any(found.is_recalled for found in self.ranges)


def name_key(name: str) -> str:
    """What two spellings of one designation have in common."""
    return re.sub(r"[\s·_-]+", "", name).casefold()


def find_grade(name: str, grades: Mapping[str, Grade]) -> Grade | None:
    """The grade of a name, by its own designation first, then by another name of its entry."""
    exact = grades.get(name.strip())
    if exact is not None:
        return exact
    key = name_key(name)
    if not key:
        return None
    by_name = (g for g in grades.values() if name_key(g.name) == key)
    by_other = (g for g in grades.values() if key in {name_key(other) for other in g.also})
    return next(by_name, None) or next(by_other, None)


def confirmed(grade: Grade, source: str) -> Grade:
    """The grade with every range that was recalled from memory held against its source."""
    said = source.strip() or grade.standard
    if not said:
        raise OutOfRangeError("name what the values were checked against", field="source")
    ranges = tuple(
        replace(found, standing="standard", source=said) if found.is_recalled else found
        for found in grade.ranges
    )
    return replace(grade, ranges=ranges)


def range_faults(ranges: Sequence[Range]) -> list[tuple[int, str, str]]:
    """All that is wrong with the ranges of one grade: the place, the field and the message."""
    faults: list[tuple[int, str, str]] = []
    seen: set[str] = set()
    for place, found in enumerate(ranges):
        try:
            symbol = element(found.element).symbol
        except OutOfRangeError as error:
            faults.append((place, "element", error.message))
            continue
        if symbol in seen:
            faults.append((place, "element", f"{symbol} is listed twice in this grade"))
        seen.add(symbol)
        faults.extend((place, field, message) for field, message in _end_faults(found))
    lows = sum(max(found.low_percent or 0.0, 0.0) for found in ranges if found.element != "Fe")
    if lows > most("percent"):
        message = f"the minimum contents add up to {lows:g} %, more than 100 %"
        faults.append((0, "min_percent", message))
    return faults


def _end_faults(found: Range) -> Iterable[tuple[str, str]]:
    low, high = found.low_percent, found.high_percent
    for field, value in (("min_percent", low), ("max_percent", high)):
        if value is not None and not LIMITS["percent"].holds(value):
            yield field, LIMITS["percent"].says(f"{value:g}")
    if low is not None and high is not None and low > high:
        yield "min_percent", f"the minimum, {low:g} %, is above the maximum, {high:g} %"


def check_ranges(ranges: Sequence[Range]) -> tuple[Range, ...]:
    """The ranges with their symbols as they are written; OutOfRangeError naming the first field at
    fault, with all of them in its message.
    """
    faults = range_faults(ranges)
    if faults:
        place, field, _ = faults[0]
        said = "; ".join(message for _, _, message in faults)
        raise OutOfRangeError(said, field=f"ranges.{place}.{field}")
    return tuple(replace(found, element=element(found.element).symbol) for found in ranges)
