"""The shape library: normalised monotone rises g(u) over u = cuts / life, with g(0) = 0 and g(1) =
1.

Parametrised by its crossing, a curve F(n) = F0 + (limit - F0) g(n / T) has the life T as a
parameter, so that an interval for the life is read off directly. No one shape is believed: the
posterior averages over all.
"""

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Shape:
    """One normalised rise; `weight` is its prior weight before normalisation over the library."""

    name: str
    rise: Callable[[Floats], Floats]
    weight: float = 1.0


def _power(exponent: float) -> Shape:
    return Shape(f"power {exponent:g}", lambda u: np.asarray(u**exponent))


def _saturating(pace: float) -> Shape:
    return Shape(
        f"saturating {pace:g}", lambda u: np.divide(-np.expm1(-pace * u), -np.expm1(-pace))
    )


def _early_drop(lost: float, settle: float) -> Shape:
    def rise(u: Floats) -> Floats:
        drop = -np.expm1(-u / settle) / -np.expm1(-1.0 / settle)
        return np.asarray(lost * drop + (1.0 - lost) * u)

    return Shape(f"early drop {lost:g} by {settle:g}", rise, 0.7)


def _cliff(worn: float, at: float, exponent: float) -> Shape:
    """Slow wear to a share `worn` at u = `at`, then a straight fall through the limit."""

    def rise(u: Floats) -> Floats:
        slow = np.asarray(worn * (np.minimum(u, at) / at) ** exponent)
        return np.asarray(slow + (1.0 - worn) * np.maximum(u - at, 0.0) / (1.0 - at))

    return Shape(f"cliff from {worn:g} at {at:g}", rise, 0.5)


def _s_bend(middle: float, width: float) -> Shape:
    low = 1.0 / (1.0 + np.exp(middle / width))
    high = 1.0 / (1.0 + np.exp(-(1.0 - middle) / width))

    def rise(u: Floats) -> Floats:
        raw = 1.0 / (1.0 + np.exp(-np.clip((u - middle) / width, -60.0, 60.0)))
        return np.asarray((raw - low) / (high - low))

    return Shape(f"s-bend at {middle:g} over {width:g}", rise, 0.5)


def _bend(at: float, share: float) -> Shape:
    """Two straight stretches meeting at (at, share)."""

    def rise(u: Floats) -> Floats:
        return np.minimum(u, at) * share / at + np.maximum(u - at, 0.0) * (1.0 - share) / (1.0 - at)

    return Shape(f"bend at {at:g}, {share:g}", rise, 0.5)


@lru_cache(maxsize=1)
def library() -> tuple[Shape, ...]:
    """The registered shapes, in a fixed order."""
    powers = [_power(b) for b in (0.3, 0.4, 0.5, 0.62, 0.78, 1.0, 1.3, 1.7, 2.2, 3.0)]
    saturating = [_saturating(c) for c in (1.0, 2.0, 3.2)]
    early = [_early_drop(lost, settle) for lost in (0.3, 0.5) for settle in (0.05, 0.12)]
    cliffs = [
        _cliff(w, at, b)
        for at in (0.7, 0.82, 0.92, 0.97)
        for w, b in ((0.3, 1.0), (0.5, 0.7), (0.7, 0.7))
    ]
    s_bends = [_s_bend(m, w) for m in (0.4, 0.65, 0.9) for w in (0.1, 0.2)]
    bends = [_bend(at, share) for at, share in ((0.3, 0.6), (0.3, 0.12), (0.6, 0.85), (0.6, 0.3))]
    return tuple(powers + saturating + early + cliffs + s_bends + bends)


@lru_cache(maxsize=1)
def prior_weights() -> Floats:
    """Prior probabilities of the library's shapes, shape (shapes,).

    Powers and saturating curves are what published series follow; drops, cliffs and bends are
    rarer, by common practice, no source, and weigh less each. A worked example: all weights come to
    26.8, so that a power has 1 / 26.8 = 3.7 %, and the twelve cliffs have 6 / 26.8 = 22 % together.
    """
    weights = np.array([shape.weight for shape in library()])
    return np.asarray(weights / weights.sum())


def rises(u: Floats, kept: NDArray[np.intp] | None = None) -> Floats:
    """Evaluate every shape, or those kept by index, at `u`; shape (shapes, *u.shape)."""
    chosen = library() if kept is None else [library()[index] for index in kept]
    return np.stack([shape.rise(u) for shape in chosen])
