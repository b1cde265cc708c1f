"""Outlines that are drawn on a picture: what can be one."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.corrosion.measuring import (
    KnownLength,
    Measuring,
    check_measuring,
    crossing_sides,
    is_same_place,
)
from kessik.core.corrosion.photo.area import Maps
from kessik.core.corrosion.photo.spots import spots_in
from kessik.core.corrosion.photo.view import View
from kessik.core.errors import OutOfRangeError
from kessik.core.words.rust import spots_words

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


def maps_with(*squares_px, side_px=100, step=2):
    """A measured square on which square spots lie, worked on at `step` picture pixels a pixel."""
    strength = np.zeros((side_px, side_px), np.float32)
    for n, across in enumerate(squares_px):
        strength[30 * n + 2 : 30 * n + 2 + across, 5 : 5 + across] = 1.0
    none = np.zeros((side_px, side_px), bool)
    light = np.ones((side_px, side_px, 3), np.float32)
    view = View(light, light, ~none, step, (0, 0), 0.0)
    return Maps(view, strength, none, none, ~none, 0.4, (0.4, 0.4, 0.4))


def test_spots_are_counted_and_sized_by_a_known_length():
    """By hand: 100 px of 0.1 mm are 10 mm, 1 cm2; squares of 10 and 20 px 1.13 and 2.26 mm."""
    maps = maps_with(10, 20, 10)
    scale = KnownLength((0, 0), (200, 0), 10.0)
    assert scale.mm_per_px == 0.05
    found = spots_in(maps, 0.5, scale.mm_per_px)
    assert (found.count, found.per_cm2) == (3, pytest.approx(3))
    assert found.middle_mm == pytest.approx(1.128, abs=0.001)
    assert found.largest_mm == pytest.approx(2.257, abs=0.001)
    said = "3 spots, 3 to a cm²; half of them under 1.1 mm, the largest 2.3 mm"
    assert spots_words(found) == said
    assert spots_words(spots_in(maps, 0.5, None)) == "3 spots"
    assert spots_words(spots_in(maps_with(), 0.5, 0.05)) == "0 spots"


@pytest.mark.parametrize(
    ("scale", "field"),
    [
        (KnownLength((10, 10), (12, 11), 20.0), "scale"),
        (KnownLength((10, 10), (2000, 10), 20.0), "scale"),
        (KnownLength((10, 10), (300, 10), 0.0), "scale.length_mm"),
    ],
)
def test_a_scale_that_is_none_is_refused(scale, field):
    with pytest.raises(OutOfRangeError) as refused:
        check_measuring(Measuring(BLADE, scale=scale), 1000, 600)
    assert refused.value.field == field


def test_two_outlines_are_one_place_only_where_they_go_round_one_thing():
    blade = ((10, 10), (210, 12), (212, 40), (12, 44))
    nearly = tuple((x + 6, y - 3) for x, y in blade)
    beside = tuple((x, y + 60) for x, y in blade)
    assert is_same_place(blade, nearly)
    assert not is_same_place(blade, beside)
