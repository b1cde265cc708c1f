"""Simulated edges and the ways of checking them, drawn from the virtual bench without a look at the
estimator.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from kessik.core.planning.adaptive import next_check
from kessik.core.protocols.series import Check
from kessik.instruments.virtual_bench.edge_force_tester import SimulatedTester
from kessik.instruments.virtual_bench.true_decay import SURPRISE, TEXTBOOK, TrueEdge, true_edge

Floats = NDArray[np.float64]
LIMIT_GF = 400.0


@dataclass(frozen=True)
class SimulatedRun:
    """The readings that a schedule took of one edge."""

    counts: Floats
    force_gf: Floats


@dataclass(frozen=True)
class Bench:
    """A true edge under a tester with its own seed."""

    edge: TrueEdge
    tester: SimulatedTester
    rng: np.random.Generator

    def read(self, count: float) -> float:
        return self.tester.read_gf(float(self.edge.force_gf(count)[0]), self.rng)


def draw_bench(seed: int, lives: tuple[float, float], surprise_share: float = 0.35) -> Bench:
    rng = np.random.default_rng(seed)
    kinds = list(SURPRISE if rng.random() < surprise_share else TEXTBOOK)
    life = float(np.exp(rng.uniform(np.log(lives[0]), np.log(lives[1]))))
    edge = true_edge(
        str(rng.choice(kinds)), life, rng, start_gf=rng.uniform(120, 200), limit_gf=LIMIT_GF
    )
    return Bench(edge, SimulatedTester(rng.uniform(0.04, 0.10), rng.uniform(0.0, 0.08)), rng)


def run_fixed(bench: Bench, every: int, ends_on: str = "two_checks") -> SimulatedRun:
    """Check every so many cuts; ends on two checks in a row beyond the limit, or a pair at one
    count (`same_count`).
    """
    counts, force = [0.0], [bench.read(0.0)]
    count, beyond = 0, 0
    while beyond < 2 and count < 6 * bench.edge.life + 4 * every:
        count += every
        reading = bench.read(count)
        counts.append(float(count))
        force.append(reading)
        if reading <= LIMIT_GF:
            beyond = 0
            continue
        beyond += 1
        if ends_on == "same_count":
            counts.append(float(count))
            force.append(bench.read(count))
            beyond = 2 if force[-1] > LIMIT_GF else 0
    return SimulatedRun(np.array(counts), np.array(force))


def run_adaptive(
    bench: Bench,
    limits_gf: Sequence[tuple[str, float]] = (("dull", LIMIT_GF),),
    studied: float | None = None,
) -> SimulatedRun:
    """Check when the adaptive rule says so, until it says stop; `studied` is what is known of the
    scatter of readings.
    """
    checks: list[Check] = []
    while len(checks) < 300:
        planned = next_check(checks, limits_gf, studied=studied)
        if planned.stop or planned.next_count is None:
            break
        for _ in range(planned.readings):
            checks.append(Check(planned.next_count, "force", bench.read(planned.next_count)))
    counts = np.array([check.count for check in checks])
    return SimulatedRun(counts, np.array([check.force_gf for check in checks]))
