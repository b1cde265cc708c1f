"""One model for verdict and plan: ln life = blade + edge, each life entering with its own
estimation error.

The blade's mean and the edge-to-edge spread are solved on a grid, exactly, for curves and brackets
alike: a bracket is a likelihood that is flat between last pass and first fail. Zones of one edge
are one edge.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.lib.stride_tricks import sliding_window_view
from numpy.typing import NDArray

from kessik.core.sharpness.joint import given_master
from kessik.core.sharpness.posterior import EdgeLikelihood, model_prior

Floats = NDArray[np.float64]

SPREAD_MEDIAN = float(np.sqrt(0.015 * 0.12))
SPREAD_LOG_SD = float(np.log(0.12 / 0.015) / (2 * 1.959964))
SPREAD_NODES = SPREAD_MEDIAN * np.exp(SPREAD_LOG_SD * np.linspace(-2.2, 5.4, 13))
_GRID_STEP = 0.012
_GRID_MARGIN = 0.8
_USUAL_SPREADS = 9
_MASTER_FLOOR = 1e-4
_LEAST_LIKELIHOOD = 1e-12  # edges far apart leave two places for the blade, never none


@dataclass(frozen=True)
class Bracket:
    """A life known only to lie in (low, high]; `high` is None while it has not ended."""

    low: float
    high: float | None


@dataclass(frozen=True)
class Measured:
    """A figure measured once: its ln with the s.d. of that."""

    log_value: float
    log_sd: float


EdgeLife = EdgeLikelihood | Bracket | Measured


@dataclass(frozen=True)
class BladeEdges:
    """The independent edges of one blade; the lives inside one edge (its zones) count as one."""

    code: str
    edges: tuple[tuple[EdgeLife, ...], ...]


@dataclass(frozen=True)
class BladePosterior:
    """Posterior of a blade's mean ln life, shape (spreads, grid), and its evidence for each
    spread.
    """

    code: str
    edge_count: int
    mass: Floats
    evidence: Floats


@dataclass(frozen=True)
class LifePosterior:
    """Blades of one trial on one grid: `log_life` (grid,), and the shared posterior of the spread
    (spreads,).
    """

    log_life: Floats
    spread_weights: Floats
    blades: tuple[BladePosterior, ...]


def spread_prior() -> Floats:
    """Prior over the spread nodes: median 4 %, 95 % between 1.5 and 12 % (common practice, no
    source).
    """
    z = np.log(SPREAD_NODES / SPREAD_MEDIAN) / SPREAD_LOG_SD
    density = np.exp(-0.5 * z**2)
    return np.asarray(density / density.sum())


def solve(blades: Sequence[BladeEdges]) -> LifePosterior:
    """Posterior of every blade's life on a common grid; each blade needs at least one edge.

    References
    ----------
    [1] A. Gelman et al., Bayesian Data Analysis, chapter 5: hierarchical models; from memory.
    """
    grid = _common_grid(blades)
    solved = tuple(_blade_posterior(blade, grid) for blade in blades)
    log_evidence = np.log(spread_prior()) + sum(
        np.log(np.maximum(b.evidence, 1e-300)) for b in solved
    )
    weights = np.exp(log_evidence - log_evidence.max())
    return LifePosterior(grid, np.asarray(weights / weights.sum()), solved)


def _common_grid(blades: Sequence[BladeEdges]) -> Floats:
    lows, highs = [], []
    for life in (life for blade in blades for edge in blade.edges for life in edge):
        if isinstance(life, Bracket):
            low = life.low if life.low > 0 else (life.high or 1.0) / 20.0
            lows.append(np.log(low))
            highs.append(np.log(life.high if life.high is not None else 16.0 * max(low, 1e-9)))
        elif isinstance(life, Measured):
            lows.append(life.log_value - 5.0 * life.log_sd)
            highs.append(life.log_value + 5.0 * life.log_sd)
        else:
            lows.append(life.log_life[0])
            highs.append(life.log_life[-1])
    low, high = min(lows) - _GRID_MARGIN, max(highs) + _GRID_MARGIN
    return np.linspace(low, high, int(np.ceil((high - low) / _GRID_STEP)) + 1)


def _on_grid(life: EdgeLife, grid: Floats) -> Floats:
    """Likelihood over the grid for each master, shape (models or 1, grid)."""
    if isinstance(life, Bracket):
        half = 0.5 * (grid[1] - grid[0])
        low = np.log(life.low) if life.low > 0 else grid[0] - 1.0
        high = np.log(life.high) if life.high else grid[-1] + 1.0
        covered = np.minimum(grid + half, high) - np.maximum(grid - half, low)
        return np.asarray(np.maximum(covered, 1e-6)[None, :] / max(half, 1e-9))
    if isinstance(life, Measured):
        return np.asarray(np.exp(-0.5 * ((grid - life.log_value) / life.log_sd) ** 2)[None, :])
    table = given_master(life)
    place = np.interp(grid, life.log_life, np.arange(life.log_life.size), left=np.nan, right=np.nan)
    inside = ~np.isnan(place)
    left = np.minimum(place[inside].astype(int), life.log_life.size - 2)
    share = place[inside] - left
    out = np.zeros((table.shape[0], grid.size))
    out[:, inside] = table[:, left] * (1.0 - share) + table[:, left + 1] * share
    return out


def _blade_posterior(blade: BladeEdges, grid: Floats) -> BladePosterior:
    tables = []
    for zones in blade.edges:
        table = _on_grid(zones[0], grid)
        for zone in zones[1:]:
            table = table * _on_grid(zone, grid)
        tables.append(table / table.max())
    weights = model_prior()
    for table in tables:
        weights = weights * np.maximum(table.sum(axis=1), _LEAST_LIKELIHOOD)
    kept = np.flatnonzero(weights > _MASTER_FLOOR * weights.max())
    prior = model_prior()[kept]
    masses: list[Floats] = []
    evidences: list[float] = []
    step = grid[1] - grid[0]
    rows = [table[kept] if table.shape[0] > 1 else table for table in tables]
    windows = [_window(row) for row in rows]
    for number, spread in enumerate(SPREAD_NODES):
        if number >= _USUAL_SPREADS and _settled_among(evidences):
            masses.append(masses[-1])
            evidences.append(evidences[-1])
            continue
        joint = np.repeat(prior[:, None], grid.size, axis=1)
        for row, window in zip(rows, windows, strict=True):
            joint *= np.maximum(_smoothed(row, spread / step, window), _LEAST_LIKELIHOOD)
        mass = joint.sum(axis=0)
        evidences.append(float(mass.sum()))
        masses.append(mass / mass.sum())
    evidence = np.array(evidences)
    return BladePosterior(blade.code, len(blade.edges), np.stack(masses), evidence / evidence.max())


def _window(rows: Floats) -> tuple[int, int]:
    """The columns outside of which every row is empty, the last one exclusive."""
    filled = np.flatnonzero(rows.any(axis=0))
    return int(filled[0]), int(filled[-1]) + 1


def _smoothed(rows: Floats, sd: float, window: tuple[int, int]) -> Floats:
    """Rows smoothed by a Gaussian of `sd` nodes, cut off at four of them, nothing beyond the grid.

    The rows are empty but for a window; one matrix product over it is several times quicker than
    a filter over the whole grid.
    """
    reach = int(4.0 * sd + 0.5)
    kernel = np.exp(-0.5 * (np.arange(-reach, reach + 1) / sd) ** 2)
    kernel /= kernel.sum()
    first, last = window
    size, within = rows.shape[1], last - first
    padded = np.concatenate([np.zeros(within - 1), kernel, np.zeros(within - 1)])
    spread = sliding_window_view(padded, within + 2 * reach)[::-1]
    low, high = max(first - reach, 0), min(last + reach, size)
    out = np.zeros_like(rows)
    inside = slice(low - first + reach, high - first + reach)
    out[:, low:high] = rows[:, first:last] @ spread[:, inside]
    return out


def _settled_among(evidences: Sequence[float]) -> bool:
    """Whether the usual spreads explain the edges, so that the far ones, dear to compute, need no
    look of their own.
    """
    weights = np.array(evidences[:_USUAL_SPREADS]) * spread_prior()[:_USUAL_SPREADS]
    return bool(weights[-1] < 0.02 * weights.max())
