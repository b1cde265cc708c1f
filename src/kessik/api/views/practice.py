"""The guided practice, for the wire."""

from kessik.api.schemas.practice import PracticeOut
from kessik.core.trials.practice import PRACTICE_STEPS, PracticeStep
from kessik.core.words.practice import practice_words, truth_words
from kessik.services.practice.steps import Practice


def practice_out(stands: Practice, runs_cut: tuple[int, int] | None) -> PracticeOut:
    """Where the practice stands."""
    step = stands.step
    words = practice_words(step)
    truth = truth_words(stands.lives, stands.unit) if step.kind == "verdict" else ""
    return PracticeOut(
        trial_id=stands.trial_id,
        kind=step.kind,
        number=step.number,
        of=len(PRACTICE_STEPS),
        title=words.title,
        says=words.says or truth,
        button=words.button,
        path=_path(stands.trial_id, step),
        runs_cut=list(runs_cut or ()),
    )


def _path(trial_id: str, step: PracticeStep) -> str:
    if step.run_id is not None:
        return f"/runs/{step.run_id}"
    place = {"match": "line-up", "plan": "plan", "start": "plan"}.get(step.kind, "verdict")
    return f"/trials/{trial_id}/{place}"
