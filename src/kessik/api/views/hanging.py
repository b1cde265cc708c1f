"""What is noted of blades and grades, for the wire."""

from kessik.api.schemas.hanging import (
    CareOut,
    EnergyOut,
    FieldExposureOut,
    ToughnessOut,
    ToughnessPlaceOut,
)
from kessik.core.shelf.care import CareAct
from kessik.core.shelf.field_exposures import FieldExposure
from kessik.core.shelf.toughness import Energy, Toughness
from kessik.core.words.field_exposures import exposure_words
from kessik.core.words.shelf import care_due_words, care_words
from kessik.core.words.toughness import (
    beside_words,
    energy_words,
    got_by_words,
    joules_words,
    known_words,
)
from kessik.services.shelf.hanging import ToughnessPlace


def toughness_out(found: Toughness) -> ToughnessOut:
    """An energy to break."""
    return ToughnessOut.showing(
        found,
        says=joules_words(found),
        test_says=got_by_words(found),
        known_from=known_words(found),
    )


def toughness_place_out(place: ToughnessPlace) -> ToughnessPlaceOut:
    """What is known of a toughness, beside others."""
    counted = [found for found in place.own if not found.struck]
    return ToughnessPlaceOut(
        values=[toughness_out(found) for found in place.own],
        beside=beside_words(counted, place.beside),
    )


def energy_out(found: Energy) -> EnergyOut:
    """An energy with its interval."""
    return EnergyOut.showing(found, says=energy_words(found))


def field_exposure_out(found: FieldExposure) -> FieldExposureOut:
    """Hours wet without a soak."""
    return FieldExposureOut.showing(found, says=exposure_words(found))


def care_out(act: CareAct) -> CareOut:
    """What was done to a blade for its care."""
    return CareOut.showing(act, says=care_words(act), due_says=care_due_words(act))
