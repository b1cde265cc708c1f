"""Outlines that are drawn on a picture: what can be one."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.corrosion.measuring import Measuring, check_measuring, crossing_sides
from kessik.core.errors import OutOfRangeError

BLADE = ((100, 300), (500, 310), (800, 250), (700, 215), (500, 205), (100, 200))


def test_a_bow_tie_is_refused_with_the_sides_that_cross():
    tied = (BLADE[0], BLADE[2], BLADE[1], *BLADE[3:])
    with pytest.raises(OutOfRangeError, match="crosses itself, at the sides after corners 1 and 3"):
        check_measuring(Measuring(tied), 1000, 600)
    check_measuring(Measuring(BLADE), 1000, 600)


@given(st.lists(st.floats(1, 50), min_size=3, max_size=40))
def test_an_outline_that_goes_round_once_crosses_nowhere_either_way(reaches):
    angles = [2 * math.pi * place / len(reaches) for place in range(len(reaches))]
    around = tuple(
        (100 + r * math.cos(a), 100 + r * math.sin(a)) for r, a in zip(reaches, angles, strict=True)
    )
    assert crossing_sides(around) is None
    assert crossing_sides(around[::-1]) is None


@given(st.integers(4, 30), st.data())
def test_two_corners_of_a_round_outline_that_change_places_cross(count, data):
    around = [
        (100 + 50 * math.cos(2 * math.pi * n / count), 100 + 50 * math.sin(2 * math.pi * n / count))
        for n in range(count)
    ]
    place = data.draw(st.integers(0, count - 2))
    around[place], around[place + 1] = around[place + 1], around[place]
    assert crossing_sides(tuple(around)) is not None
