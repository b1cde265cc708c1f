"""Interval-censored lives against direct numerical integration with SciPy, done another way than on
the grid.

Two brackets of one blade: the posterior of the mean ln life is the prior-weighted product of normal
probabilities of the brackets, by adaptive quadrature over the spread (log-normal prior: common
practice, no source).
"""

import numpy as np
import pytest
from scipy import integrate, stats

from kessik.core.comparison.lives import SPREAD_LOG_SD, SPREAD_MEDIAN, BladeEdges, Bracket, solve
from kessik.core.comparison.ratios import blade_life


def by_quadrature(brackets, shares):
    def density(theta):
        def at(log_spread):
            spread = np.exp(log_spread)
            chances = [
                stats.norm.cdf((np.log(b) - theta) / spread)
                - stats.norm.cdf((np.log(a) - theta) / spread)
                for a, b in brackets
            ]
            return np.prod(chances) * stats.norm.pdf(
                log_spread, np.log(SPREAD_MEDIAN), SPREAD_LOG_SD
            )

        reach = 2.4 * SPREAD_LOG_SD
        return integrate.quad(at, np.log(SPREAD_MEDIAN) - reach, np.log(SPREAD_MEDIAN) + reach)[0]

    grid = np.linspace(np.log(30), np.log(90), 241)
    cumulative = np.cumsum([density(theta) for theta in grid])
    return np.exp(np.interp(shares, cumulative / cumulative[-1], grid))


def test_two_brackets_of_one_blade():
    brackets = [(48.0, 60.0), (44.0, 52.0)]
    posterior = solve([BladeEdges("A", tuple((Bracket(a, b),) for a, b in brackets))])
    found = blade_life(posterior, posterior.blades[0])
    low, middle, high = by_quadrature(brackets, [0.025, 0.5, 0.975])
    # 1.5 %: the grid is 1.2 % wide, and its spread nodes are nine.
    assert (found.low, found.estimate, found.high) == pytest.approx((low, middle, high), rel=0.015)
