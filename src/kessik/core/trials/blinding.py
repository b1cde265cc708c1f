"""Blind trials: codes stand for blades, and what would bend the hand stays hidden."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from kessik.core.protocols.run_state import RunState
from kessik.core.runs import Run
from kessik.core.trials.trial import Trial

SealedBy = Literal["blind", "verification"]
_ENDED = ("stopped", "abandoned")


@dataclass(frozen=True)
class Sealing:
    """Why something is hidden: the trial is blind, with so many runs cut, or a run is being
    verified.
    """

    by: SealedBy
    runs_cut: int = 0


def sealed_run(trial: Trial, run: Run, state: RunState) -> Sealing | None:
    """Why the bench shows no forecast for a run; None where it may."""
    if state.status in _ENDED or run.practice:
        return None
    if trial.is_blind:
        return Sealing("blind")
    return Sealing("verification") if run.verifies_run_id else None


def sealed_trial(trial: Trial, runs: Sequence[tuple[Run, RunState]]) -> Sealing | None:
    """Why a trial's answer is hidden; None where it may be shown."""
    counted = [(run, state) for run, state in runs if not run.practice]
    if trial.is_blind:
        return Sealing("blind", sum(1 for _, state in counted if state.status in _ENDED))
    if any(run.verifies_run_id and state.status not in _ENDED for run, state in counted):
        return Sealing("verification")
    return None
