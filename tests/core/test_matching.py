"""Matching: tolerances of the handbook (common practice), both readings of hardness, and what a
mismatch may do.
"""

from dataclasses import replace

import pytest

from kessik.core.comparison.findings import Claimed
from kessik.core.comparison.matching import BladeFacts, Fact, MatchingRule, match
from kessik.core.words.matching import cell_words, line_up_words


def blade(
    code, *, angle=(15.0,), thickness=(0.36,), bevel=(0.0,), hrc=58.0, usual=(57.0, 60.0), **rest
):
    edges = {
        "side_angle_deg": angle,
        "thickness_behind_edge_mm": thickness,
        "micro_bevel_side_deg": bevel,
    }
    return BladeFacts(code, "1.4034", Fact(hrc), usual, edges, **rest)


def states(blades, variable, **rule):
    return {c.blade: c.state for c in match(blades, MatchingRule(**rule)) if c.variable == variable}


@pytest.mark.parametrize(
    ("variable", "inside", "outside"),
    [
        ("side_angle_deg", {"angle": (15.5,)}, {"angle": (15.6,)}),
        ("thickness_behind_edge_mm", {"thickness": (0.41,)}, {"thickness": (0.42,)}),
        ("hardness_hrc", {"hrc": 59.0}, {"hrc": 59.1}),
    ],
)
def test_default_tolerances(variable, inside, outside):
    assert states([blade("A"), blade("B", **inside)], variable) == {"A": "matched", "B": "matched"}
    assert states([blade("A"), blade("B", **outside)], variable)["B"] == "confounded"


def test_the_odd_one_out_is_flagged_not_the_rest():
    found = states(
        [blade("A", thickness=(0.72,)), blade("B"), blade("C"), blade("D")],
        "thickness_behind_edge_mm",
    )
    assert found == {"A": "confounded", "B": "matched", "C": "matched", "D": "matched"}


def test_the_factor_is_never_a_fault():
    assert states([blade("A"), blade("B", angle=(20.0,))], "side_angle_deg", factor="angle") == {
        "A": "factor",
        "B": "factor",
    }


def test_hardness_as_usual_for_each_grade():
    hard = blade("B", hrc=64.5, usual=(63.0, 66.0))
    assert states([blade("A"), hard], "hardness_hrc")["B"] == "confounded"
    usual = {"hardness_reading": "as_usually_hardened"}
    assert states([blade("A"), hard], "hardness_hrc", **usual) == {"A": "matched", "B": "matched"}
    soft = blade("B", hrc=60.0, usual=(63.0, 66.0))
    assert states([blade("A"), soft], "hardness_hrc", **usual)["B"] == "confounded"
    assert states([blade("A"), blade("B", usual=None)], "hardness_hrc", **usual)["B"] == "pending"


def test_a_micro_bevel_on_one_blade_only_is_a_mismatch():
    mixed = [blade("A"), blade("B"), blade("C", bevel=(20.0,))]
    assert states(mixed, "micro_bevel_side_deg") == {
        "A": "matched",
        "B": "matched",
        "C": "confounded",
    }
    unknown = blade("C", bevel=(None,))
    assert states([blade("A"), blade("B"), unknown], "micro_bevel_side_deg")["C"] == "pending"


def test_edges_of_one_blade_that_differ_among_themselves_are_a_mismatch():
    (cell,) = [
        c
        for c in match([blade("A"), blade("B", angle=(14.4, 15.6))], MatchingRule())
        if c.state == "confounded"
    ]
    assert cell.blade == "B"
    assert "its edges differ by 1.2°" in cell_words(cell, MatchingRule())


def test_a_wider_tolerance_is_taken_knowingly():
    pair = [blade("A"), blade("B", thickness=(0.50,))]
    assert (
        states(pair, "thickness_behind_edge_mm", tolerances={"thickness_behind_edge_mm": 0.15})["B"]
        == "matched"
    )


def test_what_a_mismatch_alone_could_make():
    # 3 % of life per degree included, 4 % per HRC: assumptions of common practice, no source.
    def said(other, **rule):
        return next(
            cell_words(c, MatchingRule(**rule))
            for c in match([blade("A"), other], MatchingRule(**rule))
            if c.state == "confounded"
        )

    assert "this mismatch alone could make 9 % of life" in said(blade("B", angle=(16.5,)))
    assert "this mismatch alone could make 12 % of life" in said(blade("B", hrc=55.0))
    assert "this mismatch alone could make 6 % of life" in said(
        blade("B", hrc=55.0), effects={"hardness_hrc": 2.0}
    )
    assert "of life" not in said(blade("B", thickness=(0.56,)))


def test_the_line_up_says_it_before_an_edge_is_spent():
    def said(blades):
        return line_up_words(
            match(blades, MatchingRule()), (), MatchingRule(), len(blades), "blade"
        )

    assert said([]) == "No blade is in this trial yet."
    assert "needs a second" in said([blade("A")])
    assert said([blade("A"), blade("B")]) == "Both blades are matched: what differs is the steel."
    assert said([blade("A"), blade("B", thickness=(0.71,))]).startswith(
        "B is not a fair test of steel: thickness"
    )


def test_what_an_assay_excludes_is_a_mismatch_and_what_it_leaves_open_is_pending():
    assayed = {
        "A": Claimed("1.4034", "consistent"),
        "B": Claimed("440C", "undecidable", ("440A", "440B")),
        "F": Claimed("1.2436", "excluded", ("1.2363",)),
    }
    facts = [replace(blade(code), grade=c.grade, claim=c) for code, c in assayed.items()]
    cells = {c.blade: c for c in match(facts, MatchingRule()) if c.variable == "grade"}
    assert [cells[code].state for code in "ABF"] == ["factor", "pending", "confounded"]
    assert [cells[code].standing for code in "ABF"] == ["measured_here", "claimed", "claimed"]
    said = {code: cell_words(cells[code], MatchingRule()) for code in "BF"}
    assert "excludes 1.2436, which it is sold as; 1.2363 would fit" in said["F"]
    assert "440A and 440B would fit as well" in said["B"]


def test_two_steels_say_nothing_of_geometry():
    found = states([blade("A"), replace(blade("B"), grade="1.2436")], "grade", factor="geometry")
    assert found == {"A": "matched", "B": "confounded"}
