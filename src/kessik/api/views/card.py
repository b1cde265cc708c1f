"""A blade's card: the facts and results that fit on one."""

from collections.abc import Iterator, Sequence

from kessik.core.choice.uses import Use
from kessik.core.comparison.analysis import ANALYSIS_VERSION
from kessik.core.packages import Hidden
from kessik.core.shelf.blades import Blade
from kessik.core.words.choice import figure_words
from kessik.core.words.facts import hardening_words, hardness_words
from kessik.core.words.standings import life_ratio_words, place_words
from kessik.interchange.report.card import BladeCard
from kessik.services.choice.gathering import Known, candidates


def blade_card(blade: Blade, known: Known, assay: str, hidden: Sequence[Hidden]) -> BladeCard:
    """What a blade is, where it stands, what it asks for and what its steel seems to be."""
    lines = tuple((label, says) for label, says in _lines(blade, known, assay, hidden) if says)
    grade = blade.claimed_grade or "grade not known"
    made = f", {blade.origin}" if blade.origin and "owners" not in hidden else ""
    foot = f"Kessik, analysis {ANALYSIS_VERSION}; intervals hold in 95 of 100"
    return BladeCard(blade.code, blade.mark, f"{grade}, as sold{made}", lines, foot)


def _lines(
    blade: Blade, known: Known, assay: str, hidden: Sequence[Hidden]
) -> Iterator[tuple[str, str]]:
    yield "hardness", hardness_words(blade.used("hardness_hrc"))
    heat = blade.heat_treatment
    yield "hardened", hardening_words(heat) if heat.is_told else ""
    yield "assay", assay
    yield "standing", _standing(blade, known)
    for sheet in known.soaks:
        use = Use("", "", {"rust": 1.0}, soak_id=sheet.soak.id)
        own = next((c for c in candidates(known, use) if c.id == blade.id), None)
        if own and "rust" in own.figures:
            yield sheet.soak.name, f"{figure_words(own.figures['rust'])} rusted"
    upkeep = known.upkeep.get(blade.id)
    if upkeep and upkeep.minutes:
        yield "sharpening", figure_words(upkeep.minutes)
    if "owners" not in hidden:
        yield "whose", blade.owner
    if "prices" not in hidden:
        yield "price", blade.price
    if "notes" not in hidden:
        yield "note", blade.note


def _standing(blade: Blade, known: Known) -> str:
    """Its place among all that were cut the same way, and beside which."""
    board = known.board
    for rung in board.rungs if board else ():
        if board and rung.arm.partition("/")[0] == blade.id:
            base = known.field.arms.get(board.references[rung.island])
            beside = f" beside {base.code}" if base else ""
            place = place_words(rung.place.best, rung.place.worst, rung.of)
            return f"{place}; life {life_ratio_words(rung.ratio)}{beside}"
    return ""
