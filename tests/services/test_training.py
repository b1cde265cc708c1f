"""Rounds of the trainers: their truths by construction, and none like another seed's."""

import io
from collections import Counter
from dataclasses import replace

import numpy as np
import pytest
from PIL import Image

from kessik.core.comparison.variables import BY_NAME
from kessik.core.errors import OutOfRangeError
from kessik.core.training.rounds import TRAINERS
from kessik.instruments.virtual_bench.soaked_blade import SoakedSide, rusted_percent
from kessik.services.training.making import make_round, picture_of


def rounds(kind, seeds=range(8)):
    return [make_round(kind, seed, number) for seed in seeds for number in range(1, 11)]


@pytest.mark.parametrize("kind", TRAINERS)
def test_a_seed_is_a_session_and_another_seed_another(kind):
    assert make_round(kind, 7, 3) == make_round(kind, 7, 3)
    assert len({str(each) for each in rounds(kind, range(3))}) == 30
    with pytest.raises(OutOfRangeError, match="a session has 10 rounds"):
        make_round(kind, 7, 11)


def test_a_count_takes_under_half_a_minute_and_is_interrupted():
    for asked in rounds("count"):
        assert asked.taps[-1].at_ms < 22_000
        assert sum(tap.kind == "interruption" for tap in asked.taps) == 2
        times = [tap.at_ms for tap in asked.taps]
        assert times == sorted(times)


def test_readings_stop_before_the_limit_and_the_true_course_crosses_it_at_the_life():
    for asked in rounds("foresee"):
        assert asked.readings[-1][0] <= 0.76 * asked.life
        below = [count for count, gf in asked.later if gf <= asked.limit_gf]
        assert max(below) == pytest.approx(asked.life, abs=0.04 * asked.life)


def test_a_picture_shows_the_area_that_it_is_graded_by():
    for asked in rounds("rust", range(2)):
        side = SoakedSide(asked.picture_seed, asked.drawn_percent)
        assert asked.rust_percent == rusted_percent(side)
    picture = Image.open(io.BytesIO(picture_of(asked)))
    assert picture.size == (1120, 340)
    bare = Image.open(io.BytesIO(picture_of(replace(asked, drawn_percent=0.0))))
    rust = np.asarray(picture, int) - np.asarray(bare, int)
    assert (np.abs(rust).sum(axis=2) > 60).any()


def test_every_picture_can_be_drawn_spots_beyond_its_border_too():
    for asked in rounds("rust", range(3)):
        assert rusted_percent(SoakedSide(asked.picture_seed, 60.0)) > 30


def test_alike_blades_are_called_alike_and_unlike_ones_seldom_wrongly():
    calls = rounds("call", range(20))
    alike = Counter(asked.supported for asked in calls if asked.true_ratio == 1)
    assert alike["n"] >= 0.9 * alike.total()
    for asked in calls:
        if asked.true_ratio != 1 and asked.supported != "n":
            assert (asked.supported == "b") == (asked.true_ratio > 1)


def test_the_planted_value_and_no_other_is_beyond_its_tolerance():
    for asked in rounds("unfair"):
        for name, values in asked.values.items():
            variable = BY_NAME[name]
            reach = max(values) - min(values)
            assert (reach > variable.tolerance) == (name == asked.planted), (name, values)


def test_a_steel_that_fits_its_claim_is_what_it_is_sold_as():
    found = Counter()
    for asked in rounds("steel", range(4)):
        found[asked.standing] += 1
        if asked.standing != "excluded":
            assert asked.truly == asked.claim
        else:
            assert asked.truly != asked.claim
        assert asked.readings
    assert min(found[each] for each in ("consistent", "undecidable", "excluded")) >= 4
