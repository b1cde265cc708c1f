"""What an ended run found, alone and with the other edges of its blade."""

from dataclasses import replace

from kessik.core.comparison.analysis import analyse
from kessik.core.comparison.results import RunResult
from kessik.core.protocols.series import RunSeries
from kessik.core.trials.run_series import run_series
from kessik.services.bench.runs import RunView
from kessik.services.reading.trial_states import state_of_trial
from kessik.store.database import Database


def run_found(db: Database, view: RunView) -> RunResult:
    """The figures of an ended run; the same as in the trial's answer, where the edges of one blade
    inform each other.
    """
    own = replace(run_series(view.run, view.blade, view.edge, view.state), practice=False)
    sisters = [] if view.run.practice else _sisters(db, view)
    return analyse([own, *sisters], {}, view.trial.rule, view.method).runs[0]


def _sisters(db: Database, view: RunView) -> list[RunSeries]:
    """The other counted runs of the same arm in the trial."""
    with db.read() as session:
        state = state_of_trial(session, view.trial.id)
    return [
        run_series(r.run, r.blade, r.edge, r.state)
        for r in state.runs
        if r.counts and r.blade.arm_id == view.blade.arm_id and r.run.id != view.run.id
    ]
