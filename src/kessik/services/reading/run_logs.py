"""Run logs kept in memory: a log only ever grows, so that only its new tail has to be read from
disk.
"""

from bisect import bisect_right
from collections import OrderedDict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from threading import Lock

from kessik.core.errors import KessikError, NotAllowedNowError, UnknownError
from kessik.core.protocols.events import BenchEvent
from kessik.core.protocols.folding import fold
from kessik.core.protocols.methods import Method
from kessik.core.protocols.run_state import RunState
from kessik.core.runs import Run
from kessik.store.database import Session
from kessik.store.queries import bench_log, binning

_KEPT = 256


@dataclass
class _Kept:
    """A run's log as far as it was read; it is only ever added to."""

    run: Run
    events: list[BenchEvent] = field(default_factory=list)
    by_id: dict[str, BenchEvent] = field(default_factory=dict)

    @property
    def last(self) -> int:
        return self.events[-1].position if self.events else 0

    def grow(self, tail: Sequence[BenchEvent]) -> None:
        """Add what is new; another thread may have read some of it meanwhile."""
        new = [event for event in tail if event.position > self.last]
        self.events.extend(new)
        self.by_id.update((event.id, event) for event in new)


@dataclass(frozen=True)
class RunLog:
    """A run as it is kept, with its events in log order and by id."""

    run: Run
    events: tuple[BenchEvent, ...]
    by_id: Mapping[str, BenchEvent]

    def after(self, position: int) -> tuple[BenchEvent, ...]:
        """The events behind a log position."""
        return self.events[bisect_right(self.events, position, key=lambda event: event.position) :]


def _not_there(session: Session, run_id: str) -> KessikError:
    """Why there is no such run. One that lies in the bin may come back, so that what is sent to it
    is not refused for good: no field is at fault, and a device keeps what it has.
    """
    entry = binning.entry_with_run(session, run_id)
    if entry is None:
        return UnknownError("there is no such run", field="run")
    return NotAllowedNowError(
        f"this run is in the bin with {entry.name}: restore it there, and what is kept on this"
        " device will be saved"
    )


class RunLogs:
    """The logs and states of the runs of one data folder that were asked for lately."""

    def __init__(self) -> None:
        self._logs: OrderedDict[str, _Kept] = OrderedDict()
        self._states: OrderedDict[str, tuple[Method, RunState]] = OrderedDict()
        self._lock = Lock()

    def log(self, session: Session, run_id: str) -> RunLog:
        """The run's log as this session sees it, or UnknownError; what was read before is not read
        again.

        What a transaction appends itself is not in it before it asks, and is remembered only by
        sessions that see it committed: the caller appends after asking.
        """
        with self._lock:
            kept = self._logs.get(run_id)
        if kept is None:
            run = bench_log.find_run(session, run_id)
            if run is None:
                raise _not_there(session, run_id)
            kept = _Kept(run)
        elif not bench_log.is_seen(session, run_id):
            raise _not_there(session, run_id)
        tail = bench_log.events_of(session, run_id, kept.last)
        with self._lock:
            kept = self._logs.setdefault(run_id, kept)
            kept.grow(tail)
            self._logs.move_to_end(run_id)
            while len(self._logs) > _KEPT:
                self._logs.popitem(last=False)
            return RunLog(kept.run, tuple(kept.events), kept.by_id)

    def evict(self, run_id: str) -> None:
        """Read a run anew when it is asked for next: what is said of it has changed."""
        with self._lock:
            self._logs.pop(run_id, None)
            self._states.pop(run_id, None)

    def clear(self) -> None:
        """Read every run anew: some may be gone, or back."""
        with self._lock:
            self._logs.clear()
            self._states.clear()

    def state(self, log: RunLog, method: Method) -> RunState:
        """The run's state after its log; folded anew only where the log has grown."""
        last = log.events[-1].position if log.events else 0
        with self._lock:
            known = self._states.get(log.run.id)
        if known is not None and known[0] == method and known[1].position == last:
            return known[1]
        state = fold(log.events, method, log.run.worked_mm)
        self.remember(log.run.id, method, state)
        return state

    def remember(self, run_id: str, method: Method, state: RunState) -> None:
        """Keep a state for its log position; only for what is committed."""
        with self._lock:
            self._states[run_id] = (method, state)
            self._states.move_to_end(run_id)
            while len(self._states) > _KEPT:
                self._states.popitem(last=False)
