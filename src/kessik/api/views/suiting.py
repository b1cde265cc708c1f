"""Which way of testing suits a question, for the wire."""

from kessik.api.schemas.suiting import WayOut, WaysOut
from kessik.core.planning.suiting import CutWay, SoakWay, WaysFound
from kessik.core.words.sentences import as_sentence
from kessik.core.words.suiting import (
    cannot_words,
    cost_words,
    found_words,
    hours_words,
    missing_words,
    shows_words,
    soak_cost_words,
    stand_words,
)

_SOAK_SHOWS = "Shows the order of rusting with its ties, round by round."
_STAINS_SHOWS = "Shows the order of discolouration, apart from rust."
_SOAK_CANNOT = "Does not show how a blade fares in another medium, or how long its edge lasts."


def ways_out(found: WaysFound) -> WaysOut:
    """The ways that answer a question."""
    cuts = [_cut_way(way, found.wanted.blades) for way in found.cuts]
    return WaysOut(
        says=found_words(found),
        stand=stand_words(found.wanted.question),
        ways=[*cuts, *(_soak_way(way) for way in found.soaks)],
    )


def _cut_way(way: CutWay, blades: int) -> WayOut:
    method = way.method
    return WayOut(
        name=method.name,
        school=method.school,
        soak="",
        is_partly=way.is_partly,
        shows=shows_words(method.school),
        cannot=cannot_words(method.school),
        cost=cost_words(way, blades),
        in_hours=hours_words(way),
        missing=missing_words(way),
        cautions=list(method.cautions),
    )


def _soak_way(way: SoakWay) -> WayOut:
    method = way.method
    return WayOut(
        name=method.name,
        school="",
        soak=method.key,
        is_partly=False,
        shows=_STAINS_SHOWS if method.scale == "discolouration" else _SOAK_SHOWS,
        cannot=_SOAK_CANNOT,
        cost=as_sentence(soak_cost_words(way)),
        in_hours="",
        missing=missing_words(way),
        cautions=list(method.cautions),
    )
