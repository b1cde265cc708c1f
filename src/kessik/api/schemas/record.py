"""What is put right later, over the wire: runs, traces and the bin."""

from dataclasses import asdict
from datetime import date, timedelta
from typing import Annotated, Any

from pydantic import Field

from kessik.api.schemas.common import Day, Finite, Id, LongText, ShortText, Wire
from kessik.api.schemas.shelf import Patch
from kessik.api.schemas.trials import RunBrief, TrialOut
from kessik.core.bin import BIN_DAYS, Binned, Corrected, InBin, TakenAway, Trace
from kessik.core.moments import Moment
from kessik.core.trials.state import TrialRun
from kessik.core.words.traces import trace_words
from kessik.services.record.excluding import Answered, Compared
from kessik.services.record.trials import TrialRecord

Count = Annotated[int, Field(ge=1, le=1_000_000)]


class RunPatch(Patch):
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

    @classmethod
    def of_run(cls, r: TrialRun, numbers: dict[str, int]) -> "RecordedRunOut":
        run = r.run
        return cls(
            **RunBrief.of(r).model_dump(),
            blade=r.blade.code,
            mark=r.blade.mark,
            arm=run.arm or r.edge.arm,
            block=run.block,
            operator=run.operator,
            from_paper=run.from_paper,
            check_every=run.check_every,
            verifies_run_id=run.verifies_run_id,
            note=str(run.other.get("note", "")),
            put_right_after_stop=r.state.put_right_after_stop,
            method_number=numbers.get(run.method_id),
        )


class TraceOut(Wire):
    """One change, in words."""

    id: str
    kind: Corrected
    owner_id: str
    says: str
    reason: str
    made_utc: str

    @classmethod
    def of(cls, trace: Trace) -> "TraceOut":
        return cls(
            id=trace.id,
            kind=trace.kind,
            owner_id=trace.owner_id,
            says=trace_words(trace),
            reason=trace.reason,
            made_utc=trace.made_utc,
        )


class EdgeChoiceOut(Wire):
    """An edge that a run may be moved to."""

    edge_id: str
    blade: str
    edge: int
    is_cut: bool


class TrialChoiceOut(Wire):
    """A trial that a run may be moved to."""

    id: str
    name: str


class TrialRecordOut(Wire):
    """The record of a trial: what was cut, and what was put right since."""

    trial: TrialOut
    archived_utc: str
    sealed: str
    runs: list[RecordedRunOut]
    traces: list[TraceOut]
    edges: list[EdgeChoiceOut]

    @classmethod
    def of(cls, found: TrialRecord) -> "TrialRecordOut":
        numbers = {v.id: v.number for v in found.state.versions.values()}
        cut = {r.run.edge_id for r in found.state.runs if not r.run.practice}
        return cls(
            trial=TrialOut.of(found.state.trial),
            archived_utc=found.archived_utc,
            sealed=found.state.sealed,
            runs=[RecordedRunOut.of_run(r, numbers) for r in found.shown_runs],
            traces=[TraceOut.of(trace) for trace in found.traces],
            edges=[
                EdgeChoiceOut(edge_id=e.id, blade=b.own_code, edge=e.number, is_cut=e.id in cut)
                for b in found.blades
                for e in b.edges
            ],
        )


class TakeAwayBody(Wire):
    """Something to put into the bin."""

    kind: TakenAway
    owner_id: Id
    reason: LongText = ""


class DependentsOut(Wire):
    """What a thing is called, and what would go with it."""

    name: str
    holds: list[str]


class BinnedOut(Wire):
    """Something in the bin, and the day it is let go for good."""

    id: str
    kind: Binned
    owner_id: str
    name: str
    holds: list[str]
    reason: str
    binned_utc: str
    goes_on: str

    @classmethod
    def of(cls, entry: InBin) -> "BinnedOut":
        goes = date.fromisoformat(entry.binned_utc[:10]) + timedelta(days=BIN_DAYS)
        return cls(
            id=entry.id,
            kind=entry.kind,
            owner_id=entry.owner_id,
            name=entry.name,
            holds=list(entry.holds),
            reason=entry.reason,
            binned_utc=entry.binned_utc,
            goes_on=goes.isoformat(),
        )


class WithoutBody(Wire):
    """Readings, by their events, and runs to look without."""

    event_ids: list[Id] = Field(default_factory=list, max_length=500)
    run_ids: list[Id] = Field(default_factory=list, max_length=100)


class StrikeOutBody(WithoutBody):
    """The same, to be left out for good, with why."""

    reason: LongText


class AnsweredOut(Wire):
    """An answer in a few words."""

    headline: str
    standing: str
    lives: dict[str, str]

    @classmethod
    def of(cls, found: Answered) -> "AnsweredOut":
        return cls(**asdict(found))


class ComparedOut(Wire):
    """The answer as it is, and as it would be."""

    now: AnsweredOut
    then: AnsweredOut

    @classmethod
    def of(cls, found: Compared) -> "ComparedOut":
        return cls(now=AnsweredOut.of(found.now), then=AnsweredOut.of(found.then))


class StruckOutOut(Wire):
    """The ids of the strikes that were made."""

    strike_ids: list[str]
