"""Phases of a soak in words: what each was, and what it says by itself."""

from collections.abc import Mapping

from kessik.core.corrosion.answer import PhaseAnswer
from kessik.core.corrosion.course import NOTHING_PERCENT, Bounds
from kessik.core.words.rust import area_words
from kessik.core.words.sentences import as_sentence
from kessik.core.words.soaks import soak_headline


def phase_title(found: PhaseAnswer) -> str:
    """What a phase is called: its medium, its side, its hours."""
    span = found.span
    side = "" if span.phase.side == "both" else f", {span.phase.side} side"
    return f"{as_sentence(span.phase.medium)}{side}, {span.from_h:.4g} to {span.to_h:.4g} h"


def phase_words(found: PhaseAnswer, hours: float, names: Mapping[str, str]) -> str:
    """What a phase says, at so many hours of the whole soak."""
    if hours < found.span.from_h and not found.answer.rounds:
        return "Not begun yet."
    return soak_headline(found.soak, found.answer, names)


def came_words(area: Bounds) -> str:
    """What of an area came in the phase."""
    if area.high <= NOTHING_PERCENT:
        return "nothing more came"
    return f"{area_words(area)} of it came here"
