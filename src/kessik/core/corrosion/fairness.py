"""Whether the coupons of a soak differ in something else than its factor.

Variables and their defaults: common practice, no source.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from kessik.core.corrosion.soaks import Coupon, Soak
from kessik.core.heat_treatment import HeatTreatment

Variable = Literal[
    "steel", "heat_treatment", "flat_finish", "coating", "oil", "side", "degreased_with",
    "polished_before", "exposed_before",
]  # fmt: skip
VARIABLES: tuple[Variable, ...] = (
    "steel", "heat_treatment", "flat_finish", "coating", "oil", "side", "degreased_with",
    "polished_before", "exposed_before",
)  # fmt: skip
FACTORS: tuple[Variable, ...] = (
    "steel", "heat_treatment", "flat_finish", "coating", "oil", "polished_before",
    "degreased_with", "exposed_before",
)  # fmt: skip
NAMES: dict[str, str] = {
    "steel": "steel",
    "heat_treatment": "heat treatment",
    "flat_finish": "flat finish",
    "coating": "coating",
    "oil": "oil",
    "side": "side",
    "degreased_with": "degreasing",
    "polished_before": "polishing before",
    "exposed_before": "earlier exposure",
}
_MUST_BE_KNOWN: tuple[Variable, ...] = ("flat_finish", "degreased_with")
_ASKED_FOR: tuple[Variable, ...] = (*_MUST_BE_KNOWN, "steel", "heat_treatment")
"""Empty means not known, of these; of the others it means none."""
Status = Literal["matched", "factor", "confounded", "pending", "let_go"]


@dataclass(frozen=True)
class Specimen:
    """A coupon with what its blade says of itself."""

    coupon: Coupon
    steel: str = ""
    treatment: HeatTreatment | None = None


@dataclass(frozen=True)
class Held:
    """One variable over all coupons: what each has, by coupon id, and how that stands."""

    variable: Variable
    status: Status
    values: Mapping[str, str]
    odd: tuple[str, ...] = ()


def fairness(soak: Soak, specimens: Sequence[Specimen]) -> tuple[Held, ...]:
    """Every variable held against the factor; nothing is said of a soak of one coupon."""
    found = []
    factor = {each.coupon.id: value_of(soak.factor, each) for each in specimens}
    for variable in VARIABLES:
        values = {each.coupon.id: value_of(variable, each) for each in specimens}
        found.append(_held(variable, soak, values, factor))
    return tuple(found)


def value_of(variable: str, specimen: Specimen) -> str:
    """What a coupon has of a variable, in words; empty where none, or not known."""
    match variable:
        case "steel":
            return specimen.steel.strip()
        case "heat_treatment":
            return _treatment(specimen.treatment)
    return str(getattr(specimen.coupon, variable, "")).strip()


def _treatment(treatment: HeatTreatment | None) -> str:
    if treatment is None:
        return ""
    parts = []
    if treatment.austenitising_c is not None:
        parts.append(f"{treatment.austenitising_c:g} °C")
    if treatment.sub_zero_c is not None:
        parts.append(f"sub-zero {treatment.sub_zero_c:g} °C")
    if treatment.tempers_c:
        parts.append("tempered " + ", ".join(f"{t:g}" for t in treatment.tempers_c) + " °C")
    return ", ".join(parts)


def _held(
    variable: Variable, soak: Soak, values: Mapping[str, str], factor: Mapping[str, str]
) -> Held:
    """A variable that every level of the factor shares out alike cannot stand for it."""
    if variable == soak.factor:
        return Held(variable, "factor", values)
    if variable in soak.let_go:
        return Held(variable, "let_go", values)
    if variable == "heat_treatment" and soak.factor == "steel":
        return Held(variable, "matched", values)  # every steel has its own
    told = {v.casefold() for v in values.values()}
    if len(told) <= 1:
        is_unknown = told <= {""} and variable in _MUST_BE_KNOWN
        return Held(variable, "pending" if is_unknown else "matched", values)
    levels: dict[str, list[str]] = {}
    for coupon_id, value in values.items():
        levels.setdefault(factor.get(coupon_id, "").casefold(), []).append(value.casefold())
    shared_out = {tuple(sorted(each)) for each in levels.values()}
    if len(levels) > 1 and len(shared_out) == 1:
        return Held(variable, "matched", values)
    known = [v.casefold() for v in values.values() if v]
    if "" in told and len(set(known)) <= 1 and variable in _ASKED_FOR:
        return Held(variable, "pending", values, tuple(i for i, v in values.items() if not v))
    usual = max(sorted(set(known)), key=known.count)
    odd = tuple(i for i, v in values.items() if v.casefold() != usual)
    return Held(variable, "confounded", values, odd)
