"""Brine: salt and water, how strong it is and how to make it so.

References
----------
[1] Sodium chloride solutions, density by mass fraction and temperature: International Critical
    Tables as in engineers' handbooks. Table recalled from memory, to about 0.001 kg/L.
[2] Practical salinity scale 1978, UNESCO Technical Papers in Marine Science 44 (1983).
[3] Sea water density at the surface, EOS-80, the same paper.
"""

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.errors import OutOfRangeError
from kessik.core.limits import check_limit

Floats = NDArray[np.float64]

SATURATION_PERCENT = 26.4
"""Salt in a saturated brine at 20 °C, per cent by mass; from memory."""

_TEMPERATURES_C = (0.0, 10.0, 25.0, 40.0, 60.0)
_DENSITY = {
    0: (0.99984, 0.99970, 0.99705, 0.99222, 0.98320),
    1: (1.00747, 1.00707, 1.00409, 0.99908, 0.98999),
    2: (1.01509, 1.01442, 1.01112, 1.00593, 0.99670),
    4: (1.03038, 1.02920, 1.02530, 1.01977, 1.01030),
    8: (1.06121, 1.05907, 1.05412, 1.04798, 1.03813),
    12: (1.09244, 1.08946, 1.08365, 1.07699, 1.06673),
    16: (1.12419, 1.12056, 1.11401, 1.10688, 1.09620),
    20: (1.15663, 1.15254, 1.14533, 1.13774, 1.12656),
    24: (1.18999, 1.18557, 1.17776, 1.16971, 1.15806),
    26: (1.20709, 1.20254, 1.19443, 1.18614, 1.17423),
}
"""kg/L by per cent of salt by mass, at the temperatures above [1]."""
_TOP_PERCENT = 26.0


@lru_cache(maxsize=1)
def _table() -> Callable[[list[list[float]]], Floats]:
    """The table as a cubic surface; made when it is first asked for, so that starting is quick."""
    axes = (np.array(list(_DENSITY), float), np.array(_TEMPERATURES_C))
    made: Callable[[list[list[float]]], Floats] = scipy.interpolate.RegularGridInterpolator(
        axes, np.array(list(_DENSITY.values())), method="cubic"
    )
    return made


def density_kg_per_l(salt_percent: float, temperature_c: float = 20.0) -> float:
    """Density of a sodium chloride brine [1], 0 to 26 % and 0 to 60 °C; a saturated one is taken
    as one of 26 %.
    """
    check_salt(salt_percent)
    check_limit("brine_c", temperature_c, "temperature_c")
    return float(_table()([[min(salt_percent, _TOP_PERCENT), temperature_c]])[0])


def check_salt(salt_percent: float) -> float:
    """The strength, if a brine can have it; OutOfRangeError above saturation."""
    if not 0 <= salt_percent <= SATURATION_PERCENT:
        raise OutOfRangeError(
            f"a brine of {salt_percent:g} % is not possible: at 20 °C water holds no more than"
            f" {SATURATION_PERCENT:g} % of salt by mass. Give 0 to {SATURATION_PERCENT:g} %",
            field="salt_percent",
            value=salt_percent,
        )
    return salt_percent


def salt_for(salt_percent: float, water_g: float) -> float:
    """Grams of salt for so much water: m x / (1 − x)."""
    check_salt(salt_percent)
    check_limit("water_g", water_g, "water_g")
    share = salt_percent / 100
    return water_g * share / (1 - share)


def g_per_l(salt_percent: float, temperature_c: float = 20.0) -> float:
    """Grams of salt in a litre of the brine."""
    return 10 * salt_percent * density_kg_per_l(salt_percent, temperature_c)


def percent_of_g_per_l(salt_g_per_l: float, temperature_c: float = 20.0) -> float:
    """Per cent by mass of a brine with so many grams in a litre."""
    most = g_per_l(SATURATION_PERCENT, temperature_c)
    if not 0 <= salt_g_per_l <= most:
        raise OutOfRangeError(
            f"{salt_g_per_l:g} g/L is not possible: a saturated brine has about {most:.0f} g/L",
            field="g_per_l",
            value=salt_g_per_l,
        )

    def over(percent: float) -> float:
        return g_per_l(percent, temperature_c) - salt_g_per_l

    return float(scipy.optimize.brentq(over, 0, SATURATION_PERCENT, xtol=1e-9))


_ROUNDING_KG_PER_L = 1e-6
"""Far less than any hydrometer tells: water is not refused for its last digit."""


def percent_of_density(density: float, temperature_c: float = 20.0) -> float:
    """Per cent by mass of a brine of a density in kg/L, measured at that temperature."""
    least, most = (density_kg_per_l(p, temperature_c) for p in (0.0, _TOP_PERCENT))
    if not least - _ROUNDING_KG_PER_L <= density <= most + _ROUNDING_KG_PER_L:
        raise OutOfRangeError(
            f"a brine of {density:g} kg/L is not possible at {temperature_c:g} °C: give"
            f" {least:.3f} (water) to {most:.3f} (saturated)",
            field="density_kg_per_l",
            value=density,
        )

    def over(percent: float) -> float:
        return density_kg_per_l(percent, temperature_c) - min(max(density, least), most)

    return float(scipy.optimize.brentq(over, 0, _TOP_PERCENT, xtol=1e-9))


_A = (0.0080, -0.1692, 25.3851, 14.0941, -7.0261, 2.7081)
_B = (0.0005, -0.0056, -0.0066, -0.0375, 0.0636, -0.0144)
_C = (0.6766097, 2.00564e-2, 1.104259e-4, -6.9698e-7, 1.0031e-9)
_STANDARD_MS_PER_CM = 42.914
"""Conductivity of sea water of salinity 35 at 15 °C [2]."""
_SALINITY_HOLDS = (2.0, 42.0)


def salinity_of_conductivity(conductivity_ms_per_cm: float, temperature_c: float) -> float:
    """Practical salinity of sea water (about g of salt in a kg) by its conductivity, at the surface
    and −2 to 35 °C [2]; OutOfRangeError outside 2 to 42, where the scale does not hold.
    """
    if not -2 <= temperature_c <= 35:
        raise OutOfRangeError(
            f"the scale does not hold at {temperature_c:g} °C; measure between −2 and 35 °C",
            field="temperature_c",
            value=temperature_c,
        )
    t = temperature_c
    ratio = conductivity_ms_per_cm / _STANDARD_MS_PER_CM
    ratio /= sum(c * t**n for n, c in enumerate(_C))
    root = max(ratio, 0.0) ** 0.5
    plain = sum(a * root**n for n, a in enumerate(_A))
    warm = (t - 15) / (1 + 0.0162 * (t - 15)) * sum(b * root**n for n, b in enumerate(_B))
    found = float(plain + warm)
    least, most = _SALINITY_HOLDS
    if not least <= found <= most:
        raise OutOfRangeError(
            f"{conductivity_ms_per_cm:g} mS/cm at {t:g} °C is outside the scale, which holds for"
            f" salinities of {least:g} to {most:g}; use the density for a strong brine",
            field="conductivity_ms_per_cm",
            value=conductivity_ms_per_cm,
        )
    return found


@dataclass(frozen=True)
class BrineChange:
    """What to add to a brine, g; one of the two is 0. `salt_percent` is what it then has."""

    salt_g: float
    water_g: float
    salt_percent: float


def changed_to(brine_g: float, salt_percent: float, wanted_percent: float) -> BrineChange:
    """Salt that strengthens a measured brine, or water that dilutes it, to what is wanted."""
    check_limit("water_g", brine_g, "brine_g")
    check_salt(salt_percent)
    check_salt(wanted_percent)
    has, wants = salt_percent / 100, wanted_percent / 100
    if wants >= has:
        return BrineChange(brine_g * (wants - has) / (1 - wants), 0.0, wanted_percent)
    if wants == 0:
        raise OutOfRangeError(
            "no amount of water turns a brine into plain water; give more than 0 %",
            field="wanted_percent",
        )
    return BrineChange(0.0, brine_g * (has - wants) / wants, wanted_percent)


def top_up_g(brine_g_before: float, brine_g_now: float) -> float:
    """Plain water that evaporated, and is to be put back: salt does not leave with it."""
    check_limit("water_g", brine_g_before, "brine_g_before")
    check_limit("water_g", brine_g_now, "brine_g_now")
    if brine_g_now > brine_g_before:
        raise OutOfRangeError(
            f"it weighs {brine_g_now:g} g now and weighed {brine_g_before:g} g: nothing evaporated",
            field="brine_g_now",
            value=brine_g_now,
        )
    return brine_g_before - brine_g_now


_PH_WORDS = (
    (3.0, "strongly acid"), (5.5, "acid"), (6.5, "slightly acid"), (7.2, "neutral"),
    (8.6, "slightly alkaline, as sea water is"), (10.5, "alkaline"), (14.0, "strongly alkaline"),
)  # fmt: skip


def ph_in_words(ph: float) -> str:
    """A pH as a band; 6.5 to 7.2 is what ISO 9227 calls neutral, the rest is common practice."""
    check_limit("ph", ph, "ph")
    return next(words for upper, words in _PH_WORDS if ph <= upper)


@dataclass(frozen=True)
class CabinetFault:
    """What of a spray cabinet is outside of ISO 9227's neutral salt spray."""

    what: str
    value: float
    least: float
    most: float
    unit: str


CABINET = {
    "g_per_l": ("salt in the solution", 45.0, 55.0, "g/L"),
    "temperature_c": ("temperature", 33.0, 37.0, "°C"),
    "ph": ("pH of what is collected", 6.5, 7.2, ""),
    "collected_ml_per_h": ("collected on 80 cm²", 1.0, 2.0, "mL/h"),
}
"""Neutral salt spray by ISO 9227: name, least, most, unit."""


def cabinet_faults(measured: dict[str, float]) -> tuple[CabinetFault, ...]:
    """What of the measured conditions the standard does not allow."""
    return tuple(
        CabinetFault(what, measured[name], least, most, unit)
        for name, (what, least, most, unit) in CABINET.items()
        if name in measured and not least <= measured[name] <= most
    )
