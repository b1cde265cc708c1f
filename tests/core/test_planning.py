"""Plans: fair orders, what schedules are expected to use and reach, and what it all costs."""

from collections import Counter

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.errors import OutOfRangeError
from kessik.core.planning.budget import Pace, budget
from kessik.core.planning.expected import ExpectedRun, expected_run
from kessik.core.planning.order import order_of
from kessik.core.protocols.methods import Method, force_limit_rope

CODES = "ABCDEFGH"


def permutation(seed):
    rng = np.random.default_rng(seed)
    return lambda n: rng.permutation(n).tolist()


@given(st.integers(1, 8), st.integers(1, 8), st.sampled_from(["latin_square", "shuffle"]), st.integers(0, 99))
def test_every_block_holds_each_blade_once(blades, edges, kind, seed):
    places = order_of(CODES[:blades], edges, kind, permutation(seed))
    for block in range(1, edges + 1):
        row = [p for p in places if p.block == block]
        assert sorted(p.blade for p in row) == list(CODES[:blades])
        assert [p.place for p in row] == list(range(1, blades + 1))
    assert order_of(CODES[:blades], edges, kind, permutation(seed)) == places, "the same seed, the same order"


@given(st.integers(2, 8), st.integers(0, 99))
def test_a_latin_square_moves_every_blade_through_every_place_once(blades, seed):
    places = order_of(CODES[:blades], blades, "latin_square", permutation(seed))
    seen = Counter((p.blade, p.place) for p in places)
    assert set(seen.values()) == {1}
    assert len(seen) == blades**2


def test_two_blades_there_and_back():
    row = "".join(p.blade for p in order_of("AB", 4, "abba", permutation(3)))
    assert row in ("ABBAABBA", "BAABBAAB")
    with pytest.raises(OutOfRangeError, match="take the Latin square") as refused:
        order_of("ABC", 2, "abba", permutation(0))
    assert refused.value.field == "order_kind"


EVERY, FOURTH, ADAPTIVE = force_limit_rope(schedule="every"), force_limit_rope(schedule="every", every=4), Method()


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
