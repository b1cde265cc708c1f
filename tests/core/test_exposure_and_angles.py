"""Exposure, scaling and angles. Source of the figures: the handbook's worked examples; the laws are
geometry.
"""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.errors import OutOfRangeError
from kessik.core.geometry import included_angle_deg
from kessik.core.media import cuts_at_reference_length, exposure_mm2_per_mm, rope_area_mm2
from kessik.core.units import MILLINEWTON_PER_GF, force_to_gf

lengths = st.floats(1.0, 500.0)


def test_a_thick_rope_on_a_taped_edge():
    # 32 mm rope on 64 mm of edge: 804.2 mm² a cut, 12.57 mm²/mm (arithmetic).
    assert rope_area_mm2(32) == pytest.approx(804.2, abs=0.05)
    assert exposure_mm2_per_mm(rope_area_mm2(32), 64) == pytest.approx(12.57, abs=0.005)


def test_a_shorter_edge_works_harder():
    assert cuts_at_reference_length(18, 60, 80) == pytest.approx(24)


@given(st.floats(1, 60), lengths, lengths, st.floats(0, 1000))
def test_scaling_keeps_the_total_exposure_of_each_millimetre(diameter, used, reference, cuts):
    area = rope_area_mm2(diameter)
    scaled = cuts_at_reference_length(cuts, used, reference)
    before, after = (
        cuts * exposure_mm2_per_mm(area, used),
        scaled * exposure_mm2_per_mm(area, reference),
    )
    assert math.isclose(before, after, rel_tol=1e-12, abs_tol=1e-9)


@given(st.floats(1, 60), lengths, st.floats(1.1, 10))
def test_exposure_grows_with_area_and_shrinks_with_length(diameter, used, factor):
    exposure = exposure_mm2_per_mm(rope_area_mm2(diameter), used)
    assert exposure_mm2_per_mm(rope_area_mm2(diameter * factor), used) == pytest.approx(
        exposure * factor**2
    )
    assert exposure_mm2_per_mm(rope_area_mm2(diameter), used * factor) == pytest.approx(
        exposure / factor
    )


@given(st.floats(0.5, 80), st.floats(0.5, 80))
def test_the_included_angle_is_both_sides_together(one, other):
    assert included_angle_deg(one) == 2 * one
    assert included_angle_deg(one, other) == included_angle_deg(other, one) == one + other


@pytest.mark.parametrize("angle", [0.0, -15.0, 90.0, 120.0])
def test_impossible_angles_are_refused_by_name(angle):
    with pytest.raises(OutOfRangeError, match="between 0° and 90°") as refused:
        included_angle_deg(angle)
    assert refused.value.field == "side_angle_deg"


def test_force_converts_exactly():
    # 1 gf = 9.80665 mN exactly (standard acceleration of free fall, CGPM 1901).
    assert force_to_gf(MILLINEWTON_PER_GF / 1000, "N") == pytest.approx(1.0, rel=1e-15)
    assert force_to_gf(312, "gf") == 312
    with pytest.raises(OutOfRangeError, match="gf or N"):
        force_to_gf(1, "lbf")
