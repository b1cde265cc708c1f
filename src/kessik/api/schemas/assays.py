"""Batches, shots and what they say, over the wire."""

import math
from collections.abc import Sequence

from pydantic import Field

from kessik.api.schemas.common import Day, Finite, Id, LongText, ShortText, Wire
from kessik.api.schemas.instruments import WaitingShotsOut
from kessik.core.composition.allowances import residual_limit_percent
from kessik.core.composition.batches import Batch
from kessik.core.composition.candidates import Candidate, Departure
from kessik.core.composition.claims import ClaimVerdict
from kessik.core.composition.elements import Visibility, visibility
from kessik.core.composition.grade_shelf import GradeShelf
from kessik.core.composition.means import ElementMean
from kessik.core.composition.shots import ElementReading, Normalised, Shot, Surface
from kessik.core.composition.table import is_compared
from kessik.core.limits import most
from kessik.core.words.assay import (
    ASSUMPTION,
    HARDNESS_IS_NONE,
    VERDICT_WORDS,
    deciding,
    departure_words,
    element_name,
    normalised_words,
    outlier_words,
    place_headline,
    settling_lines,
    suspicion_words,
    verdict_sentence,
    weight_words,
)
from kessik.services.assays.shots import StandInShot, Taken
from kessik.services.assays.verdicts import AssayedBlade, AssayPlace

_SLOTS = 12


class BatchBody(Wire):
    """Blades that go to an analyser together."""

    name: ShortText
    blade_ids: list[Id] = Field(default_factory=list, max_length=most("shots"))
    owner: ShortText = ""
    sent_on: Day = ""
    back_on: Day = ""
    analyser: ShortText = ""
    operator: ShortText = ""
    note: LongText = ""

    def to_core(self, batch_id: str) -> Batch:
        plain = self.model_dump(exclude={"blade_ids"})
        return Batch(batch_id, blade_ids=tuple(self.blade_ids), **plain)


class BatchPatch(Wire):
    """What is said of a batch, to change; what is not sent stays."""

    name: ShortText | None = None
    blade_ids: list[Id] | None = Field(default=None, max_length=most("shots"))
    owner: ShortText | None = None
    sent_on: Day | None = None
    back_on: Day | None = None
    analyser: ShortText | None = None
    operator: ShortText | None = None
    note: LongText | None = None

    def changes(self) -> dict[str, object]:
        sent = {k: v for k, v in self.model_dump(exclude_unset=True).items() if v is not None}
        if "blade_ids" in sent:
            sent["blade_ids"] = tuple(sent["blade_ids"])
        return sent


class BatchOut(BatchBody):
    """A batch as it is kept."""

    id: str
    created_utc: str

    @classmethod
    def of(cls, batch: Batch) -> "BatchOut":
        return cls.model_validate(batch)


class ReadingBody(Wire):
    """What a shot says of one element, mass per cent; not detected: `percent` is the limit."""

    element: ShortText
    percent: Finite
    plus_minus_percent: Finite | None = None
    detected: bool = True

    def to_core(self) -> ElementReading:
        return ElementReading(**self.model_dump())


class ShotBody(Wire):
    """One shot of an analyser."""

    name: ShortText
    readings: list[ReadingBody] = Field(max_length=most("elements"))
    surface: Surface = ""
    normalised: Normalised = "unknown"
    on: Day = ""
    analyser: ShortText = ""
    operator: ShortText = ""
    batch_id: ShortText = ""

    def to_core(self, shot_id: str, blade_id: str) -> Shot:
        plain = self.model_dump(exclude={"readings"})
        readings = tuple(reading.to_core() for reading in self.readings)
        return Shot(shot_id, blade_id, readings=readings, **plain)


class ShotOut(ShotBody):
    """A shot as it is kept; `struck` says why it is left out."""

    id: str
    struck: str

    @classmethod
    def of(cls, shot: Shot) -> "ShotOut":
        plain = (
            "id", "name", "surface", "normalised", "on", "analyser", "operator", "batch_id",
            "struck",
        )  # fmt: skip  # a table is read by its rows
        readings = [ReadingBody.model_validate(reading) for reading in shot.readings]
        return cls(**{name: getattr(shot, name) for name in plain}, readings=readings)


class StandInShotBody(Wire):
    """What the simulated analyser is asked for."""

    name: ShortText
    grade: ShortText
    seconds: Finite = 30.0
    through_coating: bool = False
    normalise: bool = False
    seed: int = Field(default=0, ge=0, le=2**31)
    batch_id: ShortText = ""

    def asked(self) -> StandInShot:
        plain = self.model_dump(exclude={"name", "batch_id"})
        return StandInShot(**plain)


class TakenOut(Wire):
    """What a file of shots brought."""

    shots: int
    blade_ids: list[str]
    new_codes: list[str]
    notes: list[str]

    @classmethod
    def of(cls, taken: Taken) -> "TakenOut":
        return cls.model_validate(taken)


class GaugeOut(Wire):
    """The element that decides: what the claim promises and what was read, mass per cent."""

    element: str
    name: str
    visible: Visibility
    low_percent: float | None
    high_percent: float | None
    percent: float | None
    uncertainty_percent: float | None

    @classmethod
    def of(cls, found: AssayedBlade) -> "GaugeOut | None":
        symbol, claim = deciding(found.assay), found.assay.claim
        if not symbol:
            return None
        slot = claim.range_of(symbol) if claim else None
        mean = next((m for m in found.assay.blade.means if m.element == symbol), None)
        return cls(
            element=symbol,
            name=element_name(symbol),
            visible=visibility(symbol),
            low_percent=slot.low_percent if slot else None,
            high_percent=slot.high_percent if slot else None,
            percent=mean.percent if mean else None,
            uncertainty_percent=mean.uncertainty_percent if mean else None,
        )


class AssayLineOut(Wire):
    """A blade at the assay in one line."""

    id: str
    code: str
    mark: int
    claim: str
    loan_from: str
    loan_due: str
    loan_returned: str
    shots: int
    on_coating: int
    verdict: ClaimVerdict
    word: str
    sentence: str
    gauge: GaugeOut | None

    @classmethod
    def of(cls, found: AssayedBlade) -> "AssayLineOut":
        blade, assay = found.blade, found.assay
        return cls(
            id=blade.id,
            code=blade.code,
            mark=blade.mark,
            claim=blade.claimed_grade or "",
            loan_from=blade.loan_from,
            loan_due=blade.loan_due,
            loan_returned=blade.loan_returned,
            shots=len(assay.blade.counted),
            on_coating=assay.blade.on_coating,
            verdict=assay.verdict,
            word=VERDICT_WORDS[assay.verdict],
            sentence=_sentence(found),
            gauge=GaugeOut.of(found),
        )


class AssayPlaceOut(Wire):
    """Batches, blades at the assay, and files of shots that wait."""

    headline: str
    batches: list[BatchOut]
    blades: list[AssayLineOut]
    waiting: list[WaitingShotsOut]
    grades: int

    @classmethod
    def of(cls, place: AssayPlace, waiting: list[WaitingShotsOut]) -> "AssayPlaceOut":
        return cls(
            headline=place_headline([found.assay for found in place.blades]),
            batches=[BatchOut.of(batch) for batch in place.batches],
            blades=[AssayLineOut.of(found) for found in place.blades],
            waiting=waiting,
            grades=len(place.shelf.table.grades),
        )


class DepartureOut(Wire):
    """An element outside a range, in numbers and in words."""

    element: str
    measured_percent: float
    low_percent: float
    high_percent: float | None
    z: float
    says: str

    @classmethod
    def of(cls, found: Departure) -> "DepartureOut":
        high = found.high_percent if math.isfinite(found.high_percent) else None
        return cls(
            element=found.element,
            measured_percent=found.measured_percent,
            low_percent=found.low_percent,
            high_percent=high,
            z=found.z,
            says=departure_words(found),
        )


class SlotOut(Wire):
    """What a grade promises of an element, mass per cent."""

    element: str
    low_percent: float | None
    high_percent: float | None
    is_recalled: bool
    is_residual: bool = Field(description="not listed: what is let pass of it")


class CandidateOut(Wire):
    """A grade held against the shots; `scale` corrects the readings for what is not seen of it."""

    grade: str
    also: list[str]
    weight: float
    scale: float
    words: str
    is_in: bool
    is_claim: bool
    slots: list[SlotOut]
    excluded_by: list[DepartureOut]

    @classmethod
    def of(cls, found: Candidate, best: float, claim: str, read: Sequence[str]) -> "CandidateOut":
        listed = {r.element for r in found.grade.ranges}
        residuals = [symbol for symbol in read if symbol not in listed and is_compared(symbol)]
        return cls(
            grade=found.grade.name,
            also=list(found.grade.also),
            weight=found.weight,
            scale=found.scale,
            words=weight_words(found, best),
            is_in=found.is_in,
            is_claim=found.grade.name == claim,
            slots=[
                SlotOut(
                    element=r.element,
                    low_percent=r.low_percent,
                    high_percent=r.high_percent,
                    is_recalled=r.is_recalled,
                    is_residual=False,
                )
                for r in found.grade.ranges
            ]
            + [
                SlotOut(
                    element=symbol,
                    low_percent=None,
                    high_percent=residual_limit_percent(symbol),
                    is_recalled=False,
                    is_residual=True,
                )
                for symbol in residuals
            ],
            excluded_by=[DepartureOut.of(departure) for departure in found.excluded_by],
        )


class ElementOut(Wire):
    """What was read of an element: the mean and its standard uncertainty, mass per cent; null
    where it was not read, or cannot be.
    """

    element: str
    name: str
    visible: Visibility
    percent: float | None
    uncertainty_percent: float | None
    limit_percent: float | None
    scattered: bool

    @classmethod
    def of(cls, symbol: str, mean: ElementMean | None) -> "ElementOut":
        return cls(
            element=symbol,
            name=element_name(symbol),
            visible=visibility(symbol),
            percent=mean.percent if mean and mean.detected else None,
            uncertainty_percent=mean.uncertainty_percent if mean else None,
            limit_percent=mean.limit_percent if mean else None,
            scattered=bool(mean and mean.scattered),
        )


class LifeLineOut(Wire):
    """A life that hangs on this blade's steel."""

    trial_id: str
    says: str


class AssayOut(Wire):
    """What the shots of one blade say."""

    line: AssayLineOut
    claim: str | None = Field(description="the grade on the shelf that bears the claimed name")
    notes: list[str]
    normalised: Normalised
    elements: list[ElementOut]
    shots: list[ShotOut]
    candidates: list[CandidateOut]
    not_seen: list[str]
    not_separable_from: list[str]
    grades_tried: int
    settled_by: list[str]
    assumption: str
    lives: list[LifeLineOut]

    @classmethod
    def of(cls, found: AssayedBlade, shelf: GradeShelf, lives: list[LifeLineOut]) -> "AssayOut":
        assay = found.assay
        claim = assay.claim.name if assay.claim else ""
        best = max((candidate.weight for candidate in assay.candidates), default=0.0)
        notes = [suspicion_words(assay), *map(outlier_words, assay.outliers)]
        settled = settling_lines(assay.settlings)
        read = [mean.element for mean in assay.blade.means]
        return cls(
            line=AssayLineOut.of(found),
            claim=claim or None,
            notes=[*(note for note in notes if note), normalised_words(assay)],
            normalised=assay.blade.normalised,
            elements=_elements(found),
            shots=[ShotOut.of(shot) for shot in found.shots],
            candidates=[CandidateOut.of(c, best, claim, read) for c in assay.candidates[:_SLOTS]],
            not_seen=list(assay.not_seen),
            not_separable_from=[grade.name for grade in assay.not_separable],
            grades_tried=len(shelf.table.grades),
            settled_by=[*settled, HARDNESS_IS_NONE] if settled else [],
            assumption=ASSUMPTION,
            lives=lives,
        )


def _elements(found: AssayedBlade) -> list[ElementOut]:
    """The elements of the claim and of the shots, what is not seen first, iron last."""
    means = {mean.element: mean for mean in found.assay.blade.means}
    claim = found.assay.claim
    first = [c.grade for c in found.assay.still_in[:1]]
    listed = [r.element for grade in ([claim] if claim else first) for r in grade.ranges]
    symbols = [s for s in dict.fromkeys([*listed, *means]) if s != "Fe"]
    order = sorted(symbols, key=lambda s: visibility(s) != "not_seen")
    return [ElementOut.of(symbol, means.get(symbol)) for symbol in order]


def _sentence(found: AssayedBlade) -> str:
    said = verdict_sentence(found.assay)
    if found.unknown_claim:
        return f"No grade on the shelf is called “{found.unknown_claim}”: add it. {said}"
    return said


class BatchSheetOut(Wire):
    """A batch to hand over: its blades with what their shots say."""

    batch: BatchOut
    blades: list[AssayOut]
    today: str
