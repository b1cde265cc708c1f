"""Adaptive checks: sparse while far, never past the point, ended by two checks beyond."""

import numpy as np
import pytest
from benchmarks.population import draw_bench, run_adaptive, run_fixed

from kessik.core.planning.adaptive import next_check
from kessik.core.planning.reasons import TwoBeyond
from tests.conftest import series

LIMITS = (("keen", 300.0), ("dull", 400.0))


def planned(*readings, count=None):
    return next_check(series(*readings).force_checks(), LIMITS, count)


def test_it_begins_with_the_fresh_edge_and_an_early_look():
    first = planned()
    assert (first.next_count, first.readings, first.stop) == (0, 2, False)
    assert planned((0, 150), (0, 148)).next_count == 1


def test_it_steps_out_while_far_and_closes_in_near_the_limit():
    curve = [(n, 150 + 250 * (n / 60) ** 0.6) for n in (0, 0, 1, 3, 9, 18, 30, 42)]
    far, near = planned(*curve[:5]), planned(*curve, (54, 386))
    assert far.next_count - 9 >= 4
    assert near.next_count - 54 <= 7
    assert near.stage == "dull"
    assert near.readings == 2, "inside the band a check takes two readings"
    low, high = near.band
    assert low < 60 < high


def test_it_never_plans_behind_the_hand():
    assert planned((0, 150), (1, 170), (3, 200), count=30).next_count == 30


def test_it_stops_after_two_checks_beyond():
    done = planned((0, 150), (10, 380), (12, 411), (13, 420))
    assert done.stop
    assert done.next_count is None
    assert done.why == TwoBeyond("dull", 400)


def test_short_lives_are_checked_every_cut():
    after = planned((0, 150), (1, 260), (2, 330))
    assert after.next_count == 3


@pytest.mark.parametrize("limits", [LIMITS, LIMITS[1:]], ids=["keen then dull", "dull only"])
def test_it_saves_readings_on_long_lives(limits):
    # Simulation on the virtual bench; the whole table is printed by `make bench`.
    benches = [
        (draw_bench(seed, (30.0, 60.0)), draw_bench(seed, (30.0, 60.0))) for seed in range(12)
    ]
    adaptive = [run_adaptive(bench, limits).counts.size for bench, _ in benches]
    every = [run_fixed(bench, 1).counts.size for _, bench in benches]
    assert np.mean(adaptive) < 0.55 * np.mean(every)
