"""Effort by layers: who asks for least, who ties with whom, and from how many layers on they are
apart.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations
from typing import Literal

import numpy as np

from kessik.core.protocols.series import RunSeries

STEP = 1.0
_By = dict[str, dict[float, list[float]]]


@dataclass(frozen=True)
class EffortTable:
    """Effort, felt or ranked, by layers: the mean by blade and count, the blades in groups that tie
    (least effort first), and the count from which the first and the last are apart; None where they
    are not. `missing` are the layers that others did and a blade did not; `alone` blades share no
    layer with the rest and are not compared.
    """

    kind: Literal["effort", "rank"]
    by_blade: Mapping[str, Mapping[float, float]]
    groups: tuple[tuple[str, ...], ...]
    separates_at: float | None
    missing: Mapping[str, tuple[float, ...]]
    alone: tuple[str, ...] = ()


def effort_table(runs: Sequence[RunSeries]) -> EffortTable | None:
    """Blades tie unless the readings separate them: from some number of layers on, there and at
    every layer after, no repeat of one comes within a step of the other. Ranks work alike.

    Their order is that of a least-squares fit of effort = blade + layer, so that two blades are
    held against each other on the layers that both did [1].

    References
    ----------
    [1] H. Scheffé, The Analysis of Variance, 1959: two-way layouts; from memory.
    """
    for kind in ("effort", "rank"):
        found = _by_layers(runs, kind)
        if found:
            return _table(kind, found)
    return None


def _by_layers(runs: Sequence[RunSeries], kind: str) -> _By:
    found: _By = {}
    for run in runs:
        for check in run.values(kind):
            if check.value is not None:
                found.setdefault(run.blade, {}).setdefault(check.count, []).append(check.value)
    return found


def _table(kind: Literal["effort", "rank"], efforts: _By) -> EffortTable:
    means = {
        blade: {n: float(np.mean(v)) for n, v in sorted(at.items())}
        for blade, at in efforts.items()
    }
    alone = tuple(blade for blade in _alone(means))
    order = _by_least_squares({b: at for b, at in means.items() if b not in alone})
    apart = {
        frozenset(pair): separates_at(efforts[pair[0]], efforts[pair[1]])
        for pair in combinations(order, 2)
    }
    groups: list[list[str]] = []
    for blade in order:
        above = [apart[frozenset((blade, other))] for other in (groups[-1] if groups else [])]
        if above and any(at is None for at in above):
            groups[-1].append(blade)
        else:
            groups.append([blade])
    ends = apart.get(frozenset((order[0], order[-1]))) if len(order) > 1 else None
    layers = {n for at in means.values() for n in at}
    missing = {b: tuple(sorted(layers - at.keys())) for b, at in means.items()}
    own = {blade: left for blade, left in missing.items() if left}
    return EffortTable(kind, means, tuple(tuple(group) for group in groups), ends, own, alone)


def _alone(means: Mapping[str, Mapping[float, float]]) -> list[str]:
    """Blades that no shared layer joins to the largest set of blades that are joined."""
    sets: list[set[str]] = []
    for blade, at in means.items():
        joined = [own for own in sets if any(at.keys() & means[other].keys() for other in own)]
        sets = [own for own in sets if own not in joined] + [{blade}.union(*joined)]
    largest = max(sets, key=len)
    return [blade for blade in means if blade not in largest]


def _by_least_squares(means: Mapping[str, Mapping[float, float]]) -> list[str]:
    """Blades by their effort with the levels of the layers taken out, least first."""
    blades = list(means)
    layers = sorted({n for at in means.values() for n in at})
    cells = [(blade, n, value) for blade, at in means.items() for n, value in at.items()]
    design = np.array(
        [[float(b == blade) for b in blades] + [float(n == at) for n in layers[1:]]
         for blade, at, _ in cells]
    )  # fmt: skip  # a row of the design a line
    fit = np.linalg.lstsq(design, np.array([value for *_, value in cells]), rcond=None)[0]
    effects = dict(zip(blades, fit, strict=False))
    return sorted(blades, key=lambda blade: round(float(effects[blade]), 9))


def separates_at(
    one: Mapping[float, Sequence[float]], other: Mapping[float, Sequence[float]]
) -> float | None:
    """The fewest layers from which two blades are apart, there and at every layer after, always the
    same way round.
    """
    shared = sorted(one.keys() & other.keys())
    found = None
    for n in reversed(shared):
        way = _way(one[n], other[n])
        if way == 0 or (found is not None and way != _way(one[shared[-1]], other[shared[-1]])):
            break
        found = n
    return found


def _way(one: Sequence[float], other: Sequence[float]) -> int:
    """1 where the first asks for more by a step at least, -1 for less, 0 where neither does."""
    if min(one) - max(other) >= STEP:
        return 1
    return -1 if min(other) - max(one) >= STEP else 0
