"""What comes after a run: the strop, rounds of the same light sharpening; and the hand and the
tester on the way.
"""

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.protocols.pace import pace
from kessik.core.protocols.reading_gate import ReadingGate, pass_line
from kessik.core.reference_checks import drift
from kessik.core.sharpening.rounds import Round, still_restoring
from kessik.core.sharpening.strop_back import stones_due, strop_back
from kessik.core.words.pace import tired_words
from kessik.core.words.upkeep import restoring_words


def test_the_strop_brings_back_a_share_of_what_was_lost():
    found = strop_back([150, 150], [400, 400], [250, 250], 20)
    assert found.share == pytest.approx(0.6)
    assert found.low < 0.6 < found.high


def test_an_edge_that_lost_next_to_nothing_has_no_share():
    assert strop_back([200], [215], [190], 10).share is None


@given(share=st.floats(0.0, 1.0), seed=st.integers(0, 10_000))
def test_the_interval_of_a_share_covers_it_as_often_as_it_says(share, seed):
    # the reference is simulation: scatter of 7 % on every reading, 3 readings each; common
    # practice, no source
    rng = np.random.default_rng(seed)

    def read(true_gf):
        return true_gf * np.exp(rng.normal(0, 0.07, 3))

    tests = [strop_back(read(150), read(420), read(420 - 270 * share), 20) for _ in range(200)]
    covered = np.mean([t.low <= share <= t.high for t in tests if t.share is not None])
    assert covered > 0.87


def test_stones_are_due_when_the_strop_no_longer_brings_it_under_the_keen_limit():
    tests = [strop_back([150], [410], [after], 20) for after in (220, 260, 330)]
    assert stones_due(tests, 300.0) == 3
    assert stones_due(tests[:2], 300.0) is None
    assert stones_due([strop_back([150], [410], [350], 20)], None) == 1, (
        "less than half of the loss"
    )


def rounds(lives, starts=None, strokes=None):
    return [
        Round(n, (starts or [160] * len(lives))[n - 1], life, (strokes or [20] * len(lives))[n - 1])
        for n, life in enumerate(lives, 1)
    ]


def test_rounds_that_hold_are_still_restoring_and_few_say_nothing():
    assert still_restoring(rounds([20, 21, 20, 19.5, 20.5, 20])).standing == "restoring"
    assert still_restoring(rounds([20, 10, 5])).standing == "too_few"


def test_a_life_that_falls_is_no_longer_restored_since_the_round_it_fell_at():
    found = still_restoring(rounds([20, 21, 12, 11.5, 11, 11]))
    assert found.standing == "no_longer"
    assert "since round 3" in restoring_words(found)


def test_more_and_more_strokes_for_the_same_life_are_hidden_damage():
    found = still_restoring(rounds([20] * 6, strokes=[20, 20, 26, 32, 40, 50]))
    assert found.standing == "no_longer"
    assert "strokes" in restoring_words(found)


def test_a_trend_agrees_with_the_textbook_line():
    # reference: ordinary least squares by normal equations, written out (any textbook of
    # regression)
    lives = np.array([20, 17, 18, 15, 13.0])
    n, y = np.arange(1, 6), np.log(lives)
    slope = np.sum((n - 3) * (y - y.mean())) / 10
    residual = y - y.mean() - slope * (n - 3)
    half = 3.182446 * np.sqrt(
        np.sum(residual**2) / 3 / 10
    )  # Student's t, 3 degrees of freedom, 97.5 %
    life = next(t for t in still_restoring(rounds(list(lives))).trends if t.what == "life")
    assert [life.percent, life.low, life.high] == pytest.approx(
        [100 * np.expm1(x) for x in (slope, slope - half, slope + half)], abs=1e-3
    )


def steady(count, gap_s, start=0.0):
    return [(start + gap_s * n, 1.0) for n in range(count)]


def test_the_hand_is_told_to_rest_after_long_work_and_not_before():
    assert tired_words(pace(steady(40, 30))) == ""
    assert "minutes without a break" in tired_words(pace(steady(60, 50)))
    assert "cuts without a break" in tired_words(pace(steady(160, 10)))
    rested = pace(steady(60, 50) + steady(5, 30, start=60 * 50 + 300))
    assert (tired_words(rested), rested.cuts_without_break) == (
        "",
        5,
    ), "four minutes without a cut are a break"


def test_a_hand_that_slows_down_is_told_by_how_much():
    slowing = steady(20, 10) + [(190 + 15 * n, 1.0) for n in range(1, 25)]
    assert "50 % slower" in tired_words(pace(slowing))
    assert pace(steady(3, 30)).per_minute == pytest.approx(2.0)


def test_a_tester_that_moved_is_called_out_and_one_that_wanders_is_not():
    steady_days = [[200, 202, 199], [201, 200, 198], [199, 203, 200], [200, 201, 200]]
    assert not drift([*steady_days, [201, 199, 200]]).warns
    moved = drift([*steady_days, [216, 218, 215]])
    assert moved.warns
    assert moved.change_percent == pytest.approx(8, abs=0.7)
    assert drift([[200]]) is None


def test_a_slow_drift_cannot_drag_its_base_along():
    days = [[200.0 * 1.01**n] * 3 for n in range(15)]
    assert drift(days).warns


def through(*lines, start=ReadingGate()):  # noqa: B008 - a frozen value
    gate, answers = start, []
    for standing, value, at_s in lines:
        gate, answer = pass_line(gate, standing, value, at_s, 1, 5000)
        answers.append(answer)
    return answers


def test_one_pull_is_one_reading_however_often_its_value_is_repeated():
    pull = [("moving", 80, 0.0), ("stable", 212, 0.1), ("stable", 212, 0.2), ("stable", 211, 0.3)]
    assert through(*pull) == ["moving", "taken", "held", "held"]
    assert through(*pull, ("stable", 0, 0.4), ("stable", 205, 0.5))[-2:] == ["at_rest", "taken"]
    assert through(*pull, ("stable", 212, 1.2))[-1] == "taken", (
        "a tester that only speaks once a pull"
    )


def test_what_is_out_of_range_or_garbled_is_never_taken():
    assert through(("stable", 9999, 0.0), ("stable", -3, 1.0), ("garbled", None, 1.1)) == [
        "out_of_range",
        "out_of_range",
        "garbled",
    ]
