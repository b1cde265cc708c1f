"""What a bracket or an open end says of a life, against R's survreg and SciPy's censored fits.

Data and the R results: surpyval 0.25 (MIT), its reference data; a Weibull life is a location and a
scale on the log, with another curve than ours: (left, right] in both.
"""

from pathlib import Path

import numpy as np
import pytest
from scipy import optimize, stats

from kessik.core.comparison.lives import Bracket, chance

ROWS = [
    line.split("\t")
    for line in (Path(__file__).parent / "interval_censored.tsv").read_text().splitlines()[3:]
]
LIVES = [(float(left), float(right) if right else None) for left, right in ROWS]
R_LOG_SCALE, R_SCALE, R_LOG_LIKELIHOOD = 2.23077779120431, 0.469695961424355, -126.122192368985


def log_likelihood(centre, scale, curve):
    """Of all lives, for one mean ln life and spread; an exact life by its density."""
    total = 0.0
    for low, high in LIVES:
        if low == high:
            z = (np.log(low) - centre) / scale
            total += curve.logpdf(z) - np.log(scale * low)
        else:
            row = chance(Bracket(low, high), np.array([centre]), scale, curve.cdf)
            total += np.log(row[0, 0])
    return float(total)


def fitted(curve):
    """The centre and scale of the highest likelihood."""
    found = optimize.minimize(
        lambda p: -log_likelihood(p[0], np.exp(p[1]), curve), [2.0, -0.7], method="Nelder-Mead",
        options={"xatol": 1e-8, "fatol": 1e-10},
    )  # fmt: skip  # a table is read by its rows
    return found.x[0], float(np.exp(found.x[1]))


def test_the_likelihood_is_that_of_r():
    found = log_likelihood(R_LOG_SCALE, R_SCALE, stats.gumbel_l)
    assert found == pytest.approx(R_LOG_LIKELIHOOD, abs=1e-9)
    assert fitted(stats.gumbel_l) == pytest.approx((R_LOG_SCALE, R_SCALE), abs=1e-5)


def test_log_normal_lives_are_fitted_as_scipy_fits_them():
    exact = [low for low, high in LIVES if low == high]
    within = [(low, high) for low, high in LIVES if low and high and low < high]
    data = stats.CensoredData(
        uncensored=exact,
        left=[high for low, high in LIVES if not low],
        right=[low for low, high in LIVES if high is None],
        interval=within,
    )
    sigma, _, scale = stats.lognorm.fit(data, floc=0)
    assert fitted(stats.norm) == pytest.approx((np.log(scale), sigma), abs=2e-4)
