"""Laws of upkeep: shares, trends and the round since which nothing holds any more."""

import numpy as np
import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from kessik.core.sharpening.rounds import Round, still_restoring
from kessik.core.sharpening.strop_back import strop_back

GF = st.floats(60, 900)


@given(GF, GF, GF, st.floats(0.1, 10))
def test_a_share_does_not_depend_on_the_unit_of_force(start, end, after, scale):
    assume(end > 1.5 * start)
    plain = strop_back([start], [end], [after], 10)
    other = strop_back([scale * start], [scale * end], [scale * after], 10)
    assume(plain.share is not None)
    assert other.share == pytest.approx(plain.share)
    assert other.low == pytest.approx(plain.low)


@given(GF, GF)
def test_nothing_back_is_no_share_and_all_back_is_one(start, end):
    found = [strop_back([start], [end], [after], 10).share for after in (end, start)]
    assume(found[0] is not None)
    assert found == pytest.approx([0.0, 1.0], abs=1e-9)


@given(st.integers(3, 8), st.floats(1.4, 3.0), st.integers(0, 1000))
def test_a_fall_to_a_lower_level_is_dated_by_the_round_it_fell_at(before, drop, seed):
    rng = np.random.default_rng(seed)
    lives = np.concatenate([np.full(before, 20.0), np.full(before, 20.0 / drop)]) * np.exp(
        rng.normal(0, 0.005, 2 * before)
    )
    found = still_restoring([Round(n, None, float(life)) for n, life in enumerate(lives, 1)])
    assert found.standing == "no_longer"
    assert [trend.since for trend in found.trends] == [before + 1]


@given(st.integers(4, 10), st.floats(5, 300))
def test_rounds_all_alike_are_restoring_whatever_their_life(count, life):
    assert (
        still_restoring([Round(n, None, life) for n in range(1, count + 1)]).standing == "restoring"
    )


@given(st.integers(0, 300))
def test_chance_alone_is_seldom_called_a_decline(seed):
    # five in a hundred by the level of the interval; each side of two figures can be called, so a
    # little more
    rng = np.random.default_rng(seed)
    called = 0
    for _ in range(60):
        lives, starts = 20 * np.exp(rng.normal(0, 0.05, 6)), 150 * np.exp(rng.normal(0, 0.05, 6))
        rounds = [
            Round(n, float(s), float(life))
            for n, (life, s) in enumerate(zip(lives, starts, strict=True), 1)
        ]
        called += still_restoring(rounds).standing == "no_longer"
    assert called <= 13
