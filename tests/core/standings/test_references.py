"""References of earlier trials on the scale of one."""

import pytest

from kessik.core.standings.answer import LifeRatio
from kessik.core.standings.references import LifeOnScale, best_known, on_scale_of


def test_a_reference_has_the_doubt_of_both_the_ratio_and_the_life_it_hangs_on():
    sure = on_scale_of(LifeOnScale(20, 20, 20), LifeRatio("R", "A", 2.0, 1.6, 2.5))
    assert (sure.estimate, sure.low, sure.high) == pytest.approx((40, 32, 50))
    unsure = on_scale_of(LifeOnScale(20, 16, 25), LifeRatio("R", "A", 2.0, 1.6, 2.5))
    assert unsure.low < sure.low
    assert unsure.high > sure.high


def test_what_is_only_bounded_is_not_laid_on_the_axis():
    assert on_scale_of(LifeOnScale(20, 16, 25), LifeRatio("R", "A", None, 1.2, None)) is None


def test_it_hangs_on_the_blade_that_is_known_best():
    assert best_known({"A": LifeOnScale(20, 10, 40), "B": LifeOnScale(9, 8, 10)}) == "B"
