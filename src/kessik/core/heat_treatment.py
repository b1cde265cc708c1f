"""How a blade was hardened, as a question of comparing like with like; and estimates for
teaching.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Annotated, Literal

from kessik.core.facts import Provenance
from kessik.core.records import LongText, Within

LOW_TEMPER_C, SECONDARY_TEMPER_C = 250.0, 480.0
_HIGH_ALLOY_CR_PERCENT = 10.0
_UNEQUAL_AUSTENITISING_C = 15.0
_UNEQUAL_HARDNESS_HRC = 1.0
ANDREWS_C_PERCENT, ANDREWS_CR_PERCENT = 0.6, 5.0

Warned = Literal[
    "unequal_austenitising", "unequal_sub_zero", "unequal_temper", "unequal_hardness",
    "retained_austenite", "secondary_temper", "hardening_unknown",
]  # fmt: skip  # a table is read by its rows


@dataclass(frozen=True)
class HeatTreatment:
    """How a blade was hardened, as far as it is told; temperatures in °C, times in minutes."""

    austenitising_c: float | None = None
    soak_minutes: float | None = None
    quench: str = ""
    sub_zero_c: float | None = None
    tempers_c: Annotated[tuple[float, ...], Within("tempers")] = ()
    standing: Provenance = "claimed"
    note: LongText = ""

    @property
    def is_told(self) -> bool:
        return self.austenitising_c is not None or bool(self.tempers_c)


@dataclass(frozen=True)
class Caveat:
    """One thing to know before comparing: what, and the values it rests on, °C or HRC."""

    what: Warned
    values: tuple[float, ...] = ()


def own_warnings(treatment: HeatTreatment, chromium_percent: float | None) -> list[Caveat]:
    """What one blade's hardening risks; nothing of it computes a life."""
    found = []
    highest = max(treatment.tempers_c, default=None)
    is_high_alloy = chromium_percent is not None and chromium_percent >= _HIGH_ALLOY_CR_PERCENT
    if highest is not None and is_high_alloy:
        if highest <= LOW_TEMPER_C and treatment.sub_zero_c is None:
            found.append(Caveat("retained_austenite", (highest,)))
        if highest >= SECONDARY_TEMPER_C:
            found.append(Caveat("secondary_temper", (highest,)))
    return found


def unequal(
    first: HeatTreatment,
    second: HeatTreatment,
    hardness_hrc: tuple[float | None, float | None] = (None, None),
) -> list[Caveat]:
    """What makes two blades an unequal comparison by how they were hardened."""
    found = []
    if not (first.is_told and second.is_told):
        found.append(Caveat("hardening_unknown"))
    one, other = first.austenitising_c, second.austenitising_c
    if one is not None and other is not None and abs(one - other) > _UNEQUAL_AUSTENITISING_C:
        found.append(Caveat("unequal_austenitising", (one, other)))
    if first.is_told and second.is_told:
        if (first.sub_zero_c is None) != (second.sub_zero_c is None):
            found.append(Caveat("unequal_sub_zero"))
        tempers = [max(t.tempers_c, default=None) for t in (first, second)]
        if None not in tempers and _on_either_side(tempers):
            found.append(Caveat("unequal_temper", tuple(t for t in tempers if t is not None)))
    a, b = hardness_hrc
    if a is not None and b is not None and abs(a - b) > _UNEQUAL_HARDNESS_HRC:
        found.append(Caveat("unequal_hardness", (a, b)))
    return found


def _on_either_side(tempers: Sequence[float | None]) -> bool:
    is_secondary = [t is not None and t >= SECONDARY_TEMPER_C for t in tempers]
    return is_secondary[0] != is_secondary[1]


@dataclass(frozen=True)
class Martensite:
    """A teaching estimate: where martensite starts, °C, and how much austenite is left at a
    temperature; `outside` names the elements beyond what the formula was made for.
    """

    ms_c: float
    retained_percent: float
    at_c: float
    outside: tuple[str, ...]


def martensite(dissolved_percent: Mapping[str, float], at_c: float = 20.0) -> Martensite:
    """Ms and retained austenite from what is dissolved, mass per cent; for teaching, never for a
    result.

    References
    ----------
    [1] K. W. Andrews, 1965: Ms = 539 - 423 C - 30.4 Mn - 17.7 Ni - 12.1 Cr - 7.5 Mo.
    [2] D. P. Koistinen and R. E. Marburger, 1959: exp(-0.011 (Ms - T)) is left; both from memory.
    """
    content = {s: dissolved_percent.get(s, 0.0) for s in ("C", "Mn", "Ni", "Cr", "Mo")}
    ms = (
        539.0
        - 423.0 * content["C"]
        - 30.4 * content["Mn"]
        - 17.7 * content["Ni"]
        - 12.1 * content["Cr"]
        - 7.5 * content["Mo"]
    )
    left = 1.0 if at_c >= ms else math.exp(-0.011 * (ms - at_c))
    limits = {"C": ANDREWS_C_PERCENT, "Cr": ANDREWS_CR_PERCENT}
    outside = tuple(symbol for symbol, most in limits.items() if content[symbol] > most)
    return Martensite(ms, 100.0 * left, at_c, outside)
