"""Batches, shots and what they say, over the wire."""

import math
from collections.abc import Sequence
from itertools import chain

from kessik.api.schemas.assays import (
    AlloyFindingOut,
    AssayLineOut,
    AssayOut,
    AssayPlaceOut,
    BatchOut,
    CandidateOut,
    DepartureOut,
    ElementOut,
    GaugeOut,
    LifeLineOut,
    ShotOut,
    SlotOut,
)
from kessik.api.schemas.instruments import WaitingShotsOut
from kessik.core.composition.allowances import as_melted, residual_limit_percent
from kessik.core.composition.batches import Batch
from kessik.core.composition.candidates import Candidate, Departure
from kessik.core.composition.claims import Assay
from kessik.core.composition.elements import visibility
from kessik.core.composition.grade_shelf import GradeShelf
from kessik.core.composition.grades import Grade
from kessik.core.composition.means import ElementMean
from kessik.core.composition.reference_alloy import alloy_findings
from kessik.core.composition.steels import Steel, steels
from kessik.core.composition.table import is_compared
from kessik.core.words.assay import (
    ASSUMPTION,
    HARDNESS_IS_NONE,
    VERDICT_WORDS,
    deciding,
    departure_words,
    element_name,
    listed_words,
    normalised_words,
    outlier_words,
    place_headline,
    settling_lines,
    suspicion_words,
    verdict_sentence,
    weight_words,
)
from kessik.core.words.performance import trial_life_words
from kessik.core.words.reference_alloy import alloy_words
from kessik.core.words.shelf import loan_words
from kessik.services.assays.verdicts import AssayedBlade, AssayPlace
from kessik.services.reading.lives_of_blades import LifeLine

_SLOTS = 12


def gauge_out(found: AssayedBlade) -> GaugeOut | None:
    """The element that decides a claim; None where none does."""
    symbol, claim = deciding(found.assay), found.assay.claim
    if not symbol:
        return None
    slot = claim.range_of(symbol) if claim else None
    mean = next((m for m in found.assay.blade.means if m.element == symbol), None)
    return GaugeOut(
        element=symbol,
        name=element_name(symbol),
        visible=visibility(symbol),
        low_percent=slot.low_percent if slot else None,
        high_percent=slot.high_percent if slot else None,
        percent=mean.percent if mean else None,
        uncertainty_percent=mean.uncertainty_percent if mean else None,
    )


def assay_line_out(found: AssayedBlade) -> AssayLineOut:
    """A blade at the assay in one line."""
    blade, assay = found.blade, found.assay
    return AssayLineOut.showing(
        blade,
        loan_says="" if blade.loan_returned else loan_words(blade),
        claim=blade.claimed_grade or "",
        shots=len(assay.blade.counted),
        on_coating=assay.blade.on_coating,
        verdict=assay.verdict,
        word=VERDICT_WORDS[assay.verdict],
        sentence=_sentence(found),
        gauge=gauge_out(found),
    )


def assay_place_out(place: AssayPlace, waiting: list[WaitingShotsOut]) -> AssayPlaceOut:
    """Batches, blades at the assay, and the files of shots that wait."""
    return AssayPlaceOut(
        headline=place_headline([found.assay for found in place.blades]),
        batches=[batch_out(batch) for batch in place.batches],
        blades=[assay_line_out(found) for found in place.blades],
        waiting=waiting,
        grades=len(place.shelf.table.grades),
    )


def batch_out(batch: Batch) -> BatchOut:
    """A batch, with how the analyser read its reference alloy."""
    shot = batch.reference
    found = alloy_findings(shot) if shot else ()
    return BatchOut.showing(
        batch,
        alloy=[AlloyFindingOut.showing(each) for each in found],
        alloy_says=alloy_words(shot, found) if shot else "",
    )


def departure_out(found: Departure) -> DepartureOut:
    """An element outside a range, in numbers and in words."""
    high = found.high_percent if math.isfinite(found.high_percent) else None
    return DepartureOut.showing(found, high_percent=high, says=departure_words(found))


def candidates_out(
    found: Sequence[Candidate], assay: Assay, read: Sequence[str]
) -> list[CandidateOut]:
    """Grades held against the shots, each with the steel that it is a name of; `read` are the
    elements that were read.
    """
    best = max((candidate.weight for candidate in found), default=0.0)
    claim = assay.claim.name if assay.claim else ""
    groups = [
        steels([c for c in found if c.is_in is there], assay.claim) for there in (True, False)
    ]
    return [
        _candidate_out(candidate, steel, best, claim, read)
        for steel in chain(*groups)
        for candidate in steel.members
    ]


def _candidate_out(
    found: Candidate, steel: Steel, best: float, claim: str, read: Sequence[str]
) -> CandidateOut:
    return CandidateOut.showing(
        found,
        grade=found.grade.name,
        also=list(found.grade.also),
        words=", ".join(filter(None, [weight_words(found, best), listed_words(found, read)])),
        is_claim=found.grade.name == claim,
        slots=slots_out(found.grade, read),
        excluded_by=[departure_out(departure) for departure in found.excluded_by],
        steel=steel.grade.name,
        steel_weight=steel.weight,
    )


def slots_out(grade: Grade, read: Sequence[str]) -> list[SlotOut]:
    """What a grade promises, and what is let pass of the elements `read` that it does not list."""
    listed = {r.element for r in grade.ranges}
    residuals = [symbol for symbol in read if symbol not in listed and is_compared(symbol)]
    return [
        *(SlotOut.showing(as_melted(r), is_residual=False) for r in grade.ranges),
        *(
            SlotOut(
                element=symbol,
                low_percent=None,
                high_percent=residual_limit_percent(symbol),
                is_recalled=False,
                is_residual=True,
            )
            for symbol in residuals
        ),
    ]


def element_out(symbol: str, mean: ElementMean | None) -> ElementOut:
    """What was read of an element; its name alone where nothing was."""
    return ElementOut(
        element=symbol,
        name=element_name(symbol),
        visible=visibility(symbol),
        percent=mean.percent if mean and mean.detected else None,
        uncertainty_percent=mean.uncertainty_percent if mean else None,
        limit_percent=mean.limit_percent if mean else None,
        scattered=bool(mean and mean.scattered),
    )


def assay_out(found: AssayedBlade, shelf: GradeShelf, lives: Sequence[LifeLine]) -> AssayOut:
    """What the shots of one blade say."""
    assay = found.assay
    claim = assay.claim.name if assay.claim else ""
    notes = [suspicion_words(assay), *map(outlier_words, assay.outliers)]
    notes += [normalised_words(assay)] if found.shots else []
    notes += [alloy_words(shot, alloy_findings(shot)) for shot in found.alloys]
    settled = settling_lines(assay.settlings)
    read = [mean.element for mean in assay.blade.means]
    return AssayOut(
        line=assay_line_out(found),
        claim=claim or None,
        claim_slots=slots_out(assay.claim, read) if assay.claim else [],
        unknown_claim=found.unknown_claim,
        notes=[note for note in notes if note],
        normalised=assay.blade.normalised,
        elements=_elements(found),
        shots=[ShotOut.showing(shot) for shot in found.shots],
        candidates=candidates_out(assay.candidates[:_SLOTS], assay, read),
        not_seen=list(assay.not_seen),
        not_separable_from=[grade.name for grade in assay.not_separable],
        grades_tried=len(shelf.table.grades),
        settled_by=[*settled, HARDNESS_IS_NONE] if settled else [],
        assumption=ASSUMPTION,
        lives=[
            LifeLineOut(trial_id=line.trial_id, says=trial_life_words(line.trial, line.point))
            for line in lives
        ],
    )


def _elements(found: AssayedBlade) -> list[ElementOut]:
    """The elements of the claim and of the shots, what is not seen first, iron last."""
    means = {mean.element: mean for mean in found.assay.blade.means}
    claim = found.assay.claim
    first = [c.grade for c in found.assay.still_in[:1]]
    listed = [r.element for grade in ([claim] if claim else first) for r in grade.ranges]
    symbols = [s for s in dict.fromkeys([*listed, *means]) if s != "Fe"]
    order = sorted(symbols, key=lambda s: visibility(s) != "not_seen")
    return [element_out(symbol, means.get(symbol)) for symbol in order]


def _sentence(found: AssayedBlade) -> str:
    said = verdict_sentence(found.assay)
    if found.unknown_claim:
        return f"No grade on the shelf is called “{found.unknown_claim}”. {said}"
    return said
