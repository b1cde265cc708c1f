"""Trials that disagree with all others: direct against indirect evidence, arm by arm.

A cell is an arm in a trial. Its lives there are given a shift of their own; a shift far from none,
beside the scatter that the trial's other lives show, says that the blade was not the same there.
The error of the whole search is 5 %: one season of twenty without any fault names a trial. Edges
scatter with heavier tails than normal ones, so that a cell must be rare by this season's own
residuals too, dealt out anew to all its lives.

References
----------
[1] G. Lu, A. E. Ades, J. Am. Stat. Assoc. 101 (2006): inconsistency in networks of trials.
[2] P. H. Westfall, S. S. Young, Resampling-Based Multiple Testing (1993): the least p of a search.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray
from scipy.special import ndtr, ndtri, stdtrit

from kessik.core.standings.draws import Normals
from kessik.core.standings.fit import Fit, fit
from kessik.core.standings.network import Cell, Network
from kessik.core.standings.shifts import Shifts, shifts_of

Floats = NDArray[np.float64]

SEARCH_ERROR = 0.05
_DEALT_ERROR = 0.075
"""More than the other one: a fault leaves traces in the residuals that are dealt (by trial on
simulated seasons: found 4 in 5 times as often as by a test that knows every scatter)."""
_MOST_NAMED = 4
_SURE_TO_FIND = 0.8
_NEVER = float(np.log(1000.0))
_DEALS = 1000
_LEAST_FREEDOM = 0.15


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


def doubts(network: Network, whole: Fit, normals: Normals) -> Doubts:
    """Search the network for cells that are off, the worst first, at most four.

    `normals` deals residuals out anew; the same ones find the same cells.
    """
    named: list[NetworkCell] = []
    current, shifts = whole, shifts_of(whole)
    first = cells_of(shifts)
    cells = first
    while cells and len(named) < _MOST_NAMED:
        worst = min(cells, key=lambda cell: cell.p)
        if worst.p * len(cells) > SEARCH_ERROR:
            break
        off = [(cell.arm, cell.trial) for cell in [*named, worst]]
        without = fit(network.without(off), whole.variances)
        searched = [shifts.cells.index((cell.arm, cell.trial)) for cell in cells]
        if _chance(shifts, searched, worst.p, without, normals) > _DEALT_ERROR:
            break
        at = shifts.cells.index((worst.arm, worst.trial))
        named.append(replace(worst, or_else=shifts.or_else(at)))
        current, shifts = without, shifts_of(without)
        cells = cells_of(shifts)
    return Doubts(tuple(named), first, whole, current)


def cells_of(shifts: Shifts) -> tuple[NetworkCell, ...]:
    """Cells with what their lives say, one of the two where a trial has but two arms."""
    at = _searched(shifts.cells)
    edge_variance = shifts.fit.variances.edge_sd[shifts.trial] ** 2
    variance, df = shifts.variance(shifts.log_factor, edge_variance)
    p = shifts.p(shifts.log_factor, edge_variance)
    needed = ndtri(_SURE_TO_FIND) - stdtrit(df, 0.5 * SEARCH_ERROR / max(len(at), 1))
    could_find = np.exp(np.minimum(needed * np.sqrt(variance), _NEVER))
    factor = np.exp(shifts.log_factor)
    return tuple(
        NetworkCell(*shifts.cells[i], float(factor[i]), float(p[i]), float(could_find[i]))
        for i in at
    )


def _searched(cells: Sequence[Cell]) -> list[int]:
    """Where cells stand, but for the second of two of a trial, which says the same."""
    arms: dict[int, set[int]] = {}
    for arm, trial in cells:
        arms.setdefault(trial, set()).add(arm)
    out, seen = [], set()
    for at, (_arm, trial) in enumerate(cells):
        if len(arms[trial]) > 2 or trial not in seen:
            out.append(at)
        seen.add(trial)
    return out


def _chance(
    shifts: Shifts, searched: Sequence[int], p: float, without: Fit, normals: Normals
) -> float:
    """How often some cell of a sound season with scatter like this one's looks as far off."""
    fit, variances = shifts.fit, shifts.fit.variances
    residuals = _residuals(without)
    if not residuals.size:  # nothing says how edges scatter here
        return 1.0
    errors = _dealt(residuals, fit.weights.size, normals)
    scatter = (variances.edge_sd**2)[:, None]
    squares = (shifts.onto_trials @ (fit.freedom[:, None] * errors**2)) * scatter
    common = variances.common_df * variances.common_sd**2
    edge_variance = (common + squares) / variances.edge_df[:, None]
    shift = shifts.of_errors(errors / np.sqrt(fit.weights)[:, None])
    least = shifts.p(shift, edge_variance[shifts.trial])[searched].min(axis=0)
    return float((1 + np.sum(least <= p)) / (1 + _DEALS))


def _residuals(found: Fit) -> Floats:
    """Residuals of lives in units of their own scatter."""
    told = found.freedom > _LEAST_FREEDOM
    return np.asarray(found.seen.r[told] / np.sqrt(found.freedom[told]))


def _dealt(residuals: Floats, runs: int, normals: Normals) -> Floats:
    """Residuals dealt out by chance, with either sign, shape (runs, deals)."""
    both = np.concatenate([residuals, -residuals])
    at = (ndtr(normals((runs, _DEALS))) * both.size).astype(np.intp)
    return np.asarray(both[np.minimum(at, both.size - 1)])
