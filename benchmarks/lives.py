"""Accuracy and coverage of lives on simulated edges, textbook and surprise shapes, under several
schedules.
"""

from dataclasses import dataclass
from multiprocessing import Pool

import numpy as np

from benchmarks.population import LIMIT_GF, SimulatedRun, draw_bench, run_adaptive, run_fixed
from kessik.core.protocols.series import Check, RunSeries
from kessik.core.sharpness.life import Crossed, NotReached, force_lives
from kessik.instruments.virtual_bench.true_decay import SURPRISE

SHORT, LONG = (4.0, 60.0), (80.0, 500.0)


@dataclass(frozen=True)
class Case:
    """One schedule over one span of lives; error wanted in per cent, None where only coverage is
    asked.
    """

    name: str
    lives: tuple[float, float]
    schedule: str
    every: int = 1
    ends_on: str = "two_checks"
    wanted_error: float | None = None


CASES = (
    Case("every cut", SHORT, "fixed", 1, "two_checks", 12.5),
    Case("every cut, confirmed at one count", SHORT, "fixed", 1, "same_count", 12.5),
    Case("every 4th cut", SHORT, "fixed", 4, "two_checks", 19.0),
    Case("every 4th, confirmed at one count", SHORT, "fixed", 4, "same_count", 19.0),
    Case("lives 80 to 500, every 10th", LONG, "fixed", 10, "two_checks", 12.5),
    Case("lives 80 to 500, every 2nd", LONG, "fixed", 2),
    Case("adaptive, dull only", SHORT, "adaptive"),
    Case("adaptive, keen then dull", SHORT, "adaptive_both"),
)


def estimate(run: SimulatedRun, studied: float | None = None) -> tuple[float, float, float] | None:
    """Low, estimate and high of the dull life; None where the run was not judged to have reached
    it.
    """
    pairs = zip(run.counts, run.force_gf, strict=True)
    checks = tuple(Check(float(n), "force", float(f)) for n, f in pairs)
    (life,) = force_lives([RunSeries("A", 1, 1, checks)], "dull", LIMIT_GF, studied)
    found = life.life.found if life else None
    if isinstance(found, NotReached):
        found = found.ahead
    return (found.low, found.estimate, found.high) if isinstance(found, Crossed) else None


def simulate(task: tuple[Case, int]) -> tuple[str, float, tuple[float, float, float] | None, int]:
    case, seed = task
    bench = draw_bench(seed, case.lives)
    if case.schedule == "fixed":
        run = run_fixed(bench, case.every, case.ends_on)
    elif case.schedule == "adaptive":
        run = run_adaptive(bench)
    else:
        run = run_adaptive(bench, (("keen", 300.0), ("dull", 400.0)))
    return bench.edge.kind, bench.edge.life, estimate(run), run.counts.size


def report(edges: int) -> None:
    """Print error, bias, coverage and readings for every case, and coverage on each surprise
    shape.
    """
    print(
        f"\nLives: {edges} simulated edges a row; scatter 4 to 10 %, outliers 0 to 8 %, 35 %"
        " surprise shapes"
    )
    print(
        f"{'schedule':36}{'error':>7}{'bias':>7}{'cover':>7}{'readings':>9}{'none':>6}  coverage on"
        " surprise shapes"
    )
    readings: dict[str, float] = {}
    with Pool(2) as pool:
        for case in CASES:
            rows = pool.map(
                simulate, [(case, 50_000 + seed) for seed in range(edges)], chunksize=20
            )
            found = [(kind, life, e) for kind, life, e, _ in rows if e is not None]
            kinds = np.array([kind for kind, _, _ in found])
            log_error = np.array([np.log(e[1] / life) for _, life, e in found])
            inside = np.array([e[0] <= life <= e[2] for _, life, e in found])
            error = 100 * float(np.sqrt(np.mean(log_error**2)))
            readings[case.name] = float(np.mean([count for *_, count in rows]))
            surprise = "  ".join(
                f"{kind} {100 * inside[kinds == kind].mean():.0f}" for kind in SURPRISE
            )
            print(
                f"{case.name:36}{error:6.1f}%{100 * log_error.mean():+6.1f}%"
                f"{100 * inside.mean():6.1f}%{readings[case.name]:9.1f}{edges - len(found):6d}"
                f"  {surprise}"
                + (f"   (wanted: error <= {case.wanted_error} %)" if case.wanted_error else ""),
                flush=True,
            )
    for name in ("adaptive, dull only", "adaptive, keen then dull"):
        print(
            f"{name}: {100 * readings[name] / readings['every cut']:.0f} % of the readings of every"
            " cut (wanted: 60)"
        )
