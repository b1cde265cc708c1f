"""The guided practice: the step it is at, and what the virtual bench does for its tester."""

from collections.abc import Callable
from dataclasses import dataclass

from kessik.core.moments import Moment
from kessik.core.trials.practice import (
    EDGES_TO_PLAN,
    PracticeStep,
    PracticeStepKind,
    practice_step,
)
from kessik.instruments.virtual_bench.virtual_blade import VirtualSteel, usual_life
from kessik.services.bench.bench import Bench
from kessik.services.practice.first_trial import SIDE_ANGLE_DEG, TRIAL_ID, sharpened
from kessik.services.practice.virtual_runs import Progress, cut_all, start_next
from kessik.services.shelf.sharpenings import save_edge
from kessik.services.trials.line_up import LineUp, line_up
from kessik.services.trials.plans import keep_plan
from kessik.store.queries import trials


@dataclass(frozen=True)
class Practice:
    """Where the practice stands; `lives` are the usual ones its virtual blades were made with."""

    trial_id: str
    step: PracticeStep
    lives: dict[str, float]
    unit: str


def practice_stands(bench: Bench) -> Practice | None:
    """Where the practice stands; None where its trial is gone, or has lost a blade."""
    with bench.db.read() as session:
        if trials.find_trial(session, TRIAL_ID) is None:
            return None
    known = line_up(bench.db, TRIAL_ID)
    step = practice_step(known.state, [found for found, _ in known.ways_out])
    if step is None:
        return None
    return Practice(TRIAL_ID, step, _lives(known), known.state.trial.method.count_unit)


def take_step(bench: Bench, kind: PracticeStepKind, now: Moment, progress: Progress) -> None:
    """Do what the button of a step does; nothing where the practice is at another step already."""
    stands = practice_stands(bench)
    if stands is None or stands.step.kind != kind:
        return
    doing: dict[PracticeStepKind, Callable[[], object]] = {
        "match": lambda: _sharpen_again(bench, stands.step, now),
        "plan": lambda: _plan_edges(bench),
        "start": lambda: start_next(bench, TRIAL_ID, now),
        "rest": lambda: cut_all(bench, TRIAL_ID, stands.step.runs_left, progress),
    }
    if kind in doing:
        doing[kind]()


def _sharpen_again(bench: Bench, step: PracticeStep, now: Moment) -> None:
    assert step.mismatch is not None
    code = step.mismatch.blade
    blade = next(b for b in line_up(bench.db, TRIAL_ID).state.blades if b.code == code)
    number = max((edge.number for edge in blade.edges), default=0) + 1
    edge = sharpened(blade.id, number, SIDE_ANGLE_DEG, now)
    save_edge(bench.db, edge, {m.quantity: m.value for m in edge.measurements}, now)


def _plan_edges(bench: Bench) -> None:
    trial = line_up(bench.db, TRIAL_ID).state.trial
    keep_plan(bench.db, TRIAL_ID, trial.plan, EDGES_TO_PLAN)


def _lives(known: LineUp) -> dict[str, float]:
    """The life of each blade on a usual edge, by its code."""
    return {
        blade.code: usual_life(
            VirtualSteel(blade.claimed_grade or "", blade.value("hardness_hrc"), SIDE_ANGLE_DEG)
        )
        for blade in known.state.blades
    }
