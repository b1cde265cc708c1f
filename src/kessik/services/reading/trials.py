"""Trials read by their ids: the trial, the method of a run, the codes of a blind one."""

from collections.abc import Sequence

import numpy as np

from kessik.core.errors import UnknownError
from kessik.core.protocols.methods import Method
from kessik.core.runs import Run
from kessik.core.shelf.blades import Blade
from kessik.core.trials.trial import Trial
from kessik.store.database import Session
from kessik.store.queries import methods, trials


def get_trial(session: Session, trial_id: str) -> Trial:
    """The trial, or UnknownError."""
    trial = trials.find_trial(session, trial_id)
    if trial is None:
        raise UnknownError("there is no such trial; a deleted one is in the bin", field="trial")
    return trial


def method_of_run(session: Session, run: Run) -> Method:
    """The method a run was cut under."""
    version = methods.find_version(session, run.method_id)
    assert version is not None, "a version with runs is never removed"
    return version.method


def blind_codes(trial: Trial, blades: Sequence[Blade]) -> dict[str, str]:
    """The code that stands for each arm, by its id; drawn from the trial's seed, the same every
    time.
    """
    if trial.blind_seed is None:
        return {}
    order = np.random.default_rng(trial.blind_seed).permutation(len(blades))
    by_id = sorted(blades, key=lambda blade: blade.arm_id)
    return {blade.arm_id: f"Q{int(place) + 1}" for blade, place in zip(by_id, order, strict=True)}
