"""The reckoner's second part: brine, cabinets and ratings; nothing stored."""

from typing import Annotated

from fastapi import APIRouter, Query

from kessik.api.schemas.common import Bounded, Finite, Wire
from kessik.api.schemas.reckoner import FootingOut
from kessik.core import brine_reckoner
from kessik.core.corrosion.brine import cabinet_faults, changed_to, ph_in_words, top_up_g
from kessik.core.corrosion.ratings import ratings
from kessik.core.words.soaks import rating_words

router = APIRouter(tags=["reckoner"], prefix="/reckoner")
Number = Annotated[Annotated[Finite, Bounded("reckoned")] | None, Query()]
Needed = Annotated[Finite, Bounded("reckoned"), Query()]


class BrineOut(Wire):
    """A brine in every measure, and the salt for so much water."""

    salt_percent: float
    g_per_l: float
    density_kg_per_l: float
    salt_g: float
    footing: FootingOut


class BrineChangeOut(Wire):
    """What to add to a brine."""

    salt_g: float
    water_g: float
    says: str
    footing: FootingOut


class ConditionsOut(Wire):
    """Conditions in words, and what of them a spray cabinet may not have."""

    ph_says: str
    faults: list[str]
    footing: FootingOut


class RatingsOut(Wire):
    """The grades of an area by every standard."""

    says: list[str]
    footing: FootingOut


@router.get("/brine")
def get_brine(
    water_g: Needed = 1000,
    temperature_c: Needed = 20,
    salt_percent: Number = None,
    g_per_l: Number = None,
    density_kg_per_l: Number = None,
    conductivity_ms_per_cm: Number = None,
) -> BrineOut:
    """A brine from whichever measure is given first: %, g/L, kg/L or mS/cm."""
    found = brine_reckoner.reckon_brine(
        water_g,
        temperature_c,
        salt_percent=salt_percent,
        g_per_l=g_per_l,
        density_kg_per_l=density_kg_per_l,
        conductivity_ms_per_cm=conductivity_ms_per_cm,
    )
    return BrineOut(
        salt_percent=found.salt_percent,
        g_per_l=found.g_per_l,
        density_kg_per_l=found.density_kg_per_l,
        salt_g=found.salt_g,
        footing=FootingOut.of(brine_reckoner.BRINE),
    )


@router.get("/brine-change")
def get_brine_change(
    brine_g: Needed, salt_percent: Needed, wanted_percent: Needed
) -> BrineChangeOut:
    """Salt that strengthens a measured brine, or water that dilutes it."""
    found = changed_to(brine_g, salt_percent, wanted_percent)
    added = f"{found.salt_g:.1f} g of salt" if found.salt_g else f"{found.water_g:.0f} g of water"
    if not found.salt_g and not found.water_g:
        added = "nothing"
    return BrineChangeOut(
        salt_g=found.salt_g,
        water_g=found.water_g,
        says=f"add {added}",
        footing=FootingOut.of(brine_reckoner.CHANGE),
    )


@router.get("/top-up")
def get_top_up(brine_g_before: Needed, brine_g_now: Needed) -> BrineChangeOut:
    """Plain water that evaporated."""
    water = top_up_g(brine_g_before, brine_g_now)
    return BrineChangeOut(
        salt_g=0,
        water_g=water,
        says=f"add {water:.0f} g of plain water; the salt stayed",
        footing=FootingOut.of(brine_reckoner.CHANGE),
    )


@router.get("/conditions")
def get_conditions(
    ph: Needed,
    g_per_l: Number = None,
    temperature_c: Number = None,
    collected_ml_per_h: Number = None,
) -> ConditionsOut:
    """A pH in words, and what a neutral salt spray may not have."""
    told = {
        "ph": ph,
        "g_per_l": g_per_l,
        "temperature_c": temperature_c,
        "collected_ml_per_h": collected_ml_per_h,
    }
    faults = cabinet_faults({name: value for name, value in told.items() if value is not None})
    return ConditionsOut(
        ph_says=ph_in_words(ph),
        faults=[
            f"{f.what} of {f.value:g}{f' {f.unit}' if f.unit else ''}: {f.least:g} to {f.most:g}"
            for f in faults
        ],
        footing=FootingOut.of(brine_reckoner.CABINET),
    )


@router.get("/ratings")
def get_ratings(rust_percent: Needed, low: Number = None, high: Number = None) -> RatingsOut:
    """The grades of an area, with those that its bounds allow where they are given."""
    least = rust_percent if low is None else low
    most = rust_percent if high is None else high
    found = ratings(rust_percent, least, most)
    return RatingsOut(
        says=[rating_words(each) for each in found],
        footing=FootingOut.of(brine_reckoner.RATINGS),
    )
