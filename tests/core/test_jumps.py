"""Edges that rest under the limit and fall off: what the readings leave open, and no more."""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.sharpness.jumps import jump_life
from kessik.core.sharpness.level_chain import SCATTERS
from kessik.core.sharpness.life import force_lives
from tests.conftest import series

EVEN = np.full(SCATTERS.size, 1.0 / SCATTERS.size)
RESTING = [(0, 150), (4, 210), (8, 245), (12, 270), (16, 290), (20, 310), (24, 325), (28, 338)]


def dull(*readings):
    (life,) = force_lives([series(*readings)], "dull", 400.0)
    return life.life.found


def test_a_plateau_and_one_reading_far_beyond_mean_a_life_in_between():
    # 365 at 40, 380 at 44 and 640 at 48, checked every four: the edge fell between 44 and 48. The
    # last reading is not confirmed and ends the bracket all the same.
    found = dull(*RESTING, (32, 348), (36, 357), (40, 365), (44, 380), (48, 640))
    assert 44 <= found.estimate <= 48
    assert found.low < 48
    assert found.high > 44


def test_an_interval_reckons_with_an_edge_that_came_to_rest_late_and_was_ended_by_noise():
    rising = [(0, 150), (4, 240), (8, 300), (12, 345), (16, 368)]
    resting = dull(*rising, (20, 378), (24, 390), (28, 396), (32, 404), (36, 408))
    falling = dull(*rising, (20, 420), (24, 470), (28, 520))
    assert resting.estimate < 36
    assert resting.high > 36, "it may well have held beyond the two readings that ended it"
    assert falling.high < 24


def test_where_one_number_is_all_that_is_known_it_is_the_bracket():
    # Ten careful readings at each count leave no doubt of the level: the fall lies in the gap.
    counts = np.repeat([0.0, 4.0, 8.0, 12.0], 10)
    log_ratio = np.repeat(np.log([0.4, 0.8, 0.85, 1.6]), 10)
    found = jump_life(counts, log_ratio, np.log(0.4), EVEN).usual
    lost = np.interp([8.0, 12.0], found.counts, found.lost)
    assert lost[0] < 0.01
    assert lost[1] > 0.99


@given(st.lists(st.floats(0.3, 2.5), min_size=3, max_size=12), st.floats(0.5, 20.0))
def test_the_chance_to_be_over_only_rises_and_no_unit_matters(ratios, step):
    counts = np.arange(len(ratios), dtype=float)
    found = jump_life(counts, np.log(ratios), np.log(0.3), EVEN).usual
    scaled = jump_life(step * counts, np.log(ratios), np.log(0.3), EVEN).usual
    assert np.all(np.diff(found.lost) >= -1e-9)
    assert np.all((found.lost > -1e-9) & (found.lost < 1 + 1e-9))
    assert scaled.log_evidence == pytest.approx(found.log_evidence, abs=1e-6)
    middle = np.log(counts[-1])
    assert found.mass(np.linspace(middle - 3, middle + 3, 40)).sum() == pytest.approx(1.0)
