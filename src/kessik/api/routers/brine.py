"""The reckoner's second part: brine, cabinets and ratings; nothing stored."""

from typing import Annotated

from fastapi import APIRouter, Query

from kessik.api.schemas.common import Bounded, Finite
from kessik.api.schemas.reckoner import BrineChangeOut, BrineOut, ConditionsOut, RatingsOut
from kessik.api.views.reckoner import brine_change_out, conditions_out, ratings_out, top_up_out
from kessik.core import brine_reckoner
from kessik.core.corrosion.brine import cabinet_faults, changed_to, top_up_g
from kessik.core.corrosion.ratings import ratings

router = APIRouter(tags=["reckoner"], prefix="/reckoner")
Number = Annotated[Annotated[Finite, Bounded("reckoned")] | None, Query()]
Needed = Annotated[Finite, Bounded("reckoned"), Query()]


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
    return BrineOut.showing(found, footing=brine_reckoner.BRINE)


@router.get("/brine-change")
def get_brine_change(
    brine_g: Needed, salt_percent: Needed, wanted_percent: Needed
) -> BrineChangeOut:
    """Salt that strengthens a measured brine, or water that dilutes it."""
    found = changed_to(brine_g, salt_percent, wanted_percent)
    return brine_change_out(found)


@router.get("/top-up")
def get_top_up(brine_g_before: Needed, brine_g_now: Needed) -> BrineChangeOut:
    """Plain water that evaporated."""
    return top_up_out(top_up_g(brine_g_before, brine_g_now))


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
    return conditions_out(ph, faults)


@router.get("/ratings")
def get_ratings(rust_percent: Needed, low: Number = None, high: Number = None) -> RatingsOut:
    """The grades of an area, with those that its bounds allow where they are given."""
    least = rust_percent if low is None else low
    most = rust_percent if high is None else high
    return ratings_out(ratings(rust_percent, least, most))
