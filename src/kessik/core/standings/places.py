"""Places among all arms of an island, all of them right together in 95 of 100 seasons.

Effects are drawn shrunk to the mean of their firm group, as far as the field's own spread allows:
of many arms the one that looks best was lucky, too.

References
----------
[1] M. Mogstad et al., Review of Economic Studies 91 (2024): inference for ranks.
[2] B. Efron, C. Morris, J. Am. Stat. Assoc. 70 (1975): shrinking many estimates.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.standings.draws import Season, least_steps, paths_from

Floats = NDArray[np.float64]
Counts = NDArray[np.int32]

_CUT = 0.03
_FIELD_SDS = np.geomspace(0.01, 2.0, 80)
_BOUND_AT = 0.025


@dataclass(frozen=True)
class PlaceSpan:
    """The best and the worst place of an arm in its island, 1 the longest life."""

    best: int
    worst: int


@dataclass(frozen=True)
class Ranked:
    """Places by arm, and bounds of ln ratios that are known from one side only: arm less arm is at
    least `least[arm, arm]`, −inf where nothing is known.
    """

    places: tuple[PlaceSpan, ...]
    least: Floats


def ranked(season: Season) -> Ranked:
    """Places and one-sided bounds of all arms."""
    network = season.fit.design.network
    group, island = network.group_of, network.island_of
    better = _better_in_group(season)
    others = (island[:, None] == island[None, :]) & (group[:, None] != group[None, :])
    best = 1 + better
    worst = 1 + better + others.sum(axis=1).astype(np.int32)
    least = np.full((group.size, group.size), -np.inf)
    steps = least_steps(season)
    for source in np.unique(group):
        above = np.flatnonzero(group == source)
        for target, step in paths_from(int(source), steps):
            for arm in above:
                for below in np.flatnonzero(group == target):
                    lead = season.arms[:, arm] - season.arms[:, below] + step
                    least[arm, below] = np.quantile(lead, _BOUND_AT)
                    worst[:, arm] -= lead > 0
                    best[:, below] += lead > 0
    return Ranked(tuple(_simultaneous(best, worst)), least)


def _better_in_group(season: Season) -> Counts:
    """How many arms of its firm group live longer than each, shape (draws, arms)."""
    design = season.fit.design
    out = np.zeros(season.arms.shape, dtype=np.int32)
    groups = [
        np.flatnonzero((design.network.group_of == group) & design.placed)
        for group in np.unique(design.network.group_of)
    ]
    groups = [members for members in groups if members.size > 1]
    shrunk = _Shrinking.of(season, groups)
    for members, contrasts in zip(groups, shrunk.contrasts, strict=True):
        drawn = contrasts.drawn(shrunk.field_sd, season)
        order = np.argsort(-drawn, axis=1)
        places = np.empty_like(order)
        np.put_along_axis(places, order, np.arange(members.size)[None, :], axis=1)
        out[:, members] = places
    return out


@dataclass(frozen=True)
class _Contrasts:
    """A firm group as independent contrasts: values, variances, and their directions in arms."""

    values: Floats
    variances: Floats
    directions: Floats

    def drawn(self, field_sd: float, season: Season) -> Floats:
        """Shrunken effects around their mean, shape (draws, arms of the group)."""
        kept = field_sd**2 / (field_sd**2 + self.variances)
        noise = season.normals((season.inflation.size, self.values.size))
        sd = np.sqrt(kept * self.variances) * season.inflation[:, None]
        return np.asarray((kept * self.values + noise * sd) @ self.directions.T)


@dataclass(frozen=True)
class _Shrinking:
    contrasts: Sequence[_Contrasts]
    field_sd: float

    @classmethod
    def of(cls, season: Season, groups: Sequence[NDArray[np.intp]]) -> "_Shrinking":
        effects, covariance = season.fit.arm_effect(), season.fit.arm_covariance()
        all_contrasts = []
        for members in groups:
            basis = scipy.linalg.helmert(members.size).T
            inner = basis.T @ covariance[np.ix_(members, members)] @ basis
            variances, turn = np.linalg.eigh(inner)
            directions = basis @ turn
            values = directions.T @ effects[members]
            all_contrasts.append(_Contrasts(values, np.maximum(variances, 1e-12), directions))
        return cls(all_contrasts, _field_sd(all_contrasts))


def _field_sd(groups: Sequence[_Contrasts]) -> float:
    """How far arms of the field spread by themselves, the likeliest of a grid."""
    height = np.zeros(_FIELD_SDS.size)
    for group in groups:
        total = _FIELD_SDS[:, None] ** 2 + group.variances[None, :]
        height -= 0.5 * (np.log(total) + group.values**2 / total).sum(axis=1)
    return float(_FIELD_SDS[int(np.argmax(height))])


def _simultaneous(best: Counts, worst: Counts) -> list[PlaceSpan]:
    """The places that hold for all arms at once, from draws of the best and worst each could
    have.
    """
    draws, arms = best.shape
    depth = np.ones(draws)
    tables = []
    for arm in range(arms):
        up_to = np.cumsum(np.bincount(best[:, arm], minlength=arms + 2)) / draws
        from_on = np.cumsum(np.bincount(worst[:, arm], minlength=arms + 2)[::-1])[::-1] / draws
        tables.append((up_to, from_on))
        depth = np.minimum(depth, np.minimum(up_to[best[:, arm]], from_on[worst[:, arm]]))
    cut = float(np.quantile(depth, _CUT))
    return [
        PlaceSpan(int(np.argmax(up_to >= cut)), int(np.flatnonzero(from_on >= cut)[-1]))
        for up_to, from_on in tables
    ]
