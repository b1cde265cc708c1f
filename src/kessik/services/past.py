"""What plans learn from the past: the tester's own pace, the lives of repeated edges, and the edges
used up.
"""

from collections import OrderedDict
from dataclasses import dataclass
from itertools import pairwise
from statistics import median

import numpy as np

from kessik.core.protocols.events import BenchEvent, Cut
from kessik.core.sharpness.life import Crossed
from kessik.services.bench_side import seconds_of
from kessik.services.stock import StockedLot, stocked
from kessik.services.verdicts import Verdict, verdict
from kessik.store.database import Database
from kessik.store.queries import bench_log, shelf, trials

_LONGEST_CUT_S = 300.0
_FEWEST_CUTS = 5


@dataclass(frozen=True)
class Past:
    """What a plan learns from: the trial as it stands, the tester's pace, and lives of repeated
    edges of any trial.
    """

    answer: Verdict
    cut_s: float | None
    reading_s: float | None
    log_lives: tuple[tuple[float, ...], ...]
    used_up: frozenset[str]
    lots: tuple[StockedLot, ...]


_learned: OrderedDict[tuple[object, ...], Past] = OrderedDict()
_KEPT = 16


def learn(db: Database, trial_id: str) -> Past:
    """Gather the past, once for every state of the data."""
    key = (str(db.folder), trial_id, db.stamp())
    if key not in _learned:
        answer = verdict(db, trial_id)
        cut_s, reading_s = _own_pace(db, trial_id)
        _learned[key] = Past(
            answer, cut_s, reading_s, tuple(_repeats(db)), _used_up(db), tuple(stocked(db))
        )
        while len(_learned) > _KEPT:
            _learned.popitem(last=False)
    return _learned[key]


def _used_up(db: Database) -> frozenset[str]:
    """The ids of all edges cut in any trial."""
    with db.read() as session:
        return frozenset(shelf.cut_edges(session))


def _own_pace(db: Database, trial_id: str) -> tuple[float | None, float | None]:
    """Median seconds a cut and a reading over this trial's counted runs; None with fewer than five
    cuts.
    """
    with db.read() as session:
        runs = [run.id for run in bench_log.runs_of(session, trial_id) if run.compares]
        logs = bench_log.events_by_run(session, runs)
    cuts, readings = [], []
    for log in logs.values():
        for before, after in pairwise(log):
            seconds = _seconds_between(before, after)
            if seconds is None or not 0 < seconds <= _LONGEST_CUT_S:
                continue
            if isinstance(after.said, Cut):
                cuts.append(seconds / max(after.said.amount, 1.0))
            elif after.kind == "reading":
                readings.append(seconds)
    if len(cuts) < _FEWEST_CUTS:
        return None, None
    return round(median(cuts), 1), round(median(readings), 1) if readings else None


def _seconds_between(before: BenchEvent, after: BenchEvent) -> float | None:
    if (
        before.kind in ("pause", "check_planned", "stage")
        or before.client_time == after.client_time
    ):
        return None
    began, ended = seconds_of(before), seconds_of(after)
    return None if began is None or ended is None else ended - began


def _repeats(db: Database) -> list[tuple[float, ...]]:
    """Ln lives of the edges of each blade, in every trial."""
    with db.read() as session:
        ids = [trial.id for trial in trials.all_trials(session)]
    repeats: list[tuple[float, ...]] = []
    for trial_id in ids:
        by_blade: dict[str, list[float]] = {}
        answer = verdict(db, trial_id)
        if answer.trial.method.cycles:
            # rounds of one light sharpening may fall off; they are no repeats of one another
            continue
        stage = answer.stage
        for result in answer.analysis.runs:
            life = result.lives.get(stage)
            if life is not None and isinstance(life.life.found, Crossed) and not result.left_out:
                by_blade.setdefault(result.run.blade, []).append(
                    float(np.log(life.life.found.estimate))
                )
        repeats.extend(tuple(lives) for lives in by_blade.values())
    return repeats
