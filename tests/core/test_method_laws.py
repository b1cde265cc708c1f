"""Laws of any method: stages in order, nothing lost comes back by cutting on, plans cost what they
add up to.
"""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.errors import OutOfRangeError
from kessik.core.planning.budget import Pace, budget
from kessik.core.planning.expected import expected_run
from kessik.core.planning.schedule import next_count, plan_next
from kessik.core.protocols.events import read_payload
from kessik.core.protocols.folding import fold
from kessik.core.protocols.schools import BY_SCHOOL, SCHOOLS
from kessik.core.protocols.series import Check
from kessik.core.protocols.stop_rules import assess
from kessik.core.protocols.unlike_methods import differences
from kessik.core.stock import Booking
from tests.conftest import bench_event

JUDGED = [m for m in SCHOOLS if m.stages and m.stages[0].limit_gf is None]
LOOKS = st.lists(
    st.tuples(
        st.sampled_from(["inspect", "hair_sample", "paper"]),
        st.sampled_from(["pass", "fail", "doubt"]),
    ),
    max_size=30,
)


def checked(looks):
    return [Check(float(n // 2), kind, outcome=outcome) for n, (kind, outcome) in enumerate(looks)]


@given(st.sampled_from(JUDGED), LOOKS)
def test_lost_stages_are_a_beginning_of_the_stages_where_they_go_in_order(method, looks):
    found = assess(checked(looks), method, 20)
    if any(rule.kind == "stages" for rule in method.ends):
        names = [stage.name for stage in method.stages]
        assert list(found.lost) == names[: len(found.lost)]
        assert found.met == (len(found.lost) == len(names))


@given(st.sampled_from(JUDGED), LOOKS, LOOKS)
def test_what_was_lost_stays_lost_at_its_count_whatever_comes_later(method, looks, more):
    before = assess(checked(looks), method, 20).lost
    later = [replace(c, count=c.count + 100) for c in checked(more)]
    after = assess([*checked(looks), *later], method, 200).lost
    for stage, count in before.items():
        assert after[stage] == count


@given(st.sampled_from(SCHOOLS), st.floats(1, 2000))
def test_a_run_is_expected_to_take_something_and_more_edges_cost_more(method, life):
    run = expected_run(method, life)
    assert run.cuts > 0
    assert run.readings > 0
    assert 0 < run.low <= run.life <= run.high
    one, three = (budget([run] * n, method, Pace()) for n in (1, 3))
    assert three.cuts == pytest.approx(3 * one.cuts)
    assert three.medium_m == pytest.approx(3 * one.medium_m)
    assert three.hours == pytest.approx(3 * one.hours)
    assert one.days <= three.days


@given(st.sampled_from(SCHOOLS), st.floats(0, 500))
def test_a_schedule_always_goes_forward_and_never_beyond_the_dose(method, last):
    due = next_count(method, last)
    if due is not None:
        assert due > last
        assert method.dose is None or due <= method.dose


@pytest.mark.parametrize("method", SCHOOLS, ids=BY_SCHOOL)
def test_the_first_thing_a_fresh_run_is_told_is_to_look_or_to_cut_up_to_the_first_look(method):
    told = plan_next([], method, 0.0)
    assert not told.stop
    assert told.readings >= 1
    cut_itself = assess([], method, 0).asked in ("effort", "rank", "depth")
    assert (told.next_count > 0) == cut_itself, (
        "effort and depth are felt while cutting; the rest is seen before"
    )


@pytest.mark.parametrize("method", SCHOOLS, ids=BY_SCHOOL)
def test_a_school_agrees_with_itself_and_says_no_to_every_other(method):
    assert differences(method, method) == []
    others = [m for m in SCHOOLS if m is not method and m.medium != method.medium]
    assert all(differences(method, other) for other in others)


@pytest.mark.parametrize(
    ("kind", "payload", "field"),
    [
        ("reading", {"check": "effort", "value": 10.5}, "value"),
        ("reading", {"check": "depth", "value": -1}, "value"),
        ("reading", {"check": "force", "value": 300, "position_mm": 3000}, "position_mm"),
        ("outcome", {"check": "inspect", "outcome": "dent"}, "outcome"),
        ("outcome", {"check": "", "outcome": "pass"}, "check"),
        ("outcome", {"check": "paper", "outcome": "glint"}, "outcome"),
    ],
)
def test_a_look_that_cannot_be_is_refused_at_its_field(kind, payload, field):
    with pytest.raises(OutOfRangeError) as refused:
        read_payload(kind, payload)
    assert refused.value.field == field


def test_a_station_is_read_out_before_the_next_is_asked_for():
    method = replace(BY_SCHOOL["fixed_dose"], stations_mm=(20.0, 86.0))
    log = [
        bench_event(
            "p",
            "check_planned",
            "server",
            1,
            0,
            0.0,
            "t",
            {"next_count": 0, "readings": 6, "why": ""},
            1,
        )
    ]
    asked = []
    for n in range(6):
        state = fold(log, method, (12.0, 76.0))
        asked.append(state.asked_at_mm)
        payload = {"check": "force", "value": 150, "unit": "gf", "position_mm": state.asked_at_mm}
        log.append(bench_event(f"r{n}", "reading", "d", n, 0, 0.0, "t", payload, n + 2))
    assert asked == [20.0, 20.0, 20.0, 86.0, 86.0, 86.0]
    assert len(fold(log, method, (12.0, 76.0)).worked_checks) == 3, (
        "what lies beside the zone is a control"
    )


@given(st.floats(0, 1e4), st.integers(0, 500), st.floats(0, 10), st.floats(0, 10), st.floats(0, 5))
def test_a_booking_takes_its_offcut_once_and_only_with_the_first_cut(
    count, readings, each, per_reading, once
):
    booking = Booking("lot", "medium", each, per_reading, once)
    assert booking.amount(0, 0) == 0
    assert booking.amount(count, readings) == pytest.approx(
        count * each + readings * per_reading + (once if count > 0 else 0)
    )
