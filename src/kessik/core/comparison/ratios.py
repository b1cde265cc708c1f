"""Ratios of blade lives with simultaneous intervals over all pairs."""

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import combinations
from typing import Literal

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.comparison.lives import (
    SPREAD_NODES,
    BladePosterior,
    LifePosterior,
    OpenEnd,
    spread_prior,
)

Floats = NDArray[np.float64]
_EVERYWHERE = 0.99


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

    Where an end is open there is no estimate: `open_end` says on which side of the ratio nothing
    is known, and the bound there is 0 or infinite. `blocks` counts the blocks it was seen in, 0
    where blades were compared as a whole.
    """

    a: str
    b: str
    at_95: Interval
    at_90: Interval
    log_sd: float
    open_end: OpenEnd | Literal["both"] = ""
    blocks: int = 0


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


def edge_scatter(prior: Floats, evidences: Sequence[Floats]) -> float:
    """Edge-to-edge scatter as s.d. of ln life, estimation error taken out, as blades with such
    evidence for each spread share it: the median of its posterior.
    """
    weights = np.prod([prior, *evidences], axis=0)
    weights = weights / weights.sum()
    cumulative = np.cumsum(weights) - 0.5 * weights
    return float(np.exp(np.interp(0.5, cumulative, np.log(SPREAD_NODES))))


def all_ratios(posterior: LifePosterior) -> list[Ratio]:
    """Every pair of blades, in their order."""
    count = len(posterior.blades)
    levels = pair_level(count, 0.95), pair_level(count, 0.90)
    return [_ratio(posterior, a, b, levels) for a, b in combinations(posterior.blades, 2)]


def ratio_of(posterior: LifePosterior, a: str, b: str) -> Ratio:
    """One pair of blades, by their codes, as if it were the only one."""
    found = {blade.code: blade for blade in posterior.blades}
    return _ratio(posterior, found[a], found[b], (0.95, 0.90))


def _ratio(
    posterior: LifePosterior, a: BladePosterior, b: BladePosterior, levels: tuple[float, float]
) -> Ratio:
    step, size = posterior.log_life[1] - posterior.log_life[0], posterior.log_life.size
    lags = step * np.arange(-(size - 1), size)
    if a.open_end or b.open_end:
        return _open_ratio(posterior, a, b, lags, levels)
    shared = sorted(a.by_block.keys() & b.by_block.keys())
    if len(a.by_block.keys() | b.by_block.keys()) > 1 and shared:
        mass = _inside_blocks(a, b, shared)
    else:
        shared = []
        mass = posterior.spread_weights @ _correlation(a.mass, b.mass)
    mass = np.maximum(mass, 0.0)  # rounding leaves it a hair below zero
    mass /= mass.sum()
    mean = float(mass @ lags)
    log_sd = float(np.sqrt(mass @ (lags - mean) ** 2))
    at_95, at_90 = (_interval(lags, mass, level) for level in levels)
    return Ratio(a.code, b.code, at_95, at_90, log_sd, "", len(shared))


def _inside_blocks(a: BladePosterior, b: BladePosterior, blocks: Sequence[int]) -> Floats:
    """Likelihood of every ratio: what each block says of it by itself, whatever its own level."""
    log_likelihood = np.log(spread_prior())[:, None]
    for block in blocks:
        seen = np.maximum(_correlation(a.by_block[block], b.by_block[block]), 1e-300)
        log_likelihood = log_likelihood + np.log(seen)
    return np.asarray(np.exp(log_likelihood - log_likelihood.max()).sum(axis=0))


def _correlation(a: Floats, b: Floats) -> Floats:
    """How b lies against a at every lag, spread by spread: shape (spreads, 2 grid - 1)."""
    size = a.shape[1]
    length = scipy.fft.next_fast_len(2 * size - 1, real=True)
    spectra = np.conj(scipy.fft.rfft(a, length, axis=1)) * scipy.fft.rfft(b, length, axis=1)
    circular = scipy.fft.irfft(spectra, length, axis=1)
    return np.concatenate([circular[:, -(size - 1) :], circular[:, :size]], axis=1)


def _open_ratio(
    posterior: LifePosterior,
    a: BladePosterior,
    b: BladePosterior,
    lags: Floats,
    levels: tuple[float, float],
) -> Ratio:
    """A ratio of which one bound is known: the smallest (or largest) that what was seen does not
    speak against, at the chance that is left outside the interval on that side.
    """
    nothing = Interval(float("nan"), 0.0, float("inf"))
    if a.open_end == b.open_end:
        return Ratio(a.code, b.code, nothing, nothing, float("inf"), "both")
    upward = b.open_end == "above" or a.open_end == "below"
    if _says_nothing(a) or _says_nothing(b):
        return Ratio(a.code, b.code, nothing, nothing, float("inf"), "above" if upward else "below")
    known = _bound_density(a) if a.open_end and b.open_end else a.mass
    agree = posterior.spread_weights @ _correlation(known, b.mass)
    agree = agree / agree.max()
    at_95, at_90 = (_one_bound(lags, agree, level, upward) for level in levels)
    side: OpenEnd = "above" if upward else "below"
    return Ratio(a.code, b.code, at_95, at_90, float("inf"), side)


def _says_nothing(blade: BladePosterior) -> bool:
    """Whether what was seen of a blade is as likely for every life: it was only looked at fresh."""
    return bool(blade.open_end) and float(blade.mass.min()) > _EVERYWHERE


def _one_bound(lags: Floats, agree: Floats, level: float, upward: bool) -> Interval:
    enough = np.flatnonzero(agree >= 0.5 * (1.0 - level))
    at = float(np.exp(lags[enough[0] if upward else enough[-1]]))
    return Interval(float("nan"), *((at, float("inf")) if upward else (0.0, at)))


def _bound_density(blade: BladePosterior) -> Floats:
    """Where the bound of a blade with an open end lies, as a density."""
    steps = np.abs(np.diff(blade.mass, axis=1, prepend=blade.mass[:, :1]))
    return np.asarray(steps / steps.sum(axis=1, keepdims=True))


def _interval(log_values: Floats, mass: Floats, level: float) -> Interval:
    cumulative = np.cumsum(mass) - 0.5 * mass
    tail = 0.5 * (1.0 - level)
    low, middle, high = np.exp(np.interp([tail, 0.5, 1.0 - tail], cumulative, log_values))
    return Interval(float(middle), float(low), float(high))
