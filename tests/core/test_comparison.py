"""Ratios and verdicts: precedence, both bases, scope, pending, and more data never a worse
answer.
"""

from dataclasses import replace

import numpy as np
import pytest

from kessik.core.comparison.analysis import analyse
from kessik.core.comparison.findings import Claimed
from kessik.core.comparison.levels import levelled
from kessik.core.comparison.matching import BladeFacts, Fact, MatchingRule
from kessik.core.comparison.ranking import tie_groups
from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import Check, RunSeries
from kessik.core.words.matching import open_lines
from kessik.core.words.notes import note_words
from kessik.core.words.pairs import pair_words, reason_words
from kessik.core.words.verdict import headline, standing_words
from tests.conftest import series

RULE = MatchingRule()


def edge(blade, life, number, *, scatter=0.04, exponent=0.6):
    rng = np.random.default_rng([number, *blade.encode()])
    counts = np.arange(0, int(life * 1.12) + 2)
    force = (150 + 250 * (counts / life) ** exponent) * np.exp(
        scatter * rng.normal(size=counts.size)
    )
    return series(*zip(counts, force, strict=True), blade=blade, edge=number)


def facts(
    code, *, grade="1.4034", hrc=58.0, angle=15.0, thickness=0.36, standing="measured_here", edges=2
):
    values = {
        "side_angle_deg": [angle] * edges,
        "thickness_behind_edge_mm": [thickness] * edges,
        "micro_bevel_side_deg": [0.0],
    }
    return BladeFacts(code, grade, Fact(hrc, standing), edges=values)


def trial(lives, known=None, rule=RULE, edges=2, **shape):
    runs = [
        edge(code, life, n, **shape) for code, life in lives.items() for n in range(3, 3 + edges)
    ]
    return analyse(runs, known or {}, rule, Method())


def dull(analysis):
    return {(c.a, c.b): c for c in analysis.comparisons if c.stage == "dull"}


def reasons(found):
    return [reason_words(reason, RULE) for reason in found.reasons]


MATCHED = {"A": facts("A"), "B": facts("B", grade="1.4112"), "C": facts("C", grade="1.3344")}


def test_a_longer_blade_is_called_longer_with_both_bases():
    found = dull(trial({"A": 20, "B": 30}, MATCHED))["A", "B"]
    assert found.verdict == "longer"
    assert found.low < 1.5 < found.high
    assert found.scope == "the steel"
    assert found.pending == ()
    words = pair_words(found)
    assert "B outlasts A by" in words
    assert "A falls short of B by" in words


def test_the_shorter_blade_is_told_from_the_longer_ones_side():
    found = dull(trial({"A": 30, "B": 20}, MATCHED))["A", "B"]
    assert found.verdict == "shorter"
    assert pair_words(found).startswith("A outlasts B by")


def test_confounded_comes_before_everything_and_keeps_its_numbers():
    known = MATCHED | {"B": facts("B", grade="1.2436", hrc=61.0, thickness=0.72)}
    found = dull(trial({"A": 20, "B": 30}, known))["A", "B"]
    assert found.verdict == "confounded"
    assert found.ratio == pytest.approx(1.5, rel=0.2)
    assert any(
        "thickness behind the edge differs by 0.36 mm" in reason for reason in reasons(found)
    )
    assert any("could make 12 % of life" in reason for reason in reasons(found)), (
        "3 HRC at 4 % each"
    )
    assert found.edges_to_settle is None, "more edges do not mend an unfair pair"


def test_unknown_facts_are_pending_and_shrink_the_scope():
    known = MATCHED | {"B": facts("B", grade="1.4112", hrc=None)}
    found = dull(trial({"A": 20, "B": 30}, known))["A", "B"]
    assert found.verdict == "longer"
    assert found.scope == "these blades"
    assert open_lines(found.pending) == ["hardness of B is not known"]


def test_a_claimed_hardness_is_no_evidence():
    known = MATCHED | {"B": facts("B", grade="1.4112", hrc=64.0, standing="claimed")}
    found = dull(trial({"A": 20, "B": 30}, known))["A", "B"]
    assert found.verdict == "longer"
    assert open_lines(found.pending) == ["hardness of B is only claimed"]


def test_one_edge_each_of_near_blades_is_not_enough_and_says_how_many_are():
    found = dull(trial({"A": 20, "B": 21}, MATCHED, edges=1, scatter=0.08))["A", "B"]
    assert found.verdict == "not_enough_evidence"
    assert found.edges_to_settle >= 2
    assert any("one edge each" in reason for reason in reasons(found))


def test_many_edges_of_like_blades_are_too_close_to_matter():
    found = dull(trial({"A": 20, "B": 20.2}, MATCHED, edges=6, scatter=0.02))["A", "B"]
    assert found.verdict == "too_close"


def test_more_edges_never_widen_the_answer():
    widths = []
    for edges in (1, 2, 4):
        found = dull(trial({"A": 20, "B": 30}, MATCHED, edges=edges))["A", "B"]
        widths.append(np.log(found.high / found.low))
    assert widths[0] > widths[1] > widths[2]


def test_zones_of_one_edge_are_one_edge():
    zones = [
        RunSeries(b, 3, run, edge(b, life, run).checks)
        for b, life in (("A", 20), ("B", 22))
        for run in (1, 2)
    ]
    edges = [edge(b, life, n) for b, life in (("A", 20), ("B", 22)) for n in (1, 2)]
    of_zones, of_edges = (analyse(runs, MATCHED, RULE, Method()) for runs in (zones, edges))
    assert [b.edges for b in of_zones.blades] == [1, 1]
    assert [b.edges for b in of_edges.blades] == [2, 2]
    assert of_zones.blades[0].spread_percent is None

    def width(analysis):
        found = dull(analysis)["A", "B"]
        return np.log(found.high / found.low)

    assert width(of_zones) > width(of_edges)


def test_the_order_of_the_pair_does_not_matter():
    one, other = (
        dull(trial({"A": 20, "B": 30}, MATCHED))["A", "B"],
        dull(trial({"B": 30, "A": 20}, MATCHED))["B", "A"],
    )
    assert one.ratio * other.ratio == pytest.approx(1, rel=0.01)
    assert one.low * other.high == pytest.approx(1, rel=0.01)


def test_practice_runs_stay_out():
    runs = [
        edge("A", 20, 1),
        edge("B", 30, 1),
        RunSeries("B", 2, 1, edge("B", 60, 2).checks, practice=True),
    ]
    assert [b.edges for b in analyse(runs, MATCHED, RULE, Method()).blades] == [1, 1]


def test_the_headline_ranks_names_the_unfair_blade_and_says_what_is_open():
    known = MATCHED | {"C": facts("C", grade="1.2436", thickness=0.71)}
    analysis = trial({"A": 14, "B": 24, "C": 30}, known)
    said = headline(analysis, "dull")
    assert said.startswith("To dull, B outlasts A by")
    assert "C is not ranked: thickness behind the edge differs by 0.35 mm" in said
    assert "the answer holds for the steel" in standing_words(analysis, "dull")


def test_blades_that_cannot_be_told_apart_are_bracketed_together():
    analysis = trial({"A": 20, "B": 20.5, "C": 45}, MATCHED)
    assert [sorted(group) for group in tie_groups(analysis, "dull")] == [["A", "B"]]


def test_cuts_and_lengths_are_not_compared_but_lengths_are():
    def run(blade, life, unit, scale):
        checks = tuple(
            Check(c.count * scale, c.kind, c.force_gf) for c in edge(blade, life, 1).checks
        )
        return RunSeries(blade, 1, 1, checks, unit)

    mixed = analyse([run("A", 20, "m", 1), run("B", 30, "cuts", 1)], {}, RULE, Method())
    assert mixed.comparisons == ()
    assert "cannot be compared" in note_words(mixed.notes[0])
    feet = analyse([run("A", 20, "m", 1), run("B", 30, "ft", 1 / 0.3048)], {}, RULE, Method())
    assert dull(feet)["A", "B"].ratio == pytest.approx(1.5, rel=0.15)


def test_pass_fail_blades_are_compared_by_their_brackets():
    def run(blade, number, last_pass, first_fail):
        checks = (
            Check(last_pass, "paper", outcome="pass"),
            Check(first_fail, "paper", outcome="fail"),
        )
        return RunSeries(blade, number, 1, checks)

    apart = analyse(
        [run("A", 1, 40, 44), run("A", 2, 42, 46), run("B", 1, 80, 84), run("B", 2, 78, 82)],
        {},
        RULE,
        Method(),
    )
    (found,) = apart.comparisons
    assert (found.stage, found.verdict) == ("working", "longer")
    overlapping = analyse([run("A", 1, 48, 60), run("B", 1, 50, 64)], {}, RULE, Method())
    assert overlapping.comparisons[0].verdict == "not_enough_evidence"


def test_edges_that_contradict_each_other_give_a_wide_answer_and_no_breakdown():
    runs = [edge("A", 8, 1), edge("A", 40, 2), edge("B", 20, 1), edge("B", 20, 2)]
    analysis = analyse(runs, MATCHED, RULE, Method())
    found = analysis.blades[0].lives["dull"].found
    assert np.log(found.high / found.low) > 1.0, "against about 0.2 for edges that agree"
    assert any(
        "A's edges 1 and 2 contradict each other; cut a third edge" in note_words(note)
        for note in analysis.notes
    )


def test_the_spread_of_edges_is_that_inside_the_blocks():
    rng = np.random.default_rng(8)
    truth = {
        (blade, edge, edge): level + own + 0.03 * rng.normal()
        for edge, level in enumerate(rng.normal(0, 0.3, 40))
        for blade, own in (("A", 3.0), ("B", 3.2))
    }
    inside = levelled(truth)
    for blade in "AB":
        own = [value for place, value in inside.items() if place[0] == blade]
        assert np.std(own, ddof=1) == pytest.approx(0.03, rel=0.3)
    assert levelled({("A", 1, 1): 3.0, ("B", 2, 2): 3.1}) == {}, "nothing tells levels from edges"
    assert levelled({}) == {}, "no edge has a life of its own: all still hold"


def test_neighbours_that_are_alike_do_not_make_the_ends_alike():
    steps = [
        edge(code, life, n)
        for code, life in zip("ABCD", (14, 15.5, 17, 20), strict=True)
        for n in (1, 2)
    ]
    words = headline(analyse(steps, {}, RULE, Method()), "dull")
    assert words.startswith("To dull, D outlasts A by")
    assert "in the order D, C, B, A neighbours cannot be told apart yet" in words


def test_an_excluded_claim_takes_the_name_away_where_steels_are_compared_and_fairness_elsewhere():
    sold = Claimed("1.2436", "excluded", ("1.2363",))
    known = MATCHED | {"B": replace(facts("B", grade="1.2436"), claim=sold)}
    found = dull(trial({"A": 20, "B": 30}, known))["A", "B"]
    assert (found.verdict, found.scope) == ("longer", "these blades")
    assert "B's result holds for this blade, not for 1.2436" in reason_words(
        found.reasons[-1], RULE
    )
    same = {"A": facts("A", grade="1.2436"), "B": known["B"]}
    elsewhere = dull(trial({"A": 20, "B": 30}, same, MatchingRule("angle")))["A", "B"]
    assert elsewhere.verdict == "confounded"
