"""How edges go after keen, and falls: from readings as a tester would note them, judged by hand."""

import numpy as np
import pytest

from kessik.core.sharpness.after_keen import Fall, after_keen, fall_of
from kessik.core.sharpness.curves import curve_band, through_lives
from kessik.core.sharpness.posterior import ForceReadings, edge_likelihood
from kessik.core.words.after_keen import after_keen_words, fall_words

RESTING = [(0, 150), (4, 205), (8, 262), (12, 310), (20, 338), (28, 350), (36, 355), (40, 365),
           (44, 380), (48, 640), (52, 655)]  # fmt: skip  # a record as it was written
WEARING = [(n, 150 + 250 * (n / 40) ** 0.6) for n in range(0, 52, 4)]


def test_a_fall_is_named_where_one_gap_takes_most_of_the_rise():
    # Of the 490 gf from 150 to 640 the gap from 44 to 48 takes 260, 53 %, in 8 % of the cuts.
    found = fall_of(RESTING, 400.0)
    assert found == Fall((44, 380), (48, 640))
    said = "held to about 44 (380 gf), then fell within 4 cuts (640 gf)"
    assert fall_words(found, "cuts") == said
    assert fall_of(WEARING, 400.0) is None
    coarse = [(0, 150), (10, 300), (20, 450)]  # half of the cuts and half of the rise: no fall
    assert fall_of(coarse, 400.0) is None


def test_the_stretch_after_keen_is_described():
    plateau = after_keen(RESTING, 300.0, 400.0)
    # 310 to 380 gf over 32 cuts is 2.2 gf a cut; before keen it was 13
    assert plateau.course == "plateau"
    assert (plateau.start, plateau.end) == ((12, 310), (44, 380))
    assert after_keen(WEARING, 300.0, 400.0).course == "gradual"
    cliff = [(0, 150), (10, 200), (20, 240), (30, 280), (34, 560)]
    assert after_keen(cliff, 300.0, 400.0).course == "cliff"
    assert after_keen([(0, 150), (10, 200)], 300.0, 400.0) is None, "keen was not lost"
    assert after_keen_words("A", {3: plateau}, "cuts") == (
        "A after keen rested on a plateau: from 310 gf at 12 to 380 gf at 44 cuts, then fell within"
        " 4 cuts to 640 gf."
    )


def test_the_curve_goes_through_its_readings_where_an_edge_rests_and_falls():
    counts, force = (np.array(each, dtype=float) for each in zip(*RESTING, strict=True))
    readings = ForceReadings(counts, force)
    band = curve_band(readings, edge_likelihood(readings, 400.0), 400.0, 54.0)
    low, high = (np.interp(counts, band.counts, edge) for edge in (band.low_gf, band.high_gf))
    # 7 % on either side is the scatter of single readings
    assert (force > low / 1.07).all()
    assert (force < high * 1.07).all()
    assert (np.diff(band.middle_gf) >= -1e-6).all(), "an edge never grows sharper by cutting"


def test_the_curve_meets_each_limit_at_the_life_that_is_told():
    counts, force = (np.array(each, dtype=float) for each in zip(*WEARING, strict=True))
    readings = ForceReadings(counts, force)
    band = curve_band(readings, edge_likelihood(readings, 400.0), 400.0, 50.0)
    moved = through_lives(band, [(300.0, 18.0), (400.0, 41.0)])
    assert np.interp(18.0, moved.counts, moved.middle_gf) == pytest.approx(300.0, abs=2.0)
    assert np.interp(41.0, moved.counts, moved.middle_gf) == pytest.approx(400.0, abs=2.0)
