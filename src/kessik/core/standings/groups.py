"""Grades, makers and other groups of arms: where each stands, and how far its blades spread.

References
----------
[1] D. A. Harville, J. Am. Stat. Assoc. 72 (1977): restricted likelihood of variance components.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.spreads import Z_95
from kessik.core.standings.answer import Standings

Floats = NDArray[np.float64]

_SDS = np.concatenate([[0.0], np.geomspace(0.01, 1.5, 48)])
_LOG_SDS = (np.log(0.01), np.log(2.0))
_ENOUGH = {"xatol": 0.03, "fatol": 0.02, "maxiter": 60}
_LOW_AT = 2.0
"""A blade is unlike its grade where it lies so many standard deviations off the others."""


@dataclass(frozen=True)
class GroupLife:
    """A group as a multiple of the reference's life: its mean with a 95 % interval for another
    blade of it alike, and from where to where its arms have run.
    """

    name: str
    arms: tuple[str, ...]
    ratio: float
    low: float
    high: float
    lowest: float
    highest: float


@dataclass(frozen=True)
class Spread:
    """Where lives differ: s.d. of ln life between groups, between arms of one group, edges of one
    arm, testers of one arm, and blocks.
    """

    groups: float
    arms: float
    edges: float
    testers: float
    blocks: float

    def shares(self) -> dict[str, float]:
        """The share of each in the whole variance."""
        squares = {name: sd**2 for name, sd in vars(self).items()}
        total = sum(squares.values()) or 1.0
        return {name: square / total for name, square in squares.items()}


@dataclass(frozen=True)
class Groups:
    """All groups beside the reference, the longest-lived first, and where lives differ."""

    groups: tuple[GroupLife, ...]
    spread: Spread
    unlike: Mapping[str, float]


def groups_of(found: Standings, names: Mapping[str, str], reference: str) -> Groups:
    """Groups of the arms on firm ground with the reference; `names` gives the group of each arm.

    `unlike` holds arms far from the others of their group, by the factor they are off.
    """
    network = found.network
    at = network.arms.index(reference)
    ground = network.group_of == network.group_of[at]
    own = np.flatnonzero(ground & found.fit.design.placed)
    labels = [names.get(network.arms[arm], "") for arm in own]
    effects = found.fit.arm_effect()[own]
    base = found.fit.arm_effect()[at]
    covariance = found.fit.arm_covariance()[np.ix_(own, own)]
    between, within = _components(effects, covariance, labels)
    groups: list[GroupLife] = []
    unlike: dict[str, float] = {}
    for name in dict.fromkeys(label for label in labels if label):
        members = np.array([n for n, label in enumerate(labels) if label == name])
        values, doubt = effects[members] - base, covariance[np.ix_(members, members)]
        mean, variance = _mean(values, doubt, within)
        half = Z_95 * float(np.sqrt(variance + within**2))
        low, middle, high = np.exp([mean - half, mean, mean + half])
        arms = tuple(network.arms[own[n]] for n in members)
        spread = np.exp([values.min(), values.max()])
        groups.append(GroupLife(name, arms, middle, low, high, spread[0], spread[1]))
        unlike |= _unlike(arms, values, doubt, within)
    groups.sort(key=lambda group: -group.ratio)
    variances = found.fit.variances
    spread_of = Spread(between, within, variances.common_sd, variances.tester_sd, _block_sd(found))
    return Groups(tuple(groups), spread_of, unlike)


def _mean(values: Floats, doubt: Floats, within: float) -> tuple[float, float]:
    """The weighted mean of arms and its variance."""
    total = doubt + np.eye(values.size) * max(within, 1e-3) ** 2
    weights = np.linalg.solve(total, np.ones(values.size))
    return float(weights @ values / weights.sum()), float(1.0 / weights.sum())


def _unlike(arms: Sequence[str], values: Floats, doubt: Floats, within: float) -> dict[str, float]:
    """Arms that lie far from the mean of the others of their group."""
    out = {}
    for n, arm in enumerate(arms):
        others = np.arange(values.size) != n
        if others.sum() < 2:
            continue
        mean, variance = _mean(values[others], doubt[np.ix_(others, others)], within)
        off = float(values[n] - mean)
        if abs(off) > _LOW_AT * np.sqrt(variance + within**2 + doubt[n, n]):
            out[arm] = float(np.exp(off))
    return out


def _components(effects: Floats, covariance: Floats, labels: Sequence[str]) -> tuple[float, float]:
    """S.d. between groups and between arms of one, the likeliest of a grid by contrasts."""
    named = [n for n, label in enumerate(labels) if label]
    if len(named) < 3 or len({labels[n] for n in named}) < 2:
        return 0.0, _one_component(effects, covariance)
    kept = np.array(named)
    same = np.array([[labels[i] == labels[j] for j in kept] for i in kept], dtype=float)
    contrasts = scipy.linalg.helmert(kept.size)
    values = contrasts @ effects[kept]
    error = contrasts @ covariance[np.ix_(kept, kept)] @ contrasts.T
    alike = contrasts @ same @ contrasts.T
    start = np.log([0.3, 0.1])

    def minus_height(log_sds: Floats) -> float:
        group, arm = np.exp(2.0 * np.clip(log_sds, *_LOG_SDS))
        return -_height(values, error + group * alike + arm * np.eye(values.size))

    best = scipy.optimize.minimize(minus_height, start, method="Nelder-Mead", options=_ENOUGH)
    group, arm = np.exp(np.clip(best.x, *_LOG_SDS))
    return _or_none(group), _or_none(arm)


def _or_none(sd: float) -> float:
    """A scatter at the foot of the scale is none."""
    return 0.0 if np.log(sd) <= _LOG_SDS[0] + 0.1 else float(sd)


def _one_component(effects: Floats, covariance: Floats) -> float:
    if effects.size < 2:
        return 0.0
    contrasts = scipy.linalg.helmert(effects.size)
    values, error = contrasts @ effects, contrasts @ covariance @ contrasts.T
    variances, turn = np.linalg.eigh(error)
    squares = (turn.T @ values) ** 2
    total = variances[None, :] + _SDS[:, None] ** 2 + 1e-9
    heights = -0.5 * (np.log(total) + squares / total).sum(axis=1)
    return float(_SDS[int(np.argmax(heights))])


def _height(values: Floats, total: Floats) -> float:
    total = total + 1e-9 * np.eye(values.size)
    factor = np.linalg.cholesky(total)
    scaled = scipy.linalg.solve_triangular(factor, values, lower=True)
    return float(-np.log(np.diag(factor)).sum() - 0.5 * scaled @ scaled)


def _block_sd(found: Standings) -> float:
    """How far levels of blocks of the fit spread."""
    fit = found.fit
    levels = fit.fitted - fit.design.columns @ fit.effects
    by_block = np.unique(np.round(levels, 9))
    return float(np.std(by_block)) if by_block.size > 1 else 0.0
