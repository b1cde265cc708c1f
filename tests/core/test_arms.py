"""What a trial compares: blades, or one blade under several preparations."""

from dataclasses import replace

import pytest

from kessik.core.comparison.matching import BladeFacts, Fact, MatchingRule, match
from kessik.core.errors import OutOfRangeError
from kessik.core.moments import Moment
from kessik.core.planning.one_blade import one_blade_saves
from kessik.core.protocols.methods import force_limit_rope
from kessik.core.runs import Run
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge
from kessik.core.trials.arms import arm_and_edge, arms_of, blades_of, check_arms
from kessik.core.trials.trial import Trial
from kessik.core.words.plans import one_blade_words
from kessik.services.reading.ordering import order_kept


def blade(code, arms=(), edges=("", "")):
    made = tuple(Edge(f"{code}-{n}", code, n, arm) for n, arm in enumerate(edges, 1))
    return Blade(code, code, mark=len(code), arms=tuple(arms), edges=made)


def cut(edge_id, arm=""):
    return Run(f"run-{edge_id}-{arm}", "t", edge_id, 1, Moment(""), arm=arm)


KNIFE = blade("K", ("coarse", "fine"), ("coarse", "fine", "coarse"))


def test_a_blade_without_stated_arms_is_its_own_arm():
    plain = [blade("A"), blade("B", edges=("coarse", "fine"))]
    found = arms_of(plain, [cut("B-1"), cut("B-2")])
    assert [(arm.code, len(arm.own_edges)) for arm in found] == [("A", 2), ("B", 2)]


def test_arms_of_one_blade_have_their_own_code_mark_and_edges():
    coarse, fine = arms_of([KNIFE], [])
    assert (coarse.code, fine.code, coarse.own_code, fine.own_code) == ("coarse", "fine", "K", "K")
    assert [edge.number for edge in coarse.own_edges] == [1, 3]
    assert coarse.mark != fine.mark
    assert coarse.arm_id != fine.arm_id
    assert blades_of([coarse, fine]) == [KNIFE]


def test_a_preparation_that_two_blades_carry_is_called_by_both():
    found = arms_of([blade("A", ("coarse", "fine")), blade("B", ("coarse", "stropped"))], [])
    assert [arm.code for arm in found] == ["A coarse", "fine", "B coarse", "stropped"]


def test_a_run_under_another_arm_is_shown_and_finds_it():
    runs = [cut("K-1", "oiled")]
    found = arms_of([KNIFE], runs)
    assert [arm.code for arm in found] == ["coarse", "fine", "oiled"]
    arm, edge = arm_and_edge(found, runs[0])
    assert (arm.code, edge.number, arm.own_edges) == ("oiled", 1, (edge,))
    assert arm_and_edge(found, cut("K-2"))[0].code == "fine"


def test_an_edge_of_no_arm_stands_with_the_blade_itself():
    knife = replace(KNIFE, edges=(*KNIFE.edges, Edge("K-4", "K", 4)))
    found = arms_of([knife], [cut("K-4")])
    assert [arm.code for arm in found] == ["coarse", "fine", "K"]
    assert arm_and_edge(found, cut("K-4"))[0].code == "K"


@pytest.mark.parametrize("arms", [["coarse"], ["coarse", ""], ["coarse", "Coarse"]])
def test_arms_that_cannot_be_told_apart_are_refused(arms):
    trial = Trial("t", "finish", Moment(""))
    with pytest.raises(OutOfRangeError):
        check_arms(trial, blade("K"), arms)
    assert check_arms(trial, blade("K"), [" coarse ", "fine"]) == ("coarse", "fine")


def test_what_is_true_of_the_blade_is_alike_in_its_arms():
    unknown = [BladeFacts(code, body="K") for code in ("coarse", "fine")]
    states = {(c.variable, c.state) for c in match(unknown, MatchingRule("edge_finish"))}
    assert ("hardness_hrc", "matched") in states
    assert ("side_angle_deg", "pending") in states
    others = [BladeFacts("coarse", body="K"), BladeFacts("fine", body="L", hardness_hrc=Fact(60.0))]
    hardness = [c.state for c in match(others, MatchingRule()) if c.variable == "hardness_hrc"]
    assert hardness == ["pending", "matched"]


def test_one_blade_needs_fewer_edges_and_the_plan_says_how_many():
    spread = None
    found = one_blade_saves("K", 12, 0.05, 2, spread, MatchingRule())
    assert found.edges < found.edges_on_several
    assert f"{found.edges_on_several - found.edges} more" in one_blade_words(found)
    assert one_blade_saves("K", 5, 0.05, 2, spread, MatchingRule()).edges_on_several is None


def test_without_a_kept_plan_there_is_no_order():
    plan, method = Trial("t", "finish", Moment("")).plan, force_limit_rope()
    both = [blade("A"), blade("B")]
    assert order_kept(both, plan, 2, method) == ()
    kept = order_kept(both, replace(plan, wanted_percent=10.0), 2, method)
    assert sorted((place.block, place.blade) for place in kept) == [
        (1, "A"), (1, "B"), (2, "A"), (2, "B"),
    ]  # fmt: skip  # a table is read by its rows
