"""Composition against lives, and hardening as a question of comparing like with like."""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy import stats

from kessik.core.heat_treatment import HeatTreatment, own_warnings, unequal
from kessik.core.trials.performance import Seen, rank_correlation, travelling_with, trend
from kessik.core.words.performance import caveat_words, travel_words, trend_words


def seen(x, y, blade=None, counts=True):
    code = blade or f"B{x}"
    return Seen(code, code, 0, x, y, None, None, counts, "measured")


@given(st.lists(st.tuples(st.integers(0, 6), st.integers(0, 6)), min_size=4, max_size=12))
def test_the_rank_correlation_is_that_of_scipy(pairs):
    xs, ys = zip(*pairs, strict=True)
    if len(set(xs)) > 1 and len(set(ys)) > 1:
        assert rank_correlation(xs, ys) == pytest.approx(stats.spearmanr(xs, ys).statistic)


def test_few_blades_prove_little_and_it_is_said():
    two = trend([seen(1, 10), seen(2, 20)])
    assert two.rho is None
    assert "too few" in trend_words(two, "carbon", "life")
    some = trend([seen(x, y) for x, y in ((1, 10), (2, 14), (3, 12), (4, 20), (5, 18), (6, 30))])
    assert some.low < some.rho < some.high
    assert "few blades prove little" in trend_words(some, "carbon", "life")
    loose = trend([seen(x, y) for x, y in ((1, 10), (2, 30), (3, 12), (4, 20), (5, 11))])
    assert "no trend" in trend_words(loose, "carbon", "life")


def test_arms_of_one_blade_are_one_point_and_claims_none():
    points = [seen(1, 10), seen(2, 20, "A"), seen(2, 80, "A"), seen(3, 30, counts=False)]
    assert trend(points).blades == 2


def test_what_travels_together_is_named():
    blades = ["A", "B", "C", "D"]
    columns = {
        "C": dict(zip(blades, (0.5, 0.9, 1.2, 2.1), strict=True)),
        "Cr": dict(zip(blades, (13, 12, 11, 10), strict=True)),
        "V": dict(zip(blades, (1, 0.1, 3, 0.2), strict=True)),
    }
    assert travelling_with("C", columns, blades) == ["Cr"]
    assert travel_words("carbon", ["chromium"]).startswith("Carbon varies together with chromium")


def test_hardening_warns_and_never_computes_a_life():
    plain = HeatTreatment(austenitising_c=1040, tempers_c=(180, 180))
    deep = HeatTreatment(austenitising_c=1080, sub_zero_c=-80, tempers_c=(520,))
    assert [c.what for c in own_warnings(plain, 14.0)] == ["retained_austenite"]
    assert [c.what for c in own_warnings(deep, 14.0)] == ["secondary_temper"]
    assert own_warnings(plain, 1.0) == [], "low alloy keeps little"
    found = unequal(plain, deep, (58.0, 61.0))
    assert [c.what for c in found] == [
        "unequal_austenitising",
        "unequal_sub_zero",
        "unequal_temper",
        "unequal_hardness",
    ]
    assert "1040 and at 1080 °C" in caveat_words(found[0])
    assert unequal(plain, plain, (58.0, 58.5)) == []
    assert [c.what for c in unequal(plain, HeatTreatment())] == ["hardening_unknown"]
