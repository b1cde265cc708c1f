"""Edge geometry against an independent route: points and vectors in the plane, and exact
trigonometry by SymPy.
"""

import math

import numpy as np
import pytest
import sympy
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.geometry import (
    bevel,
    equivalent_side_angle_deg,
    included_angle_deg,
    thickness_growth_mm,
    with_micro_bevel,
)

THICKNESS = st.floats(0.05, 3.0)
ANGLE = st.floats(5.0, 45.0)


def angle_between(a, b):
    return math.degrees(math.acos(np.dot(a, b) / np.linalg.norm(a) / np.linalg.norm(b)))


@given(THICKNESS, ANGLE)
def test_the_wedge_drawn_from_its_figures_has_that_angle_and_thickness(thickness, angle):
    found = bevel(thickness_mm=thickness, side_angle_deg=angle)
    apex = np.zeros(2)
    left, right = (np.array([side * thickness / 2, found.height_mm]) for side in (-1, 1))
    assert np.linalg.norm(right - apex) == pytest.approx(found.face_width_mm, rel=1e-12)
    assert np.linalg.norm(right - left) == pytest.approx(thickness, rel=1e-12)
    assert angle_between(left, right) == pytest.approx(included_angle_deg(angle), rel=1e-7)


@given(THICKNESS, ANGLE)
def test_any_two_give_the_third(thickness, angle):
    whole = bevel(thickness_mm=thickness, side_angle_deg=angle)
    by_width = bevel(thickness_mm=thickness, face_width_mm=whole.face_width_mm)
    by_angle = bevel(side_angle_deg=angle, face_width_mm=whole.face_width_mm)
    assert by_width.side_angle_deg == pytest.approx(angle, rel=1e-9)
    assert by_angle.thickness_mm == pytest.approx(thickness, rel=1e-9)


@pytest.mark.parametrize("degrees", [10, 15, 18, 20, 30, 45])
def test_against_exact_trigonometry(degrees):
    theta = sympy.pi * degrees / 180
    thickness = sympy.Rational(2, 5)
    found = bevel(thickness_mm=0.4, side_angle_deg=degrees)
    assert found.face_width_mm == pytest.approx(
        float(sympy.N(thickness / (2 * sympy.sin(theta)), 30)), rel=1e-14
    )
    assert found.height_mm == pytest.approx(
        float(sympy.N(thickness / (2 * sympy.tan(theta)), 30)), rel=1e-13
    )


@given(THICKNESS, st.floats(5.0, 35.0), st.floats(0.5, 9.0), st.floats(0.01, 0.95))
def test_a_micro_bevel_shares_the_thickness_and_closes_at_the_apex(
    thickness, angle, steeper, share
):
    whole = bevel(thickness_mm=thickness, side_angle_deg=angle)
    widest = bevel(thickness_mm=thickness, side_angle_deg=angle + steeper).face_width_mm
    main, micro = with_micro_bevel(whole, angle + steeper, share * widest)
    joint = np.array([micro.thickness_mm / 2, micro.height_mm])
    shoulder = joint + main.face_width_mm * np.array(
        [math.sin(math.radians(angle)), math.cos(math.radians(angle))]
    )
    assert 2 * shoulder[0] == pytest.approx(thickness, rel=1e-9), (
        "the two faces end at the thickness"
    )
    assert angle_between(joint, [0, 1]) == pytest.approx(angle + steeper, rel=1e-6)


@given(st.floats(0.01, 5.0), st.floats(0.3, 8.0))
def test_ground_back_the_blade_is_as_thick_as_its_flanks_say(lost, grind):
    """Two flank lines through a common point; the bevel's shoulder moves up between them by the
    height lost.
    """
    slope = np.array([math.sin(math.radians(grind)), math.cos(math.radians(grind))])

    def thickness_at(height):
        return 2 * (slope * (height / slope[1]))[0]

    assert thickness_growth_mm(lost, grind) == pytest.approx(
        thickness_at(7.0 + lost) - thickness_at(7.0), rel=1e-9
    )


@given(THICKNESS, st.floats(0.05, 5.0))
def test_a_convex_edge_amounts_to_the_wedge_through_that_height(thickness, height):
    left, right = np.array([-thickness / 2, height]), np.array([thickness / 2, height])
    assert 2 * equivalent_side_angle_deg(thickness, height) == pytest.approx(
        angle_between(left, right), rel=1e-6
    )
