"""Sides graded again without names, and a soak among others, for the wire."""

from kessik.api.schemas.soak_passes import (
    AmongSoaksOut,
    BlindPassOut,
    BlindPlaceOut,
    LaidOutOut,
)
from kessik.core.corrosion.among import AmongSoaks
from kessik.core.words.among import among_words
from kessik.core.words.soaks import agreement_words
from kessik.services.soaks.blind import BlindPass, laid_out


def blind_pass_out(found: BlindPass) -> BlindPassOut:
    """A pass without a name in it."""
    return BlindPassOut(
        places=[
            BlindPlaceOut(
                number=place.number,
                stage=place.look.stage,
                has_picture=bool(place.look.picture),
                is_done=place.is_done,
            )
            for place in found.places
        ],
        agreements=[agreement_words(each) for each in found.agreements],
    )


def laid_out_out(found: BlindPass) -> list[LaidOutOut]:
    """What lies where."""
    return [LaidOutOut(number=number, name=name) for number, name in laid_out(found)]


def among_out(found: AmongSoaks | None) -> AmongSoaksOut:
    """Nothing is said where nothing links the soak to another."""
    return AmongSoaksOut(says=among_words(found) if found else [])
