"""Matching: what is held equal between blades, what is not, what is unknown, and what a mismatch
may do.
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from kessik.core.comparison.findings import Claimed, Mismatch, Open, OpenKind, Unlike
from kessik.core.comparison.variables import FACTORS, VARIABLES, Variable
from kessik.core.facts import MEASURED, Expected, Provenance
from kessik.core.sharpening.settled import Settled

__all__ = [
    "FACTORS",
    "VARIABLES",
    "BladeFacts",
    "Cell",
    "Fact",
    "MatchingRule",
    "Variable",
    "match",
]

HardnessReading = Literal["same_hardness", "as_usually_hardened"]
MatchState = Literal["matched", "factor", "confounded", "pending"]

Floats = NDArray[np.float64]

_READING_SCATTER = (
    0.07  # of one edge-force reading, on the log scale: the prior of the life estimate
)
_TINY = 1e-9


@dataclass(frozen=True)
class Fact:
    """A value with how it is known; `value` None where it is not. `stale` tells of one that was."""

    value: float | str | None = None
    standing: Provenance = "measured_here"
    kind: str = ""
    readings: float = 1
    stale: Expected | None = None

    @property
    def evidence(self) -> bool:
        return self.value is not None and self.standing in MEASURED


EdgeValue = Fact | float | str | None


@dataclass(frozen=True)
class BladeFacts:
    """What is known of one blade and of the edges it was (or will be) cut with.

    `edges` holds, by variable name, one value per edge; `own` the facts of the blade itself.
    A micro-bevel of 0 says that there is none. `settled` tells of each edge whether it counts.
    `body` is the blade that carries it, where several arms may share one.
    """

    code: str
    grade: str | None = None
    hardness_hrc: Fact = field(default_factory=Fact)
    usual_hardness_hrc: tuple[float, float] | None = None
    edges: Mapping[str, Sequence[EdgeValue]] = field(default_factory=dict)
    own: Mapping[str, Fact] = field(default_factory=dict)
    settled: Sequence[tuple[int, Settled]] = ()
    body: str = ""
    claim: Claimed | None = None


@dataclass(frozen=True)
class MatchingRule:
    """The trial's stand: its factor, which reading of hardness it takes, and what it knowingly
    holds loosely.

    `tolerances` and `effects` (per cent of life a unit) replace the defaults by variable name;
    variables `let_go` are knowingly not held equal; `scale_edge_length` puts counts on one edge
    length instead of matching lengths.
    """

    factor: str = "steel"
    hardness_reading: HardnessReading = "same_hardness"
    tolerances: Mapping[str, float] = field(default_factory=dict)
    effects: Mapping[str, float] = field(default_factory=dict)
    let_go: tuple[str, ...] = ()
    scale_edge_length: bool = False

    def tolerance(self, variable: Variable) -> float:
        return self.tolerances.get(variable.name, variable.tolerance)

    def effect(self, variable: Variable) -> float | None:
        return self.effects.get(variable.name, variable.life_percent_per_unit)

    def held(self, variables: Sequence[Variable] = VARIABLES) -> list[Variable]:
        """The variables of a table that this trial looks at."""
        return [v for v in variables if v.name not in self.let_go]


@dataclass(frozen=True)
class Cell:
    """One blade at one variable: value, how it is shown, standing, state, and what was found where
    it is not simply matched.
    """

    blade: str
    variable: str
    value: float | str | None
    shown: str
    standing: Provenance | None
    state: MatchState
    finding: Mismatch | Open | None = None


def shown_by_runs(
    known: BladeFacts,
    starts: Sequence[tuple[float, int]],
    lengths_mm: Sequence[float | None],
) -> BladeFacts:
    """The facts of a blade with what its runs show in place of what was recorded before: the mean
    force (gf) and number of first readings, and the length of edge that worked.
    """
    edges: dict[str, Sequence[EdgeValue]] = dict(known.edges)
    if starts:
        edges["start_gf"] = [Fact(start_gf, readings=readings) for start_gf, readings in starts]
    if lengths_mm and None not in lengths_mm:
        edges["edge_length_mm"] = lengths_mm
    return replace(known, edges=edges)


def shared_blade(blades: Sequence[BladeFacts]) -> str:
    """The blade that carries all of these arms; empty where there are several."""
    bodies = {blade.body for blade in blades}
    return bodies.pop() if len(bodies) == 1 and len(blades) > 1 else ""


def match(
    blades: Sequence[BladeFacts],
    rule: MatchingRule,
    variables: Sequence[Variable] = VARIABLES,
) -> list[Cell]:
    """Every blade at every variable held equal, against the value that most others agree with.

    A variable that nobody recorded for any blade has no cells, unless it is one that is always
    asked for.
    """
    return [cell for variable in rule.held(variables) for cell in _column(variable, blades, rule)]


def not_recorded(
    blades: Sequence[BladeFacts],
    rule: MatchingRule,
    variables: Sequence[Variable] = VARIABLES,
) -> list[Variable]:
    """Variables held equal by word only, because nobody recorded them for any blade."""
    seen = {cell.variable for cell in match(blades, rule, variables)}
    return [v for v in rule.held(variables) if v.name not in seen]


def _column(variable: Variable, blades: Sequence[BladeFacts], rule: MatchingRule) -> list[Cell]:
    if variable.kind == "settled":
        return _settled(variable, blades)
    values = [_values(blade, variable) for blade in blades]
    facts = [_together(variable, own) for own in values]
    if not variable.asked and all(fact.value is None and fact.stale is None for fact in facts):
        return []
    column = _Column(variable, blades, values, facts, rule)
    if variable.of == "blade" and shared_blade(blades):
        return [column.cell(i, "matched") for i in range(len(blades))]
    if variable.name == "grade":
        return _steel(column)
    if rule.factor in variable.factors:
        return [column.cell(i, "factor") for i in range(len(blades))]
    if variable.kind == "micro_bevel":
        return _micro_bevel(column)
    if variable.kind == "hardness" and rule.hardness_reading == "as_usually_hardened":
        return [_usual_hardness(column, i) for i in range(len(blades))]
    if variable.name == "edge_length_mm" and rule.scale_edge_length:
        return [column.cell(i, "matched" if f.evidence else "pending") for i, f in enumerate(facts)]
    return _against_the_others(column)


@dataclass(frozen=True)
class _Column:
    """One variable over all blades, with what every column needs to say."""

    variable: Variable
    blades: Sequence[BladeFacts]
    values: Sequence[Sequence[Fact]]
    facts: Sequence[Fact]
    rule: MatchingRule

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


def _steel(column: _Column) -> list[Cell]:
    """The steel that each is sold as: what an assay excludes is a mismatch, and what it leaves open
    is open, whatever the trial asks.
    """
    varies = column.rule.factor in column.variable.factors
    plain = (
        [column.cell(i, "factor") for i in range(len(column.blades))]
        if varies
        else _against_the_others(column)
    )
    return [_as_assayed(column, i, cell) for i, cell in enumerate(plain)]


def _as_assayed(column: _Column, i: int, cell: Cell) -> Cell:
    claim, name = column.blades[i].claim, column.variable.name
    if claim is None:
        return replace(cell, standing="claimed") if cell.standing else cell
    if claim.standing == "excluded":
        found = Mismatch(column.code(i), name, "claim_excluded", claim.grade, claim=claim)
        return replace(cell, state="confounded", finding=found, standing="claimed")
    if claim.standing == "consistent":
        return replace(cell, standing="measured_here")
    why: OpenKind = "claim_away" if claim.standing == "away" else "claim_undecidable"
    if cell.state == "confounded":
        return replace(cell, standing="claimed")
    opened = Open(column.code(i), name, why, claim=claim)
    return replace(cell, state="pending", finding=opened, standing="claimed")


def _against_the_others(column: _Column) -> list[Cell]:
    known = [i for i, fact in enumerate(column.facts) if fact.evidence]
    reference, fits = _most_agreed(column, known)
    cells = []
    for i in range(len(column.facts)):
        if reference is None or i not in fits:
            cells.append(_partly_known(column, i, reference))
        elif not fits[i]:
            cells.append(_mismatch(column, i, reference))
        elif not _alike(column, column.values[i]):
            span = _span(column.values[i])
            cells.append(column.confounded(i, "own_edges", difference=span))
        else:
            cells.append(column.cell(i, "matched"))
    return cells


def _alike(column: _Column, values: Sequence[Fact]) -> bool:
    """Whether the edges of one blade agree among themselves with the first; starts may differ, that
    is their error.
    """
    if column.variable.name == "start_gf":
        return True
    own = [v for v in values if v.evidence]
    if len({(v.value, v.kind) for v in own}) < 2:
        return True
    numbers = [v.value for v in own if isinstance(v.value, float)]
    if column.variable.kind == "absolute" and len(numbers) == len(own):
        limit = column.rule.tolerance(column.variable) + _TINY
        return all(abs(number - numbers[0]) <= limit for number in numbers)
    return bool(_agreements(column, own)[0].all())


def _partly_known(column: _Column, i: int, reference: int | None) -> Cell:
    """One edge's value is still open; what is known of the others may forbid a comparison
    already.
    """
    odd = [
        v.value
        for v in column.values[i]
        if v.evidence and reference is not None and not _agree(column, v, column.facts[reference])
    ]
    if not odd or reference is None:
        return column.pending(i)
    there = column.facts[reference].value
    return column.confounded(i, "one_edge", odd[0], reference, there)


def _most_agreed(column: _Column, known: Sequence[int]) -> tuple[int | None, dict[int, bool]]:
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


def _agreements(column: _Column, facts: Sequence[Fact]) -> NDArray[np.bool_]:
    """Who agrees with whom within the trial's tolerance, for a whole column at once; shape (facts,
    facts).
    """
    numbers: Floats = np.array(
        [fact.value for fact in facts if isinstance(fact.value, float)], dtype=np.float64
    )
    if len(numbers) != len(facts):
        words = np.array([str(fact.value).strip().casefold() for fact in facts])
        return np.asarray(words[:, None] == words[None, :])
    x, limit = _on_scale(column, numbers)
    reach = np.full((len(facts), len(facts)), limit + _TINY)
    if column.variable.name == "start_gf":
        share = 1.0 / np.array([fact.readings for fact in facts])
        reach += 1.96 * _READING_SCATTER * np.sqrt(share[:, None] + share[None, :])
    close = np.abs(x[:, None] - x[None, :]) <= reach
    if column.variable.kind == "ratio":
        kinds = np.array([fact.kind.casefold() for fact in facts])
        named = kinds != ""
        close &= (kinds[:, None] == kinds[None, :]) | ~named[:, None] | ~named[None, :]
    return np.asarray(close)


def _on_scale(column: _Column, numbers: Floats) -> tuple[Floats, float]:
    """Values on the scale they are compared on, and how far apart they may lie there."""
    variable, tolerance = column.variable, column.rule.tolerance(column.variable)
    if variable.kind == "ratio":
        return np.log(numbers), math.log(tolerance)
    if variable.kind == "relative":
        return np.log(numbers), math.log1p(tolerance / 100.0)
    return numbers, tolerance


def _agree(column: _Column, a: Fact, b: Fact) -> bool:
    """Whether two values agree within the trial's tolerance."""
    if a is b or (a.value == b.value and a.kind == b.kind):
        return True
    return bool(_agreements(column, (a, b))[0, 1])


def _mismatch(column: _Column, i: int, reference: int) -> Cell:
    variable, fact, other = column.variable, column.facts[i], column.facts[reference]
    if not isinstance(fact.value, float) or not isinstance(other.value, float):
        return column.confounded(i, "word", fact.value, reference, other.value)
    away = fact.value - other.value
    if variable.kind == "ratio" and _is_near(column, fact.value, other.value):
        return column.confounded(i, "kind", fact.kind, reference, other.kind)
    if variable.kind == "relative":
        percent = 100.0 * abs(away) / other.value
        return column.confounded(i, "percent", fact.value, reference, other.value, percent)
    return column.confounded(i, "number", fact.value, reference, other.value, away)


def _is_near(column: _Column, a: float, b: float) -> bool:
    """Whether two sizes lie within the factor that is allowed, and so differ only in kind."""
    return abs(math.log(a / b)) <= math.log(column.rule.tolerance(column.variable))


def _micro_bevel(column: _Column) -> list[Cell]:
    """Present on all or none; where present, alike within the tolerance."""
    present = [bool(fact.value) for fact in column.facts]
    majority = sum(present) * 2 > len(present)
    reference, fits = _most_agreed(column, [i for i, there in enumerate(present) if there])
    cells = []
    for i, blade in enumerate(column.blades):
        if column.facts[i].value is None:
            unknown = Open(blade.code, column.variable.name, "micro_bevel_not_recorded")
            cells.append(column.open(i, unknown))
        elif not _alike(column, column.values[i]):
            cells.append(column.confounded(i, "own_edges", difference=_span(column.values[i])))
        elif present[i] != majority:
            how: Unlike = "has_micro_bevel" if present[i] else "lacks_micro_bevel"
            cells.append(column.confounded(i, how, column.facts[i].value))
        elif reference is not None and not fits.get(i, True):
            cells.append(_mismatch(column, i, reference))
        else:
            cells.append(column.cell(i, "matched"))
    return cells


def _usual_hardness(column: _Column, i: int) -> Cell:
    blade, fact, name = column.blades[i], column.facts[i], column.variable.name
    if not fact.evidence or not isinstance(fact.value, float):
        return column.pending(i)
    if blade.usual_hardness_hrc is None:
        return column.open(i, Open(blade.code, name, "usual_hardness_not_known"))
    low, high = blade.usual_hardness_hrc
    if low <= fact.value <= high:
        return column.cell(i, "matched")
    found = Mismatch(blade.code, name, "unusual_hardness", fact.value, usual_hrc=(low, high))
    return column.cell(i, "confounded", found)


def _settled(variable: Variable, blades: Sequence[BladeFacts]) -> list[Cell]:
    """Whether the edges in use count under the rule; what does not count is left out, and so spoils
    no pair.
    """
    cells = []
    for blade in blades:
        if not blade.settled:
            continue
        numbers = ", ".join(str(number) for number, _ in blade.settled)
        shown = f"edge {numbers}" if len(blade.settled) == 1 else f"edges {numbers}"
        odd = tuple((number, found) for number, found in blade.settled if not found.counts)
        state: MatchState = "matched"
        finding: Mismatch | Open | None = None
        if odd and all(found.state == "unknown" for _, found in odd):
            state = "pending"
            finding = Open(blade.code, variable.name, "settled_not_known", edges=odd)
        elif odd:
            state = "confounded"
            finding = Mismatch(blade.code, variable.name, "left_out", edges=odd)
        cells.append(Cell(blade.code, variable.name, None, shown, None, state, finding))
    return cells


def _values(blade: BladeFacts, variable: Variable) -> list[Fact]:
    if variable.kind == "hardness":
        return [blade.hardness_hrc]
    if variable.name == "grade":
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
    if variable.name == "start_gf":
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
    return _READING_SCATTER**2 / max(_READING_SCATTER**2 / readings, of_edges)


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
    span = _span(values)
    mean = " mean" if span is not None and span >= 0.5 * 10**-variable.decimals else ""
    return f"{variable.shown(fact.value)}{mean}{f', {fact.kind}' if fact.kind else ''}"


def _span(values: Iterable[Fact]) -> float | None:
    """How far the edges of one blade lie apart; None where fewer than two are numbers."""
    numbers = [v.value for v in values if isinstance(v.value, float)]
    return max(numbers) - min(numbers) if len(numbers) > 1 else None
