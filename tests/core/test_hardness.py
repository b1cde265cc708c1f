"""Hardness: what a day's readings come to, what spoils them, and conversion by the table."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.errors import OutOfRangeError
from kessik.core.hardness import (
    hrc_from_hv,
    hv_from_hrc,
    indent_depth_mm,
    indent_diameter_mm,
    summarise,
)


def test_mean_range_and_deviation_corrected_by_the_block():
    found = summarise([57.1, 57.6, 57.5], block_nominal_hrc=60, block_readings_hrc=[59.4, 59.6])
    assert found.correction_hrc == pytest.approx(0.5)
    assert found.mean_hrc == pytest.approx(57.9)
    assert (found.low_hrc, found.high_hrc) == (pytest.approx(57.6), pytest.approx(58.1))
    assert found.sd_hrc == pytest.approx(0.2646, abs=1e-4)
    assert found.warnings == ()


def test_the_first_two_after_a_change_are_dropped():
    found = summarise([50, 54, 58, 58.2, 58.1], after_change=True)
    assert (found.used, found.dropped) == ((58, 58.2, 58.1), (50, 54))
    with pytest.raises(OutOfRangeError, match="after the two that are dropped"):
        summarise([57, 58], after_change=True)


@pytest.mark.parametrize(
    ("circumstances", "warning"),
    [
        ({"readings_hrc": [58, 58]}, "2 of the 3 readings"),
        ({}, "no test block was read"),
        ({"readings_hrc": [55, 58, 58]}, "3.0 HRC apart"),
        ({"block_nominal_hrc": 60, "block_readings_hrc": [58]}, "reads 2.0 HRC low on its block"),
        ({"stock_mm": 0.8}, "thinner than ten indent depths"),
        ({"tapered": True}, "come out low"),
        ({"spacing_mm": 1.0}, "disturb each other"),
        ({"from_edge_mm": 0.8}, "from an edge reads low"),
    ],
)
def test_what_spoils_a_reading_is_said(circumstances, warning):
    found = summarise(**{"readings_hrc": [58, 58.2, 58.1], **circumstances})
    assert any(warning in said for said in found.warnings)


@pytest.mark.parametrize("reading", [19.9, 70.1])
def test_readings_beyond_the_scale_are_refused(reading):
    with pytest.raises(OutOfRangeError, match="give 20 to 70 HRC") as refused:
        summarise([58, reading])
    assert refused.value.field == "hardness_hrc"


# ASTM E140 for non-austenitic steels, values from memory; the table itself is not to be had.
@pytest.mark.parametrize(
    ("hrc", "hv"), [(20, 238), (40, 392), (58, 653), (60, 697), (62, 746), (66, 865), (68, 940)]
)
def test_the_table_and_the_way_between_its_entries(hrc, hv):
    assert hv_from_hrc(hrc) == hv
    assert hrc_from_hv(hv) == hrc


@given(st.floats(20, 68), st.floats(20, 68))
def test_conversion_rises_and_comes_back(a, b):
    assert hrc_from_hv(hv_from_hrc(a)) == pytest.approx(a, abs=1e-9)
    if a < b:
        assert hv_from_hrc(a) <= hv_from_hrc(b)


@pytest.mark.parametrize("beyond", [19.99, 68.01])
def test_nothing_is_read_off_beyond_the_table(beyond):
    with pytest.raises(OutOfRangeError, match="outside the table"):
        hv_from_hrc(beyond)


def test_an_indent_is_as_deep_as_the_scale_says_and_as_wide_as_its_cone():
    # ISO 6508-1 (from memory): one HRC is 0.002 mm; the cone of 120° with a tip of 0.2 mm makes the
    # width.
    assert indent_depth_mm(60) == pytest.approx(0.08)
    assert 0.3 < indent_diameter_mm(60) < 0.5
    assert indent_diameter_mm(20) > indent_diameter_mm(60) > indent_diameter_mm(99.9) > 0
