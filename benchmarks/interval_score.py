"""Intervals of single lives judged by their mean interval score, beside the bracket that a hand
would give.
"""

from multiprocessing import Pool

import numpy as np
from numpy.typing import NDArray

from benchmarks.lives import SHORT, estimate
from benchmarks.pass_fail import HEIGHTS, cliff_run
from benchmarks.population import LIMIT_GF, SimulatedRun, draw_bench, run_fixed

USUAL_TO_RESTING = 4
_PENALTY = 2.0 / 0.05
Floats = NDArray[np.float64]
Interval = tuple[float, float]
Row = tuple[bool, float, Interval, Interval]


def interval_score(low: Floats, high: Floats, truth: Floats) -> Floats:
    """(U − L) + 40 (L − x)⁺ + 40 (x − U)⁺ on ln life, for 95 % intervals [1].

    References
    ----------
    [1] T. Gneiting and A. E. Raftery, Strictly proper scoring rules, prediction, and estimation,
    JASA 102, 2007, section 6.2.
    """
    low, high, truth = np.log(low), np.log(high), np.log(truth)
    missed = np.maximum(low - truth, 0.0) + np.maximum(truth - high, 0.0)
    return np.asarray(high - low + _PENALTY * missed)


def by_hand(run: SimulatedRun) -> Interval:
    """The last count read below the limit before the first above it, and that one."""
    above = run.force_gf > LIMIT_GF
    first = int(np.argmax(above)) if above.any() else run.counts.size - 1
    return max(float(run.counts[max(first - 1, 0)]), 0.5), float(max(run.counts[first], 1.0))


def _one(task: tuple[str, int, int]) -> Row | None:
    kind, seed, every = task
    if kind == "usual":
        bench = draw_bench(90_000 + seed, SHORT)
        truth, run = bench.edge.life, run_fixed(bench, every)
    else:
        truth, run = cliff_run(seed, HEIGHTS[seed % len(HEIGHTS)], every)
    found = estimate(run)
    if found is None:
        return None
    return kind == "usual", truth, (found[0], found[2]), by_hand(run)


def report(edges: int) -> None:
    """Print score, coverage and width by schedule and population."""
    print(f"\nInterval score on ln life: {edges} edges a row, four usual ones to one that rests")
    print("wanted: every cut <= 1.10, every 4th <= 1.05; usual edges hold 94 to 98 %")
    heads = f"{'every':>6}{'population':>12}{'score':>8}{'hold':>8}{'width':>8}"
    print(f"{heads}{'by hand':>9}{'hold':>8}")
    resting = edges // (USUAL_TO_RESTING + 1)
    with Pool(2) as pool:
        for every in (1, 4):
            tasks = [("usual", seed, every) for seed in range(edges - resting)]
            tasks += [("rests", seed, every) for seed in range(resting)]
            rows = [row for row in pool.map(_one, tasks, chunksize=10) if row is not None]
            _print_row(every, "all", rows)
            _print_row(every, "usual", [row for row in rows if row[0]])
            _print_row(every, "rests", [row for row in rows if not row[0]])


def _print_row(every: int, name: str, rows: list[Row]) -> None:
    truth = np.array([row[1] for row in rows])
    low, high = np.array([row[2] for row in rows]).T
    hand_low, hand_high = np.array([row[3] for row in rows]).T
    held = (low <= truth) & (truth <= high)
    hand_held = (hand_low <= truth) & (truth <= hand_high)
    print(
        f"{every:6d}{name:>12}{interval_score(low, high, truth).mean():8.2f}"
        f"{100 * held.mean():7.1f}%{'×':>4}{np.median(high / low):4.1f}"
        f"{interval_score(hand_low, hand_high, truth).mean():9.2f}{100 * hand_held.mean():7.1f}%",
        flush=True,
    )
