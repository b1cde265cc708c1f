"""Composition against performance: do blades with more of something last longer, as far as so few
can say?
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
import scipy

from kessik.core.spreads import Z_95

YieldKind = Literal["life", "strokes", "minutes"]
FEWEST_FOR_AN_INTERVAL, FEWEST_THAT_SAY_MUCH = 4, 10
_TRAVEL_TOGETHER = 0.8
_SPREAD_OF_RANKS = 1.06


@dataclass(frozen=True)
class Seen:
    """One blade: `x` of it, how far it went (`y` with its bounds, None where they are open), and
    whether `x` is known well enough to count.
    """

    blade_id: str
    code: str
    mark: int
    x: float
    y: float
    low: float | None
    high: float | None
    counts: bool
    x_from: str


@dataclass(frozen=True)
class Trend:
    """Rank correlation over so many blades, with its 95 % interval where there are enough."""

    blades: int
    rho: float | None
    low: float | None = None
    high: float | None = None


def trend(points: Sequence[Seen]) -> Trend:
    """The rank correlation of the points that count; none with fewer than three, or where all are
    alike.

    References
    ----------
    [1] E. C. Fieller, H. O. Hartley and E. S. Pearson, Tests for rank correlation coefficients,
    1957: the variance of Fisher's z is 1.06 / (n - 3); from memory.
    """
    kept = one_a_blade([point for point in points if point.counts])
    xs, ys = [point.x for point in kept], [point.y for point in kept]
    if len(kept) < 3 or len(set(xs)) < 2 or len(set(ys)) < 2:
        return Trend(len(kept), None)
    rho = rank_correlation(xs, ys)
    if len(kept) < FEWEST_FOR_AN_INTERVAL or abs(rho) >= 1.0:
        return Trend(len(kept), rho)
    half = Z_95 * math.sqrt(_SPREAD_OF_RANKS / (len(kept) - 3))
    z = math.atanh(rho)
    return Trend(len(kept), rho, math.tanh(z - half), math.tanh(z + half))


def one_a_blade(points: Sequence[Seen]) -> list[Seen]:
    """Several arms or trials of a blade as one: its lives together, by their geometric mean."""
    by_blade: dict[str, list[Seen]] = {}
    for point in points:
        by_blade.setdefault(point.blade_id, []).append(point)
    return [
        replace(own[0], y=math.exp(math.fsum(math.log(p.y) for p in own) / len(own)))
        for own in by_blade.values()
    ]


def rank_correlation(xs: Sequence[float], ys: Sequence[float]) -> float:
    """Spearman's rho, ties sharing their ranks."""
    ranks = [scipy.stats.rankdata(values) for values in (xs, ys)]
    return float(np.corrcoef(ranks[0], ranks[1])[0, 1])


def travelling_with(
    name: str, columns: Mapping[str, Mapping[str, float]], blades: Sequence[str]
) -> list[str]:
    """The other variables that rise and fall with one over these blades, so that the effect may
    come from either. `columns` holds a value by blade for each variable.
    """
    own = columns.get(name, {})
    found = []
    for other, values in columns.items():
        shared = [blade for blade in blades if blade in own and blade in values]
        xs, ys = [own[blade] for blade in shared], [values[blade] for blade in shared]
        if other == name or len(shared) < 3 or len(set(xs)) < 2 or len(set(ys)) < 2:
            continue
        if abs(rank_correlation(xs, ys)) >= _TRAVEL_TOGETHER:
            found.append(other)
    return found
