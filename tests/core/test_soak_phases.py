"""Phases of a soak: each medium with its own answer, from records as they are kept."""

from dataclasses import replace

import pytest

from kessik.core.corrosion.duties import duties, next_duties
from kessik.core.corrosion.methods import BY_KEY, Phase, check_method
from kessik.core.corrosion.rounds import rounds_of, still_to_see
from kessik.core.errors import OutOfRangeError
from kessik.core.words.phases import came_words, phase_title, phase_words
from kessik.core.words.soaks import deed_words
from tests.helpers.soaks import act, answered, both, coupon, look, soak_of

THREE = (coupon("A"), coupon("B"), coupon("D", "baseline"))
NAMES = {each.id: each.name for each in THREE}


def test_each_phase_has_its_own_answer_and_the_last_round_tells_of_all():
    """By hand: B is as clean as A in fresh water, and brine brings 2.9 % of its 3 %."""
    soak = soak_of(*THREE, method="fresh_then_brine")
    looks = [
        *both("A", 0.1, 0.1, hours=72.3), *both("B", 0.1, 0.12, hours=72.4),
        *both("D", 8, 9, hours=72.2),
        *both("A", 0.12, 0.12, hours=144), *both("B", 3.0, 3.2, hours=144.5),
        *both("D", 30, 33, hours=144),
    ]  # fmt: skip
    answer, headline, _ = answered(soak, looks, now_h=145)
    fresh, brine = answer.phases
    assert phase_title(fresh) == "Fresh water, sprayed, 0 to 72 h"
    assert phase_words(fresh, 145, NAMES) == "Least rust first: A and B together, then D."
    assert phase_words(brine, 145, NAMES) == headline == "Least rust first: A, then B, then D."
    assert brine.came["B"].middle == pytest.approx(3.1 - 0.11)
    assert came_words(brine.came["A"]) == "0.02 %, 0 to 0.04 % of it came here"


def test_a_change_of_medium_is_due_and_its_true_hour_decides_what_a_round_shows():
    soak = soak_of(*THREE, method="fresh_then_brine")
    (due,) = [step for step in duties(soak, [], []) if step.what == "next_phase"]
    assert (due.due_h, deed_words(due.what, medium=due.medium)) == (
        72, "begin the next phase: brine, sprayed",
    )  # fmt: skip
    assert due in next_duties(duties(soak, [], []), 73)
    changed = [act("next_phase", 80)]
    looks = [*both("A", 0.1, 0.1, hours=79.9), *both("D", 8, 9, hours=80.1)]
    answer, _, reasons = answered(soak, looks, changed, now_h=90)
    fresh, brine = answer.phases
    assert (fresh.span.to_h, brine.span.from_h) == (80, 80)
    assert len(fresh.answer.ranking.standings) == 2
    assert not brine.answer.rounds
    assert "Changed to brine, sprayed at 80 h; 72 h was planned." in reasons


def test_sides_in_unlike_media_are_answered_apart_and_asked_for_in_turn():
    soak = soak_of(*THREE, method="paste_then_brine")
    assert {p.side for p in still_to_see(soak, [], (), [], 10.2)} == {"left"}
    assert {p.side for p in still_to_see(soak, [], (), [], 24)} == {"right"}
    looks = [
        look("A", "left", None, "as_found", 10.1, bounds=(None, None), discolouration="haze"),
        look("B", "left", None, "as_found", 10.2, bounds=(None, None), discolouration="dark"),
        *[look(n, "right", a, "as_found", 24) for n, a in (("A", 0.1), ("B", 2.0), ("D", 20))],
    ]
    answer, headline, reasons = answered(soak, looks, now_h=24)
    assert headline == (
        "Mustard and vinegar paste: by discolouration, the least first: A a haze; B dark."
        " 5 % brine: least rust first: A, then B, then D."
    )
    assert [len(r.places) for r in rounds_of(soak, [], looks)] == [6, 6]
    baseline = "The baseline, D, rusted (20 %, 18.0 to 22 %; more than 0.50 % was required)."
    assert f"5 % brine: {baseline}" in reasons
    assert answer.phases[0].answer.discoloured[1] == ("dark", ("B",))


def test_brine_is_held_against_the_phase_it_was_measured_in():
    soak = soak_of(*THREE, method="fresh_then_brine")
    measured = [act("measured", 5, salt_percent=0.4), act("measured", 100, salt_percent=9.0)]
    _, _, reasons = answered(soak, both("A", 1, 1, hours=72), measured, now_h=100)
    assert "The brine was measured at 9 % salt; 3.5 % was planned." in reasons
    assert not any("0.4 %" in reason for reason in reasons)


@pytest.mark.parametrize(
    "phases",
    [
        (Phase("brine", 24),),
        (Phase("brine", 10), Phase("", 24)),
        (Phase("brine", 20), Phase("water", 10)),
        (Phase("brine", 10), Phase("water", 20)),
        (Phase("brine", 10), Phase("water", 24, salt_percent=80)),
    ],
)
def test_phases_that_cannot_be_are_refused(phases):
    method = replace(BY_KEY["paste_then_brine"], phases=phases)
    with pytest.raises(OutOfRangeError):
        check_method(method)
