"""A run's state is a pure fold over its log: undo, correction, stop and what arrives after it."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.errors import NotAllowedNowError, OutOfRangeError, UnknownError
from kessik.core.protocols.admission import admit
from kessik.core.protocols.folding import fold
from kessik.core.protocols.methods import force_limit_rope
from kessik.core.protocols.schools import BY_SCHOOL
from tests.conftest import bench_event

METHOD = force_limit_rope(schedule="every", every=4)


class Log:
    """Events written the short way, with positions and counts as a bench would give them."""

    def __init__(self):
        self.events = []

    def add(self, kind, payload=None, *, at=None, seen=0):
        position = len(self.events) + 1
        count = self.state().count if at is None else at
        self.events.append(
            bench_event(
                f"e{position}", kind, "d", position, seen, count, "t", payload or {}, position
            )
        )
        return self.events[-1].id

    def cut(self, times=1):
        return [self.add("cut", {"amount": 1}) for _ in range(times)][-1]

    def read(self, gf):
        return self.add("reading", {"check": "force", "value": gf, "unit": "gf"})

    def take_back(self, event_id):
        return self.add("correction", {"target": event_id, "becomes": None})

    def state(self):
        return fold(self.events, METHOD)


def test_counting_and_taking_back():
    log = Log()
    log.cut(3)
    log.take_back(log.cut())
    assert log.state().count == 3
    assert log.state().status == "cutting"


@given(st.lists(st.sampled_from(["cut", "back"]), max_size=40))
def test_the_count_is_cuts_less_those_taken_back(steps):
    log, standing = Log(), []
    for step in steps:
        if step == "cut":
            standing.append(log.cut())
        elif standing:
            log.take_back(standing.pop())
    assert log.state().count == len(standing)


def test_a_cut_taken_back_late_moves_the_readings_after_it():
    log = Log()
    double = log.cut(5)
    log.read(210)
    log.take_back(double)
    log.cut()
    log.read(220)
    assert [c.check.count for c in log.state().checks] == [
        4,
        5,
    ], "the second reading already knew of the correction"


def test_a_correction_changes_the_value_and_keeps_the_old_one_in_the_log():
    log = Log()
    reading = log.read(3120)
    log.add("correction", {"target": reading, "becomes": {"value": 312}})
    assert log.state().force_checks[0].force_gf == 312
    assert log.events[0].payload.value == 3120


def test_a_struck_reading_stays_visible_and_counts_for_nothing():
    log = Log()
    log.add("strike", {"target": log.read(150), "reason": "line was knotted"})
    state = log.state()
    assert state.checks[0].check.struck
    assert state.force_checks == []


def planned(log, count, readings):
    log.add(
        "check_planned",
        {"next_count": count, "readings": readings, "why": "so", "stage": "dull", "band": [9, 12]},
    )


def test_a_check_is_due_when_its_count_comes_and_until_its_readings_are_in():
    log = Log()
    planned(log, 4, 2)
    log.cut(3)
    assert not log.state().check_due
    log.cut()
    assert (log.state().check_due, log.state().readings_wanted) == (True, 2)
    log.read(200)
    assert (log.state().check_due, log.state().readings_wanted) == (
        True,
        1,
    ), "the second reading is still owed"
    log.read(205)
    assert log.state().plan_is_current is False, "the last reading asks for a new plan"


def test_confirmation_is_asked_before_the_rule_is_met_and_the_rule_reopens_when_taken_back():
    log = Log()
    log.cut(4)
    log.read(410)
    assert log.state().confirmation_wanted
    assert (log.state().check_due, log.state().readings_wanted) == (True, 1)
    wrong = log.read(4050)
    log.add("stop", {"by": "rule", "reason": "x"})
    assert log.state().status == "stopped"
    log.add("correction", {"target": wrong, "becomes": {"value": 380}})
    assert log.state().status == "cutting", "the run was ended by a slip of the finger"


def test_a_break_ends_with_the_next_cut():
    log = Log()
    log.cut()
    log.add("pause")
    assert log.state().status == "paused"
    log.cut()
    assert log.state().status == "cutting"


def admitted(log, kind, payload, *, seen=0, stop=None, method=METHOD, edge_length_mm=None):
    event = bench_event("new", kind, "d", 99, seen, 0, "t", payload)
    known = {e.id: e for e in log.events}
    admit(event, log.state(), method, known, stop, edge_length_mm)


def test_after_the_stop_only_a_device_that_had_not_seen_it_may_still_report_what_it_cut():
    log = Log()
    log.cut(4)
    log.add("stop", {"by": "tester", "reason": ""})
    with pytest.raises(NotAllowedNowError, match="stopped"):
        admitted(log, "cut", {"amount": 1}, seen=5, stop=5)
    admitted(log, "cut", {"amount": 1}, seen=4, stop=5)
    admitted(log, "note", {"text": "edge rolled near the tip"}, seen=5, stop=5)


@pytest.mark.parametrize(
    ("kind", "payload", "field"),
    [
        ("cut", {"amount": 0}, "amount"),
        ("cut", {"amount": -2}, "amount"),
        ("cut", {"amount": "three"}, "amount"),
        ("cut", {}, "amount"),
        ("reading", {"value": 0}, "value"),
        ("reading", {"value": float("nan")}, "value"),
        ("reading", {"value": True}, "value"),
        ("reading", {"value": 1e9}, "value"),
        ("outcome", {"check": "paper", "outcome": "maybe"}, "outcome"),
        ("outcome", {"outcome": "pass"}, "check"),
        ("strike", {"target": "e1", "reason": " "}, "reason"),
        ("abandon", {}, "reason"),
        ("note", {"text": ""}, "text"),
    ],
)
def test_what_cannot_be_is_refused_with_its_field(kind, payload, field):
    log = Log()
    log.cut()
    with pytest.raises(OutOfRangeError) as refused:
        admitted(log, kind, payload)
    assert refused.value.field == field


def test_a_correction_must_point_at_something_of_this_run_that_can_change():
    log = Log()
    log.cut()
    stop = log.add("pause")
    with pytest.raises(UnknownError):
        admitted(log, "correction", {"target": "elsewhere", "becomes": None})
    with pytest.raises(NotAllowedNowError):
        admitted(log, "correction", {"target": stop, "becomes": None})
    with pytest.raises(OutOfRangeError):
        admitted(log, "correction", {"target": "e1", "becomes": {"amount": -1}})


def test_a_spoiled_cut_counts_is_remembered_with_its_cause_and_can_be_taken_back():
    log = Log()
    log.cut(3)
    slip = log.add("spoiled", {"cause": ""})
    log.cut()
    log.add("spoiled", {"cause": "staple"})
    assert (log.state().count, log.state().spoiled) == (4, ((3, ""), (4, "staple")))
    log.take_back(slip)
    assert log.state().spoiled == ((4, "staple"),)
    with pytest.raises(OutOfRangeError, match="tape, staple, seam"):
        admitted(log, "spoiled", {"cause": "the cat"})


def test_corrections_of_one_event_add_up():
    look = bench_event(
        "look", "outcome", "d", 1, 0, 0.0, "", {"check": "paper", "outcome": "fail"}, 2
    )
    becomes = [{"outcome": "pass"}, {"picture": "ab12"}]
    later = [
        bench_event(
            f"c{n}", "correction", "d", n, 0, 0.0, "", {"target": "look", "becomes": change}, n + 2
        )
        for n, change in enumerate(becomes, 1)
    ]
    start = bench_event("0", "start", "server", 1, 0, 0.0, "", {}, 1)
    (logged,) = fold([start, look, *later], BY_SCHOOL["paper_stop_rope"]).checks
    assert (logged.check.outcome, logged.payload.picture) == (
        "pass",
        "ab12",
    ), "a picture undoes no correction"


STATIONS = replace(METHOD, stations_mm=(20.0, 60.0))


def test_the_station_of_the_coming_reading_is_told_one_after_the_other():
    log = Log()
    planned(log, 0, 4)
    places = [fold(log.events, STATIONS).places_mm[0]]
    for place in (20, 60, 20):
        log.add("reading", {"check": "force", "value": 150, "unit": "gf", "position_mm": place})
        places.append(fold(log.events, STATIONS).places_mm[0])
    assert places == [20, 60, 20, 60]


def test_a_check_without_its_place_or_off_the_edge_is_refused_where_a_method_has_stations():
    log = Log()
    bare = {"check": "force", "value": 150, "unit": "gf"}
    for place, match in ((None, "20, 60 mm from the heel"), (97, "beyond the edge, which is 96")):
        with pytest.raises(OutOfRangeError, match=match) as refused:
            admitted(
                log, "reading", {**bare, "position_mm": place}, method=STATIONS, edge_length_mm=96
            )
        assert refused.value.field == "position_mm"
    admitted(log, "reading", {**bare, "position_mm": 60}, method=STATIONS, edge_length_mm=96)


def test_place_and_count_of_an_entry_are_corrected_and_no_count_lies_beyond_the_cuts():
    log = Log()
    log.cut(4)
    glint = log.add("outcome", {"check": "inspect", "outcome": "glint", "position_mm": 31})
    log.cut(2)
    log.add("correction", {"target": glint, "becomes": {"position_mm": 13, "count_at": 2}})
    (logged,) = log.state().checks
    assert (logged.check.position_mm, logged.check.count) == (13, 2)
    assert log.state().count == 6
    with pytest.raises(OutOfRangeError, match="beyond the 6 that were cut"):
        admitted(log, "correction", {"target": glint, "becomes": {"count_at": 7}})
    with pytest.raises(NotAllowedNowError, match="follows from the cuts before it"):
        admitted(log, "correction", {"target": "e1", "becomes": {"count_at": 2}})
