"""One variable over all blades: its values, who agrees with whom, and the cells that come of it."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from kessik.core.comparison.compared_facts import (
    BladeFacts,
    Cell,
    EdgeValue,
    Fact,
    MatchingRule,
    MatchState,
)
from kessik.core.comparison.findings import Mismatch, Open, Unlike
from kessik.core.comparison.scales import Floats, scale_of
from kessik.core.comparison.variables import Variable
from kessik.core.spreads import READING_SCATTER, Z_95

_TINY = 1e-9


@dataclass(frozen=True)
class ComparedColumn:
    """One variable over all blades, with what every column needs to say."""

    variable: Variable
    blades: Sequence[BladeFacts]
    values: Sequence[Sequence[Fact]]
    facts: Sequence[Fact]
    rule: MatchingRule

    @classmethod
    def of(
        cls, variable: Variable, blades: Sequence[BladeFacts], rule: MatchingRule
    ) -> "ComparedColumn":
        values = [_values(blade, variable) for blade in blades]
        return cls(variable, blades, values, [_together(variable, own) for own in values], rule)

    @property
    def is_unrecorded(self) -> bool:
        """Nobody recorded it for any blade, and it is not one that is always asked for."""
        known = any(fact.value is not None or fact.stale is not None for fact in self.facts)
        return not self.variable.asked and not known

    def all(self, state: MatchState) -> list[Cell]:
        return [self.cell(i, state) for i in range(len(self.blades))]

    def cell(self, i: int, state: MatchState, finding: Mismatch | Open | None = None) -> Cell:
        fact = self.facts[i]
        standing = fact.standing if fact.value is not None else None
        shown = show(self.variable, self.values[i], fact)
        if state == "matched" and fact.value is None:
            shown = "one blade"
        return Cell(
            self.blades[i].code, self.variable.name, fact.value, shown, standing, state, finding
        )

    def pending(self, i: int) -> Cell:
        fact = self.facts[i]
        if fact.stale is not None:
            return self.open(i, Open(self.code(i), self.variable.name, "stale", stale=fact.stale))
        if fact.value is None:
            return self.open(i, Open(self.code(i), self.variable.name, "not_known"))
        return self.open(
            i, Open(self.code(i), self.variable.name, "not_measured", standing=fact.standing)
        )

    def open(self, i: int, finding: Open) -> Cell:
        return self.cell(i, "pending", finding)

    def code(self, i: int) -> str:
        return self.blades[i].code

    def confounded(
        self,
        i: int,
        how: Unlike,
        value: float | str | None = None,
        other: int | None = None,
        other_value: float | str | None = None,
        difference: float | None = None,
    ) -> Cell:
        """The mismatch with another blade (or of a blade's own edges), with the size that the
        assumption gives.
        """
        effect = self.rule.effect(self.variable)
        sized = how == "number" and effect is not None and difference is not None
        found = Mismatch(
            self.code(i),
            self.variable.name,
            how,
            value,
            other_value,
            "" if other is None else self.code(other),
            difference,
            abs(difference) * effect if sized and effect and difference is not None else None,
        )
        return self.cell(i, "confounded", found)


def _values(blade: BladeFacts, variable: Variable) -> list[Fact]:
    if variable.kind == "hardness":
        return [blade.hardness_hrc]
    if variable.kind == "steel":
        return [Fact(blade.grade)]
    if variable.of == "blade":
        return [blade.own.get(variable.name, Fact())]
    return [_fact(value) for value in blade.edges.get(variable.name, ())]


def _fact(value: EdgeValue) -> Fact:
    return (
        value
        if isinstance(value, Fact)
        else Fact(float(value) if isinstance(value, int | float) else value)
    )


def _together(variable: Variable, values: Sequence[Fact]) -> Fact:
    """The edges of one blade as one fact: their mean where all are known, else the first that is
    not.
    """
    if not values:
        return Fact()
    missing = next((v for v in values if not v.evidence), None)
    if missing is not None:
        return missing
    numbers = [v.value for v in values if isinstance(v.value, float)]
    if len(numbers) != len(values):
        return values[0]
    readings = math.fsum(v.readings for v in values)
    if variable.kind == "start":
        readings = _worth_in_readings(numbers, readings)
    return Fact(math.fsum(numbers) / len(numbers), values[0].standing, values[0].kind, readings)


def _worth_in_readings(starts_gf: Sequence[float], readings: float) -> float:
    """How many single readings a mean start is worth: fewer than were taken where the edges
    themselves start apart.
    """
    if len(starts_gf) < 2:
        return readings
    logs = [math.log(start) for start in starts_gf]
    mean, count = math.fsum(logs) / len(logs), len(logs)
    of_edges = math.fsum((value - mean) ** 2 for value in logs) / (count - 1) / count
    return READING_SCATTER**2 / max(READING_SCATTER**2 / readings, of_edges)


def show(variable: Variable, values: Sequence[Fact], fact: Fact) -> str:
    """A cell's value as it stands in the matrix."""
    if fact.stale is not None:
        return f"about {variable.shown(fact.stale.now_mm or fact.stale.was_mm)}"
    if fact.value is None:
        return "not known"
    if variable.kind == "micro_bevel" and fact.value == 0:
        return "none"
    if isinstance(fact.value, str):
        return fact.value
    apart = span(values)
    mean = " mean" if apart is not None and apart >= 0.5 * 10**-variable.decimals else ""
    return f"{variable.shown(fact.value)}{mean}{f', {fact.kind}' if fact.kind else ''}"


def span(values: Iterable[Fact]) -> float | None:
    """How far the edges of one blade lie apart; None where fewer than two are numbers."""
    numbers = [v.value for v in values if isinstance(v.value, float)]
    return max(numbers) - min(numbers) if len(numbers) > 1 else None


def are_alike(column: ComparedColumn, values: Sequence[Fact]) -> bool:
    """Whether the edges of one blade agree among themselves with the first; starts may differ, that
    is their error.
    """
    if column.variable.kind == "start":
        return True
    own = [v for v in values if v.evidence]
    if len({(v.value, v.kind) for v in own}) < 2:
        return True
    numbers = [v.value for v in own if isinstance(v.value, float)]
    if column.variable.kind == "absolute" and len(numbers) == len(own):
        limit = column.rule.tolerance(column.variable) + _TINY
        return all(abs(number - numbers[0]) <= limit for number in numbers)
    return bool(_agreements(column, own)[0].all())


def most_agreed(column: ComparedColumn, known: Sequence[int]) -> tuple[int | None, dict[int, bool]]:
    """The blade whose value most others agree with, and who of the known does.

    Of equals it is the one nearest the middle, then the first.
    """
    if not known:
        return None, {}
    facts = [column.facts[i] for i in known]
    agreements = _agreements(column, facts)
    numbers = [fact.value for fact in facts if isinstance(fact.value, float)]
    away: Floats = np.zeros(len(facts))
    if len(numbers) == len(facts):
        away = np.abs(np.array(numbers) - float(np.median(numbers))).round(9)
    best = int(np.lexsort((np.arange(len(facts)), away, -agreements.sum(axis=1)))[0])
    return known[best], dict(zip(known, agreements[best].tolist(), strict=True))


def _agreements(column: ComparedColumn, facts: Sequence[Fact]) -> NDArray[np.bool_]:
    """Who agrees with whom within the trial's tolerance, for a whole column at once; shape (facts,
    facts).
    """
    numbers: Floats = np.array(
        [fact.value for fact in facts if isinstance(fact.value, float)], dtype=np.float64
    )
    if len(numbers) != len(facts):
        words = np.array([str(fact.value).strip().casefold() for fact in facts])
        return np.asarray(words[:, None] == words[None, :])
    scale = scale_of(column.variable.kind)
    x, limit = scale.on(numbers), scale.limit(column.rule.tolerance(column.variable))
    reach = np.full((len(facts), len(facts)), limit + _TINY)
    if column.variable.kind == "start":
        share = 1.0 / np.array([fact.readings for fact in facts])
        reach += Z_95 * READING_SCATTER * np.sqrt(share[:, None] + share[None, :])
    close = np.abs(x[:, None] - x[None, :]) <= reach
    if column.variable.kind == "ratio":
        kinds = np.array([fact.kind.casefold() for fact in facts])
        named = kinds != ""
        close &= (kinds[:, None] == kinds[None, :]) | ~named[:, None] | ~named[None, :]
    return np.asarray(close)


def agree(column: ComparedColumn, a: Fact, b: Fact) -> bool:
    """Whether two values agree within the trial's tolerance."""
    if a is b or (a.value == b.value and a.kind == b.kind):
        return True
    return bool(_agreements(column, (a, b))[0, 1])
