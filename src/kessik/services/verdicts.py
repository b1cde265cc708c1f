"""Verdicts: a trial's log analysed, in the core, outside of any transaction; kept until the log moves on."""

from collections import OrderedDict
from dataclasses import dataclass, replace
from threading import Lock

from kessik.core.comparison.analysis import Limits, RunResult, TrialAnalysis, analyse, likelihood_of
from kessik.core.comparison.wording import headline, life_words, standing_words, with_all_words
from kessik.core.protocols.run_state import RunState, fold
from kessik.core.sharpness.curves import CurveBand, curve_band
from kessik.core.sharpness.life import force_readings
from kessik.services.bench import RunView, blade_and_edge, run_series
from kessik.services.facts import blade_facts, edges_cut, left_out
from kessik.services.shelf import grades_by_name
from kessik.services.trials import get_trial
from kessik.store.database import Database
from kessik.store.queries import bench_log, trials
from kessik.store.records import Blade, Edge, Grade, Run, Trial

END_STAGE = "dull"
_KEPT = 64
_cache: OrderedDict[str, TrialAnalysis] = OrderedDict()
_cache_lock = Lock()


@dataclass(frozen=True)
class TrialRun:
    """A run with whose it is and how it stands; `dull_gf` is the limit it was cut to."""

    dull_gf: float
    run: Run
    blade: Blade
    edge: Edge
    state: RunState

    @property
    def worn_share(self) -> float:
        """How far the edge is worn, for drawing: its last readings on the way from the first to the dull limit."""
        forces = [check.force_gf for check in self.state.force_checks if check.force_gf is not None]
        if len(forces) < 2:
            return 0.0
        if "dull" in self.state.stages:
            return 1.0
        span = max(self.dull_gf - forces[0], 1.0)
        return min(max((max(forces[-2:]) - forces[0]) / span, 0.0), 1.0)


@dataclass(frozen=True)
class Verdict:
    """A trial's answer: in words, in figures, and as curves by run id."""

    trial: Trial
    blades: tuple[Blade, ...]
    runs: tuple[TrialRun, ...]
    analysis: TrialAnalysis
    stage: str
    headline: str
    standing: str
    with_all: str


def trial_runs(db: Database, trial_id: str) -> tuple[Trial, list[Blade], list[TrialRun]]:
    """A trial with its blades and its runs, states folded."""
    with db.read() as session:
        trial = get_trial(session, trial_id)
        blades = trials.blades_of(session, trial_id)
        runs = bench_log.runs_of(session, trial_id)
        logs = bench_log.events_by_run(session, [run.id for run in runs])
    found = []
    for run in runs:
        blade, edge = blade_and_edge(blades, run)
        found.append(TrialRun(trial.method.dull_gf, run, blade, edge, fold(logs[run.id], trial.method)))
    return trial, blades, found


def verdict(db: Database, trial_id: str) -> Verdict:
    """Analyse a trial; UnknownError where there is none."""
    trial, blades, runs = trial_runs(db, trial_id)
    with db.read() as session:
        grades = grades_by_name(session)
    analysis = _analysed(db, trial, blades, runs, grades)
    stage = _end_stage(analysis)
    return Verdict(
        trial,
        tuple(blades),
        tuple(runs),
        analysis,
        stage,
        headline(analysis, stage),
        standing_words(analysis, stage),
        with_all_words(analysis, stage),
    )


def _end_stage(analysis: TrialAnalysis) -> str:
    stages = list(dict.fromkeys(stage for run in analysis.runs for stage in run.lives))
    return END_STAGE if END_STAGE in stages or not stages else stages[-1]


def _analysed(
    db: Database, trial: Trial, blades: list[Blade], runs: list[TrialRun], grades: dict[str, Grade]
) -> TrialAnalysis:
    counted = [r for r in runs if not r.run.practice and r.state.status != "abandoned"]
    out = left_out(blades, [r.run for r in counted], trial.settled_rule)
    facts = {}
    for b in blades:
        cut = edges_cut(b, [r.run for r in counted])
        counting = [edge for edge in cut if (b.code, edge.number) not in out]
        facts[b.code] = blade_facts(b, counting or cut, trial.settled_rule, grades)
    # Everything an analysis depends on; a log position stands for all that was logged up to it.
    logs = tuple((r.run.id, r.state.position) for r in runs)
    hashed = repr((str(db.folder), trial, tuple(blades), sorted(grades.items()), logs))
    with _cache_lock:
        if hashed in _cache:
            _cache.move_to_end(hashed)
            return _cache[hashed]
    series = [run_series(r.run, r.blade, r.edge, r.state) for r in counted]
    limits = Limits(trial.method.keen_gf, trial.method.dull_gf)
    analysis = analyse(series, facts, trial.rule, limits, out)
    with _cache_lock:
        _cache[hashed] = analysis
        while len(_cache) > _KEPT:
            _cache.popitem(last=False)
    return analysis


def band_of(result: RunResult, analysis: TrialAnalysis, stage: str) -> CurveBand | None:
    """The curve of a run as median and band, to just beyond what was cut; None where no curve was fitted."""
    likelihood = likelihood_of(result, stage)
    readings = force_readings(result.run)
    if likelihood is None or readings.size < 2:
        return None
    return curve_band(readings, likelihood, analysis.limits.of(stage), float(readings.counts.max()) * 1.04)


def run_words(db: Database, view: RunView) -> str:
    """What an ended run found, in one sentence."""
    series = replace(run_series(view.run, view.blade, view.edge, view.state), practice=False)
    limits = Limits(view.trial.method.keen_gf, view.trial.method.dull_gf)
    (result,) = analyse([series], {}, view.trial.rule, limits).runs
    if not result.lives:
        return "The run ended without a reading, so nothing can be said of this edge."
    unit = view.run.count_unit
    parts = [f"to {stage}: {life_words(known.life.found, unit)}" for stage, known in result.lives.items()]
    said = "; ".join(parts)
    return f"{view.blade.code}, edge {view.edge.number}. {said[:1].upper()}{said[1:]}."
