"""A run's state: a pure fold of facts over its log. Undo, audit, catch-up and crash recovery are this one mechanism."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any, Literal

from kessik.core.errors import NotAllowedNowError, UnknownError
from kessik.core.protocols.counting import Moved, count_cuts
from kessik.core.protocols.events import AFTER_STROP, BenchEvent, check_payload
from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import Check, RunSeries, outcome_of
from kessik.core.protocols.stop_rules import Progress, assess

RunStatus = Literal["fresh", "cutting", "paused", "stopped", "abandoned"]
CORRECTABLE = frozenset({"cut", "reading", "outcome", "note", "spoiled", "accept", "strop"})
ENDING_MOVES = frozenset({"stop", "pause", "resume", "takeover", "accept"})


@dataclass(frozen=True)
class LoggedCheck:
    """A check with the event it came from and its count after all corrections."""

    event_id: str
    check: Check
    payload: Mapping[str, Any]


@dataclass(frozen=True)
class Plan:
    """The check the tester was told to make next."""

    next_count: float
    readings: int
    why: str
    stage: str | None
    band: tuple[float, float] | None = None
    check: str = "force"


@dataclass(frozen=True)
class StropTest:
    """Strokes on the strop after the stop, since the last stones, and the readings in gf that followed them."""

    event_id: str
    strokes: float
    readings_gf: tuple[float, ...] = ()


@dataclass(frozen=True)
class RunState:
    """What is true of a run now: status, count, checks, the stages passed, and whether its stop rule is met."""

    status: RunStatus
    count: float
    checks: tuple[LoggedCheck, ...]
    stages: Mapping[str, float]
    plan: Plan | None
    plan_is_current: bool
    progress: Progress
    confirmation_wanted: bool
    check_due: bool
    readings_wanted: int
    stopped_by: str | None
    position: int
    withdrawn: frozenset[str]
    spoiled: tuple[tuple[float, str], ...] = ()
    worked_mm: tuple[float, float] | None = None
    station_mm: float | None = None
    holder: str | None = None
    proposals: tuple[BenchEvent, ...] = ()
    strops: tuple[StropTest, ...] = ()
    one_holds: bool = False

    @property
    def rule_met(self) -> bool:
        return self.progress.met

    @property
    def force_checks(self) -> list[Check]:
        return [check for check in self.worked_checks if check.force_gf is not None]

    @property
    def worked_checks(self) -> list[Check]:
        """Unstruck checks in the worked zone."""
        return worked(self.checks, self.worked_mm)

    @property
    def asked_at_mm(self) -> float | None:
        """The station the next reading is asked at, where the method names stations."""
        return self.station_mm if self.check_due else None


def worked(checks: Sequence[LoggedCheck], worked_mm: tuple[float, float] | None) -> list[Check]:
    """Unstruck checks in the worked zone, of a log."""
    return _parted(checks, worked_mm)[0]


def _parted(checks: Sequence[LoggedCheck], worked_mm: tuple[float, float] | None) -> tuple[list[Check], list[Check]]:
    """Unstruck checks in the worked zone, and those beside it."""
    run = RunSeries("", 1, 1, (), worked_mm=worked_mm)
    parts: tuple[list[Check], list[Check]] = ([], [])
    for logged in checks:
        if not logged.check.struck:
            parts[run.is_control(logged.check)].append(logged.check)
    return parts


def fold(events: Sequence[BenchEvent], method: Method, worked_mm: tuple[float, float] | None = None) -> RunState:
    """The state of a run after its events, in log order; `worked_mm` is the zone it cuts with, from heel to tip."""
    changes = _changes(events)
    counting = count_cuts(events, changes)
    struck = {str(e.payload["target"]) for e in events if e.kind == "strike"}
    status = "fresh"
    checks: list[LoggedCheck] = []
    strops: list[StropTest] = []
    stages: dict[str, float] = {}
    spoiled: list[tuple[float, str]] = []
    plan: Plan | None = None
    plan_is_current, stopped_by, taken = False, None, 0
    for event in events:
        if event.id in changes and changes[event.id] is None:
            continue
        payload = {**event.payload, **(changes.get(event.id) or {})}
        if event.kind in ("cut", "reading", "outcome", "resume", "start") and status not in ("stopped", "abandoned"):
            status = "cutting"
        if event.kind == "reading" and payload.get("stage") == AFTER_STROP:
            if strops and event.id not in struck:
                strops[-1] = replace(strops[-1], readings_gf=(*strops[-1].readings_gf, float(payload["value"])))
        elif event.kind in ("reading", "outcome"):
            logged = _logged_check(event, payload, _count_of(event, counting.moved), event.id in struck)
            checks.append(logged)
            taken += plan is not None and logged.check.kind == plan.check and logged.check.count >= plan.next_count
            plan_is_current = plan_is_current and plan is not None and taken < plan.readings
        elif event.kind == "spoiled":
            spoiled.append((_count_of(event, counting.moved), str(payload.get("cause") or "")))
        elif event.kind == "strop":
            strops.append(StropTest(event.id, float(payload["strokes"]) + (strops[-1].strokes if strops else 0.0)))
        elif event.kind == "check_planned":
            plan, taken = _plan(payload), 0
            plan_is_current = True
        elif event.kind == "stage":
            stages.pop(str(payload["stage"]), None)
            if payload["count"] is not None:
                stages[str(payload["stage"])] = float(payload["count"])
        elif event.kind in ("strike", "correction"):
            plan_is_current = False
        elif event.kind == "pause" and status == "cutting":
            status = "paused"
        elif event.kind in ("stop", "abandon"):
            status = "stopped" if event.kind == "stop" else "abandoned"
            stopped_by = str(payload.get("by", "tester"))
    checks.sort(key=lambda logged: logged.check.count)  # a device that was away may tell of an earlier count later
    count = counting.count
    own, beside = _parted(checks, worked_mm)
    progress = assess(own, method, count, beside)
    due, wanted = _due(plan if plan_is_current else None, taken, count, progress)
    met = progress.met
    if status == "stopped" and stopped_by == "rule" and not met:
        status, stopped_by = "cutting", None  # the reading that ended the run was taken back or struck out
    ended = status in ("stopped", "abandoned")
    return RunState(
        status=status,  # type: ignore[arg-type]  # only the literals above are ever assigned
        count=count,
        checks=tuple(checks),
        stages=stages,
        plan=None if ended else plan,
        plan_is_current=plan_is_current or ended,
        progress=progress,
        confirmation_wanted=not ended and progress.confirmation_wanted,
        check_due=due and not ended,
        readings_wanted=0 if ended else wanted,
        stopped_by=stopped_by,
        position=max((event.position for event in events), default=0),
        withdrawn=frozenset(key for key, becomes in changes.items() if becomes is None),
        spoiled=tuple(spoiled),
        worked_mm=worked_mm,
        station_mm=_station(method, progress, taken),
        holder=counting.holder,
        proposals=counting.proposals,
        strops=tuple(strops),
        one_holds=counting.one_holds,
    )


def advance(state: RunState, event: BenchEvent, events: Sequence[BenchEvent], method: Method) -> RunState:
    """The state after one event more, which is the last of `events`: the same as a fold of them all.

    A plain cut, which is nearly every event of a long run, moves nothing but the count and what is due at it.
    """
    counts = not state.one_holds or state.holder in (None, event.device)
    standing = any(stage.name not in state.progress.lost for stage in method.stages)
    going = state.status in ("fresh", "cutting", "paused")
    if event.kind != "cut" or not counts or not standing or method.dose is not None or not going:
        return fold(events, method, state.worked_mm)
    count = state.count + float(event.payload["amount"])
    due = state.plan_is_current and state.plan is not None and count >= state.plan.next_count
    return replace(
        state,
        status="cutting",
        count=count,
        check_due=state.progress.confirmation_wanted or (due and state.readings_wanted > 0),
        position=event.position,
        holder=state.holder or event.device,
    )


def _plan(payload: Mapping[str, Any]) -> Plan:
    band = payload.get("band")
    return Plan(
        next_count=float(payload["next_count"]),
        readings=int(payload["readings"]),
        why=str(payload["why"]),
        stage=payload.get("stage"),
        band=(float(band[0]), float(band[1])) if band else None,
        check=str(payload.get("check", "force")),
    )


def _changes(events: Sequence[BenchEvent]) -> dict[str, Mapping[str, Any] | None]:
    """What later corrections made of earlier events: None where taken back, else the fields that changed."""
    changes: dict[str, Mapping[str, Any] | None] = {}
    for event in events:
        if event.kind == "correction":
            target, becomes = str(event.payload["target"]), event.payload.get("becomes")
            changes[target] = None if becomes is None else {**(changes.get(target) or {}), **becomes}
    return changes


def _count_of(event: BenchEvent, moved: Sequence[Moved]) -> float:
    """The count a reading was taken at: as shown then, with what later corrections made of the cuts before it."""
    by = sum(each.by for each in moved if each.counted_at < event.position < each.moved_at)
    return max(event.count_at + by, 0.0)


def _logged_check(event: BenchEvent, payload: Mapping[str, Any], count: float, struck: bool) -> LoggedCheck:
    kind = str(payload.get("check", "force"))
    value = float(payload["value"]) if event.kind == "reading" and payload.get("value") is not None else None
    is_force = kind == "force" or (kind in ("dose_start", "dose_end") and payload.get("unit") == "gf")
    check = Check(
        count=count,
        kind="force" if is_force else kind,
        force_gf=value if is_force else None,
        outcome=outcome_of(kind, payload.get("outcome")),
        stage=payload.get("stage"),
        struck=struck,
        value=None if is_force else value,
        seen=str(payload.get("entered") or payload.get("outcome") or "") if kind == "inspect" else "",
        position_mm=payload.get("position_mm"),
    )
    return LoggedCheck(event.id, check, payload)


def _due(plan: Plan | None, taken: int, count: float, progress: Progress) -> tuple[bool, int]:
    """Whether a check is due at this count and how many readings it still wants."""
    if progress.confirmation_wanted:
        return True, 1
    if plan is None:
        return False, 0
    wanted = max(plan.readings - taken, 0)
    return count >= plan.next_count and wanted > 0, wanted


def _station(method: Method, progress: Progress, taken: int) -> float | None:
    """Stations are read in turn, all of one before the next."""
    if not method.stations_mm:
        return None
    each = max(method.readings(progress.asked) // len(method.stations_mm), 1)
    return method.stations_mm[min(taken // each, len(method.stations_mm) - 1)]


def admit(event: BenchEvent, state: RunState, known: Mapping[str, BenchEvent], stop_position: int | None) -> None:
    """Refuse an event that cannot be true of the run now; raises a KessikError naming the field.

    Events of a device that had not yet seen the stop are taken: what was cut was cut.
    """
    check_payload(event.kind, event.payload)
    _admit_after_end(event, state, stop_position)
    if event.kind == "accept":
        if state.holder not in (None, event.device):
            raise NotAllowedNowError("another device holds the count; take it over to accept cuts", field="device")
        for each in event.payload["targets"]:
            if each not in known or known[each].kind != "cut":
                raise UnknownError("a cut to accept is not in this run", field="targets")
    if event.kind in ("strike", "correction"):
        target = known.get(str(event.payload["target"]))
        if target is None:
            raise UnknownError("the event this points at is not in this run", field="target")
        if target.kind not in CORRECTABLE:
            raise NotAllowedNowError(f"a {target.kind} event cannot be changed", field="target")
        becomes = event.payload.get("becomes")
        if becomes is not None:
            check_payload(target.kind, {**target.payload, **becomes})


def _admit_after_end(event: BenchEvent, state: RunState, stop_position: int | None) -> None:
    ended = state.status in ("stopped", "abandoned")
    if event.kind == "strop" and state.status != "stopped":
        raise NotAllowedNowError("stropping back is tested once the run has stopped", field="run")
    if event.kind == "reading" and event.payload.get("stage") == AFTER_STROP:
        if state.status != "stopped" or not state.strops:
            raise NotAllowedNowError("say how many strokes on the strop went before this reading", field="run")
        return
    unaware = stop_position is not None and event.last_seen_position < stop_position
    refused = ENDING_MOVES if unaware else ENDING_MOVES | {"cut", "reading", "outcome", "spoiled"}
    if ended and event.kind in refused:
        raise NotAllowedNowError(f"this run is {state.status}; start another run to go on", field="run")
