"""From the log to the state of a run: a pure fold. Undo, audit, catch-up and crash recovery are
this one mechanism.
"""

from bisect import insort
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from kessik.core.errors import KessikError
from kessik.core.protocols.checks import CHECKS
from kessik.core.protocols.corrections import corrected_after_stop, corrected_elsewhere, in_force
from kessik.core.protocols.counting import Changes, Counting, Moved, amount_of, count_cuts
from kessik.core.protocols.events import (
    AFTER_STROP,
    DOSE_CHECKS,
    Abandon,
    BenchEvent,
    CheckPlanned,
    Correction,
    Cut,
    NotUnderstood,
    Outcome,
    Pause,
    Payload,
    Reading,
    Resume,
    Spoiled,
    StageLost,
    Start,
    Stop,
    Strike,
    Strop,
    corrected,
    corrected_count,
    plain_fields,
)
from kessik.core.protocols.methods import Method
from kessik.core.protocols.run_state import (
    LoggedCheck,
    PlannedCheck,
    RunState,
    RunStatus,
    StropTest,
    parted,
)
from kessik.core.protocols.series import WRITTEN, Check, outcome_of, seen_in
from kessik.core.protocols.stop_rules import Progress, assess, assess_one_more

_REWRITING = ("strike", "correction", "accept", "takeover")
"""Events that change what earlier ones mean, so that the log is folded anew."""


@dataclass
class _StateBuilder:
    """A run's facts while its events are taken in, one by one."""

    status: RunStatus = "fresh"
    checks: list[LoggedCheck] = field(default_factory=list)
    strops: list[StropTest] = field(default_factory=list)
    stages: dict[str, float] = field(default_factory=dict)
    spoiled: list[tuple[float, str]] = field(default_factory=list)
    plan: PlannedCheck | None = None
    plan_is_current: bool = False
    stopped_by: str | None = None
    taken: int = 0

    def goes_on(self) -> None:
        if self.status not in ("stopped", "abandoned"):
            self.status = "cutting"


_KNOWN_CHECKS = frozenset({*CHECKS, *DOSE_CHECKS, WRITTEN})


@dataclass(frozen=True)
class _AppliedEvent:
    """One event as it is taken in: its content after corrections, the count it was made at, whether
    struck out.
    """

    event: BenchEvent
    count: float
    struck: bool


def _start(draft: _StateBuilder, _said: Start | Cut | Resume, _told: _AppliedEvent) -> None:
    draft.goes_on()


def _reading(draft: _StateBuilder, said: Reading, told: _AppliedEvent) -> None:
    draft.goes_on()
    if said.stage != AFTER_STROP:
        _look(draft, said, told)
    elif draft.strops and not told.struck and said.value is not None:
        last = draft.strops[-1]
        draft.strops[-1] = replace(last, readings_gf=(*last.readings_gf, said.value))


def _outcome(draft: _StateBuilder, said: Outcome, told: _AppliedEvent) -> None:
    draft.goes_on()
    if said.stage != AFTER_STROP:
        _look(draft, said, told)
        if said.check == WRITTEN and said.outcome == "fail" and said.stage and not told.struck:
            draft.stages[said.stage] = told.count
    elif draft.strops and not told.struck:
        last = draft.strops[-1]
        tried = (said.check, said.outcome)
        draft.strops[-1] = replace(last, tries=(*last.tries, tried))


def _look(draft: _StateBuilder, said: Reading | Outcome, told: _AppliedEvent) -> None:
    logged = _logged_check(told, said)
    if _moved_on(draft, logged.check.count):
        draft.plan_is_current = False
    # a device that was away may tell of an earlier count later
    insort(draft.checks, logged, key=lambda each: each.check.count)
    plan = draft.plan
    if (
        plan is not None
        and logged.check.kind == plan.check
        and logged.check.count >= plan.next_count
    ):
        draft.taken += 1
    draft.plan_is_current = (
        draft.plan_is_current and plan is not None and draft.taken < plan.readings
    )


def _spoiled(draft: _StateBuilder, said: Spoiled, told: _AppliedEvent) -> None:
    draft.spoiled.append((told.count, said.cause))


def _strop(draft: _StateBuilder, said: Strop, told: _AppliedEvent) -> None:
    before = draft.strops[-1].strokes if draft.strops else 0.0
    draft.strops.append(StropTest(told.event.id, said.strokes + before))


def _check_planned(draft: _StateBuilder, said: CheckPlanned, _told: _AppliedEvent) -> None:
    draft.plan = PlannedCheck(
        said.next_count, int(said.readings), said.why, said.stage, said.band, said.check
    )
    draft.taken, draft.plan_is_current = 0, True


def _stage(draft: _StateBuilder, said: StageLost, _told: _AppliedEvent) -> None:
    draft.stages.pop(said.stage, None)
    if said.count is not None:
        draft.stages[said.stage] = said.count


def _changed(draft: _StateBuilder, _said: Strike | Correction, _told: _AppliedEvent) -> None:
    draft.plan_is_current = False


def _pause(draft: _StateBuilder, _said: Pause, _told: _AppliedEvent) -> None:
    if draft.status == "cutting":
        draft.status = "paused"


def _stop(draft: _StateBuilder, said: Stop, _told: _AppliedEvent) -> None:
    draft.status, draft.stopped_by = "stopped", said.by or "tester"


def _abandon(draft: _StateBuilder, _said: Abandon, _told: _AppliedEvent) -> None:
    draft.status, draft.stopped_by = "abandoned", "tester"


_STEPS: Mapping[type[Any], Callable[[_StateBuilder, Any, _AppliedEvent], None]] = {
    Start: _start, Cut: _start, Resume: _start, Reading: _reading, Outcome: _outcome,
    Spoiled: _spoiled,
    Strop: _strop, CheckPlanned: _check_planned, StageLost: _stage, Strike: _changed,
    Correction: _changed, Pause: _pause, Stop: _stop, Abandon: _abandon,
}  # fmt: skip  # what is not named moves nothing here


def fold(
    events: Sequence[BenchEvent], method: Method, worked_mm: tuple[float, float] | None = None
) -> RunState:
    """The state of a run after its events, in log order; `worked_mm` is the zone it cuts with, from
    heel to tip.
    """
    whole, events = events, [_known_to(method, event) for event in in_force(events)]
    changes, unread, recounted = _changes(events)
    counting = count_cuts(events, changes)
    struck = {e.payload.target for e in events if isinstance(e.payload, Strike)}
    draft = _StateBuilder()
    for event in events:
        said = changes.get(event.id, event.payload)
        if said is None or isinstance(said, NotUnderstood) or event.id in unread:
            continue
        step = _STEPS.get(type(said))
        if step is not None:
            count = recounted.get(event.id, _count_of(event, counting.moved))
            step(draft, said, _AppliedEvent(event, count, event.id in struck))
    gone = {key for key, becomes in changes.items() if becomes is None}
    left_out = tuple(
        event
        for event in (_marked(event, unread) for event in events)
        if isinstance(event.payload, NotUnderstood) and event.id not in struck | gone
    )
    bare = _bare(draft, counting, worked_mm)
    known = replace(
        bare,
        position=max((event.position for event in whole), default=0),
        withdrawn=frozenset(gone),
        not_understood=left_out,
        rewritten_at=max((e.position for e in whole if e.kind in _REWRITING), default=0),
        corrections_after_stop=corrected_after_stop(whole),
        corrected_elsewhere=corrected_elsewhere(whole),
    )
    return _finished(known, draft, method)


def _known_to(method: Method, event: BenchEvent) -> BenchEvent:
    """An event; one of a check that its method does not define is not understood."""
    said = event.payload
    if not isinstance(said, Reading | Outcome) or said.check in _KNOWN_CHECKS:
        return event
    if method.has(said.check):
        return event
    why = f"“{said.check}” is not a check of this method"
    return replace(event, payload=NotUnderstood(event.kind, str(plain_fields(said)), why))


def advance(
    state: RunState, event: BenchEvent, events: Sequence[BenchEvent], method: Method
) -> RunState:
    """The state after one event more, which is the last of `events`: the same as a fold of them
    all.

    What changes the meaning of earlier events is folded anew; all else costs no more in a long run.
    A worked example: behind a thousand cuts one cut more adds its amount to the count and moves
    what is due; a correction of the third of them folds all thousand and one again.
    """
    said = _known_to(method, event).payload
    rewrites = event.kind in _REWRITING or isinstance(said, NotUnderstood)
    undecided = state.has_ended or state.reopened
    if rewrites or undecided or not state.position:
        return fold(events, method, state.worked_mm)
    draft = _StateBuilder(
        status=state.status,
        checks=list(state.checks),
        strops=list(state.strops),
        stages=dict(state.stages),
        spoiled=list(state.spoiled),
        plan=state.plan,
        plan_is_current=state.plan_is_current,
        stopped_by=state.stopped_by,
        taken=state.taken,
    )
    step = _STEPS.get(type(said))
    if step is not None:
        step(draft, said, _AppliedEvent(event, event.count_at, False))
    moved = replace(_counted_on(state, event), position=event.position)
    if isinstance(said, Cut) and not _count_decides(state, method):
        return _due_now(replace(moved, status=draft.status), draft)
    return _finished(moved, draft, method, _one_more(state, draft, method))


def _one_more(state: RunState, draft: _StateBuilder, method: Method) -> Progress | None:
    """The progress after one event more, where the last checks tell it; None where all of them are
    needed.

    A worked example: a reading of 310 gf at cut 40 loses keen by itself and the one before it; a
    reading sent late, which belongs to cut 20, is judged with all of them.
    """
    if len(draft.checks) == len(state.checks):
        return None if _count_decides(state, method) else state.progress
    if not draft.checks or draft.checks[-1].position <= state.position:
        return None  # told late, it stands before others
    own, beside = parted(draft.checks, state.worked_mm)
    return assess_one_more(state.progress, own, method) if own and not beside else None


def _count_decides(state: RunState, method: Method) -> bool:
    """Whether a cut alone can end a run or change what is asked for.

    A worked example: of a dose of 50 cuts the fiftieth does; in a force-limit run none does, as
    only a reading loses keen or dull.
    """
    return method.dose is not None or all(
        stage.name in state.progress.lost for stage in method.stages
    )


def _counted_on(state: RunState, event: BenchEvent) -> RunState:
    """The count with one event more that rewrites nothing.

    A worked example: at 40 a cut of the device that holds the count makes 41; one of another device
    becomes a proposal, and the count stays 40.
    """
    if isinstance(event.payload, Pause):
        return replace(state, holder=None)
    if not isinstance(event.payload, Cut):
        return state
    holder = state.holder or event.device
    if state.one_holds and event.device != holder:
        return replace(state, holder=holder, proposals=(*state.proposals, event))
    return replace(state, holder=holder, count=state.count + amount_of(event))


def _bare(
    draft: _StateBuilder, counting: Counting, worked_mm: tuple[float, float] | None
) -> RunState:
    """A state of which only the count is known."""
    return RunState(
        status=draft.status,
        count=counting.count,
        checks=(),
        stages={},
        plan=None,
        plan_is_current=False,
        progress=Progress({}, "force", False, False),
        confirmation_wanted=False,
        check_due=False,
        readings_wanted=0,
        stopped_by=None,
        position=0,
        withdrawn=frozenset(),
        worked_mm=worked_mm,
        holder=counting.holder,
        proposals=counting.proposals,
        one_holds=counting.one_holds,
    )


def _finished(
    state: RunState, draft: _StateBuilder, method: Method, known: Progress | None = None
) -> RunState:
    """The state with what follows from its facts: stages, the stop rule, what is due; unless the
    progress is known.
    """
    progress = known
    if progress is None:
        own, beside = parted(draft.checks, state.worked_mm)
        progress = assess(own, method, state.count, beside)
    # at the bench, the reading that ended the run may have been taken back or struck out
    ended_by_rule = draft.status == "stopped" and draft.stopped_by == "rule"
    reopened = ended_by_rule and not progress.met and not state.corrected_elsewhere
    if reopened:
        draft.status, draft.stopped_by = "cutting", None
    found = replace(
        state,
        status=draft.status,
        checks=tuple(draft.checks),
        stages=draft.stages,
        progress=progress,
        stopped_by=draft.stopped_by,
        spoiled=tuple(draft.spoiled),
        places_mm=_places(method, progress, draft.taken),
        strops=tuple(draft.strops),
        taken=draft.taken,
        reopened=reopened,
    )
    return _due_now(found, draft)


def _due_now(state: RunState, draft: _StateBuilder) -> RunState:
    """The state with its plan and whether a check is due at its count."""
    ended = state.has_ended
    if _moved_on(draft, state.count):
        draft.plan_is_current = False
    due, wanted = _due(
        draft.plan if draft.plan_is_current else None, draft.taken, state.count, state.progress
    )
    return replace(
        state,
        plan=None if ended else draft.plan,
        plan_is_current=draft.plan_is_current or ended,
        confirmation_wanted=not ended and state.progress.confirmation_wanted,
        check_due=due and not ended,
        readings_wanted=0 if ended else wanted,
    )


def _moved_on(draft: _StateBuilder, count: float) -> bool:
    """Whether the hand cut on with some of the planned readings taken: what is missing of them is
    not asked for any more.

    A worked example: two readings are wanted at 40 and one is taken; at 41 the other is given up.
    """
    plan = draft.plan
    if plan is None or not draft.plan_is_current or not draft.taken:
        return False
    own = (
        logged.check.count for logged in reversed(draft.checks) if logged.check.kind == plan.check
    )
    return next(own, count) < count


def _changes(
    events: Sequence[BenchEvent],
) -> tuple[Changes, Mapping[str, str], Mapping[str, float]]:
    """What later corrections made of earlier events; corrections that cannot be read, with why; and
    the counts of those that belong to another.
    """
    by_id = {event.id: event.payload for event in events}
    changes: dict[str, Payload | None] = {}
    unread: dict[str, str] = {}
    recounted: dict[str, float] = {}
    for event in events:
        if not isinstance(event.payload, Correction):
            continue
        target, becomes = event.payload.target, event.payload.becomes
        before = changes.get(target) or by_id.get(target)
        if becomes is None:
            changes[target] = None
        elif before is not None and not isinstance(before, NotUnderstood):
            try:
                changes[target] = corrected(before, becomes)
                count = corrected_count(becomes)
            except KessikError as wrong:
                unread[event.id] = wrong.message
            else:
                recounted |= {} if count is None else {target: count}
    return changes, unread, recounted


def _marked(event: BenchEvent, unread: Mapping[str, str]) -> BenchEvent:
    """A correction that cannot be read, as an event that is not understood."""
    if event.id not in unread or not isinstance(event.payload, Correction):
        return event
    return replace(
        event, payload=NotUnderstood("correction", str(event.payload.becomes), unread[event.id])
    )


def _count_of(event: BenchEvent, moved: Sequence[Moved]) -> float:
    """The count a reading was taken at: as shown then, with what later corrections made of the cuts
    before it.
    """
    by = sum(each.by for each in moved if each.counted_at < event.position < each.moved_at)
    return max(event.count_at + by, 0.0)


def _logged_check(told: _AppliedEvent, said: Reading | Outcome) -> LoggedCheck:
    check = check_of(said, told.count, told.struck)
    return LoggedCheck(told.event.id, check, said, told.event.position)


def check_of(said: Reading | Outcome, count: float, struck: bool = False) -> Check:
    """The check that a reading or an outcome at a count is."""
    value = said.value if isinstance(said, Reading) else None
    is_force = said.check == "force" or (said.check in DOSE_CHECKS and value is not None)
    outcome = said.outcome if isinstance(said, Outcome) else None
    return Check(
        count=count,
        kind="force" if is_force else said.check,
        force_gf=value if is_force else None,
        outcome=outcome_of(said.check, outcome),
        stage=said.stage,
        struck=struck,
        value=None if is_force else value,
        seen=seen_in(said.check, str(said.entered or outcome or "")),
        position_mm=said.position_mm,
    )


def _due(
    plan: PlannedCheck | None, taken: int, count: float, progress: Progress
) -> tuple[bool, int]:
    """Whether a check is due at this count and how many readings it still wants."""
    if progress.confirmation_wanted:
        return True, 1
    if plan is None:
        return False, 0
    wanted = max(plan.readings - taken, 0)
    return count >= plan.next_count and wanted > 0, wanted


def _places(method: Method, progress: Progress, taken: int) -> tuple[float, ...]:
    """The stations of the coming readings, all of one before the next; after the last of a check
    the first again.
    """
    stations = method.stations_mm
    if not stations:
        return ()
    each = max(method.readings(progress.asked) // len(stations), 1)
    whole = tuple(station for station in stations for _ in range(each))
    begin = taken % len(whole)
    return whole[begin:] + whole[:begin]
