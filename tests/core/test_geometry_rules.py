"""Geometry as the tester meets it: the handbook's example, refusals that say what would be right,
stations, zones.
"""

import pytest

from kessik.core.errors import OutOfRangeError
from kessik.core.geometry import (
    Zone,
    bevel,
    check_zones,
    summarise_stations,
    thickness_growth_mm,
    with_micro_bevel,
)
from kessik.core.units import mm_to_thou, thou_to_mm


def test_the_example_of_the_handbook():
    found = bevel(thickness_mm=0.40, side_angle_deg=17)
    assert (round(found.face_width_mm, 3), round(found.height_mm, 3)) == (0.684, 0.654)


def test_thou_are_exact():
    assert thou_to_mm(15) == pytest.approx(0.381, abs=1e-15)
    assert mm_to_thou(25.4) == pytest.approx(1000, abs=1e-9)


@pytest.mark.parametrize(
    ("figures", "field", "words"),
    [
        ({"thickness_mm": 0.4}, "bevel", "give two"),
        ({"thickness_mm": 0.4, "side_angle_deg": 15, "face_width_mm": 0.7}, "bevel", "give two"),
        ({"thickness_mm": 0.4, "face_width_mm": 0.2}, "face_width_mm", r"wider than 0\.2 mm"),
        ({"thickness_mm": -1, "side_angle_deg": 15}, "thickness_mm", "above 0"),
        ({"thickness_mm": 0.4, "side_angle_deg": 90}, "side_angle_deg", "between 0° and 90°"),
    ],
)
def test_figures_that_make_no_edge_are_refused_at_their_field(figures, field, words):
    with pytest.raises(OutOfRangeError, match=words) as refused:
        bevel(**figures)
    assert refused.value.field == field


def test_a_micro_bevel_is_steeper_and_narrower():
    whole = bevel(thickness_mm=0.4, side_angle_deg=15)
    with pytest.raises(OutOfRangeError, match=r"more than 15\.0°"):
        with_micro_bevel(whole, 14, 0.1)
    with pytest.raises(OutOfRangeError, match=r"under 0\.585 mm"):
        with_micro_bevel(whole, 20, 0.6)


def test_stations_say_when_they_differ():
    even = summarise_stations([0.35, 0.36, 0.40], 0.05)
    assert (round(even.mean_mm, 3), round(even.range_mm, 3), even.uneven) == (0.37, 0.05, False)
    assert summarise_stations([0.35, 0.41], 0.05).uneven
    with pytest.raises(OutOfRangeError, match="one station"):
        summarise_stations([], 0.05)


def test_negative_steel_is_refused():
    with pytest.raises(OutOfRangeError, match="cannot be negative"):
        thickness_growth_mm(-0.1, 2)


@pytest.mark.parametrize(
    ("zones", "words"),
    [
        ([Zone(30, 20)], "count from the heel"),
        ([Zone(0, 97)], "the edge at 96 mm"),
        ([Zone(0, 40), Zone(39, 80)], "overlap"),
    ],
)
def test_zones_that_cannot_be(zones, words):
    with pytest.raises(OutOfRangeError, match=words) as refused:
        check_zones(zones, 96)
    assert refused.value.field == "zones"


def test_zones_may_touch_and_overlap_where_the_tester_insists():
    check_zones([Zone(0, 40), Zone(40, 96)], 96)
    check_zones([Zone(0, 40), Zone(39, 80)], 96, overlap_insisted=True)
