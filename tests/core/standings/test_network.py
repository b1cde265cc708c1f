"""The network against least squares, likelihoods of other libraries, and direct ratios."""

from itertools import product

import numpy as np
import pytest
import scipy
import statsmodels.api as sm
from benchmarks.seasons import SeasonKind, season
from hypothesis import given, settings
from hypothesis import strategies as st
from statsmodels.regression.mixed_linear_model import MixedLM

from kessik.core.errors import NotAllowedNowError
from kessik.core.standings.answer import standings
from kessik.core.standings.fit import fit, fit_given
from kessik.core.standings.network import network_of
from kessik.core.standings.records import LifeRecord, one_an_edge
from kessik.core.standings.variances import Variances


def answer(records):
    return standings(records, np.random.default_rng(13).standard_normal)


def exact(trial, arm, life, block="", tester="hand"):
    return LifeRecord(trial, block, arm, tester, life, life)


def known(trials, edge_sd=0.1, tester_sd=0.06):
    many = np.full(trials, 1e6)
    return Variances(np.full(trials, edge_sd), many, edge_sd, 1e6, tester_sd, 1e6)


@pytest.fixture(scope="module")
def balanced():
    rng = np.random.default_rng(4)
    return [
        exact(f"T{trial}", f"A{arm}", float(np.exp(5 + 0.2 * arm + 0.3 * trial + noise)))
        for trial, arm in product(range(4), range(5))
        for noise in rng.normal(0, 0.1, 3)
    ]


def test_complete_trials_are_least_squares(balanced):
    """Against statsmodels' OLS with arms and trials as factors, values and standard errors."""
    found = fit_given(network_of(balanced), known(4))
    arms = np.array([int(r.arm[1]) for r in balanced])
    trials = np.array([int(r.trial[1]) for r in balanced])
    y = np.log([r.lower for r in balanced])
    columns = np.hstack([np.eye(5)[arms][:, 1:], np.eye(4)[trials]])
    ols = sm.OLS(y, columns).fit()
    effects = found.arm_effect()
    np.testing.assert_allclose(effects[1:] - effects[0], ols.params[:4], atol=1e-7)
    own = ols.normalized_cov_params[:4, :4] * 0.1**2 + 0.06**2 * (np.eye(4) + 1.0)
    covariance = found.arm_covariance()
    contrasts = np.hstack([-np.ones((4, 1)), np.eye(4)])
    np.testing.assert_allclose(contrasts @ covariance @ contrasts.T, own, atol=1e-9)


def test_brackets_are_the_likeliest(balanced):
    """Against SciPy's minimiser on the likelihood of interval-censored normal lives."""
    step = 0.25
    rows = [
        LifeRecord(
            r.trial, "", r.arm, "hand",
            float(np.exp(np.floor(np.log(r.lower) / step) * step)),
            float(np.exp((np.floor(np.log(r.lower) / step) + 1) * step)),
        )
        for r in balanced
    ]  # fmt: skip
    found = fit_given(network_of(rows), known(4))
    arms = np.array([int(r.arm[1]) for r in rows])
    trials = np.array([int(r.trial[1]) for r in rows])
    low, high = np.log([r.lower for r in rows]), np.log([r.upper for r in rows])

    def minus_log(theta):
        mean = np.append(0.0, theta[:4])[arms] + theta[4:][trials]
        inside = scipy.stats.norm.cdf((high - mean) / 0.1) - scipy.stats.norm.cdf(
            (low - mean) / 0.1
        )
        return -np.log(np.maximum(inside, 1e-300)).sum()

    start = np.concatenate([0.2 * np.arange(1, 5), 5 + 0.3 * np.arange(4)])
    best = scipy.optimize.minimize(minus_log, start, method="BFGS", options={"gtol": 1e-7})
    effects = found.arm_effect()
    np.testing.assert_allclose(effects[1:] - effects[0], best.x[:4], atol=1e-4)


def test_testers_differ_as_restricted_likelihood_says():
    """Against statsmodels' MixedLM (REML), where so many arms speak that no prior does."""
    rng = np.random.default_rng(8)
    hand = {(a, t): rng.normal(0, 0.15) for a in range(60) for t in range(2)}
    rows, groups, y, columns = [], [], [], []
    for tester, arm in product(range(2), range(60)):
        for noise in rng.normal(0, 0.08, 3):
            life = 5 + 0.1 * tester + hand[arm, tester] + noise
            rows.append(exact(f"T{tester}", f"A{arm}", float(np.exp(life)), tester=f"{tester}"))
            groups.append(2 * arm + tester)
            y.append(life)
            columns.append(np.concatenate([np.eye(60)[arm], [tester]]))
    found = fit(network_of(rows))
    reml = MixedLM(np.array(y), np.array(columns), groups=np.array(groups)).fit(reml=True)
    assert found.variances.tester_sd == pytest.approx(np.sqrt(reml.cov_re[0, 0]), rel=0.05)
    assert found.variances.common_sd == pytest.approx(np.sqrt(reml.scale), rel=0.05)


def test_one_trial_is_its_direct_ratio():
    rows = [exact("T", "A", life) for life in (100, 110, 121)]
    rows += [exact("T", "B", life) for life in (150, 165)]
    assert answer(rows).ratio("B", "A").ratio == pytest.approx(np.sqrt(150 * 165) / 110)


@settings(max_examples=8, deadline=None)
@given(st.integers(0, 10_000), st.floats(0.2, 5.0))
def test_only_ratios_inside_a_block_count(seed, factor):
    rows = season(SeasonKind(trials=8, arms=5, stops=0.0, checks=0.0), seed).records
    longer = [
        LifeRecord(r.trial, r.block, r.arm, r.tester, r.lower * factor, r.upper * factor)
        if r.trial == "T001"
        else r
        for r in rows
    ]
    plain, scaled = answer(rows).differences, answer(longer).differences
    np.testing.assert_allclose(plain.log_ratio, scaled.log_ratio, atol=1e-5)


def test_no_number_stands_across_islands_or_at_an_open_end():
    rows = [exact("T", "A", 100), exact("T", "B", 120), exact("U", "C", 90), exact("U", "D", 80)]
    rows.append(LifeRecord("T", "", "E", "hand", 200, None))
    found = answer(rows)
    assert found.ratio("A", "C") is None
    assert sorted(map(sorted, found.network.islands())) == [["A", "B", "E"], ["C", "D"]]
    open_end = found.ratio("E", "A")
    assert (open_end.ratio, open_end.high) == (None, None)
    assert 1.2 < open_end.low < 2.0
    assert found.ratio("A", "E").high == pytest.approx(1 / open_end.low)
    assert found.place("E").worst <= 2


def test_a_blade_lost_before_the_first_check_lies_below_one_that_outlasted_it():
    """Neither has a number, and what each says of the other is a bound."""
    rows = [LifeRecord("T", "", "A", "hand", 100, None), LifeRecord("T", "", "B", "hand", None, 40)]
    pair = answer(rows).ratio("A", "B")
    assert pair.ratio is None
    assert 1.2 < pair.low < 2.5


def test_everything_open_ended_says_nothing_and_fails_nowhere():
    rows = [LifeRecord("T", "", arm, "hand", 100, None) for arm in "ABC"]
    found = answer(rows)
    pair = found.ratio("A", "B")
    assert (pair.ratio, pair.low, pair.high) == (None, None, None)
    assert (found.place("A").best, found.place("A").worst) == (1, 3)


def test_one_blade_alone_and_a_thousand_trials_of_one():
    found = answer([exact("T", "A", 100)])
    assert (found.place("A").best, found.place("A").worst) == (1, 1)
    many = answer([exact(f"T{n}", f"A{n}", 100) for n in range(1000)])
    assert len(many.network.islands()) == 1000


def test_lives_that_say_nothing_are_refused_in_words():
    with pytest.raises(NotAllowedNowError, match="no life"):
        answer([LifeRecord("T", "", "A", "hand", None, None)])


def test_zones_of_one_edge_are_one_life():
    zones = [
        LifeRecord("T", "", "A", "hand", low, high, 0.1, edge="3")
        for low, high in ((100, 110), (121, 133.1))
    ]
    (life,) = one_an_edge(zones)
    assert (life.lower, life.upper) == (pytest.approx(110), pytest.approx(121))
    assert life.log_sd == pytest.approx(0.1 / np.sqrt(2))
