"""Blind trials: codes stand for blades, and what would bend the hand stays hidden until it is
uncovered.
"""

from dataclasses import replace

from kessik.core.errors import NotAllowedNowError
from kessik.services.reading.trials import get_trial
from kessik.store.database import Database
from kessik.store.queries import bench_log, trials


def cover(db: Database, trial_id: str, seed: int) -> None:
    """Hide the blades of a trial behind codes; only before its first counted run, and once."""
    with db.write() as session:
        trial = get_trial(session, trial_id)
        if trial.blind_seed is not None:
            return
        if any(not run.practice for run in bench_log.runs_of(session, trial_id)):
            raise NotAllowedNowError(
                "runs were cut with the blades known; a trial is blind from the start or not at all"
            )
        trials.save_trial(session, replace(trial, blind_seed=seed))


def uncover(db: Database, trial_id: str, now_utc: str) -> None:
    """Uncover the blades of a blind trial; the time is kept, and it is not undone."""
    with db.write() as session:
        trial = get_trial(session, trial_id)
        if trial.is_blind:
            trials.save_trial(session, replace(trial, unblinded_utc=now_utc))
