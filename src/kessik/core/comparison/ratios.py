"""Ratios of blade lives with simultaneous intervals over all pairs."""

from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.comparison.lives import SPREAD_NODES, BladePosterior, LifePosterior, spread_prior

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Interval:
    """An estimate with its bounds, all on the scale named where it is used."""

    estimate: float
    low: float
    high: float


@dataclass(frozen=True)
class Ratio:
    """life(b) / life(a): 95 % and 90 % bounds, both simultaneous over all pairs, and the s.d. of
    its ln.
    """

    a: str
    b: str
    at_95: Interval
    at_90: Interval
    log_sd: float


@lru_cache(maxsize=64)
def pair_level(blades: int, level: float = 0.95) -> float:
    """Confidence each pair needs so that all pairs hold together (range of normal means [1]).

    References
    ----------
    [1] J. W. Tukey, The problem of multiple comparisons, 1953; from memory.
    """
    if blades <= 2:
        return level

    z = np.linspace(-8.0, 16.0, 4801)
    density = np.exp(-0.5 * z**2) / np.sqrt(2.0 * np.pi)

    def chance(width: float) -> float:
        inside = (
            blades
            * density
            * (scipy.special.ndtr(z) - scipy.special.ndtr(z - width)) ** (blades - 1)
        )
        return float(np.trapezoid(inside, z))

    width = float(scipy.optimize.brentq(lambda w: chance(w) - level, 1.0, 12.0))
    return float(2.0 * scipy.special.ndtr(width / np.sqrt(2.0)) - 1.0)


def blade_life(posterior: LifePosterior, blade: BladePosterior) -> Interval:
    """A blade's life over re-sharpened edges with 95 % interval, in the unit of the counts."""
    mass = posterior.spread_weights @ blade.mass
    return _interval(posterior.log_life, mass, 0.95)


def blade_spread_percent(blade: BladePosterior) -> float | None:
    """Edge-to-edge spread of ln life from this blade alone, estimation error taken out; None with
    one edge.
    """
    if blade.edge_count < 2:
        return None
    weights = spread_prior() * blade.evidence
    cumulative = np.cumsum(weights / weights.sum()) - 0.5 * weights / weights.sum()
    return float(100.0 * np.exp(np.interp(0.5, cumulative, np.log(SPREAD_NODES))))


def all_ratios(posterior: LifePosterior) -> list[Ratio]:
    """Every pair of blades, in their order."""
    count = len(posterior.blades)
    at_95, at_90 = pair_level(count, 0.95), pair_level(count, 0.90)
    step = posterior.log_life[1] - posterior.log_life[0]
    size = posterior.log_life.size
    lags = step * np.arange(-(size - 1), size)
    length = scipy.fft.next_fast_len(2 * size - 1, real=True)
    spectra = [scipy.fft.rfft(blade.mass, length, axis=1) for blade in posterior.blades]
    ratios = []
    for (a, of_a), (b, of_b) in combinations(zip(posterior.blades, spectra, strict=True), 2):
        # the cross-correlation of both blades, for every spread at once; rounding leaves it a hair
        # below zero
        circular = scipy.fft.irfft(posterior.spread_weights @ (np.conj(of_a) * of_b), length)
        mass = np.maximum(np.concatenate([circular[-(size - 1) :], circular[:size]]), 0.0)
        mass /= mass.sum()
        mean = float(mass @ lags)
        log_sd = float(np.sqrt(mass @ (lags - mean) ** 2))
        ratios.append(
            Ratio(
                a.code, b.code, _interval(lags, mass, at_95), _interval(lags, mass, at_90), log_sd
            )
        )
    return ratios


def _interval(log_values: Floats, mass: Floats, level: float) -> Interval:
    cumulative = np.cumsum(mass) - 0.5 * mass
    tail = 0.5 * (1.0 - level)
    low, middle, high = np.exp(np.interp([tail, 0.5, 1.0 - tail], cumulative, log_values))
    return Interval(float(middle), float(low), float(high))
