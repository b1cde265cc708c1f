"""A trial as it stands: its blades, and its runs with their logs folded; no curve is fitted."""

from kessik.core.protocols.folding import fold
from kessik.core.trials.arms import arm_and_edge, arms_of
from kessik.core.trials.blinding import sealed_trial
from kessik.core.trials.state import TrialRun, TrialState
from kessik.services.trials.blind import blind_codes
from kessik.services.trials.ordering import order_kept
from kessik.services.trials.trials import get_trial
from kessik.store.database import Database, Session
from kessik.store.queries import bench_log, trials
from kessik.store.queries.methods import methods_of_runs


def state_of_trial(session: Session, trial_id: str) -> TrialState:
    """A trial as this session sees it; UnknownError where there is none."""
    trial = get_trial(session, trial_id)
    runs = bench_log.runs_of(session, trial_id)
    arms = arms_of(trials.blades_of(session, trial_id), runs)
    logs = bench_log.events_by_run(session, [run.id for run in runs])
    versions = methods_of_runs(session, trial_id)
    found = []
    for run in runs:
        arm, edge = arm_and_edge(arms, run)
        method = versions[run.method_id].method if run.method_id in versions else trial.method
        found.append(TrialRun(method, run, arm, edge, fold(logs[run.id], method, run.worked_mm)))
    sealed = sealed_trial(trial, [(r.run, r.state) for r in found])
    codes = blind_codes(trial, arms) if trial.is_blind else {}
    order = order_kept([arm.code for arm in arms], trial.plan, trial.edges_per_blade)
    return TrialState(trial, arms, tuple(found), versions, sealed, order, codes)


def trial_state(db: Database, trial_id: str) -> TrialState:
    """A trial as it stands now; UnknownError where there is none."""
    with db.read() as session:
        return state_of_trial(session, trial_id)
