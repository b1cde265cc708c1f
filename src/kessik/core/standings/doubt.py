"""Trials that disagree with all others: direct against indirect evidence, arm by arm.

A cell is an arm in a trial. Its lives there are given a shift of their own; a shift far from none,
beside the scatter that the trial's other lives show, says that the blade was not the same there.
The error of the whole search is 5 %: one season of twenty without any fault names a trial.

References
----------
[1] G. Lu, A. E. Ades, J. Am. Stat. Assoc. 101 (2006): inconsistency in networks of trials.
[2] R. D. Cook, S. Weisberg, Residuals and Influence in Regression, 2.2: mean-shift outliers.
"""

from dataclasses import dataclass, replace

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.standings.design import Freed
from kessik.core.standings.fit import Fit, fit
from kessik.core.standings.network import Network

Floats = NDArray[np.float64]

SEARCH_ERROR = 0.05
_MOST_FREED = 4
_ALIKE = 0.9
_LEAST_INFORMATION = 1e-3
_SURE_TO_FIND = 0.8
_NEVER = float(np.log(1000.0))


@dataclass(frozen=True)
class NetworkCell:
    """An arm in a trial: how far its lives lie off what all others say, as a factor.

    `could_find` is the factor that would have been named in 8 of 10 such trials; `or_else` are arms
    of the same trial that could as well be the one that is off.
    """

    arm: int
    trial: int
    factor: float
    p: float
    could_find: float
    or_else: tuple[int, ...] = ()


@dataclass(frozen=True)
class Doubts:
    """The trials that disagree, and what any other could have shown.

    `whole` is the fit with all lives, `without` the one in which the cells that are off say nothing
    of their arms elsewhere.
    """

    named: tuple[NetworkCell, ...]
    cells: tuple[NetworkCell, ...]
    whole: Fit
    without: Fit


def doubts(network: Network, whole: Fit) -> Doubts:
    """Search the network for cells that are off, the worst first, at most four."""
    freed: list[Freed] = []
    named: list[NetworkCell] = []
    current = whole
    first: tuple[NetworkCell, ...] | None = None
    while True:
        shifts = shifts_of(current)
        cells = shifts.cells()
        first = cells if first is None else first
        worst = min(cells, key=lambda cell: cell.p, default=None)
        if worst is None or len(freed) >= _MOST_FREED or worst.p * len(cells) > SEARCH_ERROR:
            return Doubts(tuple(named), first, whole, current)
        named.append(replace(worst, or_else=shifts.or_else(worst)))
        freed.append((worst.arm, worst.trial))
        current = fit(network, freed, whole.variances)


@dataclass(frozen=True)
class Shifts:
    """Cells beside the model: what it cannot say of each, and how much each alone can."""

    fit: Fit
    keys: tuple[Freed, ...]
    left: Floats
    information: Floats

    def cells(self) -> tuple[NetworkCell, ...]:
        """Cells that other trials speak of, one of the two where a trial has but two arms."""
        told = np.flatnonzero(self.information > _LEAST_INFORMATION)
        kept: list[int] = []
        mirrored = self._two_armed()
        seen: set[int] = set()
        for at in told:
            trial = self.keys[at][1]
            if trial in mirrored and trial in seen:
                continue
            seen.add(trial)
            kept.append(int(at))
        return tuple(self._cell(at, len(kept)) for at in kept)

    def _two_armed(self) -> set[int]:
        arms: dict[int, set[int]] = {}
        for arm, trial in self.keys:
            arms.setdefault(trial, set()).add(arm)
        return {trial for trial, own in arms.items() if len(own) <= 2}

    def _cell(self, at: int, searched: int) -> NetworkCell:
        arm, trial = self.keys[at]
        size = self._size(at)
        variance, df = self._doubt(at, size)
        t = abs(size) / np.sqrt(variance)
        p = float(2.0 * scipy.special.stdtr(df, -t))
        needed = -scipy.special.stdtrit(df, 0.5 * SEARCH_ERROR / searched)
        needed += float(scipy.special.ndtri(_SURE_TO_FIND))
        could_find = float(np.exp(min(needed * np.sqrt(variance), _NEVER)))
        return NetworkCell(arm, trial, float(np.exp(size)), p, could_find)

    def _size(self, at: int) -> float:
        return float(self.fit.scores @ self._z(at) / self.information[at])

    def _z(self, at: int) -> Floats:
        arm, trial = self.keys[at]
        design = self.fit.design
        return np.asarray((design.arm == arm) & (design.trial == trial), dtype=float)

    def _doubt(self, at: int, size: float) -> tuple[float, float]:
        """Variance of a shift and its degrees, the trial's scatter taken without the cell."""
        fit, variances = self.fit, self.fit.variances
        trial = self.keys[at][1]
        information = self.information[at]
        parts = self.left[:, at] ** 2 / fit.weights / information**2
        by_trial = np.bincount(fit.design.trial, parts, len(variances.edge_sd))
        rest = max(1.0 / information - float(by_trial.sum()), 0.0)
        before, df = variances.edge_sd[trial] ** 2, float(variances.edge_df[trial])
        own_share = min(1.0, float(information * by_trial[trial]))
        freed_df = max(df - own_share, 1.0)
        squares = before * (df - own_share * size**2 * information)
        floor = variances.common_df * variances.common_sd**2
        own = max(squares, floor) / freed_df
        by_trial[trial] *= own / before
        all_df = variances.edge_df.copy()
        all_df[trial] = freed_df
        variance = float(by_trial.sum()) + rest
        squared = float((by_trial**2 / all_df).sum()) + rest**2 / variances.tester_df
        return variance, max(variance**2 / squared, 1.0)

    def or_else(self, cell: NetworkCell) -> tuple[int, ...]:
        """Arms of the same trial whose shift cannot be told from this one's."""
        at = self.keys.index((cell.arm, cell.trial))
        out = []
        for other, (arm, trial) in enumerate(self.keys):
            if trial != cell.trial or other == at or self.information[other] <= 0:
                continue
            both = float(self._z(other) @ self.left[:, at])
            alike = abs(both) / np.sqrt(self.information[at] * self.information[other])
            if alike > _ALIKE:
                out.append(arm)
        return tuple(out)


def shifts_of(fit: Fit) -> Shifts:
    """Every cell of a fit, with what it alone can say."""
    design = fit.design
    pairs = list(zip(design.arm.tolist(), design.trial.tolist(), strict=True))
    keys = [key for key in dict.fromkeys(pairs) if key not in design.freed]
    number = {key: at for at, key in enumerate(keys)}
    runs_by_cell = np.zeros((len(pairs), len(keys)))
    for run, key in enumerate(pairs):
        if key in number:
            runs_by_cell[run, number[key]] = 1.0
    residual = _projected(fit, runs_by_cell)
    return Shifts(fit, tuple(keys), residual, np.einsum("ij,ij->j", runs_by_cell, residual))


def _projected(fit: Fit, runs_by_cell: Floats) -> Floats:
    """What of each column the model's own columns and blocks cannot say, weighted."""
    design, weights = fit.design, fit.weights
    total = design.in_blocks.T @ weights
    weighted = runs_by_cell * weights[:, None]
    levels = (design.in_blocks.T @ weighted) / total[:, None]
    inside = weighted - weights[:, None] * levels[design.block]
    by_columns = fit.covariance @ (fit.inside.T @ weighted)
    return np.asarray(inside - weights[:, None] * (fit.inside @ by_columns))
