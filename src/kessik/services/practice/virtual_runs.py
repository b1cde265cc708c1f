"""Runs of virtual blades: sharpened, started and cut to the end by the virtual bench."""

from collections.abc import Callable
from datetime import datetime
from uuid import uuid4
from zlib import crc32

import numpy as np

from kessik.core.errors import NotAllowedNowError
from kessik.core.moments import Moment
from kessik.core.runs import Run
from kessik.core.trials.next_step import NextStep, next_step
from kessik.services.bench.bench import Bench
from kessik.services.bench.runs import run_view, start_run
from kessik.services.bench.virtual_cutting import TrueBlade, VirtualHand, cut_run
from kessik.services.bench.virtual_line import edge_of_run
from kessik.services.clock import now as this_moment
from kessik.services.practice.first_trial import SIDE_ANGLE_DEG, sharpened
from kessik.services.reading.trial_states import trial_state
from kessik.services.shelf.sharpenings import save_edge

Progress = Callable[[int, int], None]


def start_next(bench: Bench, trial_id: str, now: Moment) -> str | None:
    """Start the run that the order has next, on an edge sharpened for it; None where all are
    started.
    """
    state = trial_state(bench.db, trial_id)
    step = next_step(state)
    if step.kind != "start_run":
        return step.run_id if step.kind == "go_on" else None
    edge_id = step.edge_id or _sharpen_next(bench, trial_id, step, now)
    run_id = str(uuid4())
    # an edge is what it is: the practice asks as many readings of everybody
    seed = crc32(f"practice:{edge_id}".encode())
    start_run(bench, Run(run_id, trial_id, edge_id, 1, now, practice_seed=seed))
    return run_id


def _sharpen_next(bench: Bench, trial_id: str, step: NextStep, now: Moment) -> str:
    blades = trial_state(bench.db, trial_id).blades
    blade = next(blade for blade in blades if blade.arm_id == step.arm_id)
    number = max((edge.number for edge in blade.edges), default=0) + 1
    edge = sharpened(blade.id, number, SIDE_ANGLE_DEG, now)
    save_edge(bench.db, edge, {m.quantity: m.value for m in edge.measurements}, now)
    return edge.id


def cut_to_the_end(bench: Bench, run_id: str) -> None:
    """Cut a run of the virtual bench from where it stands until its stop rule is met."""
    view = run_view(bench, run_id)
    seed = view.run.practice_seed
    if seed is None:
        raise NotAllowedNowError("only a run on the virtual bench is cut by itself", field="run")
    rng = np.random.default_rng([seed, view.state.position])
    starts = datetime.fromisoformat(this_moment().utc)
    hand = VirtualHand(f"virtual-{run_id}", starts, lambda _: str(uuid4()))
    cut_run(bench, run_id, TrueBlade(edge_of_run(view)), rng, hand)


def cut_all(bench: Bench, trial_id: str, of: int, progress: Progress) -> None:
    """Cut what is left of a trial, run after run."""
    for done in range(of):
        progress(done, of)
        run_id = start_next(bench, trial_id, this_moment())
        if run_id is None:
            return
        cut_to_the_end(bench, run_id)
