"""Batches, shots and what they say, over the wire."""

from pydantic import Field

from kessik.api.schemas.common import Finite, ShortText, Wire
from kessik.api.schemas.instruments import WaitingShotsOut
from kessik.api.schemas.records import Answer, Body, Patch
from kessik.core.composition.batches import Batch
from kessik.core.composition.candidates import Departure
from kessik.core.composition.claims import ClaimVerdict
from kessik.core.composition.elements import Visibility
from kessik.core.composition.reference_alloy import AlloyFinding, Certified, ReferenceShot
from kessik.core.composition.shots import ElementReading, Normalised, Shot
from kessik.services.assays.shots import StandInShot, Taken


class ReadingBody(Body[ElementReading]):
    """What a shot says of one element, mass per cent; not detected: `percent` is the limit."""

    plus_minus_percent: Finite | None = None


class CertifiedBody(Body[Certified]):
    """What a certificate says of one element, mass per cent, with its expanded uncertainty."""

    plus_minus_percent: Finite | None = None


class ReferenceShotBody(Body[ReferenceShot]):
    """A reference alloy with its certificate, and what was read of it."""


class BatchBody(Body[Batch], without="id created_utc"):
    """Blades that go to an analyser together."""


class BatchPatch(Patch[Batch], without="id created_utc"):
    """What is said of a batch, to change; what is not sent stays."""


class AlloyFindingOut(Answer[AlloyFinding]):
    """One element of a reference alloy beside its certificate."""


class BatchOut(Answer[Batch]):
    """A batch as it is kept, with how the analyser read its reference alloy."""

    alloy: list[AlloyFindingOut]
    alloy_says: str


class ShotBody(Body[Shot], without="id blade_id struck"):
    """One shot of an analyser."""


class ShotOut(Answer[Shot], without="blade_id"):
    """A shot as it is kept; `struck` says why it is left out."""


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


class TakenOut(Answer[Taken]):
    """What a file of shots brought."""


class GaugeOut(Wire):
    """The element that decides: what the claim promises and what was read, mass per cent."""

    element: str
    name: str
    visible: Visibility
    low_percent: float | None
    high_percent: float | None
    percent: float | None
    uncertainty_percent: float | None


class AssayLineOut(Wire):
    """A blade at the assay in one line."""

    id: str
    code: str
    mark: int
    claim: str
    loan_says: str
    shots: int
    on_coating: int
    verdict: ClaimVerdict
    word: str
    sentence: str
    gauge: GaugeOut | None


class AssayPlaceOut(Wire):
    """Batches, blades at the assay, and files of shots that wait."""

    headline: str
    batches: list[BatchOut]
    blades: list[AssayLineOut]
    waiting: list[WaitingShotsOut]
    grades: int


class DepartureOut(Answer[Departure], without="listed"):
    """An element outside a range, in numbers and in words."""

    high_percent: float | None
    says: str


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
    steel: str = Field(description="the steel that it is one of the names of")
    steel_weight: float


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


class LifeLineOut(Wire):
    """A life that hangs on this blade's steel."""

    trial_id: str
    says: str


class AssayOut(Wire):
    """What the shots of one blade say."""

    line: AssayLineOut
    claim: str | None = Field(description="the grade on the shelf that bears the claimed name")
    claim_slots: list[SlotOut] = Field(description="what the claimed grade promises")
    unknown_claim: str = Field(description="a claim that no grade on the shelf bears")
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


class BatchSheetOut(Wire):
    """A batch to hand over: its blades with what their shots say."""

    batch: BatchOut
    blades: list[AssayOut]
    today: str
