"""Rounds of inspection, and what of them can be ranked: paper records as they are kept."""

from itertools import pairwise

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.corrosion.duties import duties
from kessik.core.corrosion.exposures import exposure_h
from kessik.core.corrosion.rounds import due_at, places_at, rounds_of, still_to_see
from kessik.core.words.rust import entry_words
from tests.helpers.soaks import act, answered, both, coupon, look, soak_of

THREE = (coupon("A"), coupon("B"), coupon("D", "baseline"))


def test_sides_seen_minutes_apart_are_one_round_and_a_spine_seen_later_replaces_none():
    soak = soak_of(*THREE, method="immersed")
    looks = [
        look("A", "left", 0.08, hours=504.0),
        look("A", "right", 0.06, hours=504.3),
        look("A", "both", 17.5, hours=504.35, region="spine"),
        *both("B", 2.0, 2.2, hours=504.6),
        *both("D", 30, 28, hours=504.1),
    ]
    answer, headline, _ = answered(soak, looks)
    (found,) = rounds_of(soak, [], looks)
    assert (found.planned_h, found.from_h, found.to_h) == (504, 504.0, 504.6)
    assert headline == "Least rust first: A, then B, then D."
    best = answer.ranking.standings[0]
    assert (best.coupon_id, best.sides, best.area.middle) == ("A", 2, pytest.approx(0.07))


def test_a_round_lasts_until_every_side_and_stage_is_seen():
    soak = soak_of(*THREE, method="damp_wrap")
    looks = [look("A", "left", 0.1, "as_found", 12.1), look("A", "right", 0.2, "as_found", 12.4)]
    (first, *_) = [d for d in duties(soak, [], looks) if d.what == "look"]
    assert (first.places, first.missing, first.done_h) == (12, 10, None)
    rounds = rounds_of(soak, [], looks)
    to_see = still_to_see(soak, [], rounds, looks, 12.5)
    assert len(to_see) == 10
    assert (to_see[0].coupon_id, to_see[0].side, to_see[0].stage) == ("B", "left", "as_found")
    assert {place.stage for place in to_see} == {"as_found", "wiped"}
    assert len(still_to_see(soak, [], rounds, looks, 30)) == 12, "the next round begins anew"


def test_an_inspection_before_counts_for_no_later_hour_and_a_little_early_is_in_time():
    assert due_at([12, 24, 48], 40) == 24
    assert due_at([12, 24, 48], 47) == 48
    assert due_at([12, 24, 48], 5) is None
    assert due_at([12, 24, 48], 300) == 48


def test_a_late_round_keeps_its_true_hour_and_what_was_missed_is_said():
    soak = soak_of(*THREE, method="damp_wrap")
    looks = [
        *both("A", 0.1, 0.1, hours=12), *both("B", 0.5, 0.5, hours=12),
        *both("D", 9, 9, hours=12),
        *both("A", 0.3, 0.3, hours=33), *both("B", 1.5, 1.4, hours=33),
        *both("D", 20, 22, hours=33),
    ]  # fmt: skip
    answer, _, reasons = answered(soak, looks)
    assert [r.from_h for r in answer.rounds] == [12, 33]
    assert "The round due at 24 h was made at 33 h." in reasons
    assert "The round due at 12 h was not inspected as found." in reasons


def test_a_blade_that_left_early_is_ranked_where_all_were_and_not_called_better():
    soak = soak_of(*THREE, method="damp_wrap")
    looks = [
        *both("A", 0.1, 0.12, hours=12), *both("B", 0.9, 1.0, hours=12), *both("D", 9, 8, hours=12),
        *both("A", 5.0, 6.0, hours=48), *both("D", 30, 31, hours=48),
    ]  # fmt: skip
    answer, headline, reasons = answered(soak, looks, [act("removed", 13, coupon_id="B")])
    assert headline == "Least rust first: A, then B, then D."
    assert answer.compared.round_h == 12
    assert any("up to 48 h, is shown along the hours" in reason for reason in reasons)
    assert not any("B" in p.coupon_id for r in answer.rounds[1:] for p in r.places)
    out_at_once = [act("removed", 0, coupon_id="B")]
    assert {p.coupon_id for p in places_at(soak, out_at_once, 12)} == {"A", "D"}


def test_unlike_hours_are_not_ranked_against_each_other():
    soak = soak_of(*THREE, method="damp_wrap")
    looks = [*both("A", 0.1, 0.1, hours=13), *both("D", 9, 9, hours=13), *both("B", 4, 4, hours=25)]
    answer, headline, reasons = answered(soak, looks)
    assert headline == "Least rust first: A, then D."
    assert [s.coupon_id for s in answer.ranking.standings] == ["A", "D"]
    assert (
        "B is not ranked: its last inspection was at 25 h, the others are ranked at 13 h."
        in reasons
    )


def test_a_side_that_the_others_lack_is_not_counted():
    soak = soak_of(*THREE)
    looks = [*both("A", 1.0, 40.0), look("B", "left", 1.1), *both("D", 30, 30)]
    answer, _, reasons = answered(soak, looks)
    assert {s.coupon_id: s.sides for s in answer.ranking.standings} == {"A": 1, "B": 1, "D": 1}
    assert any(r.startswith("A, right side, is not compared") for r in reasons)


def test_sides_that_disagree_stay_two_sides():
    soak = soak_of(*THREE)
    answer, _, _ = answered(soak, [*both("A", 0.05, 7.5), *both("B", 1, 1.1), *both("D", 30, 30)])
    said = entry_words(next(s for s in answer.ranking.standings if s.coupon_id == "A"))
    assert said.startswith("left 0.05 %")
    assert "right 7.5 %" in said


def test_adjoining_grades_by_eye_are_a_tie_and_the_tie_says_what_would_have_shown():
    soak = soak_of(*THREE)

    def graded(name, low, high):
        return [
            look(name, side, None, bounds=(low, high), how="grade") for side in ("left", "right")
        ]

    looks = [*graded("A", 0.25, 0.5), *graded("B", 0.5, 1.0), *graded("D", 25, 50)]
    answer, headline, reasons = answered(soak, looks)
    assert headline == "Least rust first: A and B together, then D."
    assert any("times the rusted area of another" in reason for reason in reasons)
    assert 3 < answer.ranking.apart_factor < 6


def test_what_wiped_off_wholly_is_said_and_nothing_is_said_not_to_have_rusted():
    soak = soak_of(*THREE)
    looks = [
        *both("A", 0.7, 0.8, "as_found"), *both("A", 0.0, 0.0, "wiped"),
        *both("B", 0.0, 0.0, "as_found"), *both("B", 0.0, 0.0, "wiped"),
        *both("D", 30, 30, "as_found"), *both("D", 20, 20, "wiped"),
    ]  # fmt: skip
    _, headline, _ = answered(soak, looks)
    assert headline.startswith("Least rust first: A and B together, then D. B did not rust.")
    assert "A has no rust after wiping; 0.75 %, 0.68 to 0.83 % came off." in headline


def test_a_baseline_inspected_in_another_stage_is_not_called_uninspected():
    soak = soak_of(*THREE)
    looks = [*both("A", 1, 1), *both("B", 9, 9), *both("D", 30, 30, "as_found")]
    _, _, reasons = answered(soak, looks)
    assert "The baseline, D, has not been inspected after wiping yet." in reasons


@given(st.lists(st.tuples(st.sampled_from("ABD"), st.floats(0, 60)), max_size=30))
def test_every_inspection_is_in_one_round_and_rounds_do_not_overlap(seen):
    soak = soak_of(*THREE, method="damp_wrap")
    looks = [
        look(name, "left", 1.0, hours=hours, region="")
        for name, hours in dict.fromkeys((n, round(h, 3)) for n, h in seen)
    ]
    rounds = rounds_of(soak, [], looks)
    assert sorted(i for r in rounds for i in r.look_ids) == sorted({x.id for x in looks})
    ends = [(r.from_h, r.to_h) for r in rounds]
    assert all(a[1] < b[0] for a, b in pairwise(ends))
    served = [r.planned_h for r in rounds if r.planned_h is not None]
    assert len(served) == len(set(served))
    assert all(exposure_h(r.from_h, []) <= r.to_h for r in rounds)


def test_what_was_not_as_the_method_has_it_enters_the_reasons():
    soak = soak_of(*THREE, method="wiped")
    acts = [
        act("measured", 1, salt_percent=9.0), act("wiped_on", 6), act("wiped_on", 12.5),
        act("dried", 20), act("resumed", 26),
    ]  # fmt: skip
    _, _, reasons = answered(soak, [*both("A", 1, 1, hours=12)], acts, now_h=44)
    assert "The brine was measured at 9 % salt; 3.5 % was planned." in reasons
    # due by then: 6, 12 and 18 h, and 24, 30 and 36 h of exposure, which are 30, 36 and 42 h
    assert "Not recorded: wipe brine on, 4 of 6 times." in reasons
    assert "The coupons were dry for 6 h; these hours do not count." in reasons
