"""The guided practice: the step its tester is at, read off the practice trial as it stands."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from kessik.core.comparison.findings import Mismatch
from kessik.core.trials.state import UNDER_WAY, TrialState

PracticeStepKind = Literal["match", "plan", "start", "count", "rest", "verdict"]
PRACTICE_STEPS: tuple[PracticeStepKind, ...] = get_args(PracticeStepKind)
EDGES_TO_PLAN = 3
CUTS_BY_HAND = 12


@dataclass(frozen=True)
class PracticeStep:
    """A step with what its words need: the mismatch to mend, the run at hand and its count, or how
    many runs are still to be cut.
    """

    kind: PracticeStepKind
    mismatch: Mismatch | None = None
    run_id: str | None = None
    count: float = 0.0
    runs_left: int = 0

    @property
    def number(self) -> int:
        """Its place among the steps, from 1."""
        return 1 + PRACTICE_STEPS.index(self.kind)


def practice_step(state: TrialState, mismatches: Sequence[Mismatch]) -> PracticeStep | None:
    """The step a practice trial is at; None where too few blades are left to compare.

    A tester who goes their own way skips what they have done already: once a run is begun nothing
    is matched or planned any more.
    """
    if len(state.blades) < 2:
        return None
    counted = [r for r in state.runs if r.counts]
    if not counted:
        if mismatches:
            return PracticeStep("match", mismatch=mismatches[0])
        return PracticeStep(
            "plan" if state.trial.edges_per_blade < EDGES_TO_PLAN else "start",
            runs_left=_runs_left(state),
        )
    first = counted[0]
    if first.state.status in UNDER_WAY and first.state.count < CUTS_BY_HAND:
        return PracticeStep("count", run_id=first.run.id, count=first.state.count)
    left = _runs_left(state)
    here = next((r.run.id for r in counted if r.state.status in UNDER_WAY), None)
    return PracticeStep("rest" if left else "verdict", run_id=here, runs_left=left)


def _runs_left(state: TrialState) -> int:
    ended = [r.blade.arm_id for r in state.runs if r.counts and r.state.status == "stopped"]
    edges = state.trial.edges_per_blade
    return sum(max(edges - ended.count(blade.arm_id), 0) for blade in state.blades)
