"""The whole set of held-equal variables: each is judged by its own rule, and what is not known is
never a fault.
"""

import pytest

from kessik.core.comparison.matching import BladeFacts, Fact, MatchingRule, match, not_recorded
from kessik.core.comparison.variables import VARIABLES
from kessik.core.facts import Expected
from kessik.core.sharpening.settled import Settled
from kessik.core.words.matching import cell_words

COUNTS = Settled("settled", "place", place=3)


def blade(code, settled=((3, COUNTS),), **changes):
    """A blade of which everything is known; `changes` by variable name."""
    edges = {
        "side_angle_deg": [15.0],
        "micro_bevel_side_deg": [0.0],
        "thickness_behind_edge_mm": [0.36],
        "final_abrasive_um": [Fact(1.0, kind="alumina")],
        "start_gf": [Fact(150.0, readings=2)],
        "edge_length_mm": [96.0],
    }
    own = {
        "grind": Fact("flat"),
        "profile": Fact("straight"),
        "stock_mm": Fact(3.0),
        "finish": Fact("satin"),
        "coating": Fact("none"),
        "grip": Fact("oak"),
    }
    edges.update({name: [value] for name, value in changes.items() if name in edges})
    own.update({name: value for name, value in changes.items() if name in own})
    return BladeFacts(code, "1.4034", Fact(58.0), (57.0, 60.0), edges, own=own, settled=settled)


def states(blades, variable, **rule):
    return {c.blade: c.state for c in match(blades, MatchingRule(**rule)) if c.variable == variable}


def test_all_known_and_alike_is_matched_throughout():
    cells = match([blade("A"), blade("B")], MatchingRule())
    assert {c.variable for c in cells} == {v.name for v in VARIABLES}
    assert {c.state for c in cells if c.variable != "grade"} == {"matched"}
    assert [c.state for c in cells if c.variable == "grade"] == ["factor", "factor"]
    same = match([blade("A"), blade("B")], MatchingRule("geometry"))
    assert {c.state for c in same if c.variable == "grade"} == {"matched"}


@pytest.mark.parametrize(
    ("variable", "inside", "outside", "says"),
    [
        (
            "final_abrasive_um",
            Fact(1.5, kind="alumina"),
            Fact(1.6, kind="alumina"),
            "differs by 0.6 µm",
        ),
        ("final_abrasive_um", Fact(1.0), Fact(1.0, kind="diamond"), "is diamond, not alumina"),
        ("start_gf", Fact(172.0, readings=200), Fact(200.0, readings=200), "differs by 33 %"),
        ("edge_length_mm", 98.0, 80.0, "differs by 17 %"),
        ("grind", Fact("Flat"), Fact("hollow"), "grind is hollow, not flat"),
        ("profile", Fact("straight "), Fact("belly"), "profile is belly"),
        ("stock_mm", Fact(3.3), Fact(3.4), "differs by 0.40 mm"),
        ("finish", Fact("satin"), Fact("polished"), "finish is polished"),
        ("coating", Fact("none"), Fact("nitride"), "coating is nitride"),
        ("grip", Fact("oak"), Fact("cord"), "grip is cord"),
    ],
)
def test_each_variable_by_its_own_rule(variable, inside, outside, says):
    assert states([blade("A"), blade("B", **{variable: inside})], variable) == {
        "A": "matched",
        "B": "matched",
    }
    odd = [blade("A"), blade("B"), blade("C", **{variable: outside})]
    assert states(odd, variable) == {"A": "matched", "B": "matched", "C": "confounded"}
    cell = next(c for c in match(odd, MatchingRule()) if c.state == "confounded")
    said = cell_words(cell, MatchingRule())
    assert says in said
    assert said.endswith("C's result does not count for steel")


def test_unequal_starts_are_held_against_their_own_scatter():
    pair = [
        blade("A", start_gf=Fact(150.0, readings=1)),
        blade("B", start_gf=Fact(190.0, readings=1)),
    ]
    assert states(pair, "start_gf")["B"] == "matched", "two single readings may lie that far apart"
    sure = [
        blade("A", start_gf=Fact(150.0, readings=40)),
        blade("B", start_gf=Fact(190.0, readings=40)),
    ]
    assert states(sure, "start_gf")["B"] == "confounded"


def test_a_blade_whose_own_edges_start_apart_is_no_sharper_known_for_many_readings():
    unsteady = blade("B")
    starts = [Fact(130.0, readings=40), Fact(250.0, readings=40)]
    both = BladeFacts(**{**unsteady.__dict__, "edges": {**unsteady.edges, "start_gf": starts}})
    assert (
        states([blade("A", start_gf=Fact(150.0, readings=40)), both], "start_gf")["B"] == "matched"
    )


def test_of_two_blades_the_second_is_the_odd_one_throughout():
    cells = match(
        [blade("A"), blade("B", thickness_behind_edge_mm=0.2, stock_mm=Fact(4.0))], MatchingRule()
    )
    assert {c.blade for c in cells if c.state == "confounded"} == {"B"}


def test_what_nobody_recorded_is_taken_as_equal_by_name_and_what_some_did_is_pending():
    bare = [BladeFacts(code, edges={"side_angle_deg": [15.0]}) for code in "AB"]
    named = {v.name for v in not_recorded(bare, MatchingRule())}
    assert {"grip", "coating", "final_abrasive_um"} <= named
    assert named.isdisjoint({"thickness_behind_edge_mm", "hardness_hrc", "side_angle_deg"}), (
        "these are always asked for"
    )
    mixed = [blade("A"), blade("B", grip=Fact())]
    assert states(mixed, "grip") == {"A": "matched", "B": "pending"}


def test_a_claim_does_not_count_as_known():
    assert (
        states([blade("A"), blade("B", grind=Fact("hollow", "claimed"))], "grind")["B"] == "pending"
    )


def test_a_stale_thickness_is_pending_with_what_is_expected_but_a_known_mismatch_stays_one():
    stale = Fact(stale=Expected(3, 0.36, 0.39))
    pair = [blade("A"), blade("B", thickness_behind_edge_mm=stale)]
    (cell,) = [c for c in match(pair, MatchingRule()) if c.state == "pending"]
    assert cell.shown == "about 0.39 mm"
    said = cell_words(cell, MatchingRule())
    assert said.startswith("thickness went stale: measured on edge 3 (0.36 mm)")
    known = blade("B")
    both = BladeFacts(
        **{**known.__dict__, "edges": {**known.edges, "thickness_behind_edge_mm": [0.72, stale]}}
    )
    assert states([blade("A"), both], "thickness_behind_edge_mm")["B"] == "confounded"


def test_lengths_may_differ_where_counts_are_put_on_one():
    pair = [blade("A"), blade("B", edge_length_mm=60.0)]
    assert states(pair, "edge_length_mm", scale_edge_length=True) == {
        "A": "matched",
        "B": "matched",
    }


def test_what_is_knowingly_let_go_is_not_judged():
    pair = [blade("A"), blade("B", grip=Fact("cord"))]
    assert states(pair, "grip", let_go=("grip",)) == {}
    assert "grip" not in {v.name for v in not_recorded(pair, MatchingRule(let_go=("grip",)))}


def test_edges_that_do_not_count_are_named_before_they_are_spent():
    early = blade(
        "B",
        settled=((2, Settled("not_yet", "place", place=2)),),
    )
    cell = next(c for c in match([blade("A"), early], MatchingRule()) if c.state == "confounded")
    assert (cell.variable, cell.shown) == ("settled_edge", "edge 2")
    assert "it is left out of the answer under the rule" in cell_words(cell, MatchingRule())
    unsure = blade("B", settled=((2, Settled("unknown", "steel_not_known")),))
    assert states([blade("A"), unsure], "settled_edge")["B"] == "pending"
