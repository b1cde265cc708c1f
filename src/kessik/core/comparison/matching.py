"""Matching: what is held equal between blades, what is not, what is unknown, and what a mismatch may do."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal

Standing = Literal["measured_here", "measured_elsewhere", "standard", "literature", "claimed", "guessed"]
MEASURED: frozenset[str] = frozenset({"measured_here", "measured_elsewhere"})

HardnessReading = Literal["same_hardness", "as_usually_hardened"]
MatchState = Literal["matched", "factor", "confounded", "pending"]

FACTORS = ("steel", "heat_treatment", "hardness", "finish", "angle", "geometry", "coating", "regime", "medium")
STEEL_FACTORS = frozenset({"steel", "heat_treatment"})


@dataclass(frozen=True)
class Variable:
    """One held-equal variable: its tolerance and what a mismatch may do, all assumptions a tester can change.

    `life_percent_per_unit` is the assumed size of the effect; None where no size is assumed.
    """

    name: str
    label: str
    unit: str
    tolerance: float
    decimals: int
    factor: str
    consequence: str
    life_percent_per_unit: float | None = None


VARIABLES: tuple[Variable, ...] = (
    Variable("side_angle_deg", "side angle", "°", 0.5, 1, "angle", "a steeper edge wears and rolls differently", 6.0),
    Variable(
        "micro_bevel_side_deg", "micro-bevel", "°", 1.0, 1, "angle", "the micro-bevel is the angle that cuts", 6.0
    ),
    Variable(
        "thickness_behind_edge_mm",
        "thickness behind the edge",
        "mm",
        0.05,
        2,
        "geometry",
        "effort and life both follow it",
    ),
    Variable(
        "hardness_hrc", "hardness", "HRC", 1.0, 1, "hardness", "hardness alone changes the life of one steel", 4.0
    ),
)
_BY_NAME = {variable.name: variable for variable in VARIABLES}


@dataclass(frozen=True)
class Fact:
    """A value with how it is known; `value` None where it is not known at all."""

    value: float | None = None
    standing: Standing = "measured_here"

    @property
    def evidence(self) -> bool:
        return self.value is not None and self.standing in MEASURED


@dataclass(frozen=True)
class BladeFacts:
    """What is known of one blade and of the edges it was (or will be) cut with.

    `edges` holds, by variable name, one value per edge (None where not known); hardness belongs to the blade.
    `micro_bevel_known` says that an empty micro-bevel means there is none.
    """

    code: str
    grade: str | None = None
    hardness_hrc: Fact = field(default_factory=Fact)
    usual_hardness_hrc: tuple[float, float] | None = None
    edges: Mapping[str, Sequence[float | None]] = field(default_factory=dict)
    micro_bevel_known: bool = True


@dataclass(frozen=True)
class MatchingRule:
    """The trial's stand: its factor, which reading of hardness it takes, and tolerances by variable name."""

    factor: str = "steel"
    hardness_reading: HardnessReading = "same_hardness"
    tolerances: Mapping[str, float] = field(default_factory=dict)

    def tolerance(self, variable: Variable) -> float:
        return self.tolerances.get(variable.name, variable.tolerance)


@dataclass(frozen=True)
class Cell:
    """One blade at one variable: value, standing, state, and a sentence where something is to be said."""

    blade: str
    variable: str
    value: float | None
    standing: Standing | None
    state: MatchState
    says: str = ""


def match(blades: Sequence[BladeFacts], rule: MatchingRule) -> list[Cell]:
    """Every blade at every variable, against the blade that agrees with most others."""
    cells: list[Cell] = []
    for variable in VARIABLES:
        cells.extend(_column(variable, blades, rule))
    return cells


def confounded_between(a: BladeFacts, b: BladeFacts, rule: MatchingRule) -> list[Cell]:
    """The cells that forbid a fair comparison of just these two blades."""
    return [cell for cell in match([a, b], rule) if cell.state == "confounded"]


def _column(variable: Variable, blades: Sequence[BladeFacts], rule: MatchingRule) -> list[Cell]:
    if variable.name == "hardness_hrc":
        facts = [blade.hardness_hrc for blade in blades]
    else:
        facts = [Fact(_mean(blade.edges.get(variable.name, ()))) for blade in blades]
    if variable.factor == rule.factor:
        return [_cell(b, variable, f, "factor") for b, f in zip(blades, facts, strict=True)]
    if variable.name == "micro_bevel_side_deg":
        return _micro_bevel(variable, blades, facts, rule)
    if variable.name == "hardness_hrc" and rule.hardness_reading == "as_usually_hardened":
        return [_usual_hardness(variable, b, f) for b, f in zip(blades, facts, strict=True)]
    tolerance = rule.tolerance(variable)
    known = [(b, f.value) for b, f in zip(blades, facts, strict=True) if f.evidence and f.value is not None]
    reference = _reference([value for _, value in known], tolerance)
    cells = []
    for blade, fact in zip(blades, facts, strict=True):
        if not fact.evidence or fact.value is None:
            cells.append(_cell(blade, variable, fact, "pending", _pending_words(variable, fact)))
            continue
        assert reference is not None
        own = _spread_within(blade, variable)
        others = ", ".join(b.code for b, v in known if abs(v - reference) <= 1e-9 and b.code != blade.code)
        if abs(fact.value - reference) > tolerance + 1e-9:
            says = _mismatch_words(variable, fact.value - reference, others)
            cells.append(_cell(blade, variable, fact, "confounded", says))
        elif own > tolerance + 1e-9:
            says = f"its own edges differ by {_number(own, variable)}: {variable.consequence}"
            cells.append(_cell(blade, variable, fact, "confounded", says))
        else:
            cells.append(_cell(blade, variable, fact, "matched"))
    return cells


def _micro_bevel(
    variable: Variable, blades: Sequence[BladeFacts], facts: Sequence[Fact], rule: MatchingRule
) -> list[Cell]:
    """Present on all or none; where present, alike within the tolerance."""
    present = [f.value is not None for f in facts]
    majority = sum(present) * 2 > len(present)
    reference = _reference([f.value for f in facts if f.value is not None], rule.tolerance(variable))
    cells = []
    for blade, fact in zip(blades, facts, strict=True):
        if not blade.micro_bevel_known:
            cells.append(_cell(blade, variable, fact, "pending", "whether it has a micro-bevel is not recorded"))
        elif (fact.value is not None) != majority:
            says = "has a micro-bevel, the others have none" if fact.value is not None else "has no micro-bevel"
            cells.append(_cell(blade, variable, fact, "confounded", f"{says}: {variable.consequence}"))
        elif (
            fact.value is not None and reference is not None and abs(fact.value - reference) > rule.tolerance(variable)
        ):
            cells.append(
                _cell(blade, variable, fact, "confounded", _mismatch_words(variable, fact.value - reference, ""))
            )
        else:
            cells.append(_cell(blade, variable, fact, "matched"))
    return cells


def _usual_hardness(variable: Variable, blade: BladeFacts, fact: Fact) -> Cell:
    if not fact.evidence or fact.value is None:
        return _cell(blade, variable, fact, "pending", _pending_words(variable, fact))
    if blade.usual_hardness_hrc is None:
        return _cell(blade, variable, fact, "pending", "the usual hardness of its grade is not known")
    low, high = blade.usual_hardness_hrc
    if low <= fact.value <= high:
        return _cell(blade, variable, fact, "matched")
    says = f"its grade is usually hardened to {low:g} to {high:g} HRC; this blade is not what a user gets"
    return _cell(blade, variable, fact, "confounded", says)


def _cell(blade: BladeFacts, variable: Variable, fact: Fact, state: MatchState, says: str = "") -> Cell:
    standing = fact.standing if fact.value is not None else None
    return Cell(blade.code, variable.name, fact.value, standing, state, says)


def _mean(values: Sequence[float | None]) -> float | None:
    known = [value for value in values if value is not None]
    return math.fsum(known) / len(known) if known and len(known) == len(values) else None


def _spread_within(blade: BladeFacts, variable: Variable) -> float:
    values = sorted(value for value in blade.edges.get(variable.name, ()) if value is not None)
    return values[-1] - values[0] if values else 0.0


def _reference(values: Sequence[float], tolerance: float) -> float | None:
    """The value that most others agree with; of equals the one nearest the middle, then the first."""
    if not values:
        return None
    middle = sorted(values)[(len(values) - 1) // 2]
    return max(values, key=lambda v: (sum(abs(v - o) <= tolerance + 1e-9 for o in values), -abs(v - middle)))


def _number(value: float, variable: Variable) -> str:
    space = "" if variable.unit == "°" else " "
    return f"{abs(value):.{variable.decimals}f}{space}{variable.unit}"


def _mismatch_words(variable: Variable, difference: float, others: str) -> str:
    against = f" from {others}" if others else ""
    words = f"{variable.label} differs by {_number(difference, variable)}{against}: {variable.consequence}"
    size = assumed_effect_percent(variable.name, difference)
    return words if size is None else f"{words}; this mismatch alone could make {size:.0f} % of life"


def _pending_words(variable: Variable, fact: Fact) -> str:
    if fact.value is None:
        return f"{variable.label} is not known"
    return f"{variable.label} is only {fact.standing}"


def assumed_effect_percent(variable: str, difference: float) -> float | None:
    """What a mismatch alone could make of life, in per cent; an assumption (common practice), never a correction.

    3 % per degree included (so 6 % per degree per side) and 4 % per HRC.
    """
    per_unit = _BY_NAME[variable].life_percent_per_unit
    return None if per_unit is None else abs(difference) * per_unit


def factor_of(variable: str) -> str:
    """The factor that a variable would be, if its mismatch were the question: one of the ways out."""
    return _BY_NAME[variable].factor
