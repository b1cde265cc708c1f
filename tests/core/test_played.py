"""What a played verdict is held against."""

import math

import pytest

from kessik.core.comparison.verdict import Comparison
from kessik.core.planning.played import PairTally, PlayedPair, outcome_of_pair, tally
from kessik.core.planning.power import POWER, detectable, power_of
from kessik.core.words.played import played_words


def verdict(word):
    return Comparison("A", "B", "dull", 1.2, 1.1, 1.3, word, "", (), (), None)


@pytest.mark.parametrize(
    ("word", "true_ratio", "outcome"),
    [
        ("longer", 1.2, "right"),
        ("longer", 0.9, "wrong"),
        ("longer", 1.0, "wrong"),
        ("shorter", 0.9, "right"),
        ("too_close", 1.0, "right"),
        ("too_close", 1.1, "right"),
        ("too_close", 1.2, "wrong"),
        ("not_enough_evidence", 1.5, "silent"),
        ("confounded", 1.5, "silent"),
    ],
)
def test_a_verdict_is_right_wrong_or_silent(word, true_ratio, outcome):
    assert outcome_of_pair(verdict(word), true_ratio) == outcome


def test_a_pair_that_a_verdict_leaves_out_is_silent():
    lives = {"A": 10.0, "B": 12.0, "C": 12.0}
    said = PlayedPair("B", "A", 0.8, 0.7, 0.9, "right")
    first, *others = tally([[said], []], lives)
    assert (first.right, first.silent, first.true_ratio) == (1, 1, 1.2)
    assert all(pair.silent == 2 for pair in others)


def test_power_at_the_detectable_ratio_is_the_power_a_plan_promises():
    found = detectable(3, 0.08, 4)
    assert power_of(found.ratio, 3, 0.08, 4) == pytest.approx(POWER, abs=1e-6)
    assert power_of(1 / found.ratio, 3, 0.08, 4) == pytest.approx(POWER, abs=1e-6)
    assert power_of(1.0, 3, 0.08, 4) < 0.05 < power_of(1.2, 3, 0.08, 4, None, 0.02)


def test_the_words_name_the_hardest_pair_and_what_the_plan_did_not_expect():
    pairs = [PairTally("A", "B", 1.0, 0, 3, 97), PairTally("A", "C", 1.25, 40, 1, 59)]
    says = played_words(pairs, [0.01, 0.8])
    assert says == [
        "A and C, 25 % apart, were told apart in 40 of 100 trials; in 59 the verdict stayed silent,"
        " and 1 verdict in all was wrong.",
        "Blades stated alike were named longer or shorter in 3 of 100 verdicts.",
        "The plan expects A and C to be told apart in 80 of 100; played, it was 40 of 100.",
    ]
    assert math.isclose(pairs[1].true_ratio, 1.25)
