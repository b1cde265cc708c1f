"""Cells, an arm in a trial each, beside the model: what shift of its lives there each speaks for.

References
----------
[1] R. D. Cook, S. Weisberg, Residuals and Influence in Regression, 2.2: mean-shift outliers.
"""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray
from scipy.special import stdtr

from kessik.core.standings.fit import Fit
from kessik.core.standings.network import Cell, Indices

Floats = NDArray[np.float64]

_ALIKE = 0.9
_LEAST_INFORMATION = 1e-3


@dataclass(frozen=True)
class Shifts:
    """Cells that other trials speak of: what the model cannot say of each, and how much each can.

    `left`, shape (runs, cells), is what of a cell the model's own columns cannot say, weighted.
    """

    fit: Fit
    cells: tuple[Cell, ...]
    left: Floats
    information: Floats

    @cached_property
    def trial(self) -> Indices:
        """The trial of each cell."""
        return np.array([trial for _arm, trial in self.cells], dtype=np.intp)

    @cached_property
    def onto_trials(self) -> Floats:
        """Trials by runs, 1 where a run was cut in a trial."""
        trials = np.arange(len(self.fit.variances.edge_sd))
        return np.asarray(trials[:, None] == self.fit.design.trial, dtype=float)

    @cached_property
    def log_factor(self) -> Floats:
        """How far the lives of each cell lie off what all others say."""
        return self.of_errors(self.fit.scores / self.fit.weights)

    def of_errors(self, errors: Floats) -> Floats:
        """Shifts of each cell for errors of ln life, shape (runs,) or (runs, draws)."""
        return np.asarray((self.left.T @ errors).T / self.information).T

    def variance(self, shift: Floats, edge_variance: Floats) -> tuple[Floats, Floats]:
        """Variance of a shift and its degrees, the scatter of its trial taken without the cell.

        `edge_variance` is the scatter of the cell's trial with it, of the shape of `shift`.
        """
        variances = self.fit.variances
        own, others, others_squared = self._parts
        df, used = variances.edge_df[self.trial], np.minimum(1.0, self.information * own)
        left_df = np.maximum(df - used, 1.0)
        usual = variances.edge_sd[self.trial] ** 2
        floor = variances.common_df * variances.common_sd**2
        explained = _by_cell(used * self.information * usual, shift) * shift**2
        squares = np.maximum(_by_cell(df, shift) * edge_variance - explained, floor)
        own_part = _by_cell(own / usual / left_df, shift) * squares
        total = own_part + _by_cell(others, shift)
        squared = own_part**2 / _by_cell(left_df, shift) + _by_cell(others_squared, shift)
        return total, np.maximum(total**2 / squared, 1.0)

    def p(self, shift: Floats, edge_variance: Floats) -> Floats:
        """How often a cell that is not off would show as large a shift."""
        variance, df = self.variance(shift, edge_variance)
        return np.asarray(2.0 * stdtr(df, -np.abs(shift) / np.sqrt(variance)))

    @cached_property
    def _parts(self) -> tuple[Floats, Floats, Floats]:
        """Variance of each shift from its own trial, from all else, and what that adds to df."""
        fit, variances = self.fit, self.fit.variances
        by_run = self.left**2 / fit.weights[:, None] / self.information**2
        by_trial = self.onto_trials @ by_run
        at = np.arange(len(self.cells))
        rest = np.maximum(1.0 / self.information - by_trial.sum(axis=0), 0.0)
        own = by_trial[self.trial, at].copy()
        by_trial[self.trial, at] = 0.0
        squared = (by_trial**2 / variances.edge_df[:, None]).sum(axis=0)
        others = by_trial.sum(axis=0) + rest
        return own, others, squared + rest**2 / variances.tester_df

    def or_else(self, at: int) -> tuple[int, ...]:
        """Arms of the same trial whose shift cannot be told from this cell's."""
        arms = np.array([arm for arm, _trial in self.cells])
        design = self.fit.design
        out = []
        for other in np.flatnonzero(self.trial == self.trial[at]):
            here = (design.arm == arms[other]) & (design.trial == self.trial[other])
            both = abs(float(self.left[here, at].sum()))
            alike = both / np.sqrt(self.information[at] * self.information[other])
            if other != at and alike > _ALIKE:
                out.append(int(arms[other]))
        return tuple(out)


def shifts_of(fit: Fit) -> Shifts:
    """Every cell of a fit that other trials speak of."""
    design = fit.design
    pairs = list(zip(design.arm.tolist(), design.trial.tolist(), strict=True))
    number = {key: at for at, key in enumerate(dict.fromkeys(pairs))}
    runs_by_cell = np.zeros((len(pairs), len(number)))
    runs_by_cell[np.arange(len(pairs)), [number[key] for key in pairs]] = 1.0
    left = _projected(fit, runs_by_cell)
    information = np.einsum("ij,ij->j", runs_by_cell, left)
    keys = list(number)
    told = np.flatnonzero(information > _LEAST_INFORMATION)
    return Shifts(fit, tuple(keys[at] for at in told), left[:, told], information[told])


def _projected(fit: Fit, runs_by_cell: Floats) -> Floats:
    """What of each column the model's own columns and blocks cannot say, weighted."""
    design, weights = fit.design, fit.weights
    total = design.in_blocks.T @ weights
    weighted = runs_by_cell * weights[:, None]
    levels = (design.in_blocks.T @ weighted) / total[:, None]
    inside = weighted - weights[:, None] * levels[design.block]
    by_columns = fit.covariance @ (fit.inside.T @ weighted)
    return np.asarray(inside - weights[:, None] * (fit.inside @ by_columns))


def _by_cell(values: Floats, like: Floats) -> Floats:
    """Values of cells, shaped to go with draws where there are any."""
    return values[:, None] if like.ndim > 1 else values
