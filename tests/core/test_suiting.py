"""Which way of testing suits a question: what answers it, what it costs, what it lacks."""

import pytest

from kessik.core.corrosion.methods import METHODS
from kessik.core.errors import OutOfRangeError
from kessik.core.planning.budget import Pace, budget
from kessik.core.planning.power import detectable
from kessik.core.planning.suiting import OF_SCHOOL, OF_SOAK, Wanted, ways_for
from kessik.core.protocols.schools import SCHOOLS
from kessik.core.vocabulary import TEST_QUESTIONS
from kessik.core.words.suiting import (
    cannot_words,
    cost_words,
    found_words,
    hours_words,
    missing_words,
    shows_words,
)

AT_HAND = frozenset({"rope", "tester"})


def test_every_school_and_soak_says_what_it_answers():
    assert set(OF_SCHOOL) == {method.school for method in SCHOOLS}
    assert set(OF_SOAK) == {method.key for method in METHODS}
    for method in SCHOOLS:
        assert shows_words(method.school)
        assert cannot_words(method.school)


def test_what_can_be_had_at_once_comes_first_and_a_measured_force_before_a_felt_one():
    found = ways_for(Wanted("lasts", AT_HAND | {"paper"}))
    ready = [way.method.school for way in found.cuts if not way.missing]
    assert ready == ["force_limit_rope", "paper_stop_rope", "fixed_dose"]
    found = ways_for(Wanted("lasts", AT_HAND))
    assert found_words(found) == "8 ways of testing can answer this; 2 with what is in hand."
    paper = next(way for way in found.cuts if way.method.school == "paper_stop_rope")
    assert missing_words(paper) == "Not in hand: paper of one kind."
    assert next(way.is_partly for way in found.cuts if way.method.school == "fixed_dose")


def test_edges_and_costs_are_those_of_a_plan():
    way = ways_for(Wanted("lasts", AT_HAND, blades=3, wanted_percent=15)).cuts[0]
    assert detectable(way.edges, way.run.log_sd, 3).percent <= 15
    assert detectable(way.edges - 1, way.run.log_sd, 3).percent > 15
    assert way.cost == budget([way.run] * (3 * way.edges), way.method, Pace())
    assert cost_words(way, 3).startswith(f"{way.edges} edges on each of 3 blades: about ")


def test_few_hours_say_what_they_are_enough_for():
    way = ways_for(Wanted("lasts", AT_HAND, hours=3)).cuts[0]
    assert (way.in_hours + 1) * way.cost.hours / way.edges > 3
    enough = f"The hours at hand are enough for {way.in_hours} edges a blade; diff"
    assert hours_words(way).startswith(enough)
    assert "not enough" in hours_words(ways_for(Wanted("lasts", AT_HAND, hours=0.25)).cuts[0])
    tiny = ways_for(Wanted("lasts", AT_HAND, wanted_percent=1)).cuts[0]
    assert cost_words(tiny, 2) == "Even 60 edges a blade do not show such a difference."


@pytest.mark.parametrize("question", TEST_QUESTIONS)
def test_every_question_has_an_answer_with_everything_and_with_nothing_in_hand(question):
    found = ways_for(Wanted(question, frozenset(), hours=8))
    assert found_words(found)
    assert all(way.missing for way in (*found.cuts, *found.soaks))
    if question == "steel":
        assert found_words(found) == "No way of cutting or soaking answers this."
        assert (found.cuts, found.soaks) == ((), ())


@pytest.mark.parametrize(
    ("wrong", "field"),
    [({"blades": 0}, "blades"), ({"wanted_percent": 0}, "wanted_percent"),
     ({"wanted_percent": float("nan")}, "wanted_percent"), ({"hours": -1}, "hours")],
)  # fmt: skip
def test_what_cannot_be_is_refused_at_its_field(wrong, field):
    with pytest.raises(OutOfRangeError) as refused:
        ways_for(Wanted("lasts", AT_HAND, **wrong))
    assert refused.value.field == field
