"""A choice weighed: against brute force, by hand, and never an average for what is not known."""

import math
from itertools import product

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.choice.axes import AXES, Choosable, Figure, exact
from kessik.core.choice.decision import MOST_WEIGHT, decide
from kessik.core.choice.upkeep import (
    CostAssumptions,
    cost_of_cutting,
    per,
    upkeep_of,
)
from kessik.core.sharpening.reangling import reangling
from kessik.core.shelf.edges import Edge

KEYS = [axis.key for axis in AXES]
positive = st.floats(0.2, 5.0)
weight = st.floats(0.0, MOST_WEIGHT)


def candidate(name, **figures):
    return Choosable(name, name, figures={k: exact(v, "") for k, v in figures.items()})


def first(candidates, weights):
    ranked = decide(candidates, weights).ranked
    return ranked[0].id if ranked else None


@st.composite
def fields(draw):
    count = draw(st.integers(2, 6))
    return [
        candidate(f"C{n}", **{key: draw(positive) for key in ("edge", "price", "upkeep")})
        for n in range(count)
    ]


@given(fields(), weight, weight, weight)
def test_flips_are_where_trying_every_weight_finds_them(candidates, edge, price, upkeep):
    weights = {"edge": edge, "price": price, "upkeep": upkeep}
    found = decide(candidates, weights)
    if not found.ranked:
        return
    for flip in found.flips:
        beyond = flip.weight + (1e-4 if flip.upwards else -1e-4)
        before = flip.weight - (1e-4 if flip.upwards else -1e-4)
        if min(beyond, before) > 0:
            changed = {**weights, flip.axis: beyond}
            scores = {c.id: score(c, changed) for c in candidates}
            assert max(scores.values()) - scores[flip.id] < 1e-2
    tried = [MOST_WEIGHT * n / 50 for n in range(1, 51)]
    for axis in [axis for axis in weights if weights[axis] > 0]:
        lows = [f.weight for f in found.flips if f.axis == axis and not f.upwards]
        highs = [f.weight for f in found.flips if f.axis == axis and f.upwards]
        low, high = max(lows, default=0.0), min(highs, default=MOST_WEIGHT)
        for value in tried:
            if low + 1e-3 < value < high - 1e-3:
                changed = {**weights, axis: value}
                best = max(score(c, changed) for c in candidates)
                own = next(c for c in candidates if c.id == found.ranked[0].id)
                assert best - score(own, changed) < 1e-6


def score(candidate, weights):
    """The weighted sum, written out."""
    found = 0.0
    for axis in AXES:
        if weights.get(axis.key, 0) > 0:
            value = math.log(candidate.figures[axis.key].value)
            found += weights[axis.key] * (value if axis.more_is_better else -value)
    return found


@given(fields())
def test_beaten_is_what_brute_force_finds_beaten(candidates):
    found = decide(candidates, {"edge": 5, "price": 5, "upkeep": 5})
    for standing in found.ranked:
        own = next(c for c in candidates if c.id == standing.id)
        beaters = [other for other in candidates if other is not own and beats(other, own)]
        assert bool(standing.beaten_by) == bool(beaters)


def beats(one, other):
    gains = [
        (one.figures["edge"].value / other.figures["edge"].value),
        (other.figures["price"].value / one.figures["price"].value),
        (other.figures["upkeep"].value / one.figures["upkeep"].value),
    ]
    return min(gains) >= 1 - 1e-9 and max(gains) > 1 + 1e-9


def test_weights_are_exchange_rates():
    """At twice the weight 10 % more edge makes good a price 21 % higher, by hand."""
    dear, cheap = candidate("dear", edge=1.1, price=1.2), candidate("cheap", edge=1.0, price=1.0)
    assert first([dear, cheap], {"edge": 6, "price": 3}) == "dear"
    found = decide([dear, cheap], {"edge": 6, "price": 3}).bargain
    assert found.worth == pytest.approx(1.21)
    assert found.price_ratio == pytest.approx(1.2)
    dearer = candidate("dear", edge=1.1, price=1.22)
    assert first([dearer, cheap], {"edge": 6, "price": 3}) == "cheap"


def test_what_is_not_known_is_never_an_average():
    known = candidate("known", edge=1.0, rust=4.0)
    unknown = candidate("unknown", edge=1.5)
    found = decide([known, unknown], {"edge": 5, "rust": 5})
    assert [standing.id for standing in found.ranked] == ["known"]
    (missing,) = found.missing
    assert missing.unknown == ("rust",)
    tipping = candidate("unknown", edge=1.5, rust=missing.needed)
    assert decide([known, tipping], {"edge": 5, "rust": 5}).ranked[1].behind == pytest.approx(0)
    assert decide([known, unknown], {"edge": 5}).ranked[0].id == "unknown"


def test_a_difference_within_doubt_is_marked_and_beats_nobody_surely():
    wide = [
        Choosable("a", "a", figures={"edge": Figure(1.1, 0.8, 1.5, "")}),
        Choosable("b", "b", figures={"edge": Figure(1.0, 0.75, 1.35, "")}),
    ]
    found = decide(wide, {"edge": 5})
    assert found.ranked[1].is_within_doubt
    assert found.ranked[1].beaten_by == "a"
    assert not found.ranked[1].is_beaten_surely
    assert 0.2 < found.ranked[1].chance < 0.5


def test_nothing_weighed_or_nothing_known_has_no_first():
    one = candidate("one", edge=1.0)
    assert decide([one], {}).ranked == ()
    assert decide([], {"edge": 5}).ranked == ()
    assert decide([one], {"price": 5}).missing[0].unknown == ("price",)


def test_upkeep_leaves_out_the_edge_that_set_the_bevel():
    edges = [
        Edge("1", "b", 1, factory=True),
        Edge("2", "b", 2, minutes=35.0),
        Edge("3", "b", 3, minutes=11.0, trouble="burr clung"),
        Edge("4", "b", 4, minutes=10.0),
    ]
    found = upkeep_of({"b": edges}, {})["b"]
    assert found.sharpenings == 2
    assert found.minutes.value == pytest.approx(math.sqrt(110.0))
    assert found.minutes.low < 10.0 < 11.0 < found.minutes.high
    assert found.trouble == 0.5
    assert upkeep_of({"b": [Edge("3", "b", 3)]}, {})["b"].minutes is None


def test_cost_by_hand():
    """640 over 24 lives of 24 cuts is 1.11 a cut; 16 min at 200 an hour 2.22 more."""
    life, steel = exact(24.0, "cuts"), exact(0.25, "mm")
    price, minutes = exact(640.0, "kr"), exact(16.0, "min")
    bare = cost_of_cutting(price, life, steel, None, CostAssumptions(6.0, 0.0), 1.0)
    assert bare.value == pytest.approx(640 / (24 * 24))
    timed = cost_of_cutting(price, life, steel, minutes, CostAssumptions(6.0, 200.0), 1.0)
    assert timed.value == pytest.approx(640 / 576 + 200 * 16 / 60 / 24)
    assert per(minutes, life, 100.0, "min").value == pytest.approx(16 / 24 * 100)


def test_re_angling_by_hand():
    """0.4 mm from 52 to 40 degrees in all: 0.5 x 0.4 x (0.549 - 0.410) = 0.028 mm2."""
    found = reangling(0.4, 26.0, 20.0, 0.25)
    assert found.steel_mm2 == pytest.approx(0.0279, abs=2e-4)
    assert found.apex_back_mm == 0.0
    assert found.sharpenings == pytest.approx(0.279, abs=2e-3)
    back = reangling(0.4, 20.0, 26.0, None)
    assert back.apex_back_mm == pytest.approx(0.139, abs=1e-3)
    assert (back.steel_mm2, back.sharpenings) == (pytest.approx(found.steel_mm2), None)


def test_every_axis_is_weighed_in_its_own_direction():
    for key, more in product(KEYS, (2.0,)):
        low, high = candidate("low", **{key: 1.0}), candidate("high", **{key: more})
        better = next(axis.more_is_better for axis in AXES if axis.key == key)
        assert first([low, high], {key: 5}) == ("high" if better else "low")
