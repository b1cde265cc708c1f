"""A trial as it stands: its blades, and its runs with their logs folded; no curve is fitted."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from kessik.core.protocols.folding import fold
from kessik.core.runs import Run
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge
from kessik.core.trials.arms import arms_and_edges, arms_of
from kessik.core.trials.blinding import sealed_trial
from kessik.core.trials.state import TrialRun, TrialState
from kessik.core.trials.trial import Trial
from kessik.services.reading.ordering import order_kept
from kessik.services.reading.trials import blind_codes, get_trial
from kessik.store.database import Database, Session
from kessik.store.queries import bench_log, trials
from kessik.store.queries.methods import methods_of_runs

_RUNS_READ_AT_ONCE = 400


@dataclass(frozen=True)
class PlacedRun:
    """A run with whose it is."""

    run: Run
    blade: Blade
    edge: Edge


@dataclass(frozen=True)
class TrialOutline:
    """A trial with its arms, whose its runs are, and the codes of a blind one by the ids of its
    arms; no log is read.
    """

    trial: Trial
    blades: tuple[Blade, ...] = ()
    runs: tuple[PlacedRun, ...] = ()
    codes: Mapping[str, str] = field(default_factory=dict)


def outline_of_trial(session: Session, trial_id: str) -> TrialOutline:
    """A trial without the logs of its runs; UnknownError where there is none."""
    trial = get_trial(session, trial_id)
    runs = bench_log.runs_of(session, trial_id)
    arms = arms_of(trials.blades_of(session, trial_id), runs)
    owned = zip(runs, arms_and_edges(arms, runs), strict=True)
    codes = blind_codes(trial, arms) if trial.is_blind else {}
    return TrialOutline(trial, arms, tuple(PlacedRun(r, *whose) for r, whose in owned), codes)


def state_of_trial(session: Session, trial_id: str) -> TrialState:
    """A trial as this session sees it; UnknownError where there is none."""
    known = outline_of_trial(session, trial_id)
    trial, arms = known.trial, known.blades
    logs = bench_log.events_by_run(session, [r.run.id for r in known.runs])
    versions = methods_of_runs(session, trial_id)
    found = []
    for r in known.runs:
        method = versions[r.run.method_id].method if r.run.method_id in versions else trial.method
        state = fold(logs[r.run.id], method, r.run.worked_mm)
        found.append(TrialRun(method, r.run, r.blade, r.edge, state))
    sealed = sealed_trial(trial, [(r.run, r.state) for r in found])
    order = order_kept(arms, trial.plan, trial.edges_per_blade, trial.method)
    return TrialState(trial, arms, tuple(found), versions, sealed, order, known.codes)


def trial_state(db: Database, trial_id: str) -> TrialState:
    """A trial as it stands now; UnknownError where there is none."""
    with db.read() as session:
        return state_of_trial(session, trial_id)


def state_until_answered(db: Database, trial_id: str) -> TrialState:
    """A trial as a page shows it before its answer is there: without its runs where they are so
    many that reading their logs would keep the page waiting.
    """
    with db.read() as session:
        known = outline_of_trial(session, trial_id)
        if len(known.runs) <= _RUNS_READ_AT_ONCE:
            return state_of_trial(session, trial_id)
    return TrialState(
        known.trial, known.blades, (), {}, sealed_trial(known.trial, []), codes=known.codes
    )
