"""A run cut by itself on the virtual bench, doing what the screen asks until the stop rule is
met.
"""

from collections.abc import Callable
from dataclasses import dataclass
from datetime import datetime, timedelta
from itertools import count

import numpy as np

from kessik.core.protocols.checks import JUDGED
from kessik.core.protocols.events import (
    BenchEvent,
    Cut,
    Outcome,
    Pause,
    Payload,
    Reading,
    Resume,
    TakeOver,
)
from kessik.core.protocols.run_state import RunState
from kessik.instruments.virtual_bench.edge_force_tester import SimulatedTester
from kessik.instruments.virtual_bench.true_decay import TrueEdge
from kessik.services.bench.bench import Bench
from kessik.services.bench.runs import append_event, plan_check, run_view

SECONDS_A_CUT, SECONDS_A_LOOK = 38, 25
TESTER = SimulatedTester(scatter=0.05, outlier_share=0.01)
# the true force, gf, beyond which an edge no longer does it
GIVES_UP_GF = {"inspect": 215.0, "hair_sample": 240.0, "shave": 235.0, "paper": 400.0}
_DOUBT_FROM = 0.9


@dataclass(frozen=True)
class TrueBlade:
    """What a simulated edge answers to every kind of look; `thickness` makes effort, `bite_mm` the
    first depth.
    """

    edge: TrueEdge
    control_from_mm: float = 76.0
    thickness: float = 1.0
    bite_mm: float = 8.0
    tester: SimulatedTester = TESTER

    def answer(self, state: RunState, rng: np.random.Generator) -> Payload:
        """The event a tester would log for the look that is asked for."""
        return self.look(state.progress.asked, state.count, state.asked_at_mm, rng)

    def look(
        self, asked: str, count: float, at_mm: float | None, rng: np.random.Generator
    ) -> Outcome | Reading:
        """What a check of a kind finds at a count, at a place of the edge (mm from the heel)."""
        worn = at_mm is None or at_mm <= self.control_from_mm
        force = float(self.edge.force_gf(count if worn else 0.0)[0])
        if asked in JUDGED:
            return Outcome(check=asked, outcome=self._judged(asked, force, rng), position_mm=at_mm)
        if asked == "effort":
            effort = 1.2 + 1.1 * self.thickness * count + rng.normal(0, 0.25)
            value = round(float(np.clip(effort, 0, 10)) * 2) / 2
            return Reading(check=asked, value=value, position_mm=at_mm)
        if asked == "depth":
            depth = self.bite_mm * (self.edge.start_gf / force) * float(np.exp(rng.normal(0, 0.03)))
            return Reading(check=asked, value=round(depth, 2), unit="mm", position_mm=at_mm)
        return Reading(
            value=self.tester.read_gf(force, rng), unit="gf", source="virtual", position_mm=at_mm
        )

    def _judged(self, asked: str, force: float, rng: np.random.Generator) -> str:
        felt = force * float(np.exp(rng.normal(0, 0.02)))
        lost = felt >= GIVES_UP_GF[asked]
        if asked == "inspect":
            return "glint" if lost else "clean"
        if not lost and asked == "paper" and felt >= _DOUBT_FROM * GIVES_UP_GF[asked]:
            return "doubt"
        return "fail" if lost else "pass"


@dataclass(frozen=True)
class VirtualHand:
    """Who cuts: a device of its own, whose clock begins at `starts` and whose events have the ids
    that `event_id` makes of their numbers.
    """

    device: str
    starts: datetime
    event_id: Callable[[int], str]


def cut_run(
    bench: Bench,
    run_id: str,
    blade: TrueBlade,
    rng: np.random.Generator,
    hand: VirtualHand,
    stop_after: float | None = None,
) -> RunState:
    """Cut a run that was started, from where it stands: look when told to, cut in between, stop
    when the rule says so, or leave it at `stop_after`.
    """
    view = run_view(bench, run_id)
    state, piece = view.state, view.method.piece
    clock, numbers = hand.starts, count(1)

    def send(said: Payload) -> RunState:
        time, sequence = clock.isoformat(), next(numbers)
        event = BenchEvent(
            hand.event_id(sequence), said, hand.device, sequence, state.position, state.count, time
        )
        return append_event(bench, run_id, event, time).state

    if state.holder not in (None, hand.device) and not state.has_ended:
        state = send(TakeOver())
    if state.status == "paused":
        state = send(Resume())
    while True:
        if not state.plan_is_current:
            state = plan_check(bench, run_id, clock.isoformat())
        if state.has_ended:
            break
        if stop_after is not None and state.count >= stop_after:
            send(Pause())
            break
        said = blade.answer(state, rng) if state.check_due else Cut(amount=piece)
        clock += timedelta(seconds=SECONDS_A_LOOK if state.check_due else SECONDS_A_CUT)
        state = send(said)
    return state
