"""Blind trials: codes stand for blades, and what would bend the hand stays hidden."""

from collections.abc import Sequence

from kessik.core.protocols.run_state import RunState
from kessik.core.runs import Run
from kessik.core.trials.trial import Trial

_ENDED = ("stopped", "abandoned")


def sealed_run(trial: Trial, run: Run, state: RunState) -> str:
    """Why the bench shows no forecast for a run, in words; empty where it may."""
    if state.status in _ENDED or run.practice:
        return ""
    if trial.is_blind:
        return "Blind: forecast and earlier results stay hidden."
    return (
        "A verification run: the first result and the forecast stay hidden."
        if run.verifies_run_id
        else ""
    )


def sealed_trial(trial: Trial, runs: Sequence[tuple[Run, RunState]]) -> str:
    """Why a trial's answer is hidden, in words; empty where it may be shown."""
    if trial.is_blind:
        cut = sum(1 for run, state in runs if not run.practice and state.status in _ENDED)
        runs_words = "1 run is" if cut == 1 else f"{cut} runs are"
        return (
            f"This trial is blind: {runs_words} cut, and the answer is shown when the codes"
            " are revealed."
        )
    if any(
        run.verifies_run_id and state.status not in _ENDED and not run.practice
        for run, state in runs
    ):
        return "A verification run is being cut; the first result stays hidden until it stops."
    return ""
