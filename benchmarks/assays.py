"""Claims judged by simulated shots: whether the true grade stays in, whether weights mean what they
say, which grades are never told apart, and speed beside a plain loop.
"""

import time
from dataclasses import replace

import numpy as np

from kessik.core.composition.claims import judge_all
from kessik.core.composition.fit import fits
from kessik.core.composition.grade_shelf import GradeShelf
from kessik.core.composition.library import our_grades
from kessik.core.composition.separation import groups_never_apart
from kessik.core.composition.shot_summary import held
from kessik.core.composition.shots import Shot
from kessik.instruments.stand_ins.analyser import AnalyserStandIn
from kessik.instruments.virtual_bench.melts import melt_of

GRADES = our_grades()
SHELF = GradeShelf.of(GRADES)
BINS = ((0.1, 0.3), (0.3, 0.5), (0.5, 0.7), (0.7, 0.8), (0.8, 0.95), (0.95, 1.01))


def simulated(grade, rng, normalise, shots=3):
    """Shots of one melt by an analyser that knows nothing of the judge."""
    analyser, melt = AnalyserStandIn(rng), melt_of(grade, rng)
    blank = [Shot(str(n), "x", str(n), (), "bare") for n in range(shots)]
    return [analyser.shoot(melt, shot, normalise=normalise) for shot in blank]


def report(draws: int) -> None:
    """Draws of every grade, normalised and not; then the confusion and the speed."""
    print(f"\nClaims of {len(GRADES)} grades, {draws} draws of each, 3 shots a blade")
    for normalise in (False, True):
        report_accuracy(draws, normalise)
    report_differences()
    groups = groups_never_apart(SHELF.all_overlaps())
    alike = sum(len(group) for group in groups)
    print(f"never told apart: {alike} of {len(GRADES)} grades, in {len(groups)} groups")
    report_speed()


def report_accuracy(draws: int, normalise: bool) -> None:
    rng = np.random.default_rng(21 + normalise)
    kept, words, given = 0, {}, []
    for grade in GRADES.values():
        jobs = [(simulated(grade, rng, normalise), grade) for _ in range(draws)]
        for assay in judge_all(jobs, SHELF):
            kept += assay.own.is_in
            words[assay.verdict] = words.get(assay.verdict, 0) + 1
            given += [(c.weight, c.grade is grade) for c in assay.still_in]
    weight, is_true = np.array([w for w, _ in given]), np.array([t for _, t in given])
    shares = []
    for low, high in BINS:
        inside = (weight >= low) & (weight < high)
        if inside.any():
            shares.append(f"{weight[inside].mean():.2f} -> {is_true[inside].mean():.2f}")
    whole = draws * len(GRADES)
    said = ", ".join(f"{word} {100 * n / whole:.0f} %" for word, n in sorted(words.items()))
    print(
        f"{'normalised' if normalise else 'as read'}: true grade kept {100 * kept / whole:.2f} %"
        f" (wanted: >= 99); {said}"
    )
    print(f"  weight given -> share that is true: {'; '.join(shares)}")


def report_differences() -> None:
    rng = np.random.default_rng(23)
    pairs = (("1.2510", "1.4116"), ("1.4116", "1.2510"), ("1.2363", "1.2436"), ("316", "440C"))
    jobs = [
        (simulated(GRADES[true], rng, n % 2 == 0), GRADES[claim])
        for true, claim in pairs
        for n in range(100)
    ]
    out = np.mean([assay.verdict == "excluded" for assay in judge_all(jobs, SHELF)])
    print(f"clearly different grades excluded: {100 * out:.1f} % (wanted: 100)")


def report_speed() -> None:
    """1,000 shots against 200 grades, each by itself."""
    rng = np.random.default_rng(24)
    more = {f"{g.name}b": replace(g, name=f"{g.name}b") for g in list(GRADES.values())[:52]}
    shelf = GradeShelf.of({**GRADES, **more})
    names = list(GRADES.values())
    shots = [simulated(names[n % len(names)], rng, n % 2 == 0, 1) for n in range(1000)]
    start = time.perf_counter()
    read = [held(each, shelf.table.elements, shelf.calibration) for each in shots]
    summed = time.perf_counter()
    found = fits(shelf.table, [r.against_grades for r in read], [r.normalised for r in read])
    ours = time.perf_counter() - summed
    start_loop = time.perf_counter()
    worst = plain_loop(shelf, read[:20])
    theirs = (time.perf_counter() - start_loop) * len(read) / 20
    assert np.allclose(worst, found.worst[:20])
    judged = time.perf_counter()
    judge_all([(each, None) for each in shots], shelf)
    whole = time.perf_counter() - judged
    print(
        f"1,000 shots against 200 grades: {1e3 * ours:.0f} ms (wanted: < 300), summing them up"
        f" {1e3 * (summed - start):.0f} ms; a plain loop {theirs:.1f} s, ratio {ours / theirs:.4f};"
        f" with every candidate told {whole:.2f} s"
    )


def plain_loop(shelf, read):
    """The same distances, number by number."""
    table = shelf.table
    worst = np.zeros((len(read), len(table.grades)))
    for row, blade in enumerate(read):
        means = {mean.element: mean for mean in blade.against_grades}
        for place in range(len(table.grades)):
            scale = 1.0 - table.unseen[place] / 100.0 if blade.normalised == "yes" else 1.0
            for column, symbol in enumerate(table.elements):
                mean = means.get(symbol)
                if mean is None:
                    continue
                value, error = mean.percent * scale, mean.uncertainty_percent * scale
                above = max(value - table.high[place, column], 0.0)
                below = max(table.low[place, column] - value, 0.0)
                worst[row, place] = max(worst[row, place], (above + below) / error)
    return worst
