"""Edges the rule leaves out: the answer is given with and without them; and counts put on one edge
length.
"""

import numpy as np
import pytest

from kessik.core.comparison.analysis import analyse
from kessik.core.comparison.matching import MatchingRule
from kessik.core.protocols.methods import Method
from kessik.core.sharpening.settled import Settled
from kessik.core.words.notes import note_words
from kessik.core.words.verdict import headline, with_all_words
from tests.conftest import series

TIRED = "edge 1 since new is cut into fatigued steel and reads low"
TOO_EARLY = Settled("not_yet", "place", place=1)


def run(blade, edge, life, **rest):
    counts = np.unique(np.round(np.linspace(0, 1.15 * life, 14)))
    return series(
        *((n, 150 + 250 * (n / life) ** 0.7) for n in counts), blade=blade, edge=edge, **rest
    )


def dull(comparisons):
    return next(c for c in comparisons if c.stage == "dull")


def test_both_answers_are_given_and_the_rule_decides_the_first():
    runs = [run("A", 1, 9), run("A", 3, 20), run("A", 4, 20.4), run("B", 3, 30), run("B", 4, 30.6)]
    out = {("A", 1): TOO_EARLY}
    found = analyse(runs, {}, MatchingRule(), Method(), out)
    without = analyse(runs[1:], {}, MatchingRule(), Method())
    everything = analyse(runs, {}, MatchingRule(), Method())
    assert dull(found.comparisons) == dull(without.comparisons)
    assert dull(found.with_all) == dull(everything.comparisons)
    assert dull(found.with_all).ratio > dull(found.comparisons).ratio
    assert next(r for r in found.runs if r.run.edge == 1).left_out == TOO_EARLY
    assert f"A, edge 1 is left out: {TIRED}" in map(note_words, found.notes)
    assert with_all_words(found, "dull").startswith("With every edge counted:")
    assert everything.with_all == ()


def test_an_edge_that_hardly_weighs_in_the_answer_is_named():
    alike = [run("B", 3, 30), run("B", 4, 31)]
    found = analyse(
        [run("A", 1, 6), run("A", 3, 20), run("A", 4, 20.5), *alike], {}, MatchingRule(), Method()
    )
    assert any(
        note_words(note).startswith("dull: A, edge 1 does not fit the others; with it the life is")
        for note in found.notes
    )
    usual = analyse([run("A", 3, 20), run("A", 4, 20.5), *alike], {}, MatchingRule(), Method())
    assert not any("does not fit" in note_words(note) for note in usual.notes)


def test_a_blade_without_an_edge_that_counts_still_shows_its_life():
    found = analyse(
        [run("A", 1, 9), run("B", 3, 30)], {}, MatchingRule(), Method(), {("A", 1): TIRED}
    )
    assert found.comparisons == ()
    a = next(b for b in found.blades if b.blade == "A")
    assert a.left_out
    assert a.lives["dull"].found.estimate == pytest.approx(9, rel=0.15)
    assert headline(found, "dull").startswith(
        "Under the rule fixed before cutting, only B has an edge that counts yet."
    )


def test_eighteen_cuts_on_60_mm_are_worth_twenty_four_on_80():
    pair = [run("A", e, 18, edge_length_used_mm=60.0) for e in (3, 4)]
    pair += [run("B", e, 24, edge_length_used_mm=80.0) for e in (3, 4)]
    raw = dull(analyse(pair, {}, MatchingRule(), Method()).comparisons)
    scaled = analyse(pair, {}, MatchingRule(scale_edge_length=True), Method())
    assert raw.ratio == pytest.approx(24 / 18, rel=0.03)
    assert dull(scaled.comparisons).ratio == pytest.approx(1.0, rel=0.03)
    lives = {b.blade: b.lives["dull"].found.estimate for b in scaled.blades}
    assert lives == {
        "A": pytest.approx(18, rel=0.05),
        "B": pytest.approx(24, rel=0.05),
    }, "lives stay as counted"
    assert any("are scaled to 80 mm of edge" in note_words(note) for note in scaled.notes)
    assert raw.verdict == "confounded", "unscaled, the lengths themselves forbid the comparison"
