"""The next thing to do in a trial."""

from dataclasses import dataclass
from typing import Literal

from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge
from kessik.core.trials.state import UNDER_WAY, TrialRun, TrialState
from kessik.core.trials.trial import Trial

StepKind = Literal["add_blades", "go_on", "start_run", "read_verdict"]
Zone = tuple[float, float]


@dataclass(frozen=True)
class NextStep:
    """What to do next in a trial, in words, and what it points at.

    Where a run is next, `edge_id` is the edge that waits for it, and the zone (mm from the heel) is
    the stretch that was cut last; None where there is none.
    """

    kind: StepKind
    says: str
    run_id: str | None = None
    arm_id: str | None = None
    edge_id: str | None = None
    zone_from_mm: float | None = None
    zone_to_mm: float | None = None


def next_step(state: TrialState) -> NextStep:
    """Go on with what is open, else cut what the order has next, else read the verdict."""
    counted = [r for r in state.runs if not r.run.practice]
    unfinished = [r for r in counted if r.state.status in UNDER_WAY]
    if len(state.blades) < 2:
        return NextStep("add_blades", "Add the blades to compare")
    if unfinished:
        run = unfinished[0]
        says = (
            f"Go on with {_shown(state, run.blade)}, edge {run.edge.number}, at"
            f" {run.state.count:g} {run.run.count_unit}"
        )
        return NextStep("go_on", says, run.run.id, run.blade.arm_id)
    arm = _next_arm(state, counted)
    if arm is None or state.trial.source == "import":
        return NextStep("read_verdict", "Read the verdict")
    edge = _waiting(arm, counted)
    zone = _zone(arm, edge, counted) or (None, None)
    says = f"Cut {_shown(state, arm)}, run {_cut(arm, counted) + 1}"
    return NextStep("start_run", says, None, arm.arm_id, edge.id if edge else None, *zone)


def _shown(state: TrialState, arm: Blade) -> str:
    return state.codes.get(arm.arm_id, arm.code)


def _cut(arm: Blade, counted: list[TrialRun]) -> int:
    """How many counted runs of the arm have ended."""
    ended = (r for r in counted if r.state.status == "stopped")
    return sum(1 for r in ended if r.blade.arm_id == arm.arm_id)


def _next_arm(state: TrialState, counted: list[TrialRun]) -> Blade | None:
    """The first of the planned order with an edge still to cut; without an order the one with the
    fewest cut.
    """
    by_code = {arm.code: arm for arm in state.blades}
    planned = (by_code[place.blade] for place in state.order if place.blade in by_code)
    so_far: dict[str, int] = {}
    for arm in planned:
        so_far[arm.code] = so_far.get(arm.code, 0) + 1
        if _cut(arm, counted) < so_far[arm.code]:
            return arm
    waiting = [a for a in state.blades if _cut(a, counted) < state.trial.edges_per_blade]
    return min(waiting, key=lambda arm: _cut(arm, counted)) if waiting else None


def _waiting(arm: Blade, counted: list[TrialRun]) -> Edge | None:
    newest = arm.own_edges[-1:]
    cut = {r.edge.id for r in counted}
    return newest[0] if newest and newest[0].id not in cut and not newest[0].factory else None


def _zone(arm: Blade, edge: Edge | None, counted: list[TrialRun]) -> Zone | None:
    """The stretch to cut: as the edge is laid out, else as on the arm's last edge, else as on the
    last of the trial.
    """
    laid_out = next((z for z in edge.zones if z.use == "cut"), None) if edge else None
    if laid_out is not None:
        return laid_out.from_mm, laid_out.to_mm
    own = [r for r in counted if r.blade.arm_id == arm.arm_id]
    last = (own or counted)[-1:]
    return last[0].run.worked_mm if last else None


def other_blade(state: TrialState, run_id: str) -> NextStep | None:
    """The blade that takes its turn after this run's, where blades alternate layer by layer: its
    run under way, else a run on its waiting edge; None where no other has its turn.
    """
    counted = [r for r in state.runs if not r.run.practice]
    here = next((r for r in counted if r.run.id == run_id), None)
    if here is None:
        return None
    places = [arm.arm_id for arm in state.blades]
    after = places.index(here.blade.arm_id) + 1
    for arm in (*state.blades[after:], *state.blades[: after - 1]):
        own = [r for r in counted if r.blade.arm_id == arm.arm_id]
        open_run = next((r for r in own if r.state.status in UNDER_WAY), None)
        if open_run is not None:
            says = f"{_shown(state, arm)}, at {open_run.state.count:g}"
            return NextStep("go_on", says, open_run.run.id, arm.arm_id)
        edge = _waiting(arm, counted)
        if edge is not None and len(own) < state.trial.edges_per_blade:
            zone = _zone(arm, edge, counted) or (None, None)
            says = f"{_shown(state, arm)}, its first layer"
            return NextStep("start_run", says, None, arm.arm_id, edge.id, *zone)
    return None


def alternates(trial: Trial) -> bool:
    """Whether its blades take turns within one piece, so that another is always at hand."""
    return trial.plan.order_kind == "alternate" or trial.method.count_unit == "layers"
