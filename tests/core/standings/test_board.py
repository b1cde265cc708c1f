"""The board: what must agree, who takes part, and what is said of each."""

import numpy as np
import pytest

from kessik.core.errors import NotAllowedNowError, OutOfRangeError
from kessik.core.standings.board import ArmFacts, StandingsQuestion, board
from kessik.core.standings.comparable import USUAL, TrialLife, classes_of

USED = {
    "school": "force_limit_rope",
    "medium": "rope",
    "cut": "slice",
    "end": "400 gf",
    "hardness_reading": "same_hardness",
    "edge_length": "known",
}


def life(arm, at, unlike=(), **traits):
    return TrialLife(
        arm,
        arm,
        arm,
        "me",
        "cuts",
        f"{arm} {at}",
        at,
        at,
        0.0,
        "cuts",
        "dull",
        USED | traits,
        unlike,
    )


def asked(lives, **question):
    facts = {
        own.arm: ArmFacts(own.blade_id, own.code, {"grade": own.code[0]})
        for trial in lives.values()
        for own in trial
    }
    normals = np.random.default_rng(13).standard_normal
    return board(lives, StandingsQuestion(**question), facts, normals)


SOUND = {
    "T1": [life("A1", 20), life("A1", 21), life("B1", 40)],
    "T2": [life("A1", 25), life("B1", 52), life("B2", 60)],
}


def test_only_what_agrees_is_compared_and_the_class_with_most_arms_is_shown():
    lives = SOUND | {"T3": [life("A1", 9, medium="board"), life("C1", 8, medium="board")]}
    found = asked(lives)
    assert [(c.arms, dict(c.traits)["medium"]) for c in found.classes] == [
        (3, "rope"),
        (2, "board"),
    ]
    assert {rung.arm for rung in found.rungs} == {"A1", "B1", "B2"}
    board_only = asked(lives, like=(("medium", "board"),))
    assert {rung.arm for rung in board_only.rungs} == {"A1", "C1"}


def test_a_loosened_criterion_lays_classes_together_and_is_named():
    lives = SOUND | {"T3": [life("A1", 9, medium="board"), life("C1", 8, medium="board")]}
    agree = tuple(key for key in USUAL if key != "medium")
    found = asked(lives, agree=agree)
    assert found.like.mixed["medium"] == ("board", "rope")
    assert {rung.arm for rung in found.rungs} == {"A1", "B1", "B2", "C1"}
    assert found.unit == ""  # counts of unlike media make no common life


def test_nothing_at_all_need_agree():
    (like,) = classes_of(SOUND, ())
    assert (like.arms, like.trials, like.lives) == (3, 2, 6)


def test_an_edge_that_was_not_matched_is_marked_or_left_out():
    lives = SOUND | {"T3": [life("A1", 22), life("D1", 30, unlike=("side angle",))]}
    marked = {rung.arm: rung.unlike for rung in asked(lives).rungs}
    assert marked["D1"] == {"side angle": 1}
    assert "D1" not in {rung.arm for rung in asked(lives, fair_only=True).rungs}
    with pytest.raises(NotAllowedNowError, match="matched"):
        asked({"T": [life("D1", 30, unlike=("side angle",))]}, fair_only=True)


def test_a_rung_says_what_it_rests_on():
    found = {rung.arm: rung for rung in asked(SOUND, reference="A1").rungs}
    assert (found["B1"].runs, found["B1"].trials, found["B1"].paths) == (2, ("T1", "T2"), 2)
    assert found["B2"].paths == 1
    assert found["B1"].ratio.ratio == pytest.approx(2.0, rel=0.1)
    assert found["B1"].cuts == pytest.approx(45, rel=0.1)


def test_the_next_cut_answers_what_is_asked():
    found = asked(SOUND, asking="pair", first="A1", second="B2")
    assert {found.advice.cuts[0].a, found.advice.cuts[0].b} == {"A1", "B2"}
    with pytest.raises(OutOfRangeError, match="one blade"):
        asked(SOUND, asking="pair", first="A1", second="A1")


@pytest.mark.parametrize(
    ("lives", "question", "says"),
    [
        ({}, {}, "finish a run"),
        (SOUND, {"agree": ("colour",)}, "not one of"),
        (SOUND, {"like": (("medium", "card"),)}, "no lives"),
    ],
)
def test_what_cannot_be_answered_is_refused_in_words(lives, question, says):
    with pytest.raises((NotAllowedNowError, OutOfRangeError), match=says):
        asked(lives, **question)


def test_an_unknown_reference_is_the_usual_one():
    """A blade that was deleted may still stand in an address."""
    assert asked(SOUND, reference="gone").reference == "A1"
