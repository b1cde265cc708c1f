"""Lives of runs: accuracy on simulated edges, and an answer in words for every odd run."""

import numpy as np
import pytest

from kessik.core.protocols.series import Check
from kessik.core.sharpness.life import (
    AsWritten,
    BeforeFirstCheck,
    Bracketed,
    Crossed,
    NotReached,
    force_lives,
)
from kessik.core.sharpness.outcomes import outcome_lives
from kessik.core.words.lives import life_words
from kessik.instruments.virtual_bench.edge_force_tester import SimulatedTester
from kessik.instruments.virtual_bench.true_decay import KINDS, true_edge
from tests.conftest import series


def life_of(*readings, limit=400.0):
    (found,) = force_lives([series(*readings)], "dull", limit)
    return found.life


def simulated(kind, life, seed, scatter=0.06, shape_seed=None):
    """A run checked every cut until two readings in a row are beyond 400 gf."""
    rng = np.random.default_rng(seed)
    shape = rng if shape_seed is None else np.random.default_rng(shape_seed)
    edge, tester = true_edge(kind, life, shape), SimulatedTester(scatter, 0.02)
    readings, beyond, n = [], 0, 0
    while beyond < 2:
        gf = tester.read_gf(float(edge.force_gf(n)[0]), rng)
        beyond = beyond + 1 if gf > 400 else 0
        readings.append((n, gf))
        n += 1
    return readings


def test_a_clean_curve_gives_back_its_life():
    life = life_of(*[(n, 150 + 250 * (n / 20) ** 0.6) for n in range(0, 25)])
    assert isinstance(life.found, Crossed)
    assert life.found.estimate == pytest.approx(20, rel=0.03)
    assert life.found.low < 20 < life.found.high


@pytest.mark.parametrize("kind", KINDS)
def test_intervals_hold_the_truth_on_every_kind_of_edge(kind):
    # Simulation against the virtual bench, which knows nothing of the estimator. The full gate is
    # `make bench`; 40 edges a kind are enough to catch a broken estimator: at 95 % cover, fewer
    # than 32 of 40 has odds below 1e-4.
    inside, errors = 0, []
    for seed in range(40):
        (found,) = force_lives([series(*simulated(kind, 22.0, seed))], "dull", 400.0)
        crossed = found.life.found
        assert isinstance(crossed, Crossed)
        inside += crossed.low <= 22.0 <= crossed.high
        errors.append(np.log(crossed.estimate / 22.0))
    assert inside >= 32
    assert np.sqrt(np.mean(np.square(errors))) < 0.25


def test_sister_edges_sharpen_each_other():
    runs = [
        series(*simulated("burr_then_wear", 22.0, seed, shape_seed=7), edge=seed)
        for seed in (1, 2, 3, 4)
    ]
    together = force_lives(runs, "dull", 400.0)
    alone = [force_lives([run], "dull", 400.0)[0] for run in runs]

    def widths(lives):
        return np.mean([np.log(x.life.found.high / x.life.found.low) for x in lives])

    assert widths(together) < widths(alone)


def test_one_bad_reading_does_not_end_a_life():
    readings = [(n, 150 + 8 * n) for n in range(0, 26)]
    spoiled = [(n, 430 if n == 12 else gf) for n, gf in readings]
    life = life_of(*spoiled)
    assert life.by_rule.value is None
    assert not isinstance(life.found, Crossed) or life.found.estimate > 24


@pytest.mark.parametrize(
    ("readings", "kind", "words"),
    [
        ([(0, 150)], NotReached, "still good at the start"),
        ([(0, 150), (0, 160)], NotReached, "still good at the start"),
        ([(n, 250) for n in range(6)], NotReached, "still good at"),
        ([(n, 300 - 10 * n) for n in range(8)], NotReached, "still good at"),
        ([(0, 420), (1, 430), (2, 445)], BeforeFirstCheck, "beyond the limit at its start"),
        ([(4, 420), (5, 431)], BeforeFirstCheck, "by the first check at 4"),
        ([(n, 150 + 4 * n) for n in range(0, 40, 4)], NotReached, "not reached by 36"),
    ],
    ids=[
        "one reading",
        "only the start",
        "all equal",
        "falling",
        "dull from the start",
        "dull at 4",
        "never dull",
    ],
)
def test_odd_runs_get_an_answer_in_words(readings, kind, words):
    life = life_of(*readings)
    assert isinstance(life.found, kind)
    assert words in life_words(life.found, "cuts")


def test_a_run_without_readings_has_no_life():
    assert force_lives([series()], "dull", 400.0) == [None]


def test_a_struck_reading_takes_no_part():
    readings = [(n, 150 + 250 * (n / 20) ** 0.6) for n in range(0, 25)]
    run = series(*readings)
    struck = Check(9.0, "force", 900.0, struck=True)
    with_struck = series()
    with_struck = type(run)("A", 1, 1, (*run.checks[:10], struck, *run.checks[10:]))
    assert (
        force_lives([run], "dull", 400.0)[0].life
        == force_lives([with_struck], "dull", 400.0)[0].life
    )


def test_the_unit_of_the_count_does_not_matter():
    metres = life_of(*[(0.5 * n, 150 + 250 * (n / 20) ** 0.6) for n in range(0, 25)])
    cuts = life_of(*[(n, 150 + 250 * (n / 20) ** 0.6) for n in range(0, 25)])
    assert 2 * metres.found.estimate == pytest.approx(cuts.found.estimate, rel=1e-6)


def paper(*outcomes, **how):
    checks = [Check(float(n), "paper", outcome=word) for n, word in outcomes]
    return outcome_lives({"working": checks}, ["working"], **how)["working"].found


def test_pass_and_fail_bracket_a_life():
    assert paper((12, "pass"), (48, "pass"), (60, "fail")) == Bracketed(48, 60)
    assert paper((12, "pass"), (48, "doubt"), (60, "fail")) == Bracketed(12, 60), (
        "a doubt widens the bracket"
    )
    assert paper((12, "pass"), (24, "fail"), (36, "pass"), (48, "fail")) == Bracketed(12, 48), (
        "so does a contradiction"
    )
    assert paper((12, "pass"), (24, "pass")) == NotReached(24)
    assert paper((12, "fail"), passes_noted=True) == BeforeFirstCheck(12)
    assert paper((12, "fail")) == AsWritten(12), "a record's lone failing count is its total"
    assert paper((12, "fail"), check_every=3.0) == AsWritten(12, 3.0)
