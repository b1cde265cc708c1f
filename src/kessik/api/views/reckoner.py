"""Answers of the reckoner over the wire."""

from collections.abc import Sequence

from kessik.api.schemas.reckoner import (
    BrineChangeOut,
    ConditionsOut,
    FormulaBasisOut,
    GritOut,
    RatingsOut,
)
from kessik.core import brine_reckoner
from kessik.core.corrosion.brine import BrineChange, CabinetFault, ph_in_words
from kessik.core.corrosion.ratings import Rating
from kessik.core.sharpening.abrasives import SCALES, Grit
from kessik.core.words.rust import rating_words


def grit_out(grit: Grit) -> GritOut:
    """A grit on its scale."""
    scale = SCALES[grit.scale]
    return GritOut.showing(grit, name=f"{scale.prefix}{grit.grit:g}", what=scale.what)


def brine_change_out(found: BrineChange) -> BrineChangeOut:
    """What to add to a brine."""
    added = f"{found.salt_g:.1f} g of salt" if found.salt_g else f"{found.water_g:.0f} g of water"
    if not found.salt_g and not found.water_g:
        added = "nothing"
    return BrineChangeOut.showing(found, says=f"add {added}", footing=brine_reckoner.CHANGE)


def top_up_out(water_g: float) -> BrineChangeOut:
    """The water that evaporated."""
    says = f"add {water_g:.0f} g of plain water; the salt stayed"
    footing = FormulaBasisOut.showing(brine_reckoner.CHANGE)
    return BrineChangeOut(salt_g=0, water_g=water_g, says=says, footing=footing)


def conditions_out(ph: float, faults: Sequence[CabinetFault]) -> ConditionsOut:
    """A pH in words, and what of the conditions a spray cabinet may not have."""
    said = [
        f"{f.what} of {f.value:g}{f' {f.unit}' if f.unit else ''}: {f.least:g} to {f.most:g}"
        for f in faults
    ]
    footing = FormulaBasisOut.showing(brine_reckoner.CABINET)
    return ConditionsOut(ph_says=ph_in_words(ph), faults=said, footing=footing)


def ratings_out(found: Sequence[Rating]) -> RatingsOut:
    """The grades of an area by every standard."""
    footing = FormulaBasisOut.showing(brine_reckoner.RATINGS)
    return RatingsOut(says=[rating_words(each) for each in found], footing=footing)
