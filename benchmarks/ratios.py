"""Coverage and false calls of ratios on two generators: one shape a blade, and shapes changing from
edge to edge.
"""

from multiprocessing import Pool

import numpy as np

from benchmarks.population import LIMIT_GF, Bench, run_fixed
from kessik.core.comparison.analysis import analyse
from kessik.core.comparison.matching import MatchingRule
from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import Check, RunSeries
from kessik.instruments.virtual_bench.edge_force_tester import SimulatedTester
from kessik.instruments.virtual_bench.true_decay import KINDS, true_edge


def simulate(task: tuple[int, int, float, bool]) -> tuple[float, float, float, float]:
    """ln of truth, estimate, low and high of one simulated two-blade trial."""
    seed, edges, ratio, changing = task
    rng = np.random.default_rng([9000, seed])
    life = float(np.exp(rng.uniform(np.log(8), np.log(50))))
    spread = float(np.exp(np.log(0.042) + 0.4 * rng.normal()))
    tester = SimulatedTester(rng.uniform(0.04, 0.10), rng.uniform(0.0, 0.06))
    kind, shape_seed = str(rng.choice(list(KINDS))), int(rng.integers(2**31))
    runs = []
    for code in "AB":
        for number in range(1, edges + 1):
            if changing:
                kind, shape_seed = str(rng.choice(list(KINDS))), int(rng.integers(2**31))
            own = life * (ratio if code == "B" else 1.0) * float(np.exp(spread * rng.normal()))
            shape = np.random.default_rng(shape_seed)
            edge = true_edge(kind, own, shape, start_gf=rng.uniform(130, 180), limit_gf=LIMIT_GF)
            run = run_fixed(Bench(edge, tester, rng), 1)
            pairs = zip(run.counts, run.force_gf, strict=True)
            runs.append(
                RunSeries(
                    code, number, 1, tuple(Check(float(n), "force", float(f)) for n, f in pairs)
                )
            )
    analysis = analyse(runs, {}, MatchingRule(), Method())
    (found,) = [c for c in analysis.comparisons if c.stage == "dull"]
    return (
        float(np.log(ratio)),
        float(np.log(found.ratio)),
        float(np.log(found.low)),
        float(np.log(found.high)),
    )


def report(trials: int) -> None:
    """Print coverage, false or true calls, error and width by generator, edges and true ratio."""
    print(f"\nRatios: {trials} simulated trials a row")
    print("wanted: cover 93 to 97 %, and equal blades called apart in at most 5 %")
    print(f"{'shapes':18}{'edges':>6}{'ratio':>7}{'cover':>8}{'called':>8}{'error':>8}{'width':>7}")
    covered = []
    with Pool(2) as pool:
        for changing in (False, True):
            for edges in (1, 2, 3):
                for ratio in (1.0, 1.25):
                    rows = np.array(
                        pool.map(
                            simulate,
                            [(s, edges, ratio, changing) for s in range(trials)],
                            chunksize=5,
                        )
                    )
                    truth, estimate, low, high = rows.T
                    inside = (low <= truth) & (truth <= high)
                    covered.append(inside.mean())
                    called = np.mean((low > 0) | (high < 0))
                    error = np.sqrt(np.mean((estimate - truth) ** 2))
                    name = "changing by edge" if changing else "one a blade"
                    print(
                        f"{name:18}{edges:6d}{ratio:7.2f}"
                        f"{100 * inside.mean():7.1f}%{100 * called:7.1f}%"
                        f"{100 * error:7.1f}%{np.mean(high - low):7.2f}",
                        flush=True,
                    )
    print(f"over all rows: cover {100 * np.mean(covered):.1f} %")
