"""A trial's answer, from the trial as it stands."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from kessik.core.comparison.analysis import LeftOut, TrialAnalysis, analyse, likelihood_of
from kessik.core.comparison.findings import (
    Claimed,
    CorrectedAfterStop,
    EventsNotUnderstood,
    FromPaper,
    LotChanged,
    Note,
    SpoiledCuts,
    UnlikeMethod,
    VersionsPooled,
)
from kessik.core.comparison.lot_factor import LotFactor
from kessik.core.comparison.ranking import main_stage
from kessik.core.comparison.results import RunResult
from kessik.core.composition.grades import Grade
from kessik.core.errors import OutOfRangeError
from kessik.core.limits import check_limit
from kessik.core.protocols.checks import FORCE
from kessik.core.protocols.methods import Stage, StopRule
from kessik.core.sharpness.curves import CurveBand, curve_band, through_lives
from kessik.core.sharpness.life import Crossed, force_readings
from kessik.core.shelf.blades import Blade
from kessik.core.trials.blade_facts import blade_facts
from kessik.core.trials.blinding import Sealing
from kessik.core.trials.edges_that_count import edges_cut, left_out
from kessik.core.trials.lot_factors import lots_compared
from kessik.core.trials.run_series import run_series
from kessik.core.trials.state import TrialRun, TrialState
from kessik.core.trials.trial import Trial, unlike_versions


@dataclass(frozen=True)
class Verdict:
    """A trial's answer: what was found, and the stage that it is about; `is_worked_out` tells
    whether anything was looked for yet.
    """

    state: TrialState
    analysis: TrialAnalysis
    stage: str
    lot_factors: tuple[LotFactor, ...] = ()
    is_worked_out: bool = True

    @property
    def trial(self) -> Trial:
        return self.state.trial

    @property
    def blades(self) -> tuple[Blade, ...]:
        return self.state.blades

    @property
    def runs(self) -> tuple[TrialRun, ...]:
        return self.state.runs

    @property
    def sealed(self) -> Sealing | None:
        return self.state.sealed


@dataclass(frozen=True)
class Evidence:
    """All that an answer rests on: the trial as it stands, grades by name, names of lots by id, and
    what assays say of the claims for its blades, by the id of the blade.
    """

    state: TrialState
    grades: Mapping[str, Grade]
    lots: Mapping[str, str]
    claims: Mapping[str, Claimed] = field(default_factory=dict)


def judged(known: Evidence) -> Verdict:
    """The answer of a trial as it stands; the one slow step, and no store is held meanwhile."""
    analysis = _analysed(known)
    stage, runs = main_stage(analysis), known.state.runs
    lots = lots_compared(runs, analysis, stage, known.lots)
    return Verdict(known.state, analysis, stage, tuple(lots))


def judged_under(known: Evidence, limit_gf: float) -> Verdict:
    """The answer to how long each blade stays under any force, gf; OutOfRangeError where no edge
    can be read there, or the method reads no force.
    """
    check_limit("force_gf", limit_gf, "limit_gf")
    trial = known.state.trial
    if not trial.method.has(FORCE):
        raise OutOfRangeError("this method reads no force on the test line", field="limit_gf")
    name = f"{limit_gf:g} gf"
    kept = tuple(rule for rule in trial.method.ends if rule.kind in ("dose", "cycles"))
    by_dose = trial.method.dose is not None
    method = replace(
        trial.method,
        stages=(Stage(name, limit_gf=limit_gf),),
        ends=kept if by_dose else (StopRule("tester"), *kept),
        schedule=trial.method.schedule if by_dose else "every",
    )
    state = replace(known.state, trial=replace(trial, method=method))
    analysis = _analysed(replace(known, state=state))
    return Verdict(state, analysis, name)


def unanswered(state: TrialState) -> Verdict:
    """A trial whose answer is still being worked out: what it is, and no word on how it went."""
    nothing = analyse([], {}, state.trial.rule, state.trial.method)
    return Verdict(state, nothing, "", is_worked_out=False)


def _analysed(known: Evidence) -> TrialAnalysis:
    state, grades, claims = known.state, known.grades, known.claims
    trial, blades = state.trial, state.blades
    counted = [r for r in state.runs if r.counts]
    apart = _other_versions(state, counted)
    out: LeftOut = {**left_out(blades, [r.run for r in counted], trial.settled_rule), **apart}
    facts = {}
    for b in blades:
        cut = edges_cut(b, [r.run for r in counted])
        counting = [edge for edge in cut if (b.code, edge.number) not in out]
        rule, claim = trial.settled_rule, claims.get(b.id)
        facts[b.code] = blade_facts(b, counting or cut, rule, grades, claim)
    named = {r.run.id: (r.edge.number, r.run.number) for r in counted}
    series = [
        replace(
            run_series(r.run, r.blade, r.edge, r.state),
            verifies=named.get(r.run.verifies_run_id or ""),
        )
        for r in counted
    ]
    analysis = analyse(series, facts, trial.rule, trial.method, out, apart)
    noted = [note for r in counted for note in _run_notes(r)]
    noted += _pooled_versions(state, counted)
    written = sum(1 for r in counted if r.run.from_paper)
    if written:
        noted.append(FromPaper(written, len(counted)))
    return replace(analysis, notes=(*analysis.notes, *noted))


def _run_notes(r: TrialRun) -> list[Note]:
    """What has to be known of a run beside its lives."""
    blade, edge = r.blade.code, r.edge.number
    found: list[Note] = [LotChanged(blade, edge, r.run.lot_change)] if r.run.lot_change else []
    if r.state.spoiled:
        found.append(SpoiledCuts(blade, edge, tuple(r.state.spoiled)))
    if r.state.corrections_after_stop:
        found.append(CorrectedAfterStop(blade, edge, r.state.corrections_after_stop))
    if r.state.not_understood:
        found.append(EventsNotUnderstood(blade, edge, len(r.state.not_understood)))
    return found


def _other_versions(state: TrialState, runs: list[TrialRun]) -> dict[tuple[str, int], UnlikeMethod]:
    """Edges cut under a version of the method that does not agree with the one in force on what
    matters.
    """
    unlike = unlike_versions(state.versions, state.trial)
    return {
        (r.blade.code, r.edge.number): unlike[r.run.method_id]
        for r in runs
        if r.run.method_id in unlike
    }


def _pooled_versions(state: TrialState, runs: list[TrialRun]) -> list[Note]:
    versions = state.versions
    alike = versions.keys() - unlike_versions(versions, state.trial)
    numbers = sorted({versions[r.run.method_id].number for r in runs if r.run.method_id in alike})
    if len(numbers) < 2:
        return []
    return [VersionsPooled(tuple(numbers))]


def band_of(result: RunResult, analysis: TrialAnalysis, stage: str) -> CurveBand | None:
    """The curve of a run as median and band, to just beyond what was cut; None where no curve was
    fitted.
    """
    likelihood = likelihood_of(result, stage)
    readings = force_readings(result.run)
    limit_gf = analysis.method.limit_gf(stage)
    if likelihood is None or readings.size < 2 or limit_gf is None:
        return None
    band = curve_band(readings, likelihood, limit_gf, float(readings.counts.max()) * 1.04)
    crossed = [
        (limit, life.life.found.estimate)
        for name, limit in analysis.method.limits_gf
        if (life := result.lives.get(name)) and isinstance(life.life.found, Crossed)
    ]
    return through_lives(band, crossed)
