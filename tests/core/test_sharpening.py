"""Regimes and their recipes, and which edges count under a rule fixed before cutting."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.errors import OutOfRangeError
from kessik.core.sharpening.abrasives import nearest_grit, size_um
from kessik.core.sharpening.regimes import (
    Step,
    check_steps,
    departures,
    final_abrasive,
    total_strokes_per_side,
)
from kessik.core.sharpening.settled import SettledRule, Sharpening, settled
from kessik.core.words.settled import settled_words

RECIPE = (
    Step("plate", "diamond", 45.0, "mesh 325", 15.0, 40),
    Step("stone", "alumina", 11.5, "JIS 1000", 15.0, 30),
    Step("strop", "alumina", 1.0, "", 15.0, 10),
)


def test_what_was_done_otherwise_is_said_step_by_step():
    assert departures(RECIPE, RECIPE) == []
    done = (RECIPE[0], replace(RECIPE[1], strokes_per_side=45, repeats=2))
    assert departures(RECIPE, done) == [
        "step 2: strokes a side 45 instead of 30",
        "step 2: times done 2 instead of 1",
        "step 3 left out: strop, 1 µm at 15°, 10 strokes a side",
    ]
    assert departures(RECIPE[:2], RECIPE) == ["step 3 added: strop, 1 µm at 15°, 10 strokes a side"]


def test_a_regime_ends_on_its_last_abrasive_and_counts_repeats():
    assert final_abrasive(RECIPE) == (1.0, "alumina")
    assert final_abrasive(()) == (None, "")
    assert total_strokes_per_side((RECIPE[0], replace(RECIPE[2], repeats=3))) == 70


@pytest.mark.parametrize(
    ("step", "field"),
    [
        (Step(""), "steps.0.abrasive"),
        (Step("stone", strokes_per_side=-1), "steps.0.strokes_per_side"),
        (Step("stone", side_angle_deg=46), "steps.0.side_angle_deg"),
        (Step("stone", size_um=0), "steps.0.size_um"),
        (Step("stone", repeats=0), "steps.0.repeats"),
    ],
)
def test_a_step_that_cannot_be_is_refused_at_its_field(step, field):
    with pytest.raises(OutOfRangeError) as refused:
        check_steps([step])
    assert refused.value.field == field


def history(*numbers, **changes):
    """Edges by number; `changes` gives facts to some, as e3={...}."""
    return [Sharpening(n, **changes.get(f"e{n}", {})) for n in numbers]


def test_by_default_edges_count_from_the_third():
    states = [settled(n, history(1, 2, 3, 4), SettledRule()).state for n in (1, 2, 3, 4)]
    assert states == ["not_yet", "not_yet", "settled", "settled"]


def test_a_number_that_is_the_least_counts_where_it_reaches_the_rule_and_is_open_below():
    assert settled(3, history(3, e3={"is_least": True}), SettledRule()).counts
    below = settled(2, history(2, e2={"is_least": True}), SettledRule())
    assert (below.state, below.why) == ("unknown", "least_place")
    assert "at least edge 2 since new, and its history is not known" in settled_words(below)
    after = history(2, 3, e2={"is_least": True, "damaged": True})
    assert settled(3, after, SettledRule()).state == "not_yet", "damage begins a count of its own"


def test_damage_starts_the_count_anew_with_the_next_edge():
    chipped = history(3, 4, 5, 6, 7, e4={"damaged": True})
    assert [settled(n, chipped, SettledRule()).state for n in (4, 5, 6, 7)] == [
        "settled",
        "not_yet",
        "not_yet",
        "settled",
    ]
    assert "since damage" in settled_words(settled(5, chipped, SettledRule()))


def test_by_steel_removed():
    rule = SettledRule("steel_removed", steel_removed_mm=0.5)
    known = history(
        1,
        2,
        3,
        e1={"steel_removed_mm": 0.2},
        e2={"steel_removed_mm": 0.2},
        e3={"steel_removed_mm": 0.2},
    )
    assert [settled(n, known, rule).state for n in (1, 2, 3)] == ["not_yet", "not_yet", "settled"]
    assert settled(3, history(2, 3, e3={"steel_removed_mm": 0.2}), rule).state == "unknown"


def test_a_factory_edge_never_counts_and_the_testers_word_wins_otherwise():
    every = SettledRule("every_edge")
    assert settled(1, history(1, e1={"factory": True, "overrule": True}), every).state == "factory"
    said = settled(
        1,
        history(1, e1={"overrule": True, "overrule_reason": "ground deep at the forge"}),
        SettledRule(),
    )
    assert said.counts
    assert settled_words(said) == "decided by the tester: ground deep at the forge"
    assert (
        settled(5, history(5, e5={"overrule": False, "overrule_reason": "slipped"}), every).state
        == "not_yet"
    )


@given(st.integers(1, 40), st.integers(1, 6))
def test_once_settled_always_settled_while_nothing_breaks(number, first):
    rule = SettledRule(edge_number=first)
    assert settled(number, history(number), rule).counts == (number >= first)


def test_grits_between_listed_ones_are_marked_as_guessed():
    between = size_um("fepa_p", 900)
    assert 18.3 < between.size_um < 21.8
    assert (between.listed, between.standing) == (False, "guessed")
    with pytest.raises(OutOfRangeError, match="runs from P12 to P2500"):
        size_um("fepa_p", 5000)
    with pytest.raises(OutOfRangeError, match="outside the scale"):
        nearest_grit("mesh", 1.0)
    with pytest.raises(OutOfRangeError, match="out of range"):
        nearest_grit("jis", -1)
