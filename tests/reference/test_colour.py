"""Colour held against colour-science (BSD-3), which carries the published pairs of CIEDE2000."""

import warnings

import numpy as np
import pytest

from kessik.core.corrosion.photo.colour import LIGHT_OF_CODE, colour_difference, lab

with warnings.catch_warnings():
    warnings.simplefilter("ignore")
    import colour

# Sharma, Wu and Dalal 2005, some of the test pairs that catch wrong hue and chroma terms.
PAIRS = (
    ((50, 2.6772, -79.7751), (50, 0, -82.7485), 2.0425),
    ((50, -1.3802, -84.2814), (50, 0, -82.7485), 1.0000),
    ((50, 0, 0), (50, -1, 2), 2.3669),
    ((50, 2.49, -0.001), (50, -2.49, 0.0011), 7.2195),
    ((50, 2.5, 0), (73, 25, -18), 27.1492),
    ((60.2574, -34.0099, 36.2677), (60.4626, -34.1751, 39.4387), 1.2644),
    ((2.0776, 0.0795, -1.1350), (0.9033, -0.0636, -0.5514), 0.9082),
)


@pytest.mark.parametrize(("one", "other", "published"), PAIRS)
def test_the_published_pairs_of_ciede2000(one, other, published):
    assert float(colour_difference(np.array(one), np.array(other))) == pytest.approx(
        published, abs=5e-5
    )


def test_the_patches_of_the_reference_chart():
    """24 patches as sRGB codes, through both chains; the matrix here has four digits."""
    chart = colour.CCS_COLOURCHECKERS["ColorChecker24 - After November 2014"]
    xyz = [colour.xyY_to_XYZ(patch) for patch in chart.data.values()]
    coded = np.clip(colour.XYZ_to_sRGB(np.array(xyz)), 0, 1)
    codes = np.round(255 * coded).astype(int)
    ours = lab(LIGHT_OF_CODE[codes].astype(float))
    white = colour.CCS_ILLUMINANTS["CIE 1931 2 Degree Standard Observer"]["D65"]
    theirs = colour.XYZ_to_Lab(colour.sRGB_to_XYZ(codes / 255), white)
    assert np.abs(ours - theirs).max() < 0.06
    apart = colour_difference(ours[:-1], ours[1:])
    assert apart == pytest.approx(
        colour.delta_E(theirs[:-1], theirs[1:], method="CIE 2000"), abs=0.08
    )
