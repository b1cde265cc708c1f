"""Whether one tester's lives of one blade stand apart from the others': Mandel's h and k, Cochran.

Each tester's level is taken out first, so that h asks about one blade and not about the tester. The
limits hold for a table as it is planned, the same number of runs everywhere; with unlike numbers
they are the nearest guide there is.

A worked example: three testers find ln lives of 1.0, 1.1 and 1.6 for a blade; their mean is 1.233
and their deviation 0.321, so the third has h = 1.14, under the 1.15 that three can show at 5 %.

References
----------
[1] ISO 5725-2, 7.3: Mandel's h and k, Cochran's test, limits at 5 % and 1 %; from memory.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from functools import partial

import numpy as np
from numpy.typing import NDArray
from scipy.special import fdtri, stdtrit

from kessik.core.standings.fit import Fit

Floats = NDArray[np.float64]

_LEAST_TESTERS = 3
_MOST_OPEN = 0.5
"""A life of which less than half is known by its ends tells no scatter."""
_STRAGGLER, _OUTLIER = 0.05, 0.01
_NO_SPREAD = 1e-9
_OF_THE_TABLE = 0.05
"""The risk of naming anything in a sound table, shared by all that is judged in it."""


@dataclass(frozen=True)
class Judged:
    """A figure held against its limits at 5 % (a straggler) and 1 % (an outlier); `is_apart` where
    it is beyond what chance gives in a whole table of such figures.
    """

    value: float
    is_straggler: bool
    is_outlier: bool
    is_apart: bool


@dataclass(frozen=True)
class ConsistencyCell:
    """One tester's runs of one arm: h of their mean, k of their scatter; None where the table
    cannot tell.
    """

    arm: str
    tester: str
    runs: int
    h: Judged | None
    k: Judged | None


@dataclass(frozen=True)
class ConsistencyLevel:
    """One arm over its testers, with Cochran's share of the largest variance."""

    arm: str
    cells: tuple[ConsistencyCell, ...]
    cochran: Judged | None


def consistency(
    log_lives: Mapping[str, Mapping[str, Sequence[float]]],
) -> tuple[ConsistencyLevel, ...]:
    """Each arm that two testers or more cut, by arm; `log_lives` are by arm and tester."""
    shared = {arm: own for arm, own in log_lives.items() if len(own) > 1}
    figures = 2 * sum(len(own) for own in shared.values())
    return tuple(_level(arm, own, figures) for arm, own in shared.items())


def lives_by_tester(fit: Fit, owners: Mapping[str, str]) -> dict[str, dict[str, list[float]]]:
    """By arm and tester the ln lives of edges whose ends are known, without the levels of their
    blocks.
    """
    design, network = fit.design, fit.design.network
    if not design.runs.size:
        return {}
    values = design.columns @ fit.effects + fit.seen.r * fit.sd
    known = fit.seen.kappa < _MOST_OPEN
    found: dict[str, dict[str, list[float]]] = {}
    for value, arm, trial in zip(
        values[known], design.arm[known], design.trial[known], strict=True
    ):
        owner = owners.get(network.trials[trial], "")
        found.setdefault(network.arms[arm], {}).setdefault(owner, []).append(float(value))
    return found


def h_limit(testers: int, risk: float) -> float:
    """The h that a sound mean exceeds with this risk, of so many testers (three or more)."""
    t = float(stdtrit(testers - 2, 1.0 - risk / 2.0))
    return float((testers - 1) * t / np.sqrt(testers * (t**2 + testers - 2)))


def k_limit(testers: int, runs: int, risk: float) -> float:
    """The k that a sound scatter exceeds with this risk, of so many testers with as many runs."""
    f = float(fdtri(runs - 1, (testers - 1) * (runs - 1), 1.0 - risk))
    return float(np.sqrt(testers / (1.0 + (testers - 1) / f)))


def cochran_limit(testers: int, runs: int, risk: float) -> float:
    """The share of the largest of so many variances that is exceeded with this risk."""
    f = float(fdtri(runs - 1, (testers - 1) * (runs - 1), 1.0 - risk / testers))
    return 1.0 / (1.0 + (testers - 1) / f)


def _level(arm: str, own: Mapping[str, Sequence[float]], figures: int) -> ConsistencyLevel:
    means = np.array([np.mean(values) for values in own.values()])
    h = _h(means, figures)
    repeated = {t: float(np.var(values, ddof=1)) for t, values in own.items() if len(values) > 1}
    pooled = float(np.mean(list(repeated.values()))) if len(repeated) > 1 else 0.0
    k, cochran = {}, None
    if pooled > _NO_SPREAD**2:
        testers = len(repeated)
        runs = round(float(np.mean([len(own[tester]) for tester in repeated])))
        k = {
            tester: _judged(
                float(np.sqrt(variance / pooled)), partial(k_limit, testers, runs), figures
            )
            for tester, variance in repeated.items()
        }
        share = max(repeated.values()) / (pooled * testers)
        cochran = _judged(share, partial(cochran_limit, testers, runs), figures)
    cells = tuple(
        ConsistencyCell(arm, tester, len(own[tester]), each, k.get(tester))
        for tester, each in zip(own, h, strict=True)
    )
    return ConsistencyLevel(arm, cells, cochran)


def _h(means: Floats, figures: int) -> list[Judged | None]:
    spread = float(means.std(ddof=1))
    if means.size < _LEAST_TESTERS or spread < _NO_SPREAD:
        return [None] * means.size
    limit = partial(h_limit, means.size)
    return [_judged(float(off / spread), limit, figures) for off in means - means.mean()]


def _judged(value: float, limit: Callable[[float], float], figures: int) -> Judged:
    size = abs(value)
    return Judged(
        value, size > limit(_STRAGGLER), size > limit(_OUTLIER),
        size > limit(_OF_THE_TABLE / figures),
    )  # fmt: skip  # beside each other
