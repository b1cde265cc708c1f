"""What check schedules use and reach, by simulation on the virtual bench: the table that a plan is
foretold from.

`python -m benchmarks --only schedules` prints the rows of `kessik.core.planning.schedule_table`.
"""

from dataclasses import dataclass, replace
from multiprocessing import Pool

import numpy as np

from benchmarks.lives import estimate
from benchmarks.population import draw_bench, run_adaptive, run_fixed
from kessik.core.spreads import Z_95

# (life in cuts, a check every so many cuts): rows are kept by checks to a life
FIXED = (
    (6, 4),
    (10, 4),
    (4, 1),
    (6, 1),
    (9, 1),
    (13, 1),
    (20, 1),
    (30, 1),
    (45, 1),
    (70, 1),
    (110, 1),
    (170, 1),
)
ADAPTIVE = (4, 6, 9, 13, 20, 30, 45, 70, 110, 170)
BOTH_LIMITS = (("keen", 300.0), ("dull", 400.0))
STUDIED = (0.03, 0.07, 0.14)


@dataclass(frozen=True)
class Row:
    """The error that a verdict reckons with, mean readings, mean cuts at the stop over the true
    life.

    A verdict weighs edges by the precision of their lives, 1 / sd²: its error is that of the mean
    precision, with sd a quarter of the 95 % interval of ln life (3.92 of a normal distribution).
    """

    at: float
    error: float
    readings: float
    cuts_over_life: float


Task = tuple[float, int, float | None, int]


def _one(task: Task) -> tuple[float | None, int, float]:
    life, every, studied, seed = task
    bench = draw_bench(90_000 + seed, (life * 0.9, life * 1.1))
    if studied is not None:
        bench = replace(bench, tester=replace(bench.tester, scatter=studied))
    if every == 0:
        run = run_adaptive(bench, BOTH_LIMITS, studied)
    else:
        run = run_fixed(bench, every, "same_count")
    found = estimate(run, studied)
    width = None if found is None else float(np.log(found[2] / found[0])) / (2 * Z_95)
    return width, run.counts.size, float(run.counts.max()) / bench.edge.life


def _row(
    pool: Pool,  # type: ignore[valid-type]
    at: float,
    life: float,
    every: int,
    edges: int,
    studied: float | None = None,
) -> Row:
    found = pool.map(_one, [(life, every, studied, seed) for seed in range(edges)], chunksize=5)
    widths = np.array([width for width, _, _ in found if width is not None])
    return Row(
        at,
        float(np.mean(widths**-2.0) ** -0.5),
        float(np.mean([n for _, n, _ in found])),
        float(np.mean([c for *_, c in found])),
    )


def report(edges: int) -> None:
    """Print both tables; fixed schedules by checks to a life, the adaptive one by the life in
    cuts. Then how errors follow the scatter of a gauge that was studied.
    """
    with Pool(2) as pool:
        for name, rows in (
            ("FIXED", ((life / every, life, every) for life, every in FIXED)),
            ("ADAPTIVE", ((life, life, 0) for life in ADAPTIVE)),
        ):
            print(f"{name}: at, error, readings, cuts over life", flush=True)
            for at, life, every in rows:
                row = _row(pool, at, life, every, edges)
                print(
                    f"    ({row.at:g}, {row.error:.3f}, {row.readings:.1f},"
                    f" {row.cuts_over_life:.2f}),",
                    flush=True,
                )
        print("Errors with a gauge that was studied, over those at 7 %:", flush=True)
        for name, every in (("every cut", 1), ("every 4th", 4), ("adaptive", 0)):
            errors = [_row(pool, 22, 22, every, edges, studied).error for studied in STUDIED]
            told = (f"{s:.0%} {e / errors[1]:.2f}" for s, e in zip(STUDIED, errors, strict=True))
            print(f"    {name}: {', '.join(told)}", flush=True)
