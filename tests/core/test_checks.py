"""Checks: one row a kind, and a tester's own beside those built in."""

from dataclasses import replace

import pytest

from kessik.core.errors import OutOfRangeError
from kessik.core.protocols.checks import CHECKS, CheckSpec, OwnCheck
from kessik.core.protocols.methods import Method, Stage, StopRule
from kessik.core.protocols.schools import SCHOOLS
from kessik.core.protocols.series import Check, RunSeries
from kessik.core.protocols.stop_rules import assess
from kessik.core.protocols.unlike_methods import differences
from kessik.core.sharpening.strop_back import ability_back
from kessik.core.sharpness.life import Bracketed, NotReached
from kessik.core.sharpness.outcomes import outcome_lives
from kessik.core.trials.paper.readings import tally
from kessik.core.words.methods import difference_words, ends_when, stage_words

WHITTLE = CheckSpec(
    "hair whittling", 1, "loose hair", OwnCheck("scale", ("whittles", "splits", "cuts", "slides"))
)
BITE = CheckSpec("bite depth", 2, "soft pine", OwnCheck("number", unit="mm", sharp_is="high"))
TAPE = CheckSpec("packing tape", 2, "tape over a gap", OwnCheck("pass_fail"))


def with_check(spec, stage, confirm="none"):
    return Method(
        checks=(spec,),
        stages=(stage,),
        ends=(StopRule("limit", stage.name, confirm),),
        schedule="every",
        every=10,
    )


HAIR = with_check(WHITTLE, Stage("fine", WHITTLE.kind, lost_on=("cuts", "slides")))
DEPTH = with_check(BITE, Stage("bite", BITE.kind, limit=1.5, lost_when="below"))
TAPED = with_check(TAPE, Stage("tape", TAPE.kind))


def test_a_scale_is_lost_between_the_last_good_grade_and_the_first_bad_one():
    # By hand: it splits hairs still at 20 and only cuts them at 30, so it was lost in between.
    grades = [(0, "whittles"), (10, "whittles"), (20, "splits"), (30, "cuts")]
    checks = [Check(count, WHITTLE.kind, outcome=grade) for count, grade in grades]
    run = RunSeries("A", 1, 1, tuple(checks), passes_noted=True)
    lives = outcome_lives(run.outcomes(HAIR.stages), ["fine"], passes_noted=True)
    assert lives["fine"].found == Bracketed(20, 30)
    assert assess(checks, HAIR, 30).lost == {"fine": 30}
    assert not assess(checks[:3], HAIR, 20).met


def test_a_number_that_is_sharp_when_high_is_lost_below_its_limit():
    # Two tries each; at 20 one of them is still deep enough, so the stage stands until 30.
    tries = [(0, 3.1), (0, 2.9), (10, 2.0), (10, 1.9), (20, 1.4), (20, 1.6), (30, 1.2), (30, 1.3)]
    checks = [Check(count, BITE.kind, value=mm) for count, mm in tries]
    assert assess(checks[:6], DEPTH, 20).lost == {}
    assert assess(checks, DEPTH, 30).lost == {"bite": 30}
    run = RunSeries("A", 1, 1, tuple(checks[:4]), passes_noted=True)
    (life,) = outcome_lives(run.outcomes(DEPTH.stages), ["bite"], passes_noted=True).values()
    assert life.found == NotReached(10)


def test_it_speaks_of_itself_in_the_testers_words():
    assert stage_words(HAIR.stages[0], HAIR) == "fine: “hair whittling” is at “cuts” or duller"
    assert ends_when(DEPTH) == "ends when “bite depth” is below 1.5 mm in all of 2 tries"
    assert ends_when(TAPED) == "ends when “packing tape” fails in all of 2 tries"


@pytest.mark.parametrize(
    ("line", "method", "said"),
    [
        ("40 cuts", HAIR, "cuts"),
        ("40 3", HAIR, "cuts"),
        ("40 SLIDES @12", HAIR, "slides"),
        ("40 1.4", DEPTH, 1.4),
        ("40 f", TAPED, "fail"),
    ],
)
def test_a_tally_takes_grades_by_name_or_place_and_numbers(line, method, said):
    ((count, look),) = tally(line, method)
    assert count == 40
    assert getattr(look, "outcome", None) == said or getattr(look, "value", None) == said


def own(**changes):
    return replace(WHITTLE, own=replace(WHITTLE.own, **changes))


@pytest.mark.parametrize(
    ("spec", "why"),
    [
        (replace(TAPE, kind="paper"), "Kessik has a check"),
        (replace(TAPE, kind="Slices held paper"), "Kessik has a check"),
        (replace(TAPE, kind="  "), "name"),
        (replace(TAPE, kind="x" * 61), "60 characters"),
        (replace(TAPE, kind="stop"), "means something else in files"),
        (own(grades=("only",)), "1 grades; 2 to 9"),
        (own(grades=tuple(f"g{n}" for n in range(50))), "50 grades; 2 to 9"),
        (own(grades=("a", "A ")), "name of its own"),
        (own(grades=("pass", "slides")), "call no grade pass"),
        (replace(BITE, own=OwnCheck("number", unit="mm")), "low or high"),
        (CheckSpec("whittle"), "not defined"),
    ],
)
def test_a_check_that_cannot_be_is_refused_with_what_would_be_right(spec, why):
    with pytest.raises(OutOfRangeError, match=why) as refused:
        Method(checks=(spec,), stages=(), ends=(StopRule("tester"),), schedule="every")
    assert refused.value.field == "checks"


@pytest.mark.parametrize(
    ("stage", "spec", "why"),
    [
        (Stage("fine", WHITTLE.kind), WHITTLE, "not a grade of"),
        (Stage("fine", WHITTLE.kind, lost_on=("splits", "slides")), WHITTLE, "from which grade"),
        (Stage("fine", WHITTLE.kind, lost_on=WHITTLE.own.grades), WHITTLE, "from which grade"),
        (Stage("bite", BITE.kind), BITE, "needs a limit"),
        (Stage("bite", BITE.kind, limit=2.0, lost_when="above"), BITE, "lost below the limit"),
        (Stage("tape", TAPE.kind, limit=2.0, lost_when="above"), TAPE, "needs a limit"),
        (Stage("tape", TAPE.kind, lost_on=("slides",)), TAPE, "lost on a fail"),
    ],
)
def test_a_stage_fits_the_check_it_goes_by(stage, spec, why):
    with pytest.raises(OutOfRangeError, match=why) as refused:
        with_check(spec, stage)
    assert refused.value.field == "stages"


def test_what_touches_the_body_carries_the_caution_and_no_school_has_it():
    nail = CheckSpec("bite on a nail", 1, "thumb nail", OwnCheck("pass_fail"))
    method = with_check(nail, Stage("bite", nail.kind))
    assert any("done on the body" in caution for caution in method.all_cautions())
    assert all("done on the body" not in " ".join(m.all_cautions()) for m in SCHOOLS)
    assert not any("shave" in spec.kind for m in SCHOOLS for spec in m.checks)


def unlike(old, new):
    return [difference_words(found) for found in differences(old, new)]


def test_versions_with_other_grades_or_another_direction_are_not_pooled():
    fewer = with_check(own(grades=("whittles", "cuts", "slides")), HAIR.stages[0])
    assert any("hair whittling" in line for line in unlike(HAIR, fewer))
    turned = with_check(
        replace(BITE, own=replace(BITE.own, sharp_is="low")),
        Stage("bite", BITE.kind, limit=1.5, lost_when="above"),
    )
    assert any("sharp is high against" in line for line in unlike(DEPTH, turned))


def test_every_built_in_check_can_be_asked_for_and_judged_or_read():
    for row in CHECKS.values():
        assert row.asks
        assert row.label
        assert bool(row.outcomes) == row.is_judged
        assert not row.is_judged or all(row.does)
        assert row.is_judged or row.sharp_is


def test_a_clean_apex_after_the_strop_has_passed():
    back = ability_back(10, [("inspect", "clean"), ("inspect", "glint"), ("paper", "pass")])
    assert back.passed == {"inspect": (1, 2), "paper": (1, 1)}
