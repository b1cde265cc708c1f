"""Virtual runs: what their edges truly are, and readings on request from the virtual bench."""

import numpy as np

from kessik.core.errors import NotAllowedNowError
from kessik.instruments.virtual_bench.true_decay import TrueEdge
from kessik.instruments.virtual_bench.virtual_blade import VirtualSteel, virtual_edge
from kessik.services.bench.bench import Bench
from kessik.services.bench.runs import RunView, run_view
from kessik.services.devices.instrument_desk import Desk

USUAL_DULL_GF = 400.0
STROPPED_BACK = 0.6
"""What the strop brings back of a virtual edge's loss."""


def edge_of_run(view: RunView) -> TrueEdge:
    """The true edge under a run of the virtual bench; NotAllowedNowError for any other run."""
    if view.run.practice_seed is None:
        raise NotAllowedNowError(
            "readings from the virtual bench are for practice runs only", field="run"
        )
    limits = view.method.limits_gf
    limit_gf = limits[-1][1] if limits else USUAL_DULL_GF
    steel = VirtualSteel(
        view.blade.claimed_grade or "",
        view.blade.value("hardness_hrc"),
        view.edge.value("side_angle_deg"),
    )
    return virtual_edge(view.run.practice_seed, steel, limit_gf)


def pull_line(bench: Bench, desk: Desk, run_id: str) -> None:
    """Pull the virtual test line over a run's edge at its present count; the reading comes from the
    tester.
    """
    view = run_view(bench, run_id)
    edge, seed = edge_of_run(view), view.run.practice_seed
    assert seed is not None
    true_gf = float(edge.force_gf(view.state.count)[0])
    if view.state.strops:
        true_gf -= STROPPED_BACK * (true_gf - edge.start_gf)
    taken = len(view.state.checks) + sum(len(test.readings_gf) for test in view.state.strops)
    desk.pull_virtual(run_id, true_gf, np.random.default_rng([seed, taken]))
