"""Rust measured in generated pictures of exactly known area. The generator shares nothing with the
measurement: spectra under the illuminants of colour-science, spots drawn three times finer.
"""

from dataclasses import replace
from functools import cache

import numpy as np
import pytest
from benchmarks.rust_pictures import FINISHES, TRAPS, Scene, take

from kessik.core.corrosion.photo.outline import propose_outline
from kessik.interchange.masks import mask_of_outlines
from kessik.services.soaks.rust import read_masked

PLAIN = Scene(7, 0.05, size_px=(1100, 320))


taken_once = cache(take)


def read(scene, **choices):
    taken = taken_once(scene)
    return taken, read_masked(taken.rgb, taken.mask, taken.white_point, **choices).area


@pytest.mark.parametrize("finish", FINISHES)
def test_the_interval_holds_the_area_on_every_finish(finish):
    for seed, light, rusted in ((1, "D65", 0.03), (2, "A", 0.15)):
        taken, area = read(
            replace(PLAIN, seed=seed, finish=finish, illuminant=light, rusted=rusted)
        )
        assert area.low <= taken.rust_percent <= area.high
        assert area.rust_percent == pytest.approx(taken.rust_percent, rel=0.10)


@pytest.mark.parametrize("trap", TRAPS)
def test_what_is_not_rust_is_not_counted(trap):
    """A blade without rust stays under 0.1 %, whatever else is on it."""
    _, area = read(replace(PLAIN, rusted=0.0, traps=(trap,), size_px=(1500, 420)))
    assert (area.rust_percent or 0.0) < 0.1
    assert area.low == 0.0


def test_black_rust_and_an_etched_mark_widen_the_interval_and_say_so():
    taken, area = read(replace(PLAIN, traps=("logo",), size_px=(1500, 420)))
    assert "black" in area.doubts
    assert area.low <= taken.rust_percent <= area.high
    left_out = np.zeros_like(taken.logo)
    left_out[100:200, 400:700] = True
    _, without = read(replace(PLAIN, traps=("logo",), size_px=(1500, 420)), left_out=left_out)
    assert "black" not in without.doubts
    assert without.high < area.high


@pytest.mark.parametrize(
    ("scene", "doubt"),
    [
        (replace(PLAIN, steel=0.05), "dark_steel"),
        (replace(PLAIN, spot_px=(2, 3), size_px=(1500, 420)), "too_fine"),
    ],
)
def test_what_colour_cannot_settle_gets_no_number(scene, doubt):
    _, area = read(scene)
    assert doubt in area.doubts
    assert area.rust_percent is None


def test_a_mask_drawn_too_wide_is_said_and_counts_no_ground():
    taken, area = read(replace(PLAIN, mask_off_px=4, size_px=(1500, 420)))
    assert "wide_mask" in area.doubts
    assert area.rust_percent == pytest.approx(taken.rust_percent, rel=0.2)


def test_the_area_does_not_depend_on_how_bright_the_picture_is():
    taken = taken_once(PLAIN)
    darker = np.round(taken.rgb.astype(float) * 0.8).astype(np.uint8)
    one = read_masked(taken.rgb, taken.mask, taken.white_point).area
    other = read_masked(darker, taken.mask, taken.white_point).area
    assert other.rust_percent == pytest.approx(one.rust_percent, rel=0.03)


def test_the_outline_is_proposed_where_the_blade_is():
    taken = taken_once(PLAIN)
    found = mask_of_outlines([propose_outline(taken.rgb).outline], taken.rgb.shape[1::-1])
    both = (found & taken.mask).sum() / (found | taken.mask).sum()
    assert both > 0.93
