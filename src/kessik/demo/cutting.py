"""How the demo cuts: at the bench, as a tester would, each run and event under an id of its own."""

from datetime import datetime
from uuid import NAMESPACE_URL, uuid5

import numpy as np

from kessik.core.protocols.events import AFTER_STROP, BenchEvent, Payload, Reading, Strop
from kessik.core.protocols.run_state import RunState
from kessik.core.runs import Run
from kessik.services.bench.bench import Bench
from kessik.services.bench.runs import append_event, run_view, start_run
from kessik.services.bench.virtual_cutting import TESTER, TrueBlade, VirtualHand, cut_run


def demo_id(*parts: object) -> str:
    """An id that is the same in every demo."""
    return str(uuid5(NAMESPACE_URL, ":".join(["kessik", "demo", *map(str, parts)])))


def start_and_cut(
    bench: Bench,
    run: Run,
    blade: TrueBlade,
    rng: np.random.Generator,
    stop_after: float | None = None,
) -> RunState:
    """Cut one run until the stop rule is met, or leave it at `stop_after`."""
    start_run(bench, run)
    starts = datetime.fromisoformat(run.started.utc)
    hand = VirtualHand(f"demo-{run.id}", starts, lambda number: demo_id(run.id, number))
    return cut_run(bench, run.id, blade, rng, hand, stop_after)


def strop_back(bench: Bench, run_id: str, blade: TrueBlade, rng: np.random.Generator) -> None:
    """Strop an ended edge twice, ten strokes each, and read it twice after each; the strop does
    ever less.
    """
    view = run_view(bench, run_id)
    worn = float(blade.edge.force_gf(view.state.count)[0])
    for strokes, share in ((10, 0.45), (10, 0.62)):
        after = worn - share * (worn - blade.edge.start_gf)
        read = [
            Reading(value=TESTER.read_gf(after, rng), unit="gf", stage=AFTER_STROP)
            for _ in range(2)
        ]
        steps: list[Payload] = [Strop(strokes=strokes), *read]
        for said in steps:
            view = run_view(bench, run_id)
            sequence = len(view.events) + 1
            time = view.events[-1].client_time
            event = BenchEvent(
                demo_id(run_id, "strop", sequence),
                said,
                f"demo-{run_id}",
                10_000 + sequence,
                view.state.position,
                view.state.count,
                time,
            )
            append_event(bench, run_id, event, time)
