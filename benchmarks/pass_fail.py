"""Ratios over brackets and blocks, on edges with and without heavy tails, and lives of edges that
fall off a cliff: generators written without a look at the estimators.
"""

from multiprocessing import Pool

import numpy as np

from benchmarks.lives import estimate
from benchmarks.population import LIMIT_GF, SimulatedRun
from kessik.core.comparison.lives import BladeEdges, Bracket, solve
from kessik.core.comparison.ratios import all_ratios

HEIGHTS = (0.8, 0.85, 0.9, 0.95, 0.99)


def _brackets(
    rng: np.random.Generator, lives: np.ndarray, gap: float
) -> tuple[tuple[Bracket, ...], ...]:
    low = np.floor(lives / gap) * gap
    return tuple((Bracket(float(at), float(at + gap)),) for at in low)


def bracket_trial(task: tuple[int, int, float, float, float]) -> tuple[float, float, float]:
    """ln of estimate, low and high of one pair of blades by pass and fail, over the truth."""
    seed, edges, ratio, off, block_sd = task
    rng = np.random.default_rng([seed, edges, int(100 * off)])
    base, spread = rng.uniform(40, 300), 0.03 if block_sd else 0.04
    levels = np.exp(rng.normal(0.0, block_sd, edges)) if block_sd else np.ones(edges)
    blades = []
    for code, times in (("A", 1.0), ("B", ratio)):
        error = rng.normal(0.0, spread, edges)
        odd = rng.random(edges) < off
        error[odd] += rng.choice([-1.0, 1.0], odd.sum()) * rng.uniform(0.3, 0.8, odd.sum())
        lives = base * times * levels * np.exp(error)
        gap = max(1.0, (0.03 if block_sd else 0.05) * base)
        blocks = tuple(range(edges)) if block_sd else ()
        blades.append(BladeEdges(code, _brackets(rng, lives, gap), blocks))
    (found,) = all_ratios(solve(blades))
    at = found.at_95
    return tuple(float(np.log(x)) for x in (at.estimate, at.low, at.high))  # type: ignore[return-value]


def report_pairs(trials: int) -> None:
    """Print how often intervals hold the truth and call a difference, by edges and blocks."""
    print(
        f"\nPass and fail: {trials} simulated pairs a row, one in 25 edges off by a factor or none"
    )
    print(
        "wanted: hold >= 93 %, called apart when equal <= 5 %; four blocks, +20 % found in >= 80 %"
    )
    print(f"{'blocks':>8}{'edges':>6}{'off':>6}{'ratio':>7}{'hold':>8}{'called':>8}")
    with Pool(2) as pool:
        for block_sd, counts in ((0.0, (1, 2, 3)), (0.3, (4,))):
            for edges in counts:
                for off in (0.0, 0.04):
                    for ratio in (1.0, 1.2):
                        tasks = [(s, edges, ratio, off, block_sd) for s in range(trials)]
                        rows = np.array(pool.map(bracket_trial, tasks, chunksize=10))
                        _, low, high = rows.T
                        truth = np.log(ratio)
                        held = 100 * np.mean((low <= truth) & (truth <= high))
                        called = 100 * np.mean((low > 0) | (high < 0))
                        print(
                            f"{'±30 %' if block_sd else 'none':>8}{edges:6d}{off:6.2f}{ratio:7.2f}"
                            f"{held:7.1f}%{called:7.1f}%",
                            flush=True,
                        )


def cliff_run(seed: int, height: float, every: int) -> tuple[float, SimulatedRun]:
    """True life and run of one edge that rests at a share of the limit and then falls."""
    rng = np.random.default_rng([seed, int(100 * height), every])
    start, plateau = rng.uniform(120, 180), height * LIMIT_GF
    falls_at = rng.uniform(12, 60)
    settles, width = rng.uniform(0.1, 0.4), rng.uniform(0.3, 2.5)
    below = rng.uniform(1.3, 2.0) * LIMIT_GF
    scatter, outliers = rng.uniform(0.04, 0.10), rng.uniform(0.0, 0.08)

    def force(n: float) -> float:
        rest = start + (plateau - start) * -np.expm1(-n / (settles * falls_at))
        return float(rest + (below - rest) * min(max((n - falls_at) / width, 0.0), 1.0))

    resting = force(falls_at)
    truth = falls_at + width * (LIMIT_GF - resting) / (below - resting)
    counts, forces, beyond = [], [], 0
    while beyond < 2 and (counts[-1] if counts else 0) < falls_at + 7 * every:
        counts.append(counts[-1] + every if counts else 0)
        error = 0.8 * scatter * rng.standard_t(5)
        if rng.random() < outliers:
            error = rng.normal(0.0, 0.3)
        forces.append(force(counts[-1]) * float(np.exp(error)))
        beyond = beyond + 1 if forces[-1] > LIMIT_GF else 0
    return truth, SimulatedRun(np.array(counts, dtype=float), np.array(forces))


def cliff(task: tuple[int, float, int]) -> tuple[float, float, float, float] | None:
    """Truth, low, estimate and high of such an edge; None where the run did not get there."""
    truth, run = cliff_run(*task)
    found = estimate(run)
    return None if found is None else (truth, *found)


def report_cliffs(edges: int) -> None:
    """Print coverage and error by the height of the plateau."""
    print(
        f"\nCliffs: {edges} simulated edges a row, ended by two readings in a row beyond the limit"
    )
    print("wanted: hold >= 92 % overall and >= 88 % at each height, median within 3 %")
    print(f"{'every':>6}{'plateau':>9}{'hold':>8}{'median':>8}{'mean':>8}{'error':>8}")
    with Pool(2) as pool:
        for every in (1, 4):
            whole: list[bool] = []
            for height in HEIGHTS:
                tasks = [(s, height, every) for s in range(edges)]
                rows = [row for row in pool.map(cliff, tasks, chunksize=10) if row is not None]
                truth, low, estimate, high = np.array(rows).T
                held = (low <= truth) & (truth <= high)
                off = np.log(estimate / truth)
                whole += held.tolist()
                print(
                    f"{every:6d}{height:9.2f}{100 * held.mean():7.1f}%{100 * np.median(off):7.1f}%"
                    f"{100 * off.mean():7.1f}%{100 * np.sqrt(np.mean(off**2)):7.1f}%",
                    flush=True,
                )
            print(f"{'':6}{'all':>9}{100 * np.mean(whole):7.1f}%", flush=True)
