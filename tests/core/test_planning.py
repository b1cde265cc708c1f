"""Plans: fair orders, what schedules are expected to use and reach, and what it all costs."""

from collections import Counter
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.errors import OutOfRangeError
from kessik.core.planning.budget import Pace, budget
from kessik.core.planning.calendar import dated_work
from kessik.core.planning.expected import ExpectedRun, expected_run
from kessik.core.planning.order import order_in_rounds, order_of
from kessik.core.planning.starting_life import KnownLife, StartingLife, starting_life
from kessik.core.protocols.methods import Method, force_limit_rope
from kessik.core.protocols.schools import BY_SCHOOL

CODES = "ABCDEFGH"


def permutation(seed):
    rng = np.random.default_rng(seed)
    return lambda n: rng.permutation(n).tolist()


@given(
    st.integers(1, 8),
    st.integers(1, 8),
    st.sampled_from(["latin_square", "shuffle"]),
    st.integers(0, 99),
)
def test_every_block_holds_each_blade_once(blades, edges, kind, seed):
    places = order_of(CODES[:blades], edges, kind, permutation(seed))
    for block in range(1, edges + 1):
        row = [p for p in places if p.block == block]
        assert sorted(p.blade for p in row) == list(CODES[:blades])
        assert [p.place for p in row] == list(range(1, blades + 1))
    assert order_of(CODES[:blades], edges, kind, permutation(seed)) == places, (
        "the same seed, the same order"
    )


@given(st.integers(2, 8), st.integers(0, 99))
def test_a_latin_square_moves_every_blade_through_every_place_once(blades, seed):
    places = order_of(CODES[:blades], blades, "latin_square", permutation(seed))
    seen = Counter((p.blade, p.place) for p in places)
    assert set(seen.values()) == {1}
    assert len(seen) == blades**2


def test_two_blades_there_and_back():
    row = "".join(p.blade for p in order_of("AB", 4, "abba", permutation(3)))
    assert row in ("ABBAABBA", "BAABBAAB")
    with pytest.raises(OutOfRangeError, match="use the Latin square") as refused:
        order_of("ABC", 2, "abba", permutation(0))
    assert refused.value.field == "order_kind"


@given(st.integers(2, 7), st.integers(0, 99))
def test_zones_are_balanced_over_blades_and_over_any_three_blocks(blades, seed):
    places = order_of(CODES[:blades], 6, "latin_square", permutation(seed), thirds=True)
    for code in CODES[:blades]:
        thirds = [p.third for p in places if p.blade == code]
        assert all(len(set(thirds[at : at + 3])) == 3 for at in range(4)), (
            "heel, middle and tip once in any three"
        )
    for block in range(1, 7):
        used = Counter(p.third for p in places if p.block == block)
        assert max(used.values()) - min(used.values() if len(used) == 3 else [0]) <= 1 or blades < 3


def test_work_is_spread_over_days_within_the_hours_and_the_hand():
    places = order_of("AB", 2, "latin_square", permutation(1))
    ahead = {"A": ExpectedRun(20, 100.0, 10.0, 0.1), "B": ExpectedRun(20, 100.0, 10.0, 0.1)}
    pace = Pace(cut_s=36, reading_s=36, sharpening_min=30, cuts_a_day=150)
    work = dated_work(places, ahead, {"A": 1}, Method(), pace, hours_a_day=4)
    assert sum(len(w.blades) for w in work if w.kind == "prepare") == 3, (
        "one edge of A is cut already"
    )
    assert {w.kind for w in work if w.block == 2} == {"prepare", "verify"}
    for day in {w.day for w in work}:
        assert sum(w.hours for w in work if w.day == day) <= 4
        assert sum(w.cuts for w in work if w.day == day) <= 150
    assert [w.day for w in work] == sorted(w.day for w in work)
    assert dated_work(places, ahead, {"A": 2, "B": 2}, Method(), pace, 4) == []


def test_pass_and_fail_leave_a_bracket_as_wide_as_the_gap_and_a_dose_costs_what_it_says():
    paper = BY_SCHOOL["paper_stop_rope"]
    dense, sparse = (expected_run(replace(paper, every=gap), 40) for gap in (2, 10))
    assert dense.log_sd < sparse.log_sd
    assert sparse.log_sd == pytest.approx(10 / 40 / 12**0.5)
    dose = expected_run(BY_SCHOOL["fixed_dose"], 20)
    assert (dose.cuts, dose.readings) == (50, 6)


EVERY, FOURTH, ADAPTIVE = (
    force_limit_rope(schedule="every"),
    force_limit_rope(schedule="every", every=4),
    Method(),
)


def test_fewer_checks_use_fewer_readings_and_reach_less():
    dense, sparse = expected_run(EVERY, 12), expected_run(FOURTH, 12)
    assert dense.readings > sparse.readings
    assert dense.high - dense.low < sparse.high - sparse.low


def test_adaptive_checks_save_most_on_long_lives_and_little_on_short_ones():
    # page 03 section 12: no saving below 8 cuts, two thirds saved above 32 cuts
    def share(life):
        return expected_run(ADAPTIVE, life).readings / expected_run(EVERY, life).readings

    assert share(5) > 0.8
    assert share(60) < 0.4
    assert share(170) < share(60) < share(20) < share(5)


@given(st.floats(1, 5000), st.sampled_from([EVERY, FOURTH, ADAPTIVE]))
def test_what_is_expected_is_possible(life, method):
    found = expected_run(method, life)
    assert found.low < life < found.high
    assert found.readings >= 3
    assert found.cuts >= 1


@pytest.mark.parametrize("life", [0.5, 6000])
def test_a_life_nobody_can_plan_for_is_refused(life):
    with pytest.raises(OutOfRangeError, match="1 to 5000") as refused:
        expected_run(EVERY, life)
    assert refused.value.field == "expected_life"


def test_a_budget_by_hand():
    runs = [ExpectedRun(20, 24.0, 14.0, 0.08), ExpectedRun(40, 48.0, 16.0, 0.08)]
    pace = Pace(30, 20, sharpening_min=15, advance_mm=25, offcut_m=0.5, line_mm=100, cuts_a_day=50)
    cost = budget(runs, Method(), pace)
    assert (cost.runs, cost.cuts, cost.readings) == (2, 72.0, 30.0)
    assert cost.medium_m == pytest.approx(72 * 0.025 + 2 * 0.5)
    assert cost.line_m == pytest.approx(3.0)
    assert cost.hours == pytest.approx((72 * 30 + 30 * 20) / 3600 + 0.5)
    assert cost.days == 2
    assert budget([], Method(), Pace()).days == 0


@pytest.mark.parametrize("field", ["cut_s", "advance_mm", "line_mm", "cuts_a_day"])
def test_a_pace_that_cannot_be_is_refused_at_its_field(field):
    with pytest.raises(OutOfRangeError) as refused:
        Pace(**{field: -1}).check()
    assert refused.value.field == field


def test_a_plan_begins_with_what_is_known_and_says_which():
    rope, board = BY_SCHOOL["force_limit_rope"], BY_SCHOOL["two_stage_board"]
    known = [
        KnownLife("b1", "two_stage_board", "board", "m", 60.96),
        KnownLife("b2", "two_stage_board", "board", "ft", 300.0),
        KnownLife("b3", "force_limit_rope", "rope", "cuts", 35.0),
    ]
    assert starting_life("b1", 18.0, 25.0, rope, known) == StartingLife(18.0, "own_runs")
    assert starting_life("b1", None, 25.0, rope, known) == StartingLife(25.0, "typed")
    # 60.96 m are 200 ft
    assert starting_life("b1", None, None, board, known).life == pytest.approx(200.0)
    # between 200 and 300 ft
    others = starting_life("b9", None, None, board, known)
    assert (others.life, others.basis, others.blades) == (pytest.approx(250.0), "others", 2)
    assert starting_life("b9", None, None, board, []) == StartingLife(200.0, "usual")
    in_metres = replace(board, count_unit="m", every=3)
    assert starting_life("b9", None, None, in_metres, []).life == pytest.approx(60.96)


def test_a_blade_keeps_one_regime_until_its_rounds_are_over():
    places = order_in_rounds(
        {"A": ["A coarse", "A fine"], "B": ["B coarse"]}, 3, "latin_square", lambda n: range(n)
    )
    of_a = [(p.blade, p.edge) for p in places if p.blade.startswith("A")]
    assert of_a == [("A coarse", n) for n in (1, 2, 3)] + [("A fine", n) for n in (1, 2, 3)]
    assert [p.edge for p in places if p.blade == "B coarse"] == [1, 2, 3]
