"""Verdicts: a trial's log analysed, in the core, outside of any transaction; kept until the log
moves on.
"""

from collections import OrderedDict
from dataclasses import dataclass, replace
from threading import Lock

from kessik.core.comparison.analysis import RunResult, TrialAnalysis, analyse, likelihood_of
from kessik.core.comparison.wording import (
    figures_words,
    headline,
    life_words,
    standing_words,
    with_all_words,
)
from kessik.core.protocols.folding import fold
from kessik.core.protocols.methods import Method
from kessik.core.protocols.run_state import RunState
from kessik.core.sharpness.curves import CurveBand, curve_band
from kessik.core.sharpness.life import force_readings
from kessik.services.bench import RunView, blade_and_edge, run_series
from kessik.services.blind import sealed_trial
from kessik.services.facts import blade_facts, edges_cut, left_out
from kessik.services.methods import unlike_versions
from kessik.services.shelf import grades_by_name
from kessik.services.trials import get_trial
from kessik.store.database import Database
from kessik.store.queries import bench_log, trials
from kessik.store.queries.methods import methods_of_runs
from kessik.store.records import Blade, Edge, Grade, Run, Trial

_KEPT = 64
_cache: OrderedDict[str, TrialAnalysis] = OrderedDict()
_cache_lock = Lock()


@dataclass(frozen=True)
class TrialRun:
    """A run with whose it is, how it stands, and the method it was cut under."""

    method: Method
    run: Run
    blade: Blade
    edge: Edge
    state: RunState

    @property
    def worn_share(self) -> float:
        """How far the edge is worn, for drawing: its readings towards the last limit, stages lost,
        or the dose done.
        """
        method, state = self.method, self.state
        end = method.end_stage
        if end is not None and end in state.stages:
            return 1.0
        if method.dose:
            return min(state.count / method.dose, 1.0)
        limits = method.limits_gf
        forces = [check.force_gf for check in state.force_checks if check.force_gf is not None]
        if not limits or len(forces) < 2:
            return len(state.stages) / max(len(method.stages), 1)
        span = max(limits[-1][1] - forces[0], 1.0)
        return min(max((max(forces[-2:]) - forces[0]) / span, 0.0), 1.0)


def covered(r: TrialRun) -> TrialRun:
    """A run as it may stand beside its blade's name while results are hidden: how it stands, not
    how far it went.
    """
    if r.run.practice:
        return r
    return replace(r, state=replace(r.state, count=0.0, checks=(), stages={}))


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
    sealed: str = ""


def trial_runs(db: Database, trial_id: str) -> tuple[Trial, list[Blade], list[TrialRun]]:
    """A trial with its blades and its runs, states folded."""
    with db.read() as session:
        trial = get_trial(session, trial_id)
        blades = trials.blades_of(session, trial_id)
        runs = bench_log.runs_of(session, trial_id)
        logs = bench_log.events_by_run(session, [run.id for run in runs])
        versions = methods_of_runs(session, trial_id)
    found = []
    for run in runs:
        blade, edge = blade_and_edge(blades, run)
        method = versions[run.method_id].method if run.method_id in versions else trial.method
        found.append(TrialRun(method, run, blade, edge, fold(logs[run.id], method, run.worked_mm)))
    return trial, blades, found


def verdict(db: Database, trial_id: str) -> Verdict:
    """Analyse a trial; UnknownError where there is none."""
    trial, blades, runs = trial_runs(db, trial_id)
    with db.read() as session:
        grades = grades_by_name(session)
    analysis = _analysed(db, trial, blades, runs, grades)
    stage = end_stage(analysis)
    return Verdict(
        trial,
        tuple(blades),
        tuple(runs),
        analysis,
        stage,
        headline(analysis, stage),
        standing_words(analysis, stage),
        with_all_words(analysis, stage),
        sealed_trial(trial, [(r.run, r.state) for r in runs]),
    )


def end_stage(analysis: TrialAnalysis) -> str:
    """The stage an answer is about: the one that ends the method's runs, else the last that any run
    has a life at.
    """
    stages = list(dict.fromkeys(stage for run in analysis.runs for stage in run.lives))
    named = analysis.method.end_stage or ""
    if not stages and any(run.figures for run in analysis.runs):
        return ""
    return named if named in stages or not stages else stages[-1]


def _analysed(
    db: Database, trial: Trial, blades: list[Blade], runs: list[TrialRun], grades: dict[str, Grade]
) -> TrialAnalysis:
    counted = [r for r in runs if r.run.compares and r.state.status != "abandoned"]
    apart = _other_versions(db, trial, counted)
    out = {**left_out(blades, [r.run for r in counted], trial.settled_rule), **apart}
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
    analysis = analyse(series, facts, trial.rule, trial.method, out, apart)
    noted = [note for r in counted for note in _run_notes(r)]
    analysis = replace(
        analysis, notes=(*analysis.notes, *noted, *_pooled_versions(db, trial, counted))
    )
    with _cache_lock:
        _cache[hashed] = analysis
        while len(_cache) > _KEPT:
            _cache.popitem(last=False)
    return analysis


def _run_notes(r: TrialRun) -> list[str]:
    """What has to be known of a run beside its lives."""
    whose = f"{r.blade.code}, edge {r.edge.number}"
    found = [f"{whose}: {r.run.lot_change}"] if r.run.lot_change else []
    found += [spoiled_words(whose, r.state)] if r.state.spoiled else []
    return found + ([unread_words(whose, r.state)] if r.state.not_understood else [])


def spoiled_words(whose: str, state: RunState) -> str:
    """The cuts of a run that struck what they should not have."""
    at = ", ".join(f"{count:g}{f' ({cause})' if cause else ''}" for count, cause in state.spoiled)
    cuts = "1 spoiled cut" if len(state.spoiled) == 1 else f"{len(state.spoiled)} spoiled cuts"
    return f"{whose}: {cuts}, at {at}; look at the edge there before believing a short life"


def unread_words(whose: str, state: RunState) -> str:
    """The events of a run that nobody understands."""
    events = (
        "1 event is"
        if len(state.not_understood) == 1
        else f"{len(state.not_understood)} events are"
    )
    return f"{whose}: {events} not understood and left out of every sum; see the list of the run"


def _other_versions(db: Database, trial: Trial, runs: list[TrialRun]) -> dict[tuple[str, int], str]:
    """Edges cut under a version of the method that does not agree with the one in force on what
    matters.
    """
    with db.read() as session:
        unlike = unlike_versions(methods_of_runs(session, trial.id), trial)
    return {
        (r.blade.code, r.edge.number): unlike[r.run.method_id]
        for r in runs
        if r.run.method_id in unlike
    }


def _pooled_versions(db: Database, trial: Trial, runs: list[TrialRun]) -> list[str]:
    with db.read() as session:
        versions = methods_of_runs(session, trial.id)
    unlike = unlike_versions(versions, trial)
    numbers = sorted(
        {
            versions[r.run.method_id].number
            for r in runs
            if r.run.method_id in versions.keys() - unlike
        }
    )
    if len(numbers) < 2:
        return []
    said = " and ".join(str(number) for number in numbers)
    return [f"runs under versions {said} of the method are pooled: they agree on all that matters"]


def band_of(result: RunResult, analysis: TrialAnalysis, stage: str) -> CurveBand | None:
    """The curve of a run as median and band, to just beyond what was cut; None where no curve was
    fitted.
    """
    likelihood = likelihood_of(result, stage)
    readings = force_readings(result.run)
    limit_gf = analysis.method.limit_gf(stage)
    if likelihood is None or readings.size < 2 or limit_gf is None:
        return None
    return curve_band(readings, likelihood, limit_gf, float(readings.counts.max()) * 1.04)


def run_words(view: RunView) -> str:
    """What an ended run found, in one sentence."""
    series = replace(run_series(view.run, view.blade, view.edge, view.state), practice=False)
    analysis = analyse([series], {}, view.trial.rule, view.method)
    (result,) = analysis.runs
    if not result.lives and not result.figures:
        return "The run ended without a reading, so nothing can be said of this edge."
    unit = view.run.count_unit
    parts = [
        f"to {stage}: {life_words(known.life.found, unit)}" for stage, known in result.lives.items()
    ]
    parts += figures_words(result.figures)
    said = "; ".join(parts)
    return f"{view.blade.code}, edge {view.edge.number}. {said[:1].upper()}{said[1:]}."
