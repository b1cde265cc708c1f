"""What is put right later, over the wire: runs, traces and the bin."""

from typing import Annotated, Any

from pydantic import Field

from kessik.api.schemas.common import Day, Finite, Id, LongText, ShortText, Wire
from kessik.api.schemas.records import Answer, PartialBody
from kessik.api.schemas.trials import RunBrief, TrialOut
from kessik.core.bin import Deletable, InBin, Trace
from kessik.core.moments import Moment
from kessik.services.record.excluding import Answered, Compared

Count = Annotated[int, Field(ge=1, le=1_000_000)]


class RunPatch(PartialBody):
    """What is said of a run, to change; a `reason` for all but its note and who cut it."""

    emptiable = frozenset({"block", "verifies_run_id", "check_every"})

    trace_id: Id
    reason: LongText = ""
    trial_id: Id | None = None
    edge_id: Id | None = None
    arm: ShortText | None = None
    block: Count | None = None
    practice: bool | None = None
    verifies_run_id: ShortText | None = None
    check_every: Annotated[Finite, Field(gt=0)] | None = None
    operator: ShortText | None = None
    started_on: Day | None = None
    note: LongText | None = None

    def changes(self) -> dict[str, Any]:
        found = super().changes()
        for name in ("trace_id", "reason"):
            found.pop(name, None)
        day = found.pop("started_on", None)
        if day:
            found["started"] = Moment(f"{day}T12:00:00.000+00:00")
        return found


class RecordedRunOut(RunBrief):
    """A run in the record of its trial."""

    blade: str
    mark: int
    arm: str
    block: int | None
    operator: str
    from_paper: str
    check_every: float | None
    verifies_run_id: str | None
    note: str
    put_right_after_stop: int
    method_number: int | None


class TraceOut(Answer[Trace], without="trial_id what was becomes"):
    """One change, in words."""

    says: str


class EdgeChoiceOut(Wire):
    """An edge that a run may be moved to."""

    edge_id: str
    blade: str
    edge: int
    is_cut: bool


class TrialRecordOut(Wire):
    """The record of a trial: what was cut, and what was put right since."""

    trial: TrialOut
    archived_utc: str
    sealed: str
    runs: list[RecordedRunOut]
    traces: list[TraceOut]
    edges: list[EdgeChoiceOut]


class TakeAwayBody(Wire):
    """Something to put into the bin."""

    kind: Deletable
    owner_id: Id
    reason: LongText = ""


class DependentsOut(Wire):
    """What a thing is called, and what would go with it."""

    name: str
    holds: list[str]


class BinnedOut(Answer[InBin]):
    """Something in the bin, and the day it is let go for good."""

    goes_on: str


class WithoutBody(Wire):
    """Readings, by their events, and runs to look without."""

    event_ids: list[Id] = Field(default_factory=list, max_length=500)
    run_ids: list[Id] = Field(default_factory=list, max_length=100)


class StrikeOutBody(WithoutBody):
    """The same, to be left out for good, with why."""

    reason: LongText


class AnsweredOut(Answer[Answered]):
    """An answer in a few words."""


class ComparedOut(Answer[Compared]):
    """The answer as it is, and as it would be."""


class StruckOutOut(Wire):
    """The ids of the strikes that were made."""

    strike_ids: list[str]
