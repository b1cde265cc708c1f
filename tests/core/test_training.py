"""How answers of trainers are judged, and what scores teach."""

import math

import pytest

from kessik.core.errors import OutOfRangeError
from kessik.core.training.rounds import (
    CallRound,
    CountRound,
    ForeseeRound,
    JudgedAnswer,
    RustRound,
    Tap,
    UnfairRound,
    judge_answer,
)
from kessik.core.training.scores import learned_eye, session_score
from kessik.core.words.training import truth_words

COUNT = CountRound(
    (Tap(0, "cut"), Tap(500, "spoiled"), Tap(900, "interruption", 1), Tap(1400, "cut"))
)
FORESEE = ForeseeRound(((0.0, 150.0),), (), 400.0, 30.0, (20.0, 31.0, 50.0))


def test_spoiled_cuts_and_interruptions_are_no_cuts():
    assert judge_answer(COUNT, "2") == JudgedAnswer(True, 0.0)
    assert judge_answer(COUNT, "3") == JudgedAnswer(False, 1.0)
    assert truth_words(COUNT) == "2 cuts."


@pytest.mark.parametrize(("answer", "is_right"), [("36", True), ("25", True), ("37", False)])
def test_a_life_is_foreseen_within_a_fifth(answer, is_right):
    judged = judge_answer(FORESEE, answer)
    assert judged.is_right is is_right
    assert judged.off == pytest.approx(math.log(float(answer) / 30))


def test_a_grade_too_good_is_off_upwards():
    assert judge_answer(RustRound(1, 3.0), "4").is_right
    assert judge_answer(RustRound(1, 3.0), "6").off > 1
    assert judge_answer(RustRound(1, 3.0), "1").off < -1


@pytest.mark.parametrize(
    ("low", "high", "right"), [(0.9, 1.3, "n"), (1.1, 1.5, "b"), (0.5, 0.9, "a")]
)
def test_a_call_is_held_against_what_the_interval_supports(low, high, right):
    asked = CallRound({}, 1.2, low, high)
    assert [key for key in "abn" if judge_answer(asked, key).is_right] == [right]


def test_the_planted_variable_is_the_answer_and_nought_where_none_is():
    values = {"side_angle_deg": (15.0, 15.0, 17.0), "hardness_hrc": (60.0, 60.0, 60.0)}
    planted = UnfairRound(("A", "B", "C"), values, "side_angle_deg", "C")
    assert [key for key in "012" if judge_answer(planted, key).is_right] == ["1"]
    fair = UnfairRound(("A", "B", "C"), values, None)
    assert [key for key in "012" if judge_answer(fair, key).is_right] == ["0"]


@pytest.mark.parametrize("answer", ["", "x", "-1", "1e9", "nan", "²", "12 cuts"])
def test_what_is_no_number_is_refused_in_words(answer):
    with pytest.raises(OutOfRangeError, match="give a number from 0 to 10000"):
        judge_answer(COUNT, answer)


@pytest.mark.parametrize("answer", ["", "10", "²", "a"])
def test_what_is_no_option_is_refused_in_words(answer):
    with pytest.raises(OutOfRangeError, match="press one of 0, 1, 2"):
        judge_answer(RustRound(1, 3.0), answer)


def test_a_session_scores_its_ten_rounds_those_left_out_too():
    score = session_score(
        [JudgedAnswer(True, 0.0), JudgedAnswer(False, 3.0), JudgedAnswer(False, -4.0), None]
    )
    assert (score.right, score.of) == (1, 4)
    assert score.typical_off == pytest.approx(math.sqrt(25 / 3))
    assert score.mean_off == pytest.approx(-1 / 3)


def test_a_steady_eye_that_grades_too_well_has_a_bias_and_a_small_error():
    offs = [0.9, 1.1] * 10
    eye = learned_eye([JudgedAnswer(False, off, 4) for off in offs])
    assert eye.error.bias_points == pytest.approx(1.0)
    assert eye.error.points == pytest.approx(0.1026, abs=1e-3)
    assert eye.error.as_usual.weight == 20
    (row,) = eye.by_grade
    assert (row.grade, row.rounds) == (4, 20)


def test_an_error_is_offered_from_twenty_pictures_on():
    graded = [JudgedAnswer(True, 0.0, 4)] * 19
    assert learned_eye(graded).error is None
    assert learned_eye([*graded, graded[0]]).error is not None
