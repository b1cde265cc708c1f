"""Run logs kept in memory: a log only ever grows, so that only its new tail has to be read from disk."""

from collections import OrderedDict
from dataclasses import dataclass
from threading import Lock
from weakref import WeakKeyDictionary

from kessik.core.errors import UnknownError
from kessik.core.protocols.events import BenchEvent
from kessik.core.protocols.methods import Method
from kessik.core.protocols.run_state import RunState, fold
from kessik.store.database import Database, Session
from kessik.store.queries import bench_log
from kessik.store.records import Run

_KEPT = 256
_stores: WeakKeyDictionary[Database, OrderedDict[str, "RunLog"]] = WeakKeyDictionary()
_states: WeakKeyDictionary[Database, OrderedDict[str, tuple[Method, RunState]]] = WeakKeyDictionary()
_lock = Lock()


@dataclass(frozen=True)
class RunLog:
    """A run, which never changes once started, with its events in log order and by id."""

    run: Run
    events: tuple[BenchEvent, ...]
    by_id: dict[str, BenchEvent]


def log_of(db: Database, session: Session, run_id: str) -> RunLog:
    """The run's log as this session sees it, or UnknownError; what was read before is not read again.

    What a transaction appends itself is not in it before it asks, and is remembered only by sessions that see it
    committed: the caller appends after asking.
    """
    with _lock:
        logs = _stores.setdefault(db, OrderedDict())
        known = logs.get(run_id)
    run = known.run if known else bench_log.find_run(session, run_id)
    if run is None:
        raise UnknownError("there is no such run", field="run")
    after = known.events[-1].position if known and known.events else 0
    tail = bench_log.events_of(session, run_id, after)
    if known is not None and not tail:
        return known
    events = (*(known.events if known else ()), *tail)
    log = RunLog(run, events, {**(known.by_id if known else {}), **{event.id: event for event in tail}})
    with _lock:
        logs[run_id] = log
        logs.move_to_end(run_id)
        while len(logs) > _KEPT:
            logs.popitem(last=False)
    return log


def state_of(db: Database, log: RunLog, method: Method) -> RunState:
    """The run's state after its log; folded anew only where the log has grown."""
    last = log.events[-1].position if log.events else 0
    with _lock:
        known = _states.setdefault(db, OrderedDict()).get(log.run.id)
    if known is not None and known[0] == method and known[1].position == last:
        return known[1]
    state = fold(log.events, method, log.run.worked_mm)
    remember_state(db, log.run.id, method, state)
    return state


def remember_state(db: Database, run_id: str, method: Method, state: RunState) -> None:
    """Keep a state for its log position; only for what is committed."""
    with _lock:
        states = _states.setdefault(db, OrderedDict())
        states[run_id] = (method, state)
        states.move_to_end(run_id)
        while len(states) > _KEPT:
            states.popitem(last=False)
