"""How simulated edges really lose sharpness: textbook decays and ones nobody wrote a formula
for.
"""

from collections.abc import Callable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Rise = Callable[[Floats], Floats]
"""Share of the way from the start to the limit, over cuts / life; rises from 0, is 1 at 1,
never falls."""


@dataclass(frozen=True)
class TrueEdge:
    """An edge whose true force is known at every cut; forces in gf, life in cuts."""

    kind: str
    start_gf: float
    limit_gf: float
    life: float
    rise: Rise

    def force_gf(self, cuts: Floats | float) -> Floats:
        share = self.rise(np.atleast_1d(np.asarray(cuts, dtype=float)) / self.life)
        return self.start_gf + (self.limit_gf - self.start_gf) * share


def _wear_power(rng: np.random.Generator) -> Rise:
    exponent = rng.uniform(0.35, 1.3)
    return lambda u: np.asarray(u**exponent)


def _work_up(rng: np.random.Generator) -> Rise:
    exponent = rng.uniform(1.3, 2.6)
    return lambda u: np.asarray(u**exponent)


def _steady(rng: np.random.Generator) -> Rise:
    return lambda u: u.copy()


def _levelling(rng: np.random.Generator) -> Rise:
    pace = rng.uniform(0.5, 2.6)
    return lambda u: -np.expm1(-pace * u) / -np.expm1(-pace)


def _logarithmic(rng: np.random.Generator) -> Rise:
    scale = np.exp(rng.uniform(0.0, np.log(25.0)))
    return lambda u: np.log1p(scale * u) / np.log1p(scale)


def _burr_then_wear(rng: np.random.Generator) -> Rise:
    """A weak burr folds in the first cuts, then wear goes on evenly."""
    lost = rng.uniform(0.2, 0.55)
    settle = rng.uniform(0.03, 0.12)

    def rise(u: Floats) -> Floats:
        return np.asarray(lost * -np.expm1(-u / settle) / -np.expm1(-1 / settle) + (1 - lost) * u)

    return rise


def _sudden_end(rng: np.random.Generator) -> Rise:
    """Slow wear, then the apex breaks out and the rest goes within a few cuts."""
    worn = rng.uniform(0.3, 0.65)
    breaks_at = rng.uniform(0.75, 0.95)
    bend = rng.uniform(0.5, 1.1)

    def rise(u: Floats) -> Floats:
        slow = worn * np.power(np.minimum(u, breaks_at) / breaks_at, bend)
        return np.asarray(slow) + (1 - worn) * np.maximum(u - breaks_at, 0.0) / (1 - breaks_at)

    return rise


def _s_curve(rng: np.random.Generator) -> Rise:
    middle = rng.uniform(0.3, 0.95)
    width = rng.uniform(0.08, 0.25)

    def raw(u: Floats) -> Floats:
        return 1.0 / (1.0 + np.exp(-(u - middle) / width))

    low, high = raw(np.zeros(1))[0], raw(np.ones(1))[0]
    return lambda u: (raw(u) - low) / (high - low)


def _stairs(rng: np.random.Generator) -> Rise:
    """Sharpness goes in jumps, with a little wear between; one of the jumps carries it past the
    limit.
    """
    count = int(rng.integers(3, 8))
    places = np.sort(rng.uniform(0.05, 0.95, count))
    heights = rng.uniform(0.5, 1.5, count + 1)
    wear = rng.uniform(0.1, 0.4)
    scale = (heights[:-1].sum() + 0.5 * heights[-1]) / (1 - wear)
    later = np.concatenate([places, [1.0], 1.0 + np.cumsum(rng.uniform(0.08, 0.3, 12))])
    jumps = np.concatenate([heights, rng.uniform(0.5, 1.5, 12)]) / scale

    def rise(u: Floats) -> Floats:
        return np.asarray(wear * u + (np.atleast_1d(u)[:, None] >= later[None, :]) @ jumps)

    return rise


def _random_walk_up(rng: np.random.Generator) -> Rise:
    """Any monotone path: random increments of very unlike size at random places."""
    knots = int(rng.integers(6, 20))
    step = 1.0 / knots
    increments = rng.gamma(rng.uniform(0.4, 2.0), size=4 * knots)
    heights = np.concatenate([[0.0], np.cumsum(increments) + 1e-9 * np.arange(1, 4 * knots + 1)])
    heights = heights / heights[knots]
    places = step * np.arange(heights.size)
    slope = max(heights[-1] / places[-1], 0.2)
    return lambda u: np.interp(u, places, heights) + slope * np.maximum(u - places[-1], 0.0)


def _bent_line(rng: np.random.Generator) -> Rise:
    """Two straight stretches with one bend anywhere."""
    bend_u, bend_share = rng.uniform(0.15, 0.85), rng.uniform(0.1, 0.9)

    def rise(u: Floats) -> Floats:
        after = (1 - bend_share) / (1 - bend_u)
        return np.minimum(u, bend_u) * bend_share / bend_u + np.maximum(u - bend_u, 0.0) * after

    return rise


TEXTBOOK: dict[str, Callable[[np.random.Generator], Rise]] = {
    "wear_power": _wear_power,
    "work_up": _work_up,
    "steady": _steady,
    "levelling": _levelling,
    "logarithmic": _logarithmic,
    "burr_then_wear": _burr_then_wear,
    "sudden_end": _sudden_end,
}
SURPRISE: dict[str, Callable[[np.random.Generator], Rise]] = {
    "s_curve": _s_curve,
    "stairs": _stairs,
    "random_walk_up": _random_walk_up,
    "bent_line": _bent_line,
}
KINDS = {**TEXTBOOK, **SURPRISE}


def true_edge(
    kind: str,
    life: float,
    rng: np.random.Generator,
    *,
    start_gf: float = 150.0,
    limit_gf: float = 400.0,
) -> TrueEdge:
    """Draw one true edge of a kind with a given life in cuts; forces in gf."""
    return TrueEdge(kind, start_gf, limit_gf, life, KINDS[kind](rng))
