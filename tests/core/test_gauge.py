"""Gauge studies against outside: a published example, NIST's certified sums, statsmodels."""

import warnings
from itertools import product
from pathlib import Path

import numpy as np
import pandas
import pytest
import scipy.stats
import statsmodels.api as sm
import statsmodels.formula.api as smf
from scipy.special import fdtrc

from kessik.core.errors import OutOfRangeError
from kessik.core.gauge.study import GaugeReading, study
from kessik.core.words.gauge import gauge_notes, gauge_sentences

# Measurement Systems Analysis, 4th edition, the worked example of ten parts; from memory
WORKED = {
    "A": (
        (0.29, -0.56, 1.34, 0.47, -0.80, 0.02, 0.59, -0.31, 2.26, -1.36),
        (0.41, -0.68, 1.17, 0.50, -0.92, -0.11, 0.75, -0.20, 1.99, -1.25),
        (0.64, -0.58, 1.27, 0.64, -0.84, -0.21, 0.66, -0.17, 2.01, -1.31),
    ),
    "B": (
        (0.08, -0.47, 1.19, 0.01, -0.56, -0.20, 0.47, -0.63, 1.80, -1.68),
        (0.25, -1.22, 0.94, 1.03, -1.20, 0.22, 0.55, 0.08, 2.12, -1.62),
        (0.07, -0.68, 1.34, 0.20, -1.28, 0.06, 0.83, -0.34, 2.19, -1.50),
    ),
    "C": (
        (0.04, -1.38, 0.88, 0.14, -1.46, -0.29, 0.02, -0.46, 1.77, -1.49),
        (-0.11, -1.13, 1.09, 0.20, -1.07, -0.67, 0.01, -0.56, 1.45, -1.77),
        (-0.15, -0.96, 0.67, 0.11, -1.45, -0.49, 0.21, -0.49, 1.87, -2.16),
    ),
}
COAL = {
    "1": (0.71, 0.71, 0.70, 0.71),
    "2": (0.69, 0.67, 0.68),
    "3": (0.66, 0.65, 0.69),
    "4": (0.67, 0.65, 0.66),
    "5": (0.70, 0.69, 0.66, 0.71, 0.69),
    "6": (0.73, 0.74, 0.73),
    "7": (0.71, 0.71, 0.69),
    "8": (0.70, 0.65, 0.68),
}
NIST = Path(scipy.stats.__file__).parent / "tests" / "data" / "nist_anova"


def worked():
    return [
        GaugeReading(str(part), operator, value)
        for operator, rows in WORKED.items()
        for row in rows
        for part, value in enumerate(row)
    ]


def made(parts=6, operators=3, repeats=3, seed=1, sd=(1.0, 0.4, 0.5, 2.0), keep=1.0):
    """Readings with a known truth: error, operator, interaction and part as deviations."""
    rng = np.random.default_rng(seed)
    part, operator = rng.normal(0, sd[3], parts), rng.normal(0, sd[1], operators)
    both = rng.normal(0, sd[2], (parts, operators))
    return [
        GaugeReading(
            f"p{i}", f"o{j}", float(part[i] + operator[j] + both[i, j] + rng.normal(0, sd[0]))
        )
        for i, j, _ in product(range(parts), range(operators), range(repeats))
        if rng.random() < keep
    ]


def test_the_published_example():
    found = study(worked())
    assert found.interaction.f == pytest.approx(0.434, abs=5e-4)
    assert found.interaction.p == pytest.approx(0.974, abs=5e-4)
    assert found.interaction.pooled
    assert found.components["repeatability"] == pytest.approx(0.199933**2, rel=1e-4)
    assert found.components["operator"] == pytest.approx(0.226838**2, rel=1e-4)
    assert found.components["part"] == pytest.approx(1.042327**2, rel=1e-4)
    assert found.grr == pytest.approx(0.302373**2, rel=1e-4)
    assert found.percent_study == pytest.approx(27.86, abs=0.01)
    assert found.distinct == 4


@pytest.mark.parametrize(
    ("data", "within", "between", "each"),
    [("SiRstv", 1.0831828e-2, 5.11462616e-2 / 4, 5), ("SmLs04", 1.0e-2, 2.1e-1, 21)],
)
def test_one_way_sums_are_those_that_nist_certifies(data, within, between, each):
    """NIST StRD, analysis of variance: instruments on one wafer, and treatments at a million."""
    rows = [line.split() for line in (NIST / f"{data}.dat").read_text().splitlines()[60:]]
    found = study([GaugeReading("one", own, float(value)) for own, value in rows if own])
    assert found.components["repeatability"] == pytest.approx(within, rel=1e-6)
    assert found.components["operator"] == pytest.approx((between - within) / each, rel=1e-6)
    assert "part" in found.unseen
    assert found.distinct is None


def test_laboratories_of_unequal_size_give_the_published_precision():
    """ISO 5725-2, sulfur in coal, first level: s_r 0.015, s_R 0.026 %; from memory."""
    found = study([GaugeReading("coal", lab, value) for lab, own in COAL.items() for value in own])
    assert found.components["repeatability"] ** 0.5 == pytest.approx(0.015, abs=5e-4)
    assert found.grr**0.5 == pytest.approx(0.026, abs=5e-4)


def test_sums_of_squares_are_those_of_statsmodels():
    readings = made(seed=3, keep=0.8)
    frame = pandas.DataFrame([vars(r) for r in readings])
    fitted = smf.ols("value ~ C(part) * C(operator)", frame).fit()
    table = sm.stats.anova_lm(fitted, typ=2)
    found = study(readings)
    error = table["sum_sq"]["Residual"] / table["df"]["Residual"]
    both = table.loc["C(part):C(operator)"]
    f = both["sum_sq"] / both["df"] / error
    assert found.interaction.f == pytest.approx(f, rel=1e-9)
    p = fdtrc(both["df"], table["df"]["Residual"], f)
    assert found.interaction.p == pytest.approx(p, rel=1e-9)
    if not found.interaction.pooled:
        assert found.components["repeatability"] == pytest.approx(error, rel=1e-9)


def test_balanced_components_are_those_of_restricted_likelihood():
    """Where nothing is below 0 the two agree (MixedLM, REML)."""
    readings = made(parts=8, operators=4, repeats=3, seed=11, sd=(0.5, 0.8, 0.7, 2.0))
    found = study(readings)
    assert not found.interaction.pooled
    assert found.negative == ()
    frame = pandas.DataFrame([vars(r) for r in readings])
    frame["all"], frame["both"] = 1, frame["part"] + frame["operator"]
    parts = {name: f"0 + C({name})" for name in ("part", "operator", "both")}
    with warnings.catch_warnings():
        warnings.simplefilter("ignore")
        fitted = smf.mixedlm("value ~ 1", frame, groups="all", vc_formula=parts).fit(
            reml=True, method=["lbfgs", "powell"]
        )
    named = dict(zip(fitted.model.exog_vc.names, fitted.vcomp, strict=True))
    assert found.components["repeatability"] == pytest.approx(fitted.scale, rel=1e-3)
    assert found.components["part"] == pytest.approx(named["part"], rel=1e-2)
    assert found.components["operator"] == pytest.approx(named["operator"], rel=2e-2)
    assert found.components["interaction"] == pytest.approx(named["both"], rel=2e-2)


def test_intervals_hold_the_truth_as_often_as_they_say():
    truth = {"repeatability": 1.0, "operator": 0.64, "interaction": 0.49, "part": 4.0}
    truth["grr"] = 1.0 + 0.64 + 0.49
    inside = dict.fromkeys(truth, 0)
    seasons = 300
    for seed in range(seasons):
        found = study(made(8, 4, 3, seed, (1.0, 0.8, 0.7, 2.0)))
        for name, true in truth.items():
            low, high = found.intervals.get(name, (0.0, np.inf))
            inside[name] += low <= true <= high
    for name, count in inside.items():
        assert count / seasons > 0.91, name


def test_an_unbalanced_study_is_right_on_average():
    found = [study(made(8, 3, 3, seed, (1.0, 0.8, 0.0, 2.0), keep=0.7)) for seed in range(200)]
    part = np.mean([each.components["part"] for each in found])
    assert part == pytest.approx(4.0, rel=0.12)
    assert np.mean([each.components["repeatability"] for each in found]) == pytest.approx(
        1, rel=0.1
    )


@pytest.mark.parametrize(
    ("shape", "unseen", "said"),
    [
        ((1, 3, 4), {"part", "interaction"}, "one part"),
        ((5, 1, 3), {"operator", "interaction"}, "one operator"),
        ((5, 3, 1), set(), "counted as repeatability"),
    ],
)
def test_what_a_small_study_cannot_tell_is_said(shape, unseen, said):
    found = study(made(*shape))
    assert set(found.unseen) == unseen
    assert any(said in note for note in gauge_notes(found))
    assert gauge_sentences(found, "gf")


def test_equal_readings_have_no_spread_and_no_shares():
    readings = [GaugeReading(p, o, 7.0) for p in "ab" for o in "xy" for _ in range(2)]
    found = study(readings)
    assert (found.total, found.percent_study, found.distinct) == (0.0, None, None)


def test_an_outlier_is_pointed_at():
    readings = made(6, 3, 3, seed=5)
    readings[20] = GaugeReading(readings[20].part, readings[20].operator, 60.0)
    assert 20 in study(readings).far_off


def test_too_few_readings_are_refused():
    with pytest.raises(OutOfRangeError, match="two readings"):
        study([GaugeReading("a", "x", 1.0)])
    with pytest.raises(OutOfRangeError, match="read every part again"):
        study([GaugeReading(part, "x", 1.0) for part in "abc"])


def test_an_operator_below_nothing_is_nothing_and_said():
    readings = [
        GaugeReading(p, o, v)
        for p, base in (("a", 0.0), ("b", 10.0))
        for o in ("x", "y")
        for v in (base - 1.0, base + 1.0)
    ]
    found = study(readings)
    assert found.components["operator"] == 0.0
    assert "operator" in found.negative
    assert any("below 0" in note for note in gauge_notes(found))
