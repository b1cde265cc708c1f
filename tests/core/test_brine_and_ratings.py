"""Brine and ratings, by the figures of the handbook, tables from memory and laws."""

import math

import pytest
from hypothesis import example, given
from hypothesis import strategies as st

from kessik.core.corrosion import brine
from kessik.core.corrosion.quick import area_of_spots, grades_in_words
from kessik.core.corrosion.ratings import STANDARDS, area_of, grade_of, rating_points
from kessik.core.errors import OutOfRangeError


def test_the_worked_figures():
    """5 % in 1 kg of water: 52.6 g; 50 g/L is about 4.8 % by mass (common practice)."""
    assert brine.salt_for(5, 1000) == pytest.approx(52.6, abs=0.05)
    assert brine.percent_of_g_per_l(50) == pytest.approx(4.8, abs=0.05)


@pytest.mark.parametrize(
    ("percent", "density"), [(1, 1.0053), (5, 1.0340), (10, 1.0707), (20, 1.1478), (26, 1.1972)]
)
def test_density_at_20_degrees(percent, density):
    """Chemists' handbook values at 20 °C, which the table here does not hold; from memory."""
    assert brine.density_kg_per_l(percent) == pytest.approx(density, abs=0.0006)


def test_salinity_by_the_practical_scale():
    """42.914 mS/cm at 15 °C is 35, by definition; warmer water of that salinity conducts more
    (UNESCO 1983: r_t at 20 °C is 1.1165 of that at 15 °C, from memory).
    """
    assert brine.salinity_of_conductivity(42.914, 15) == pytest.approx(35, abs=1e-4)
    assert brine.salinity_of_conductivity(1.1165 * 42.914, 20) == pytest.approx(35, abs=0.02)


@given(st.floats(0, 26), st.floats(0, 60))
@example(5e-324, 0.0)
def test_every_measure_leads_back_to_the_strength(percent, temperature):
    there = brine.g_per_l(percent, temperature)
    assert brine.percent_of_g_per_l(there, temperature) == pytest.approx(percent, abs=1e-6)
    density = brine.density_kg_per_l(percent, temperature)
    assert brine.percent_of_density(density, temperature) == pytest.approx(percent, abs=1e-5)


@given(st.floats(1, 1e5), st.floats(0.1, 26), st.floats(0.1, 26))
def test_salt_is_kept_when_a_brine_is_changed(grams, has, wants):
    change = brine.changed_to(grams, has, wants)
    salt = grams * has / 100 + change.salt_g
    whole = grams + change.salt_g + change.water_g
    assert 100 * salt / whole == pytest.approx(wants, rel=1e-9)


@pytest.mark.parametrize(
    "call",
    [
        lambda: brine.salt_for(30, 1000),
        lambda: brine.salt_for(5, 0),
        lambda: brine.percent_of_density(0.9),
        lambda: brine.salinity_of_conductivity(400, 20),
        lambda: brine.top_up_g(100, 120),
        lambda: brine.changed_to(1000, 5, 0),
        lambda: grade_of("iso_10289", 101),
        lambda: area_of("iso_10289", 11),
        lambda: area_of_spots(5, 0, 20),
    ],
)
def test_what_cannot_be_is_refused_with_a_reason(call):
    with pytest.raises(OutOfRangeError) as refused:
        call()
    assert refused.value.message


TABLES = {  # per standard: areas at the borders of each grade, recalled from memory
    "iso_10289": {0: 10, 0.1: 9, 0.25: 8, 0.5: 7, 1: 6, 2.5: 5, 5: 4, 10: 3, 25: 2, 50: 1, 51: 0},
    "astm_d610": {0.01: 10, 0.03: 9, 0.1: 8, 0.3: 7, 1: 6, 3: 5, 10: 4, 16: 3, 33: 2, 50: 1, 51: 0},
    "iso_4628_3": {0: 0, 0.05: 1, 0.5: 2, 1: 3, 8: 4, 8.1: 5},
}


@pytest.mark.parametrize("standard", STANDARDS)
def test_the_tables_of_the_standards(standard):
    assert {area: grade_of(standard, area) for area in TABLES[standard]} == TABLES[standard]


@given(st.sampled_from(STANDARDS), st.floats(0, 100), st.floats(0, 100))
def test_more_rust_is_never_a_better_grade(standard, one, other):
    less, more = sorted((one, other))
    from_clean = [abs(grade_of(standard, area) - grade_of(standard, 0.0)) for area in (less, more)]
    assert from_clean[0] <= from_clean[1]


@given(st.floats(0.05, 100))
def test_the_table_of_iso_10289_follows_its_formula_within_a_grade(area):
    formula = 3 * (2 - math.log10(area))
    assert rating_points(area) == pytest.approx(formula)
    assert abs(grade_of("iso_10289", area) - formula) <= 1.3


def test_a_grade_told_in_words_is_the_area_of_the_table():
    found = {each.grade: (each.above_percent, each.up_to_percent) for each in grades_in_words()}
    assert found[6] == (0.5, 1)
    assert found[10] == (0, 0)
    assert len(found) == 11


def test_counted_spots_are_an_interval_about_what_they_cover():
    area = area_of_spots(12, 1, 22)
    assert area.best is None
    assert area.low < 100 * 12 * math.pi / 4 * 0.01 / 22 < area.high
