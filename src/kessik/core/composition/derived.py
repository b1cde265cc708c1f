"""Figures that follow from a composition, each with where it stops being true."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from kessik.core.composition.elements import ELEMENTS
from kessik.core.composition.grades import Grade

CARBIDE_FORMERS = ("V", "Nb", "Ti")
_M7C3_MOST = 2.0 / 3.0
"""Real M7C3, part of it iron, takes half to two thirds of the chromium of pure Cr7C3; common
practice, no source."""
STAINLESS_CR_PERCENT, STAINLESS_C_PERCENT = 10.5, 1.2
KNIFE_STAINLESS_CR_PERCENT = 12.0
DISSOLVED_C_PERCENT = 0.6
_RICH_IN_CARBON_PERCENT = 0.3

Stainless = Literal["yes", "no", "perhaps"]


@dataclass(frozen=True)
class Derived:
    """Figures of a composition in mass per cent; `pren` with tungsten counted in `pren_w`.

    `chromium_in_solution` runs from "all other carbon is bound in M7C3" to "all of it is
    dissolved". `by_standard` and `in_knives` say whether it is stainless; `carbides_hold_chromium`
    where a PREN of the whole misleads.
    """

    pren: float
    pren_w: float | None
    carbon_in_mc: float
    carbon_left: float
    chromium_in_solution: tuple[float, float]
    by_standard: Stainless
    in_knives: Stainless
    carbides_hold_chromium: bool
    nitrogen_counted: bool


def derived(percent: Mapping[str, float]) -> Derived:
    """The derived figures of a composition, mass per cent by element.

    References
    ----------
    [1] EN 10088-1: stainless from 10.5 % Cr with at most 1.2 % C, and its use of PREN; from
    memory.
    [2] In knives rather from about 12 % in solution: common practice, no source.
    """
    content = {symbol: percent.get(symbol, 0.0) for symbol in ("C", "Cr", "Mo", "W", "N")}
    plain = content["Cr"] + 3.3 * content["Mo"] + 16.0 * content["N"]
    tied = carbon_in_mc(percent)
    left = max(content["C"] - tied, 0.0)
    solution = chromium_in_solution(content["Cr"], left)
    return Derived(
        plain,
        plain + 1.65 * content["W"] if content["W"] else None,
        tied,
        left,
        solution,
        "yes"
        if content["Cr"] >= STAINLESS_CR_PERCENT and content["C"] <= STAINLESS_C_PERCENT
        else "no",
        _in_knives(solution),
        left > _RICH_IN_CARBON_PERCENT,
        content["N"] > 0,
    )


def dissolved_for_teaching(percent: Mapping[str, float]) -> dict[str, float]:
    """What a usual hardening might dissolve, mass per cent: carbon up to 0.6 %, the rest bound in
    carbides with their chromium; for teaching, never for a result.
    """
    left = max(percent.get("C", 0.0) - carbon_in_mc(percent), 0.0)
    carbon = min(left, DISSOLVED_C_PERCENT)
    chromium = chromium_in_solution(percent.get("Cr", 0.0), left - carbon)[0]
    others = {symbol: percent.get(symbol, 0.0) for symbol in ("Mn", "Ni", "Mo")}
    return {**others, "C": carbon, "Cr": chromium}


def of_grade(grade: Grade) -> Derived:
    """The derived figures of the middle of a grade's ranges."""
    return derived({found.element: found.middle_percent for found in grade.ranges})


def carbon_per_mc(symbol: str) -> float:
    """Mass of a carbide former bound by one mass of carbon in MC, by stoichiometry."""
    return ELEMENTS[symbol].mass / ELEMENTS["C"].mass


def carbon_in_mc(percent: Mapping[str, float]) -> float:
    """Carbon bound by vanadium, niobium and titanium as MC, mass per cent, at most all there is."""
    bound = sum(percent.get(symbol, 0.0) / carbon_per_mc(symbol) for symbol in CARBIDE_FORMERS)
    return min(bound, percent.get("C", 0.0))


def chromium_in_solution(chromium_percent: float, carbon_percent: float) -> tuple[float, float]:
    """Chromium left in solution between "all other carbon is M7C3" and "all of it is dissolved",
    mass per cent; `carbon_percent` is what MC leaves.
    """
    pure = 7.0 * ELEMENTS["Cr"].mass / (3.0 * ELEMENTS["C"].mass)
    most = _M7C3_MOST * pure * carbon_percent
    return max(chromium_percent - most, 0.0), chromium_percent


def _in_knives(solution: tuple[float, float]) -> Stainless:
    low, high = solution
    if low >= KNIFE_STAINLESS_CR_PERCENT:
        return "yes"
    return "perhaps" if high >= KNIFE_STAINLESS_CR_PERCENT else "no"
