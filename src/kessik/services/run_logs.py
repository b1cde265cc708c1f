"""Run logs kept in memory: a log only ever grows, so that only its new tail has to be read from disk."""

from collections import OrderedDict
from dataclasses import dataclass
from threading import Lock
from weakref import WeakKeyDictionary

from kessik.core.errors import UnknownError
from kessik.core.protocols.events import BenchEvent
from kessik.store.database import Database, Session
from kessik.store.queries import bench_log
from kessik.store.records import Run

_KEPT = 256
_stores: WeakKeyDictionary[Database, OrderedDict[str, "RunLog"]] = WeakKeyDictionary()
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
    log = RunLog(run, events, {event.id: event for event in events})
    with _lock:
        logs[run_id] = log
        logs.move_to_end(run_id)
        while len(logs) > _KEPT:
            logs.popitem(last=False)
    return log
