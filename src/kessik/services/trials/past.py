"""What plans learn from the past: the tester's own pace, the lives of repeated edges, and the edges
used up.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from itertools import pairwise
from statistics import median

from kessik.core.gauge.kept import newest_in_use, repeats_of_lives
from kessik.core.planning.starting_life import KnownLife
from kessik.core.protocols.events import BenchEvent, Cut
from kessik.core.stock import StockedLot
from kessik.core.trials.state import TrialState
from kessik.services.clock import seconds_of
from kessik.services.reading.summaries import Summary, summaries
from kessik.services.reading.trial_states import trial_state
from kessik.services.stock.lots import stocked
from kessik.store.database import Database
from kessik.store.queries import bench_log, gauges, shelf

_LONGEST_CUT_S = 300.0
_FEWEST_CUTS = 5


@dataclass(frozen=True)
class Past:
    """What a plan learns from: the trial as it stands and what is known of its blades' lives, the
    tester's pace, lives of repeated edges of any trial, edges used up, lives in other trials, and
    stock.
    """

    state: TrialState
    lives: Mapping[str, float]
    cut_s: float | None
    reading_s: float | None
    log_lives: tuple[tuple[float, ...], ...]
    used_up: frozenset[str]
    elsewhere: tuple[KnownLife, ...]
    lots: tuple[StockedLot, ...]


def pace_of(db: Database, state: TrialState) -> tuple[float | None, float | None]:
    """Median seconds a cut and a reading over this trial's counted runs; None with fewer than five
    cuts.
    """
    runs = [r.run.id for r in state.runs if r.run.compares]
    with db.read() as session:
        logs = bench_log.events_by_run(session, runs)
    cuts, readings = [], []
    for log in logs.values():
        for before, after in pairwise(log):
            seconds = _seconds_between(before, after)
            if seconds is None or not 0 < seconds <= _LONGEST_CUT_S:
                continue
            if isinstance(after.payload, Cut):
                cuts.append(seconds / max(after.payload.amount, 1.0))
            elif after.kind == "reading":
                readings.append(seconds)
    if len(cuts) < _FEWEST_CUTS:
        return None, None
    return round(median(cuts), 1), round(median(readings), 1) if readings else None


def learn(db: Database, trial_id: str) -> Past:
    """Gather the past; answers are read as they are kept."""
    state = trial_state(db, trial_id)
    known = summaries(db)
    own = known.get(trial_id)
    cut_s, reading_s = own.pace_s if own is not None else (None, None)
    repeats = [lives for summary in known.values() for lives in summary.repeats]
    with db.read() as session:
        kept = gauges.all_studies(session)
    lives = newest_in_use(kept, "lives")
    if lives is not None:
        repeats += [tuple(own) for own in repeats_of_lives(lives)]
    return Past(
        state,
        own.lives if own is not None and not state.sealed else {},
        cut_s,
        reading_s,
        tuple(repeats),
        _used_up(db),
        tuple(_elsewhere(known, trial_id)),
        tuple(stocked(db)),
    )


def _elsewhere(known: Mapping[str, Summary], trial_id: str) -> Iterator[KnownLife]:
    """The lives that blades reached in other trials."""
    for other, summary in known.items():
        for point in summary.points:
            if other != trial_id and point.estimate is not None:
                yield KnownLife(
                    point.blade_id, point.school, point.medium, point.unit, point.estimate
                )


def _used_up(db: Database) -> frozenset[str]:
    """The ids of all edges cut in any trial."""
    with db.read() as session:
        return frozenset(shelf.cut_edges(session))


def _seconds_between(before: BenchEvent, after: BenchEvent) -> float | None:
    if (
        before.kind in ("pause", "check_planned", "stage")
        or before.client_time == after.client_time
    ):
        return None
    began, ended = seconds_of(before), seconds_of(after)
    return None if began is None or ended is None else ended - began
