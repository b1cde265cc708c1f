"""Laws that hold for any readings: no matter how they fall, the answer is a number with bounds or a
reason in words.
"""

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kessik.core.sharpness.curves import curve_band
from kessik.core.sharpness.life import (
    BeforeFirstCheck,
    Crossed,
    NotReached,
    force_lives,
    force_readings,
)
from kessik.core.sharpness.posterior import edge_likelihood
from kessik.core.words.lives import life_words
from tests.conftest import series

READING = st.tuples(st.integers(0, 80), st.integers(20, 1500))
RUN = st.lists(READING, min_size=1, max_size=14).map(
    lambda rows: sorted(rows, key=lambda row: row[0])
)
CLEAN = [(n, 150 + 250 * (n / 20) ** 0.6) for n in range(0, 25)]


def found(readings, limit=400.0):
    (life,) = force_lives([series(*readings)], "dull", limit)
    return life.life.found


@settings(max_examples=120, deadline=None)
@given(RUN)
def test_any_readings_get_an_ordered_interval_or_a_reason(readings):
    life = found(readings)
    if isinstance(life, NotReached) and life.ahead:
        life = life.ahead
    if isinstance(life, Crossed):
        assert 0 < life.low <= life.estimate <= life.high < np.inf
    assert isinstance(life, Crossed | NotReached | BeforeFirstCheck)
    assert life_words(life, "cuts")


@pytest.mark.parametrize("factor", [0.1, 3.0])
def test_only_the_ratio_of_force_to_limit_matters(factor):
    scaled = found([(n, gf * factor) for n, gf in CLEAN], 400 * factor)
    assert scaled.estimate == pytest.approx(found(CLEAN).estimate, rel=1e-3)


def test_the_order_of_replicates_does_not_matter():
    pairs = [(0, 150), (0, 160), (4, 260), (4, 240), (8, 330), (8, 318), (12, 402), (12, 411)]
    swapped = [pairs[i + 1 - 2 * (i % 2)] for i in range(len(pairs))]
    assert found(swapped).estimate == pytest.approx(found(pairs).estimate, rel=1e-6)


def test_a_later_limit_is_a_longer_life():
    lives = [found(CLEAN, limit).estimate for limit in (260, 320, 380)]
    assert lives == sorted(lives)


def test_more_scatter_is_a_wider_interval():
    def width(scatter):
        noise = np.exp(scatter * np.random.default_rng(3).normal(size=len(CLEAN)))
        life = found([(n, gf * e) for (n, gf), e in zip(CLEAN, noise, strict=True)])
        return np.log(life.high / life.low)

    assert width(0.01) < width(0.05) < width(0.12)


def test_one_outlier_moves_the_life_less_than_its_interval():
    calm = found(CLEAN)
    struck = found([(n, 520 if n == 6 else gf) for n, gf in CLEAN])
    assert calm.low < struck.estimate < calm.high


def test_the_drawn_band_holds_the_curve_it_was_made_from():
    run = series(*CLEAN)
    readings = force_readings(run)
    band = curve_band(readings, edge_likelihood(readings, 400.0), 400.0, 24.0)
    truth = 150 + 250 * (band.counts / 20) ** 0.6
    assert np.all(band.low_gf <= band.middle_gf)
    assert np.all(band.middle_gf <= band.high_gf)
    assert np.all(np.diff(band.middle_gf) >= -0.5), "a drawn edge does not sharpen itself"
    assert np.max(np.abs(np.log(band.middle_gf / truth))) < 0.06


def test_cut_lengths_in_any_unit_carry_their_own_scale():
    feet = found([(n / 0.3048, gf) for n, gf in CLEAN])
    assert feet.estimate * 0.3048 == pytest.approx(found(CLEAN).estimate, rel=1e-6)


def test_a_very_long_run_is_fitted_piece_by_piece_to_the_same_answer(monkeypatch):
    from kessik.core.sharpness import posterior

    long = [(n, 150 + 250 * (n / 300) ** 0.6) for n in range(0, 340)]
    whole = found(long)
    monkeypatch.setattr(posterior, "_READINGS_AT_ONCE", 1000)
    assert found(long).estimate == pytest.approx(whole.estimate, rel=1e-4)
    assert whole.low < 300 < whole.high
