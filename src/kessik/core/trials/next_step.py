"""The next thing to do in a trial."""

from dataclasses import dataclass
from typing import Literal

from kessik.core.shelf.blades import Blade
from kessik.core.trials.state import UNDER_WAY, TrialState

StepKind = Literal["add_blades", "go_on", "start_run", "read_verdict"]


@dataclass(frozen=True)
class NextStep:
    """What to do next in a trial, in words, and what it points at."""

    kind: StepKind
    says: str
    run_id: str | None = None
    blade_id: str | None = None


def next_step(state: TrialState) -> NextStep:
    """Go on with what is open, else cut the blade with the fewest edges cut, else read the
    verdict.
    """

    def shown(blade: Blade) -> str:
        return state.codes.get(blade.id, blade.code)

    counted = [r for r in state.runs if not r.run.practice]
    unfinished = [r for r in counted if r.state.status in UNDER_WAY]
    if len(state.blades) < 2:
        return NextStep("add_blades", "Add the blades to compare")
    if unfinished:
        run = unfinished[0]
        says = (
            f"Go on with {shown(run.blade)}, edge {run.edge.number}, at {run.state.count:g}"
            f" {run.run.count_unit}"
        )
        return NextStep("go_on", says, run.run.id, run.blade.id)
    ended = [r for r in counted if r.state.status == "stopped"]

    def cut_edges(blade: Blade) -> int:
        return sum(1 for r in ended if r.blade.id == blade.id)

    waiting = [blade for blade in state.blades if cut_edges(blade) < state.trial.edges_per_blade]
    if waiting and state.trial.source != "import":
        blade = min(waiting, key=cut_edges)
        return NextStep(
            "start_run", f"Cut {shown(blade)}, run {cut_edges(blade) + 1}", None, blade.id
        )
    return NextStep("read_verdict", "Read the verdict")
