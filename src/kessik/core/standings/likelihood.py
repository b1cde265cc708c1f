"""How likely an interval of ln life is for a mean and a scatter, with slope and curvature."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.special import log_ndtr

Floats = NDArray[np.float64]

_EXACT_SHARE = 1e-3
_MOST_KAPPA = 1.0 - 1e-9
_LOG_ROOT_2_PI = 0.5 * float(np.log(2.0 * np.pi))


@dataclass(frozen=True)
class Likelihood:
    """By run: ln likelihood, mean `r` and variance `kappa` of the standardised error given its
    interval.

    The slope in the mean is r / σ and the curvature (1 − κ) / σ²; where a life is exact κ is 0.
    """

    log: Floats
    r: Floats
    kappa: Floats


def likelihood(mean: Floats, log_lower: Floats, log_upper: Floats, sd: Floats) -> Likelihood:
    """Of runs with mean ln life and total scatter, shape (runs,) each.

    References
    ----------
    [1] W. Nelson, Accelerated Testing, chapter 5: interval-censored normal regression.
    """
    a, b = (log_lower - mean) / sd, (log_upper - mean) / sd
    exact = b - a < _EXACT_SHARE
    middle = np.where(exact, 0.5 * (a + b), 0.0)
    a, b = np.where(exact, -1.0, a), np.where(exact, 1.0, b)

    # Φ(b) − Φ(a) from the tail in which both are small
    flipped = a > 0
    low, high = np.where(flipped, -b, a), np.where(flipped, -a, b)
    log_high = log_ndtr(high)
    log_chance = log_high + np.log1p(-np.exp(log_ndtr(low) - log_high))

    density_a, density_b = _density(a, log_chance), _density(b, log_chance)
    r = density_a - density_b
    ends = _times(a, density_a) - _times(b, density_b)
    kappa = np.clip(1.0 + ends - r**2, 0.0, _MOST_KAPPA)

    log_exact = -0.5 * middle**2 - np.log(sd) - _LOG_ROOT_2_PI
    return Likelihood(
        np.where(exact, log_exact, log_chance),
        np.where(exact, middle, r),
        np.where(exact, 0.0, kappa),
    )


def _density(z: Floats, log_chance: Floats) -> Floats:
    return np.asarray(np.exp(-0.5 * z**2 - _LOG_ROOT_2_PI - log_chance))


def _times(z: Floats, density: Floats) -> Floats:
    """z φ(z), which is 0 at an open end."""
    return np.asarray(np.where(np.isfinite(z), z, 0.0) * density)
