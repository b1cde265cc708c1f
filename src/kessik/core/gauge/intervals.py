"""Intervals of sums and differences of mean squares, by the modified large-sample method.

References
----------
[1] R. K. Burdick, F. A. Graybill, Confidence Intervals on Variance Components (1992), 3.3.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from scipy.special import chdtri, fdtri

_TAIL = 0.025
Interval = tuple[float, float]


@dataclass(frozen=True)
class Combination:
    """A mean square with its weight and its degrees."""

    weight: float
    mean: float
    df: int


def bounded(terms: Sequence[Combination]) -> Interval:
    """The 95 % interval of a weighted sum of mean squares; a variance is never below 0."""
    value = sum(term.weight * term.mean for term in terms)
    plus = [term for term in terms if term.weight > 0]
    minus = [term for term in terms if term.weight < 0]
    pairs = [(a, b, a.weight * -b.weight * a.mean * b.mean) for a in plus for b in minus]
    low = sum((_g(t) * t.weight * t.mean) ** 2 for t in plus)
    low += sum((_h(t) * t.weight * t.mean) ** 2 for t in minus)
    low += sum(_cross_low(a, b) * both for a, b, both in pairs)
    high = sum((_h(t) * t.weight * t.mean) ** 2 for t in plus)
    high += sum((_g(t) * t.weight * t.mean) ** 2 for t in minus)
    high += sum(_cross_high(a, b) * both for a, b, both in pairs)
    return (
        max(value - math.sqrt(max(low, 0.0)), 0.0),
        max(value + math.sqrt(max(high, 0.0)), 0.0),
    )


def _g(term: Combination) -> float:
    return 1.0 - term.df / float(chdtri(term.df, _TAIL))


def _h(term: Combination) -> float:
    return term.df / float(chdtri(term.df, 1.0 - _TAIL)) - 1.0


def _cross_low(a: Combination, b: Combination) -> float:
    f = float(fdtri(a.df, b.df, 1.0 - _TAIL))
    return ((f - 1.0) ** 2 - (_g(a) * f) ** 2 - _h(b) ** 2) / f


def _cross_high(a: Combination, b: Combination) -> float:
    f = float(fdtri(a.df, b.df, _TAIL))
    return ((1.0 - f) ** 2 - (_h(a) * f) ** 2 - _g(b) ** 2) / f
