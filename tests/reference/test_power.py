"""What a plan can show, against the power functions of statsmodels where the model reduces to them,
and against simulation of the model elsewhere.
"""

import numpy as np
import pytest
from scipy.special import ndtr
from statsmodels.stats.power import NormalIndPower, TTestIndPower

from kessik.core.comparison.lives import SPREAD_NODES, spread_prior
from kessik.core.planning.power import POWER, detectable, edges_needed, spread_from_repeats

KNOWN = (np.array([0.05]), np.array([1.0]))


@pytest.mark.parametrize("edges", [1, 2, 5, 20, 60])
@pytest.mark.parametrize("error", [0.0, 0.08, 0.15])
def test_with_a_known_spread_it_is_the_two_sample_normal_power(edges, error):
    sd = np.hypot(0.05, error)
    effect = NormalIndPower().solve_power(nobs1=edges, alpha=0.05, power=POWER)
    assert np.log(detectable(edges, error, 2, KNOWN).ratio) == pytest.approx(effect * sd, rel=1e-6)


def test_with_many_edges_it_nears_the_two_sample_t_test_whatever_was_believed_of_the_spread():
    """TTestIndPower knows nothing of the spread beforehand; with 60 edges a blade nor does it
    matter here.
    """
    effect = TTestIndPower().solve_power(nobs1=60, alpha=0.05, power=POWER)
    nodes = np.geomspace(0.01, 0.2, 41)
    for true in (0.03, 0.06):
        at = int(np.argmin(np.abs(nodes - true)))
        weights = np.full(41, 1e-3)
        weights[at] = 1.0
        found = np.log(detectable(60, 0.05, 2, (nodes, weights / weights.sum())).ratio)
        assert found == pytest.approx(effect * np.hypot(nodes[at], 0.05), rel=0.05)


@pytest.mark.parametrize(("edges", "error"), [(1, 0.08), (2, 0.08), (3, 0.12)])
def test_with_few_edges_by_simulation_of_the_model(edges, error):
    """Draw spreads from the prior and edges from the model; test each pair as the verdict's model
    does, and count.
    """
    rng = np.random.default_rng(11)
    prior = spread_prior()
    difference = np.log(detectable(edges, error).ratio)
    drawn = 40_000
    spread = rng.choice(SPREAD_NODES, drawn, p=prior)
    sd = np.hypot(spread, error)
    a, b = (rng.normal(0, 1, (drawn, edges)) * sd[:, None] for _ in range(2))
    b += difference
    freedom = 2 * (edges - 1)
    scatter = ((a - a.mean(1, keepdims=True)) ** 2).sum(1) + (
        (b - b.mean(1, keepdims=True)) ** 2
    ).sum(1)
    variance = SPREAD_NODES**2 + error**2
    log_weight = np.log(prior) - 0.5 * (freedom * np.log(variance) + scatter[:, None] / variance)
    weight = np.exp(log_weight - log_weight.max(1, keepdims=True))
    weight /= weight.sum(1, keepdims=True)
    seen = np.abs(b.mean(1) - a.mean(1))
    beyond = (weight * 2 * ndtr(-seen[:, None] / np.sqrt(2 * variance / edges))).sum(1)
    assert (beyond < 0.05).mean() == pytest.approx(POWER, abs=0.03)


def test_more_edges_show_less_and_more_blades_ask_for_more():
    by_edges = [detectable(k, 0.08).ratio for k in range(1, 13)]
    assert by_edges == sorted(by_edges, reverse=True)
    assert detectable(3, 0.08, 6).ratio > detectable(3, 0.08, 2).ratio
    assert detectable(3, 0.12).ratio > detectable(3, 0.08).ratio


@pytest.mark.parametrize("percent", [10, 20, 50])
def test_the_edges_needed_are_the_fewest_that_do(percent):
    wanted = 1 + percent / 100
    edges = edges_needed(wanted, 0.08)
    assert detectable(edges, 0.08).ratio <= wanted
    assert edges == 1 or detectable(edges - 1, 0.08).ratio > wanted
    assert edges_needed(1 / wanted, 0.08) == edges, "a fifth longer is asked for either way round"
    assert edges_needed(1.001, 0.08) is None


def test_the_testers_own_repeats_are_learned():
    nodes, prior, none = spread_from_repeats([], 0.03)
    assert none == 0
    assert prior == pytest.approx(spread_prior())
    steady = [[3.0, 3.005, 2.995]] * 6
    wild = [[3.0, 3.3, 2.7]] * 6
    _, calm, repeats = spread_from_repeats(steady, 0.03)
    _, rough, _ = spread_from_repeats(wild, 0.03)
    assert repeats == 12
    assert calm @ nodes < prior @ nodes < rough @ nodes
    assert (
        detectable(3, 0.03, 2, (nodes, calm)).ratio < detectable(3, 0.03, 2, (nodes, rough)).ratio
    )


def test_thousands_of_repeats_leave_the_spread_known_and_a_number():
    repeats = [(0.0, 0.05), (0.0, -0.04)] * 1000
    nodes, weights, spoke = spread_from_repeats(repeats, 0.03)
    found = detectable(2, 0.03, 2, (nodes, weights))
    assert spoke == 2000
    assert 1.0 < found.ratio < 1.5
