"""Whether the coupons of a soak differ in something else than its factor.

Variables and their defaults: common practice, no source.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations
from typing import Literal, get_args

from kessik.core.corrosion.soaks import Coupon, Soak
from kessik.core.heat_treatment import Caveat, HeatTreatment, own_warnings, unequal

Variable = Literal[
    "steel", "heat_treatment", "flat_finish", "coating", "oil", "side", "degreased_with",
    "polished_before", "exposed_before",
]  # fmt: skip
VARIABLES: tuple[Variable, ...] = (
    "steel", "heat_treatment", "flat_finish", "coating", "oil", "side", "degreased_with",
    "polished_before", "exposed_before",
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
SoakFactor = Literal[
    "steel", "heat_treatment", "flat_finish", "coating", "oil", "polished_before",
    "degreased_with", "exposed_before",
]  # fmt: skip
FACTORS: tuple[SoakFactor, ...] = get_args(SoakFactor)
ASKED_FOR: frozenset[Variable] = frozenset(
    {"flat_finish", "degreased_with", "steel", "heat_treatment"}
)
"""Empty means not known, of these; of the others it means none."""
HeldStatus = Literal["matched", "factor", "confounded", "pending", "let_go"]


@dataclass(frozen=True)
class Specimen:
    """A coupon with what its blade says of itself."""

    coupon: Coupon
    steel: str = ""
    treatment: HeatTreatment | None = None
    chromium_percent: float | None = None


@dataclass(frozen=True)
class FairnessCheck:
    """One variable over all coupons: what each has, by coupon id, and how that stands."""

    variable: Variable
    status: HeldStatus
    values: Mapping[str, str]
    odd: tuple[str, ...] = ()


@dataclass(frozen=True)
class Hardened:
    """A warning from how coupons were hardened: of these, by id, and what."""

    coupon_ids: tuple[str, ...]
    caveat: Caveat


def hardening_warnings(specimens: Sequence[Specimen]) -> tuple[Hardened, ...]:
    """What hardening does to rust: unequal between blades of one steel or of several, and what one
    blade's own risks; each said once for all coupons it is true of.
    """
    of_blade = {each.coupon.blade_id: each for each in specimens if each.coupon.blade_id}
    told = [each for each in of_blade.values() if each.treatment and each.treatment.is_told]
    found: dict[Caveat, dict[str, None]] = {}
    for one, other in combinations(told, 2):
        for caveat in unequal(one.treatment or HeatTreatment(), other.treatment or HeatTreatment()):
            is_same_steel = one.steel.casefold() == other.steel.casefold()
            if caveat.what == "unequal_austenitising" and not is_same_steel:
                continue  # every steel has its own
            same = Caveat(caveat.what, tuple(sorted(caveat.values)))
            found.setdefault(same, {}).update({one.coupon.id: None, other.coupon.id: None})
    for each in told:
        for caveat in own_warnings(each.treatment or HeatTreatment(), each.chromium_percent):
            found.setdefault(caveat, {})[each.coupon.id] = None
    return tuple(Hardened(tuple(ids), caveat) for caveat, ids in found.items())


def fairness(soak: Soak, specimens: Sequence[Specimen]) -> tuple[FairnessCheck, ...]:
    """Every variable held against the factor; nothing is said of a soak of one coupon."""
    found = []
    factor = {each.coupon.id: value_of(soak.factor, each) for each in specimens}
    for variable in VARIABLES:
        values = {each.coupon.id: value_of(variable, each) for each in specimens}
        found.append(_held(variable, soak, values, factor, specimens))
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


def _treated(values: Mapping[str, str], specimens: Sequence[Specimen]) -> FairnessCheck:
    """How coupons of one steel were hardened: alike inside a blade, and between blades only where
    it is recorded; every steel has its own.
    """
    of_steel: dict[str, dict[str, str]] = {}
    for each in specimens:
        blade = each.coupon.blade_id or each.coupon.id
        of_steel.setdefault(each.steel.casefold(), {})[blade] = values[each.coupon.id].casefold()
    several = [blades for steel, blades in of_steel.items() if len(blades) > 1 and steel]
    told = [set(blades.values()) for blades in several]
    if any("" in each for each in told):
        odd = tuple(i for i, value in values.items() if not value)
        return FairnessCheck("heat_treatment", "pending", values, odd)
    status: HeldStatus = "confounded" if any(len(each) > 1 for each in told) else "matched"
    return FairnessCheck("heat_treatment", status, values)


def _held(
    variable: Variable,
    soak: Soak,
    values: Mapping[str, str],
    factor: Mapping[str, str],
    specimens: Sequence[Specimen],
) -> FairnessCheck:
    """A variable that every level of the factor shares out alike cannot stand for it."""
    if variable == soak.factor:
        return FairnessCheck(variable, "factor", values)
    if variable in soak.let_go:
        return FairnessCheck(variable, "let_go", values)
    if variable == "heat_treatment":
        return _treated(values, specimens)
    told = {v.casefold() for v in values.values()}
    if len(told) <= 1:
        is_unknown = told <= {""} and variable in ASKED_FOR
        return FairnessCheck(variable, "pending" if is_unknown else "matched", values)
    levels: dict[str, list[str]] = {}
    for coupon_id, value in values.items():
        levels.setdefault(factor.get(coupon_id, "").casefold(), []).append(value.casefold())
    shared_out = {tuple(sorted(each)) for each in levels.values()}
    if len(levels) > 1 and len(shared_out) == 1:
        return FairnessCheck(variable, "matched", values)
    known = [v.casefold() for v in values.values() if v]
    if "" in told and len(set(known)) <= 1 and variable in ASKED_FOR:
        return FairnessCheck(
            variable, "pending", values, tuple(i for i, v in values.items() if not v)
        )
    usual = max(sorted(set(known)), key=known.count)
    odd = tuple(i for i, v in values.items() if v.casefold() != usual)
    return FairnessCheck(variable, "confounded", values, odd)
