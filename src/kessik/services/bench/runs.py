"""The bench: runs started, events taken, checks planned. An event is on disk before it is
acknowledged.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from uuid import NAMESPACE_URL, uuid5

from kessik.core.errors import ConflictError, NotAllowedNowError, OutOfRangeError, UnknownError
from kessik.core.limits import LIMITS
from kessik.core.media import exposure_mm2_per_mm, rope_area_mm2
from kessik.core.planning.bench_card import BenchCard, bench_card
from kessik.core.planning.resting import is_to_be_read_again
from kessik.core.planning.schedule import plan_next
from kessik.core.protocols.admission import admit
from kessik.core.protocols.events import (
    SERVER_KINDS,
    BenchEvent,
    CheckPlanned,
    Correction,
    Outcome,
    Payload,
    Reading,
    StageLost,
    Start,
    Stop,
)
from kessik.core.protocols.folding import advance, fold
from kessik.core.protocols.methods import Method
from kessik.core.protocols.pace import HandPace
from kessik.core.protocols.run_state import RunState
from kessik.core.runs import Run
from kessik.core.sharpening.strop_back import AbilityBack, StropBack
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge
from kessik.core.trials.arms import arm_and_edge, arms_of
from kessik.core.trials.blinding import Sealing, sealed_run
from kessik.core.trials.run_admission import check_zone, gone_on_from, same_steel
from kessik.core.trials.run_series import edge_length_used_mm
from kessik.core.trials.strop_tests import abilities_back, strop_tests
from kessik.core.trials.trial import Trial
from kessik.core.words.checks_ahead import planned_words
from kessik.core.words.methods import ends_when
from kessik.services.bench.bench import Bench
from kessik.services.bench.beside import pace_of, paused_since
from kessik.services.live import run_topic
from kessik.services.reading.run_logs import RunLog
from kessik.services.reading.trials import blind_codes, get_trial, method_of_run
from kessik.services.stock import lots
from kessik.store.database import Session
from kessik.store.queries import bench_log, trials

SERVER = "server"


@dataclass(frozen=True)
class Acknowledgement:
    """An event's place in the log, whether it was there before, and the run's state with it."""

    position: int
    duplicate: bool
    state: RunState


@dataclass(frozen=True)
class RunView:
    """A run with all the bench needs to show."""

    run: Run
    trial: Trial
    method: Method
    blade: Blade
    edge: Edge
    state: RunState
    events: tuple[BenchEvent, ...]
    sealed: Sealing | None = None
    shown_as: str = ""

    @property
    def is_covered(self) -> bool:
        """Whether a code stands for the blade, and how its runs went is hidden."""
        return self.trial.is_blind and not self.run.practice

    @property
    def card(self) -> BenchCard:
        """What the screen needs to go on alone."""
        return bench_card(self.method, self.state)

    @property
    def strop_back(self) -> list[StropBack]:
        """What the strop brought back of what the run lost."""
        return strop_tests(self.state, self.method)

    @property
    def abilities_back(self) -> list[AbilityBack]:
        """What the edge does again after the strop, by paper, hair or lamp."""
        return abilities_back(self.state)

    @property
    def pace(self) -> HandPace:
        """How fast the hand is, and whether it has had enough."""
        return pace_of(self.events)

    @property
    def paused_since(self) -> str | None:
        """When the break that lasts now began."""
        return paused_since(self.events, self.state)

    @property
    def edge_length_used_mm(self) -> float | None:
        """The length of edge that works: as recorded, else the zone, else the whole edge."""
        return edge_length_used_mm(self.run, self.blade)

    @property
    def exposure_per_cut_mm2_per_mm(self) -> float | None:
        """Rope severed per millimetre of edge by one cut, where rope and edge length are known."""
        diameter, length = self.trial.rope_diameter_mm, self.edge_length_used_mm
        if diameter is None or length is None or self.run.count_unit != "cuts":
            return None
        return exposure_mm2_per_mm(rope_area_mm2(diameter), length)


def start_run(bench: Bench, run: Run, insist_on_lot: bool = False) -> RunView:
    """Start a run on an edge; the same id twice is one run. An edge carries one counted run.

    It keeps the version of the method in force and the lots it takes from; another lot inside a
    block is refused unless insisted on, and then marked.
    """
    with bench.db.write() as session:
        trial = get_trial(session, run.trial_id)
        if bench_log.find_run(session, run.id) is None:
            numbered = _placed(
                session, trial, replace(run, number=_check_start(session, run)), insist_on_lot
            )
            bench_log.add_run(session, numbered)
            _append_own(session, numbered, Start(one_holds=True), run.started.utc, 0.0, "start")
    return run_view(bench, run.id)


def _placed(session: Session, trial: Trial, run: Run, insist_on_lot: bool) -> Run:
    """A run with its block, round, method and lots."""
    method = trial.method
    found = replace(run, method_id=trial.method_id, count_unit=method.count_unit)
    if (
        run.zone_from_mm is None
        and run.edge_length_used_mm is None
        and method.zone_length_mm is not None
    ):
        found = replace(found, edge_length_used_mm=method.zone_length_mm)
    if run.practice:
        return found
    earlier = [other for other in bench_log.runs_of(session, trial.id) if not other.practice]
    arms = arms_of(trials.blades_of(session, trial.id), earlier)
    edges = {edge.id for edge in arm_and_edge(arms, run)[0].own_edges}
    cut = {other.edge_id for other in earlier if other.edge_id in edges}
    turn = len(cut - {run.edge_id}) + 1
    found = replace(found, block=run.block or turn, round=turn if method.cycles else None)
    found = replace(found, bookings=lots.bookings_for(session, trial, method))
    return replace(found, lot_change=lots.lot_change(session, found, earlier, insist_on_lot))


def _check_start(session: Session, run: Run) -> int:
    """Refuse a run that cannot start; returns its number on its edge."""
    blades = trials.blades_of(session, run.trial_id)
    blade = next((b for b in blades for edge in b.edges if edge.id == run.edge_id), None)
    if blade is None:
        raise UnknownError("this edge does not belong to a blade of the trial", field="edge_id")
    edge = next(e for e in blade.edges if e.id == run.edge_id)
    check_zone(run, blade, edge)
    if blade.arms and edge.arm not in blade.arms and not run.practice:
        raise NotAllowedNowError(
            f"this trial compares {blade.code} as {', '.join(blade.arms)}; say at edge"
            f" {edge.number} which of them it was prepared as",
            field="arm",
        )
    earlier = bench_log.runs_on_edge(
        session, run.edge_id
    )  # of every trial: worn steel is worn for all of them
    if not run.practice:
        before = _stropped(session, run, earlier)
        for other in earlier:
            if not other.practice and same_steel(run, other) and other.id not in before:
                message = "this edge has been cut already; sharpen the blade and record a new edge"
                raise NotAllowedNowError(message, field="edge_id")
    return sum(1 for other in earlier if other.trial_id == run.trial_id) + 1


def _stropped(session: Session, run: Run, earlier: Sequence[Run]) -> set[str]:
    """The runs before this one on the same edge, where it goes on after the last of them was
    stropped back.
    """
    if run.after_strop_of is None:
        return set()
    last = next((other for other in earlier if other.id == run.after_strop_of), None)
    if last is None:
        raise UnknownError(
            "the run that was stropped back is not on this edge", field="after_strop_of"
        )
    if any(other.after_strop_of == last.id for other in earlier):
        raise NotAllowedNowError(
            "this edge was cut again after that strop already", field="after_strop_of"
        )
    if not any(event.kind == "strop" for event in bench_log.events_of(session, last.id)):
        raise NotAllowedNowError(
            "strop it back first, and say with how many strokes", field="after_strop_of"
        )
    return gone_on_from(run, {other.id: other for other in earlier})


def append_event(bench: Bench, run_id: str, event: BenchEvent, server_utc: str) -> Acknowledgement:
    """Take one event; it is stored, with what the server declares of it, before this returns.

    The same id with the same content is acknowledged again; with other content it is a
    ConflictError.
    """
    if event.kind in SERVER_KINDS:
        raise OutOfRangeError(
            f"{event.kind} events are the server's own", field="kind", value=event.kind
        )
    with bench.db.write() as session:
        log = bench.logs.log(session, run_id)
        method = method_of_run(session, log.run)
        known = log.by_id.get(event.id)
        if known is not None:
            if replace(known, position=0) != replace(event, position=0):
                raise ConflictError("this id was used for another event", field="id")
            return Acknowledgement(known.position, True, bench.logs.state(log, method))
        state = bench.logs.state(log, method)
        stopped_at = _stopped_at(log) if state.has_ended else None
        length_mm = _edge_length_mm(session, log.run) if _names_a_place(event) else None
        admit(event, state, method, log.by_id, stopped_at, length_mm)
        position = bench_log.append(session, run_id, event, server_utc)
        if position is None:
            raise ConflictError(
                "this id or device sequence number was used before",
                field=_used_field(session, event),
            )
        placed = replace(event, position=position)
        events = [*log.events, placed]
        state = _declare(
            session, log.run, method, events, advance(state, placed, events, method), server_utc
        )
    bench.logs.remember(run_id, method, state)
    bench.live.tell(run_topic(run_id), state.position)
    return Acknowledgement(position, False, state)


def _names_a_place(event: BenchEvent) -> bool:
    """Whether an event says where on the edge something is, so that the edge has to be known."""
    said = event.payload
    if isinstance(said, Correction):
        return "position_mm" in (said.becomes or {})
    return isinstance(said, Reading | Outcome) and said.position_mm is not None


def _edge_length_mm(session: Session, run: Run) -> float | None:
    blades = trials.blades_of(session, run.trial_id)
    blade = next((b for b in blades for edge in b.edges if edge.id == run.edge_id), None)
    return blade.edge_length_mm if blade else None


def _stopped_at(log: RunLog) -> int | None:
    """Where in the log the run was last stopped."""
    return next((e.position for e in reversed(log.events) if e.kind in ("stop", "abandon")), None)


def _used_field(session: Session, event: BenchEvent) -> str:
    return "id" if bench_log.has_event(session, event.id) else "device_sequence"


def _declare(
    session: Session,
    run: Run,
    method: Method,
    log: list[BenchEvent],
    state: RunState,
    server_utc: str,
) -> RunState:
    """Log the stages and the stop that the facts now show; only the server declares them."""
    if log[-1].kind not in ("reading", "outcome", "strike", "correction"):
        return state
    if _reopens(log):
        return state
    declared = len(log)
    checks, progress = state.worked_checks, state.progress
    waits = not state.has_ended and is_to_be_read_again(checks, method, progress)
    for stage in method.stages:
        if waits and stage.name == method.end_stage:
            continue
        count = progress.lost.get(stage.name)
        if state.stages.get(stage.name) != count:
            said = StageLost(stage=stage.name, count=count)
            log.append(_declared(session, run, said, stage.name, server_utc, state, log))
    if state.rule_met and not state.has_ended and not waits:
        said_stop = Stop(by="rule", reason=ends_when(method))
        log.append(_declared(session, run, said_stop, "", server_utc, state, log))
    return state if len(log) == declared else fold(log, method, run.worked_mm)


def _reopens(log: Sequence[BenchEvent]) -> bool:
    """Whether the last event takes back the stop before it: the rule is asked at the next look."""
    said = log[-1].payload
    if not isinstance(said, Correction):
        return False
    return any(e.id == said.target and e.kind in ("stop", "abandon") for e in log)


def _declared(
    session: Session,
    run: Run,
    said: StageLost | Stop,
    stage: str,
    utc: str,
    state: RunState,
    log: list[BenchEvent],
) -> BenchEvent:
    key = f"{'stop' if isinstance(said, Stop) else 'stage'}:{stage}:{log[-1].position}"
    return _append_own(session, run, said, utc, state.count, key)


def _append_own(
    session: Session, run: Run, said: Payload, utc: str, count: float, key: str
) -> BenchEvent:
    event = BenchEvent(
        id=str(uuid5(NAMESPACE_URL, f"kessik:{run.id}:{key}")),
        payload=said,
        device=SERVER,
        device_sequence=bench_log.next_sequence(session),
        last_seen_position=0,
        count_at=count,
        client_time=utc,
    )
    position = bench_log.append(session, run.id, event, utc)
    assert position is not None, "the server's own ids and sequence numbers are new"
    return replace(event, position=position)


def plan_check(bench: Bench, run_id: str, server_utc: str) -> RunState:
    """Plan the next check if readings came in since it was last planned, and log what the tester is
    told.
    """
    with bench.db.read() as session:
        log = bench.logs.log(session, run_id)
        method = method_of_run(session, log.run)
    state = bench.logs.state(log, method)
    if state.plan_is_current or state.has_ended:
        return state
    planned = plan_next(state.worked_checks, method, state.count, state.progress)
    if planned.stop or planned.next_count is None:
        return state
    most = LIMITS["count"].most
    told = CheckPlanned(
        next_count=min(planned.next_count, most),
        readings=planned.readings,
        why=planned_words(planned.why),
        stage=planned.stage,
        band=(min(planned.band[0], most), min(planned.band[1], most)) if planned.band else None,
        check=state.progress.asked,
    )
    key = f"check_planned:{state.position}"
    with bench.db.write() as session:
        if bench.logs.log(session, run_id).events[-1].position == state.position:
            _append_own(session, log.run, told, server_utc, state.count, key)
    bench.live.tell(run_topic(run_id), state.position)
    with bench.db.read() as session:
        return bench.logs.state(bench.logs.log(session, run_id), method)


def run_view(bench: Bench, run_id: str) -> RunView:
    """A run as it stands."""
    with bench.db.read() as session:
        log = bench.logs.log(session, run_id)
        trial = get_trial(session, log.run.trial_id)
        method = method_of_run(session, log.run)
        runs = bench_log.runs_of(session, trial.id)
        arms = arms_of(trials.blades_of(session, trial.id), runs)
    blade, edge = arm_and_edge(arms, log.run)
    state = bench.logs.state(log, method)
    hidden = trial.is_blind and not log.run.practice
    shown_as = blind_codes(trial, arms)[blade.arm_id] if hidden else blade.code
    sealed = sealed_run(trial, log.run, state)
    return RunView(log.run, trial, method, blade, edge, state, log.events, sealed, shown_as)
