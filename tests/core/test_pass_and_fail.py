"""Runs by pass and fail, as testers keep them on paper: what each record proves, worked out by
hand.
"""

import math
from itertools import chain

import pytest
import scipy

from kessik.core.comparison.analysis import analyse
from kessik.core.comparison.lives import BladeEdges, Bracket, solve
from kessik.core.comparison.matching import MatchingRule
from kessik.core.comparison.ratios import all_ratios
from kessik.core.protocols.methods import Method
from kessik.core.protocols.schools import BY_SCHOOL
from kessik.core.protocols.series import Check, RunSeries
from kessik.core.sharpness.life import AsWritten, BeforeFirstCheck, Bracketed, NotReached
from kessik.core.words.notes import note_words
from kessik.core.words.verdict import headline

RULE = MatchingRule()
PUSH_CUT, PAPER_STOP = BY_SCHOOL["push_cut_board"], BY_SCHOOL["paper_stop_rope"]


def looks(text, kind="paper", stage=None, at_mm=None):
    """Checks from `82 pass, 84 fail`."""
    pairs = (part.split() for part in text.split(","))
    return [
        Check(float(n), kind, outcome=said, stage=stage, position_mm=at_mm) for n, said in pairs
    ]


def run(blade, edge, *checks, **rest):
    return RunSeries(blade, edge, 1, tuple(sorted(chain(*checks), key=lambda c: c.count)), **rest)


def working(blade, edge, text, **rest):
    return run(blade, edge, looks(text, stage="working"), **rest)


def answer(*runs, method=None):
    return analyse(list(runs), {}, RULE, method or Method())


def pair(analysis, stage="working"):
    (found,) = [c for c in analysis.comparisons if c.stage == stage]
    return found


def test_ordered_stages_share_what_they_prove():
    # Deformation seen at 70, hair fails at 84 and paper with it: paper was first asked when hair
    # had failed, and hair at 82 proves that paper would have passed there.
    found = answer(
        run(
            "A", 1,
            looks("65 pass, 70 fail", "inspect"),
            looks("75 pass, 82 pass, 84 fail", "hair_sample"),
            looks("84 fail", "paper"),
        ),
        method=PUSH_CUT,
    )  # fmt: skip  # a record is read by its rows
    lives = {stage: life.life.found for stage, life in found.runs[0].lives.items()}
    assert lives["deformation"] == Bracketed(65, 70)
    assert lives["fine"] == Bracketed(82, 84)
    assert lives["working"] == Bracketed(82, 84)


def test_what_is_gone_bounds_the_earlier_stage_from_above():
    found = answer(
        run("A", 1, looks("10 pass", "hair_sample"), looks("10 pass, 20 pass, 30 fail", "paper")),
        method=PUSH_CUT,
    )
    assert found.runs[0].lives["fine"].life.found == Bracketed(10, 30)


def test_a_check_beside_the_zone_is_a_control_and_bounds_nothing():
    worked = looks("10 pass, 20 fail", stage="working", at_mm=40.0)
    beside = looks("20 pass, 30 pass", stage="working", at_mm=90.0)
    found = answer(run("A", 1, worked, beside, worked_mm=(12.0, 76.0)))
    assert found.runs[0].lives["working"].life.found == Bracketed(10, 20)


def test_a_written_total_stays_as_it_was_written():
    # A lone failing count is a total. Nobody knows the gap: 10 % of 84, common practice.
    lone = answer(working("A", 1, "84 fail"))
    assert lone.runs[0].lives["working"].life.found == AsWritten(84, pytest.approx(8.4), True)
    assert [note_words(note) for note in lone.notes] == [
        "1 run was written down as totals, without the gap of the checks; each total is taken to be"
        " 10 % wide (common practice)"
    ]
    told = answer(working("A", 1, "84 fail", check_every=4.0))
    assert told.runs[0].lives["working"].life.found == AsWritten(84, 4.0)
    assert told.notes == ()
    at_the_bench = answer(working("A", 1, "84 fail", passes_noted=True))
    assert at_the_bench.runs[0].lives["working"].life.found == BeforeFirstCheck(84)


def test_a_bare_total_is_as_wide_as_the_other_runs_and_weighs_as_written():
    # The other runs left 5 of 100 and 10 of 100 open: 7.5 % in the middle.
    found = answer(
        working("A", 1, "95 pass, 100 fail"),
        working("A", 2, "90 pass, 100 fail"),
        working("B", 1, "150 fail"),
        working("C", 1, "120 fail"),
    )
    totals = [r.lives["working"].life.found for r in found.runs[2:]]
    assert totals == [
        AsWritten(150, pytest.approx(11.25), True),
        AsWritten(120, pytest.approx(9.0), True),
    ]
    ratio = next(c for c in found.comparisons if (c.a, c.b) == ("B", "C"))
    assert ratio.ratio == pytest.approx(120 / 150, rel=0.002)
    assert len(found.notes) == 1, "ten rows with one reason give one note"


def test_an_answer_that_hangs_on_one_edge_says_so():
    # A: 410, 412, 190; B: 268, 270, 269. Without 190, 411/269 is 53 % longer; with every edge
    # weighing alike (410 · 412 · 190)^(1/3) = 317.7, 18 % longer.
    lives = {"A": (410, 412, 190), "B": (268, 270, 269)}
    found = answer(
        *(
            working(code, n, f"{life - 1} pass, {life} fail")
            for code, own in lives.items()
            for n, life in enumerate(own, 1)
        )
    )
    assert headline(found, "working") == (
        "To the end of the working edge, A outlasts B by 53 % without A's edge 3, by 18 % with it;"
        " edge 3 lasted 189 where the others lasted 410 cuts."
    )
    spread = {blade.blade: blade.spread_percent for blade in found.blades}
    assert spread["A"] == pytest.approx(44.5, abs=0.5), "of the edges that one sees"
    assert spread["B"] == pytest.approx(0.4, abs=0.1)


def test_two_edges_that_contradict_each_other_reach_the_headline():
    lives = {"A": (412, 190), "B": (268, 270)}
    said = headline(
        answer(
            *(
                working(code, n, f"{life - 1} pass, {life} fail")
                for code, own in lives.items()
                for n, life in enumerate(own, 1)
            )
        ),
        "working",
    )
    assert "edges 1 and 2 of A contradict each other (411 and 189 cuts)" in said
    assert "A outlasts B by 53 % by edge 1 alone, and B outlasts A by 42 % by edge 2 alone" in said


def test_a_life_that_was_not_reached_has_a_bound_and_no_ratio():
    two = [working("A", n, "120 pass, 122 fail") for n in (1, 2)]
    found = pair(answer(*two, *(working("B", n, "160 pass") for n in (1, 2))))
    assert (found.ratio, found.high, found.verdict) == (None, None, "longer")
    assert 1.0 < found.low < 160 / 120
    assert "outlasts A by at least" in headline(
        answer(*two, *(working("B", n, "160 pass") for n in (1, 2))), "working"
    )


def test_two_that_were_not_reached_both_still_pass():
    both = answer(working("A", 1, "140 pass"), working("B", 1, "150 pass"))
    found = pair(both)
    assert (found.ratio, found.low, found.high) == (None, None, None)
    assert found.verdict == "both_not_reached"
    assert "both still pass at 140 cuts" in headline(both, "working")
    assert both.blades[0].lives["working"].found == NotReached(140)


@pytest.mark.parametrize(("last", "first"), [(140.0, 125.0), (400.0, 100.0)])
def test_a_one_sided_life_is_never_called_shorter_than_its_bound(last, first):
    # However far the open one really goes, the bound may not lie above what was seen.
    found = pair(
        answer(working("A", 1, f"{first} pass, {first + 1} fail"), working("B", 1, f"{last} pass"))
    )
    assert found.low <= last / first


def test_the_bound_agrees_with_normal_theory_where_the_spread_is_known():
    # One edge each, heavy tails aside: P(T > L) = 0.025 at ln L - 1.96 sd of the difference
    # (textbook; SciPy's normal quantile).
    (ratio,) = all_ratios(
        solve(
            [
                BladeEdges("A", tuple((Bracket(99.9, 100.1),) for _ in range(6))),
                BladeEdges("B", tuple((Bracket(200.0, None),) for _ in range(1))),
            ]
        )
    )
    spread = 0.042  # of edges, at the middle of its prior
    error = spread * math.sqrt(1 + 1 / 6)
    normal = 2.0 * math.exp(scipy.special.ndtri(0.025) * error)
    assert ratio.at_95.low == pytest.approx(normal, rel=0.08)
    assert ratio.open_end == "above"


def test_two_edges_that_contradict_each_other_hold_both_and_ask_for_a_third():
    found = answer(working("A", 1, "188 pass, 190 fail"), working("A", 2, "408 pass, 410 fail"))
    life = found.blades[0].lives["working"].found
    assert life.low < 190
    assert life.high > 408
    (note,) = [n for n in map(note_words, found.notes) if "contradict" in n]
    assert "edges 1 and 2" in note
    assert "a third edge" in note


def test_a_third_edge_names_the_odd_one_and_gives_both_answers():
    found = answer(
        working("A", 1, "188 pass, 190 fail"),
        working("A", 2, "408 pass, 410 fail"),
        working("A", 3, "414 pass, 416 fail"),
    )
    life = found.blades[0].lives["working"].found
    assert life.estimate == pytest.approx(412, rel=0.02)
    (note,) = [n for n in map(note_words, found.notes) if "does not fit" in n]
    assert note.startswith("working: A, edge 1 does not fit the others; with it the life is 41")
    assert "check burr, angle" in note


def test_blocks_count_each_by_itself_whatever_its_level():
    levels = (1.0, 0.6, 1.5)
    runs = [
        working(
            code,
            n,
            f"{round(100 * level * times)} pass, {round(102 * level * times)} fail",
            block=n,
        )
        for code, times in (("A", 1.0), ("B", 1.2))
        for n, level in enumerate(levels, 1)
    ]
    found = pair(answer(*runs))
    assert found.ratio == pytest.approx(1.2, rel=0.02)
    assert found.high / found.low < 1.2
    loose = pair(answer(*(RunSeries(r.blade, r.edge, 1, r.checks) for r in runs)))
    assert loose.high / loose.low > 2, "without blocks the levels are taken for scatter"


def test_a_verification_is_answered():
    held = answer(
        working("A", 1, "60 pass, 62 fail"),
        working("A", 2, "60.5 pass, 62.5 fail", verifies=(1, 1)),
    )
    # Half a per cent of check width each, and 4.2 % from edge to edge: repeats differ by up to
    # exp(1.96 · √(2 · 0.0424² + 2 · 0.0095²)) − 1 = 13 %.
    (said,) = map(note_words, held.notes)
    assert said == (
        "A, edge 2 verifies edge 1 to working: 61 and 61.5 cuts agree within 0.8 %; repeats of"
        " these blades differ by up to 13 %"
    )
    apart = answer(
        working("A", 1, "60 pass, 61 fail"), working("A", 2, "74 pass, 75 fail", verifies=(1, 1))
    )
    told = " ".join(map(note_words, apart.notes))
    assert "differ by 23 %, and repeats of these blades differ by up to 13 %" in told
    assert "Cut a third edge, and check" in told


def test_a_verification_is_not_held_against_check_width_alone():
    runs = [working("A", 1, "370 pass, 371 fail"), working("A", 2, "371 pass, 372 fail",
        verifies=(1, 1))]  # fmt: skip
    (said,) = map(note_words, answer(*runs).notes)
    assert "agree within 0.3 %" in said


def test_a_single_blade_gets_its_own_answer():
    alone = answer(working("A", 1, "60 pass, 62 fail"), working("A", 2, "61 pass, 63 fail"))
    said = headline(alone, "working")
    assert said.startswith("A alone, to the end of the working edge: 6")
    assert "over 2 edges, whose lives spread by" in said


def test_many_blades_are_told_in_groups():
    lives = {"A": 60, "B": 100, "C": 102, "D": 200}
    runs = [
        working(code, n, f"{life + n} pass, {life + n + 1} fail")
        for code, life in lives.items()
        for n in range(4)
    ]
    said = headline(answer(*runs), "working")
    assert said.startswith(
        "To the end of the working edge, longest first: D, then C and B together, then A. D"
        " outlasts"
    )
    assert said.count(".") == 2, "at most two sentences"


def test_a_blade_that_was_only_looked_at_fresh_says_nothing_and_spoils_nothing():
    cut = [working("A", 1, "60 pass, 62 fail"), working("C", 1, "2 fail")]
    found = answer(*cut, working("B", 1, "0 pass"))
    for pair_with_b in (c for c in found.comparisons if "B" in (c.a, c.b)):
        assert pair_with_b.verdict == "not_enough_evidence"
        assert (pair_with_b.ratio, pair_with_b.low, pair_with_b.high) == (None, None, None)
    assert headline(found, "working")


def test_edges_that_contradict_each_other_are_named_in_blocks_too_and_levels_are_not():
    own = [
        working("A", 1, "188 pass, 190 fail", block=1),
        working("A", 2, "408 pass, 410 fail", block=2),
    ]
    steady = [working("B", n, f"{300 + n} pass, {302 + n} fail", block=n) for n in (1, 2)]
    named = [n for n in map(note_words, answer(*own, *steady).notes) if "contradict" in n]
    assert [note.startswith("working: A's edges 1 and 2") for note in named] == [True]
    levels = [
        working(code, n, f"{base * level} pass, {base * level + 2} fail", block=n)
        for code, base in (("A", 100), ("B", 120))
        for n, level in ((1, 1), (2, 2))
    ]
    assert not [n for n in map(note_words, answer(*levels).notes) if "contradict" in n]


def zoned(blade, edge, zone_mm, block, text):
    number = 1 if zone_mm[0] == 0 else 2
    checks = tuple(looks(text, stage="working"))
    return RunSeries(blade, edge, number, checks, worked_mm=zone_mm, block=block)


def test_two_zones_of_one_sharpening_are_one_edge_in_every_sum():
    # A: 100 and 110 on two zones of edge 3; B: 150 and 165. Each zone of A is one third shorter.
    heel, tip = (0.0, 48.0), (48.0, 96.0)
    zones = [
        zoned("A", 3, heel, None, "99 pass, 101 fail"),
        zoned("A", 3, tip, None, "109 pass, 111 fail"),
        zoned("B", 3, heel, None, "149 pass, 151 fail"),
        zoned("B", 3, tip, None, "164 pass, 166 fail"),
    ]
    found = answer(*zones)
    assert pair(found).ratio == pytest.approx(1.5, rel=0.01)
    assert {blade.blade: blade.edges for blade in found.blades} == {"A": 1, "B": 1}
    assert all(blade.spread_percent is None for blade in found.blades), "one edge has no spread"
    two_edges = answer(*(RunSeries(r.blade, r.edge + n, 1, r.checks) for n, r in enumerate(zones)))
    assert pair(found).high / pair(found).low > pair(two_edges).high / pair(two_edges).low


def test_zones_cut_from_one_piece_compare_inside_the_piece():
    # Two pieces of board, the second half as hard on edges: only inside a piece they compare.
    heel, tip = (0.0, 48.0), (48.0, 96.0)
    runs = [
        zoned("A", 3, heel, 1, "99 pass, 101 fail"), zoned("A", 3, tip, 2, "199 pass, 201 fail"),
        zoned("B", 3, heel, 1, "149 pass, 151 fail"), zoned("B", 3, tip, 2, "299 pass, 301 fail"),
    ]  # fmt: skip  # a blade a line
    found = pair(answer(*runs))
    assert found.ratio == pytest.approx(1.5, rel=0.01)
    assert found.high / found.low < 1.6, "the levels of the pieces cancel"
