"""Mandel's h and k and Cochran's test: limits as ISO 5725-2 prints them, and what they catch."""

import numpy as np
import pytest

from kessik.core.standings.consistency import (
    cochran_limit,
    consistency,
    h_limit,
    k_limit,
)
from kessik.core.words.standings import consistency_words


@pytest.mark.parametrize(
    ("testers", "at_5_percent", "at_1_percent"),
    [(3, 1.15, 1.15), (4, 1.42, 1.49), (6, 1.66, 1.87), (8, 1.75, 2.06), (10, 1.80, 2.18)],
)
def test_limits_of_h_are_those_printed(testers, at_5_percent, at_1_percent):
    """ISO 5725-2, tables 6 and 7; from memory."""
    assert h_limit(testers, 0.05) == pytest.approx(at_5_percent, abs=0.006)
    assert h_limit(testers, 0.01) == pytest.approx(at_1_percent, abs=0.006)


@pytest.mark.parametrize(
    ("testers", "runs", "at_5_percent", "at_1_percent"),
    [(8, 3, 0.516, 0.615), (8, 2, 0.680, 0.794), (3, 2, 0.967, 0.993), (5, 3, 0.684, 0.788)],
)
def test_limits_of_cochran_are_those_printed(testers, runs, at_5_percent, at_1_percent):
    """ISO 5725-2, table 4; from memory."""
    assert cochran_limit(testers, runs, 0.05) == pytest.approx(at_5_percent, abs=0.003)
    assert cochran_limit(testers, runs, 0.01) == pytest.approx(at_1_percent, abs=0.003)


def test_limits_of_k_hold_for_sound_tables():
    """By simulation: 5 in 100 sound scatters exceed the 5 % limit."""
    lives = np.random.default_rng(5).standard_normal((20_000, 5, 3))
    variances = lives.var(axis=2, ddof=1)
    k = np.sqrt(variances / variances.mean(axis=1, keepdims=True))
    assert (k > k_limit(5, 3, 0.05)).mean() == pytest.approx(0.05, abs=0.005)


SOUND = {
    "A": [3.00, 3.05, 2.95], "B": [3.04, 3.00, 3.06], "C": [2.97, 3.03, 2.99],
    "D": [3.02, 2.98, 3.03], "E": [3.01, 2.96, 3.00], "F": [2.99, 3.04, 3.01],
}  # fmt: skip


def test_a_tester_who_stands_apart_is_named():
    names = {tester: f"tester {tester}" for tester in SOUND}
    (sound,) = consistency({"arm": SOUND})
    assert consistency_words(sound, "AV-01", names) == []
    (found,) = consistency({"arm": {**SOUND, "C": [4.40, 4.45, 4.42]}})
    assert consistency_words(found, "AV-01", names) == [
        "AV-01: lives of tester C lie higher than those of the others do (h)."
    ]
    (found,) = consistency({"arm": {**SOUND, "D": [2.70, 3.30, 3.01]}})
    assert consistency_words(found, "AV-01", names) == [
        "AV-01: edges of tester D scatter 2.4 times as much as all do (k)."
    ]
    assert found.cochran.is_outlier


def test_a_sound_table_names_nobody():
    """By simulation: at most 5 in 100 tables of 8 blades and 4 testers name anything."""
    draws = np.random.default_rng(7)
    named = 0
    for _ in range(300):
        table = {
            f"arm {arm}": {f"T{t}": list(draws.normal(size=3)) for t in range(4)}
            for arm in range(8)
        }
        names = {f"T{t}": f"T{t}" for t in range(4)}
        named += any(consistency_words(level, "x", names) for level in consistency(table))
    assert named / 300 < 0.09


def test_two_testers_and_single_runs_are_not_judged():
    (two,) = consistency({"arm": {"A": [3.0, 3.1], "B": [3.6]}})
    assert [(cell.h, cell.k) for cell in two.cells] == [(None, None), (None, None)]
    assert consistency({"arm": {"A": [3.0, 3.1]}}) == ()
    (equal,) = consistency({"arm": {"A": [3.0, 3.0], "B": [3.0, 3.0], "C": [3.0, 3.0]}})
    assert all(cell.h is None and cell.k is None for cell in equal.cells)
