"""The order of a gauge study: complete, blind, and never the same part twice in a row."""

from itertools import pairwise

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.errors import OutOfRangeError
from kessik.core.gauge.order import Turn, blind_order


def order(parts=5, operators=("A", "B"), repeats=3, seed=1):
    permutation = np.random.default_rng(seed).permutation
    return blind_order(parts, operators, repeats, lambda n: list(permutation(n)))


@given(st.integers(1, 12), st.integers(1, 4), st.integers(2, 5), st.integers(0, 99))
def test_every_part_once_a_round_by_everyone(parts, operators, repeats, seed):
    names = [f"operator {n}" for n in range(operators)]
    turns = order(parts, names, repeats, seed)
    assert {(t.part, t.operator, t.round) for t in turns} == {
        (str(part + 1), name, number + 1)
        for part in range(parts) for name in names for number in range(repeats)
    }  # fmt: skip
    assert len(turns) == parts * operators * repeats
    if parts > 1:
        pairs = pairwise(turns)
        assert all(a.part != b.part or a.operator != b.operator for a, b in pairs)


def test_one_seed_is_one_order_and_another_is_another():
    assert order(seed=1) == order(seed=1) != order(seed=2)
    assert order(parts=1, operators=[" Rhea "], repeats=2) == [
        Turn("1", "Rhea", 1), Turn("1", "Rhea", 2),
    ]  # fmt: skip


@pytest.mark.parametrize(
    ("wrong", "field"),
    [({"parts": 0}, "parts"), ({"repeats": 1}, "repeats"), ({"operators": []}, "operators"),
     ({"operators": ["A", "A "]}, "operators"), ({"operators": ["", " "]}, "operators")],
)  # fmt: skip
def test_a_study_that_tells_nothing_is_refused_at_its_field(wrong, field):
    with pytest.raises(OutOfRangeError) as refused:
        order(**wrong)
    assert refused.value.field == field
