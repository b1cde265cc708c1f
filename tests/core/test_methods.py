"""A method: contradictions are refused with the reason, what ends a run is said plainly, versions
are told apart.
"""

from dataclasses import replace
from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.errors import OutOfRangeError
from kessik.core.planning.schedule import next_count, plan_next
from kessik.core.protocols.checks import CheckSpec
from kessik.core.protocols.methods import (
    DosePart,
    Method,
    Stage,
    StopRule,
    force_limit_rope,
)
from kessik.core.protocols.schools import BY_SCHOOL, SCHOOLS
from kessik.core.protocols.series import Check
from kessik.core.protocols.stop_rules import assess
from kessik.core.protocols.unlike_methods import differences
from kessik.core.words.methods import difference_words, ends_when

PAPER, CARTON, DOSE, LAYERS = (
    BY_SCHOOL[name]
    for name in ("paper_stop_rope", "two_stage_board", "fixed_dose", "geometry_layers")
)


def judged(kind, *said):
    return [Check(float(count), kind, outcome=outcome) for count, outcome in said]


def unlike(old, new):
    return [difference_words(found) for found in differences(old, new)]


def test_there_are_nine_schools_and_each_says_how_it_ends():
    assert len(SCHOOLS) == len(BY_SCHOOL) == 9
    assert ends_when(Method()) == "ends when two checks in a row are above 400 gf"
    every = force_limit_rope(schedule="every", every=4)
    assert ends_when(every) == "ends when two readings in a row at one count are above 400 gf"
    assert ends_when(PAPER) == "ends when “slices held paper” fails in all of 2 tries"
    assert "once the fine stage is lost" in ends_when(CARTON)
    assert ends_when(DOSE) == "ends after 50 cuts"
    rounds = ends_when(BY_SCHOOL["resharpening_cycles"])
    assert rounds.endswith("so for 6 rounds, each after the same light sharpening")


@pytest.mark.parametrize(
    ("method", "changes", "field", "why"),
    [
        (
            Method(),
            {"stages": (Stage("dull", limit_gf=400), Stage("keen", limit_gf=300))},
            "dull_gf",
            "on the way",
        ),
        (PAPER, {"stages": PAPER.stages[::-1]}, "stages", "out of order"),
        (
            Method(),
            {"ends": (StopRule("limit", "keen", "none"),)},
            "ends",
            "“dull” after it is never reached",
        ),
        (Method(), {"ends": (StopRule("limit", "blunt", "none"),)}, "ends", "not among its stages"),
        (Method(), {"ends": ()}, "ends", "name what ends a run"),
        (PAPER, {"schedule": "adaptive"}, "schedule", "no force limit ends this method"),
        (DOSE, {"schedule": "every", "every": 60.0}, "every", "the gap is longer than the dose"),
        (LAYERS, {"at": (1.0, 8.0)}, "at", "beyond the dose"),
        (LAYERS, {"at": (4.0, 2.0)}, "at", "rising"),
        (DOSE, {"recipe": (DosePart("rope", 20.0),)}, "recipe", "add up to 20"),
        (
            Method(),
            {"stages": (Stage("fine", "shave"),), "ends": (StopRule("stages"),)},
            "stages",
            "not among the checks",
        ),
        (Method(), {"ends": (StopRule("cycles", amount=4.0),)}, "ends", "ends each round"),
        (Method(), {"checks": (CheckSpec("force", 0),)}, "checks", "1 to 20"),
        (Method(), {"stations_mm": (20.0, 20.0)}, "stations_mm", "twice"),
        (Method(), {"name": " "}, "name", "name"),
    ],
)
def test_a_method_that_contradicts_itself_is_refused_with_its_reason(method, changes, field, why):
    with pytest.raises(OutOfRangeError, match=why) as refused:
        replace(method, **changes)
    assert refused.value.field == field


def test_a_pass_and_a_fail_get_the_same_number_of_tries():
    one = judged("paper", (0, "pass"), (0, "pass"), (5, "fail"))
    assert not assess(one, PAPER, 5).met, "the second try is still owed"
    assert assess([*one, *judged("paper", (5, "fail"))], PAPER, 5).lost["working"] == 5
    split = [*one, *judged("paper", (5, "pass"))]
    assert assess(split, PAPER, 5).lost == {}, "two unlike tries decide nothing"


def test_roughness_is_a_stage_of_its_own_on_the_way_to_the_stop():
    said = judged(
        "paper",
        (20, "pass"),
        (20, "pass"),
        (25, "doubt"),
        (25, "doubt"),
        (40, "fail"),
        (40, "fail"),
    )
    assert assess(said, PAPER, 40).lost == {"rough": 25, "working": 40}


def test_stages_are_lost_in_order_and_each_asks_for_its_own_check():
    fresh = assess([], CARTON, 0)
    assert fresh.asked == "hair_sample"
    no_hair = judged("hair_sample", (0, "pass"), (0, "pass"), (10, "fail"), (10, "fail"))
    then = assess(no_hair, CARTON, 10)
    assert (then.lost, then.asked, then.met) == ({"fine": 10}, "paper", False)
    assert plan_next(no_hair, CARTON, 10).next_count == 10, (
        "what takes over is checked here and now"
    )
    only_paper = judged("paper", (10, "fail"), (10, "fail"))
    assert assess(only_paper, CARTON, 10).lost == {}, (
        "the working edge does not go before the fine one"
    )


def test_a_dose_is_done_when_it_is_cut_and_read_with_the_control_beside_it():
    method = replace(DOSE, stations_mm=(24.0, 86.0))
    worked = [Check(n, "force", 150.0 + n, position_mm=24.0) for n in (0.0,) * 3 + (50.0,) * 3]
    beside = [Check(n, "force", 150.0, position_mm=86.0) for n in (0.0,) * 3 + (50.0,) * 3]
    assert method.readings("force") == 6
    assert not assess(worked, method, 50).met, "the control is owed"
    assert assess(worked, method, 50, beside).met
    assert not assess(worked, method, 49, beside).met


@given(st.floats(0.5, 50), st.floats(1.05, 4), st.integers(1, 30))
def test_growing_gaps_never_shrink_and_never_stand_still(first, growth, steps):
    method = replace(
        force_limit_rope(schedule="every"), schedule="geometric", every=first, growth=growth
    )
    counts = [0.0]
    for _ in range(steps):
        counts.append(next_count(method, counts[-1]))
    gaps = [b - a for a, b in pairwise(counts)]
    assert gaps[0] >= first
    assert all(later >= earlier - 1 for earlier, later in pairwise(gaps))
    assert all(gap >= 1 for gap in gaps), "no check falls between two cuts"


def test_fixed_schedules_end_with_the_dose():
    assert [next_count(LAYERS, at) for at in (0, 1, 2, 4, 6)] == [1, 2, 4, 6, None]
    assert next_count(DOSE, 0) == 50
    assert next_count(replace(DOSE, schedule="every", every=30.0), 30) == 50


def test_versions_agree_where_nothing_that_matters_moved_and_say_where_it_did():
    old = Method()
    harmless = force_limit_rope(keen_gf=280, dull_gf=420, schedule="every", every=4)
    renamed = replace(harmless, name="Ours", cautions=("Mind the cat.",))
    assert differences(old, renamed) == [], "readings answer for any limit and any schedule"
    assert unlike(old, replace(old, surface="steel")) == ["surface: softwood against steel"]
    assert unlike(PAPER, replace(PAPER, checks=(CheckSpec("paper", 3, "newsprint"),))) == [
        "“slices held paper” on: office paper, 80 g/m² against newsprint;"
        " tries of “slices held paper”: 2 against 3",
    ]
    assert "pass/fail stages" in unlike(PAPER, replace(PAPER, stages=PAPER.stages[1:]))[0]
