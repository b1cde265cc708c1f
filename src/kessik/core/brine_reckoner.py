"""The reckoner's second part: brine, spray cabinets and ratings, with what each stands on."""

from dataclasses import dataclass

from kessik.core.corrosion import brine
from kessik.core.errors import OutOfRangeError
from kessik.core.reckoner import FormulaBasis

BRINE = FormulaBasis(
    "salt = m x ÷ (1 − x); g/L = 10 x ρ",
    "plain table salt, 0 to 26.4 % and 0 to 60 °C; salinity by conductivity for sea water of 2 to"
    " 42, density for stronger brine",
    "density: International Critical Tables, from memory; salinity: practical salinity scale 1978;"
    " saturation 26.4 % at 20 °C, from memory",
)
CHANGE = FormulaBasis(
    "salt to add = M (x₂ − x₁) ÷ (1 − x₂); water to add = M (x₁ − x₂) ÷ x₂",
    "by weight; evaporated brine gets plain water back: the salt stayed",
    "conservation of mass",
)
CABINET = FormulaBasis(
    "50 ± 5 g/L, 35 ± 2 °C, pH 6.5 to 7.2, 1.5 ± 0.5 mL/h on 80 cm²",
    "neutral salt spray; a jar or a cloth is not a cabinet",
    "ISO 9227, from memory",
)
RATINGS = FormulaBasis(
    "by table; the idea behind ISO 10289 is 3 (2 − log A)",
    "borrowed from standards written for coatings",
    "ISO 10289, ASTM D610, ISO 4628-3, tables from memory",
)


@dataclass(frozen=True)
class BrineReckoned:
    """One brine in every measure: % by mass, g/L, kg/L, and the salt for so much water, g."""

    salt_percent: float
    g_per_l: float
    density_kg_per_l: float
    salt_g: float


def reckon_brine(
    water_g: float,
    temperature_c: float,
    *,
    salt_percent: float | None = None,
    g_per_l: float | None = None,
    density_kg_per_l: float | None = None,
    conductivity_ms_per_cm: float | None = None,
) -> BrineReckoned:
    """A brine from whichever measure is given; OutOfRangeError where none is, or it cannot be."""
    if salt_percent is not None:
        percent = brine.check_salt(salt_percent)
    elif g_per_l is not None:
        percent = brine.percent_of_g_per_l(g_per_l, temperature_c)
    elif density_kg_per_l is not None:
        percent = brine.percent_of_density(density_kg_per_l, temperature_c)
    elif conductivity_ms_per_cm is not None:
        found = brine.salinity_of_conductivity(conductivity_ms_per_cm, temperature_c)
        percent = found / 10  # practical salinity is about g in a kg
    else:
        raise OutOfRangeError("give the strength in %, g/L, kg/L or mS/cm", field="salt_percent")
    return BrineReckoned(
        percent,
        brine.g_per_l(percent, temperature_c),
        brine.density_kg_per_l(percent, temperature_c),
        brine.salt_for(percent, water_g),
    )
