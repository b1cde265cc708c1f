"""The record of a trial: what was cut in it, and what was put right since."""

from dataclasses import dataclass, replace

from kessik.core.bin import Trace
from kessik.core.shelf.blades import Blade
from kessik.core.trials.arms import blades_of
from kessik.core.trials.state import TrialRun, TrialState, covered
from kessik.services.reading.trial_states import state_of_trial
from kessik.store.database import Database
from kessik.store.queries import traces


@dataclass(frozen=True)
class TrialRecord:
    """A trial as it stands, with its traces; `archived_utc` empty where it is not put away."""

    state: TrialState
    traces: tuple[Trace, ...]
    archived_utc: str

    @property
    def blades(self) -> list[Blade]:
        """The blades of the trial; those of a blind one go by no name."""
        return [] if self.state.trial.is_blind else blades_of(self.state.blades)

    @property
    def shown_runs(self) -> list[TrialRun]:
        """The runs as they may be seen: while the trial is blind by their codes alone."""
        if not self.state.sealed and not self.state.trial.is_blind:
            return list(self.state.runs)
        codes = self.state.codes
        return [
            replace(covered(r), blade=_under(r.blade, codes.get(r.blade.arm_id, r.blade.code)))
            for r in self.state.runs
        ]


def _under(blade: Blade, code: str) -> Blade:
    return blade if code == blade.code else replace(blade, code=code, mark=0)


def trial_record(db: Database, trial_id: str) -> TrialRecord:
    """The record of a trial; UnknownError where there is none."""
    with db.read() as session:
        state = state_of_trial(session, trial_id)
        found = traces.of_trial(session, trial_id)
        archived = traces.archived(session, "trial").get(trial_id, "")
    if state.trial.is_blind:  # a trace of a run names its blade
        found = [trace for trace in found if trace.kind == "trial"]
    return TrialRecord(state, tuple(found), archived)
