"""Speed, as ratios to references measured in the same run: analysis and first load."""

import gzip
import time
from dataclasses import replace
from pathlib import Path

import numpy as np
from scipy.optimize import curve_fit

from benchmarks.population import draw_bench, run_fixed
from kessik.core.comparison.analysis import analyse
from kessik.core.comparison.matching import MatchingRule
from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import Check, RunSeries
from kessik.core.sharpness.joint import life_masses, quantiles
from kessik.core.sharpness.posterior import ForceReadings, edge_likelihood

ROOT = Path(__file__).parent.parent


def timed(action, repeats):
    times = []
    for _ in range(repeats):
        start = time.perf_counter()
        action()
        times.append(time.perf_counter() - start)
    return np.array(times)


def report_analysis() -> None:
    """A 25-reading run, and 200 runs against curve_fit with a 200-draw bootstrap."""

    def analyse(readings):
        edge = edge_likelihood(readings, 400.0)
        (known,) = life_masses([edge])
        return quantiles(edge.log_life, known.conservative, (0.025, 0.5, 0.975))

    def of_size(count):
        n = np.arange(float(count))
        rng = np.random.default_rng(1)
        return ForceReadings(
            n, (150 + 250 * (n / (count - 3)) ** 0.6) * np.exp(0.06 * rng.normal(size=count))
        )

    analyse(of_size(25))
    one = np.median(timed(lambda: analyse(of_size(25)), 40))
    more = np.median(timed(lambda: analyse(of_size(50)), 40))
    print("\nAnalysis of a run, one core")
    print(
        f"25 readings: {1e3 * one:.1f} ms (wanted: <= 20); each reading more:"
        f" {1e3 * (more - one) / 25:.2f} ms"
    )
    runs = [run_fixed(draw_bench(seed, (8.0, 60.0)), 1) for seed in range(200)]
    ours = timed(lambda: [analyse(ForceReadings(r.counts, r.force_gf)) for r in runs], 1)[0]

    def power(n, start, rise, exponent):
        return start + rise * np.power(n, exponent)

    def bootstrap(run, rng):
        for draw in range(201):
            pick = (
                np.arange(run.counts.size)
                if draw == 0
                else rng.integers(0, run.counts.size, run.counts.size)
            )
            try:
                curve_fit(
                    power, run.counts[pick], run.force_gf[pick], p0=(150.0, 30.0, 0.6), maxfev=400
                )
            except (RuntimeError, TypeError, ValueError):
                continue

    rng = np.random.default_rng(2)
    sample = runs[::20]
    with np.errstate(all="ignore"):
        theirs = timed(lambda: [bootstrap(r, rng) for r in sample], 1)[0] * len(runs) / len(sample)
    print(
        f"200 runs: {ours:.1f} s; curve_fit with a 200-draw bootstrap: {theirs:.1f} s; ratio"
        f" {ours / theirs:.3f}"
    )


def report_verdict() -> None:
    """A trial of 12 blades with 4 edges each, keen and dull: from nothing; with runs that were read
    as they were cut; and when one check is added to one edge. What a server has loaded by then is
    loaded before.
    """

    def run(blade, edge, code="B"):
        drawn = run_fixed(draw_bench(10 * blade + edge, (20.0, 30.0)), 1)
        checks = zip(drawn.counts, drawn.force_gf, strict=True)
        return RunSeries(
            f"{code}{blade}", edge, 1, tuple(Check(float(n), "force", float(f)) for n, f in checks)
        )

    def verdict(runs):
        return timed(lambda: analyse(runs, {}, MatchingRule("steel"), Method()), 1)[0]

    verdict([run(blade, edge) for blade in (30, 31, 32) for edge in (1, 2)])
    places = [(blade, edge) for blade in range(1, 13) for edge in range(1, 5)]
    runs = [run(*place) for place in places]
    last = runs[-1].checks[-1]
    further = replace(last, count=last.count + 1.0)
    longer = [*runs[:-1], replace(runs[-1], checks=(*runs[-1].checks, further))]
    nothing, renewed = verdict(runs), verdict(longer)
    read = verdict([run(*place, code="C") for place in places])
    readings = sum(len(run.checks) for run in runs) / len(runs)
    print(
        f"a verdict of 12 x 4, keen and dull, {readings:.0f} readings an edge: {read:.2f} s with"
        f" its runs read as they were cut, {renewed:.2f} s after one more check (wanted: < 1);"
        f" {nothing:.2f} s from nothing"
    )


def report_first_load() -> None:
    """Scripts the first page loads, gzipped."""
    pages = ROOT / "src" / "kessik" / "web_dist"
    page = (pages / "index.html").read_text()
    scripts = [p for p in (pages / "assets").glob("*.js") if p.name in page]
    size = sum(len(gzip.compress(p.read_bytes())) for p in scripts) / 1e3
    print(f"\nFirst-load scripts: {size:.0f} kB gzip (wanted: <= 220)")
