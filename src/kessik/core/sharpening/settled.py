"""Which edges count: the rule is fixed before cutting, because leaving one out for its result is
how people fool themselves.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from kessik.core.limits import check_limit

RuleKind = Literal["every_edge", "edge_number", "steel_removed"]
SettledState = Literal["settled", "not_yet", "factory", "unknown"]
SettledWhy = Literal[
    "factory", "own_word", "every_edge", "place", "least_place", "steel_gone", "steel_not_known"
]
Since = Literal["new", "damage"]


@dataclass(frozen=True)
class SettledRule:
    """An edge counts from a number of sharpenings, or a height of steel removed (mm), since new or
    since damage.
    """

    kind: RuleKind = "edge_number"
    edge_number: int = 3
    steel_removed_mm: float = 0.5

    def check(self) -> None:
        check_limit("settled_edge_number", self.edge_number, "settled_edge_number")
        check_limit("settled_steel_removed_mm", self.steel_removed_mm, "settled_steel_removed_mm")


@dataclass(frozen=True)
class Sharpening:
    """What the rule looks at in one edge; `overrule` is the tester's own word with the reason that
    stays visible. `is_least` where there may have been more sharpenings before than its number.
    """

    number: int
    factory: bool = False
    damaged: bool = False
    steel_removed_mm: float | None = None
    overrule: bool | None = None
    overrule_reason: str = ""
    is_least: bool = False


@dataclass(frozen=True)
class Settled:
    """Whether an edge counts, and why: its place or the steel gone since new or since damage, or
    the tester's own reason.
    """

    state: SettledState
    why: SettledWhy
    since: Since = "new"
    place: int = 0
    gone_mm: float = 0.0
    reason: str = ""

    @property
    def counts(self) -> bool:
        return self.state == "settled"


def settled(number: int, sharpenings: Sequence[Sharpening], rule: SettledRule) -> Settled:
    """Judge the edge of this number among all recorded sharpenings of its blade.

    Damage on an edge starts the count anew with the next one. A factory edge never counts: it says
    how the maker sharpens. Unknown where the rule needs steel removed and a sharpening does not
    tell, and where a number that may be larger does not reach the rule's.
    """
    ordered = sorted(sharpenings, key=lambda s: s.number)
    own = next((s for s in ordered if s.number == number), Sharpening(number))
    if own.factory:
        return Settled("factory", "factory")
    if own.overrule is not None:
        state: SettledState = "settled" if own.overrule else "not_yet"
        return Settled(state, "own_word", reason=own.overrule_reason)
    damaged_at = max((s.number for s in ordered if s.damaged and s.number < number), default=0)
    since: Since = "damage" if damaged_at else "new"
    if rule.kind == "every_edge":
        return Settled("settled", "every_edge")
    if rule.kind == "edge_number":
        place = number - damaged_at
        if place >= rule.edge_number:
            return Settled("settled", "place", since, place)
        if _may_be_later(ordered, damaged_at, number):
            return Settled("unknown", "least_place", since, place)
        return Settled("not_yet", "place", since, place)
    since_then = [s for s in ordered if damaged_at < s.number <= number]
    known = [s.steel_removed_mm for s in since_then if s.steel_removed_mm is not None]
    gone = sum(known)
    if gone >= rule.steel_removed_mm:
        return Settled("settled", "steel_gone", since, gone_mm=gone)
    if len(known) < number - damaged_at:
        return Settled("unknown", "steel_not_known", since)
    return Settled("not_yet", "steel_gone", since, gone_mm=gone)


def _may_be_later(ordered: Sequence[Sharpening], damaged_at: int, number: int) -> bool:
    """Whether an edge may have had more sharpenings before it than its number says."""
    return any(s.is_least for s in ordered if damaged_at < s.number <= number)
