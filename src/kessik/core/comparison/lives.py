"""One model for verdict and plan: ln life = blade + block + edge, each life entering with its own
estimation error.

The blade's mean and the edge-to-edge spread are solved on a grid, exactly, for curves and brackets
alike: a bracket is a likelihood that is flat between last pass and first fail, and an end that is
open stays open. A few edges are off by a factor (burr, chip, a tired apex), so edge errors have
heavy tails: edges that contradict each other widen an answer instead of spoiling it. Zones of one
edge are one edge.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import lru_cache
from typing import Literal

import numpy as np
import scipy
from numpy.lib.stride_tricks import sliding_window_view
from numpy.typing import NDArray

from kessik.core.sharpness.joint import given_master, masters
from kessik.core.sharpness.posterior import EdgeLikelihood

Floats = NDArray[np.float64]

SPREAD_MEDIAN = float(np.sqrt(0.015 * 0.12))
SPREAD_LOG_SD = float(np.log(0.12 / 0.015) / (2 * 1.959964))
SPREAD_NODES = SPREAD_MEDIAN * np.exp(SPREAD_LOG_SD * np.linspace(-2.2, 5.4, 13))
_GRID_STEP, _NODES_A_BLOCK = 0.015, 16
_GRID_MARGIN = 0.8
_USUAL_SPREADS = 9
_MASTER_FLOOR = 1e-4
_BLADES_REMEMBERED = 96
_LEAST_LIKELIHOOD = 1e-12  # edges far apart leave two places for the blade, never none
ODD_SHARE, ODD_SD = 0.02, 0.5
"""So many edges are off, by so much on the log scale: common practice, no source."""

_ROOM = 20.0
"""How far the grid reaches towards an open end, as a factor."""
OpenEnd = Literal["", "above", "below"]


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


def _is_open(life: EdgeLife, side: OpenEnd) -> bool:
    return isinstance(life, Bracket) and (life.high is None if side == "above" else life.low <= 0)


@dataclass(frozen=True)
class BladeEdges:
    """The independent edges of one blade; the lives inside one edge (its zones) count as one.

    `blocks` names the block each edge was cut in, where that is known of all of them.
    """

    code: str
    edges: tuple[tuple[EdgeLife, ...], ...]
    blocks: tuple[int, ...] = ()

    @property
    def open_end(self) -> OpenEnd:
        """The side on which no edge of the blade bounds its life."""
        lives = [life for zones in self.edges for life in zones]
        if all(_is_open(life, "above") for life in lives):
            return "above"
        return "below" if all(_is_open(life, "below") for life in lives) else ""


@dataclass(frozen=True)
class BladePosterior:
    """Posterior of a blade's mean ln life, shape (spreads, grid), and its evidence for each
    spread.

    Where one end is open there is no such posterior: `mass` is then how likely what was seen is
    for each life, up to a constant, and 1 towards the open end. `by_block` holds the same for each
    block by itself, on one scale over all spreads, and `odd` how likely each edge is off.
    """

    code: str
    edge_count: int
    mass: Floats
    evidence: Floats
    open_end: OpenEnd = ""
    by_block: Mapping[int, Floats] = field(default_factory=dict)
    odd: tuple[float, ...] = ()


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
    nodes = _common_nodes(blades)
    grid = _grid(nodes)
    solved = tuple(_blade_posterior(blade, nodes) for blade in blades)
    log_evidence = np.log(spread_prior()) + sum(
        np.log(np.maximum(b.evidence, 1e-300)) for b in solved
    )
    weights = np.exp(log_evidence - log_evidence.max())
    return LifePosterior(grid, np.asarray(weights / weights.sum()), solved)


@dataclass(frozen=True)
class _Nodes:
    """A grid of ln lives by the numbers of its first node and the one behind its last."""

    first: int
    behind: int


def _grid(nodes: _Nodes) -> Floats:
    return np.asarray(_GRID_STEP * np.arange(nodes.first, nodes.behind))


def _common_nodes(blades: Sequence[BladeEdges]) -> _Nodes:
    """Nodes over all lives; the ends are rounded outward, so that one more reading of one edge
    seldom moves the grid of the others.
    """
    lows, highs = [], []
    for life in (life for blade in blades for edge in blade.edges for life in edge):
        if isinstance(life, Bracket):
            low = life.low if life.low > 0 else (life.high or 1.0) / _ROOM
            lows.append(np.log(low))
            highs.append(np.log(life.high if life.high is not None else _ROOM * low))
        elif isinstance(life, Measured):
            lows.append(life.log_value - 5.0 * life.log_sd)
            highs.append(life.log_value + 5.0 * life.log_sd)
        else:
            lows.append(life.log_life[0])
            highs.append(life.log_life[-1])
    low, high = min(lows) - _GRID_MARGIN, max(highs) + _GRID_MARGIN
    block = _GRID_STEP * _NODES_A_BLOCK
    first, last = int(np.floor(low / block)), int(np.ceil(high / block))
    return _Nodes(first * _NODES_A_BLOCK, last * _NODES_A_BLOCK + 1)


def _on_grid(life: EdgeLife, grid: Floats) -> Floats:
    """Likelihood over the grid for each master, shape (masters or 1, grid)."""
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


@dataclass(frozen=True)
class _Edge:
    """One edge on the grid: a likelihood for each master, shape (masters or 1, grid); `bracket`
    where it is nothing but one.
    """

    table: Floats
    bracket: Bracket | None

    def given(self, grid: Floats, spread: float, kept: NDArray[np.intp]) -> Floats:
        """Likelihood of the blade's mean for a spread, shape (masters or 1, grid)."""
        if self.bracket is not None:
            return chance(self.bracket, grid, spread)
        rows = self.table[kept] if self.table.shape[0] > 1 else self.table
        return _smoothed(rows, spread / (grid[1] - grid[0]), _window(rows))


def chance(
    bracket: Bracket,
    grid: Floats,
    sd: float,
    cdf: Callable[[Floats], Floats] = scipy.special.ndtr,
) -> Floats:
    """How likely a life in (low, high] is for each mean ln life, one row; an open end takes all
    there is.

    `cdf` is the curve of ln lives around their mean: the normal one, unless another is asked for.
    """
    below = 0.0 if bracket.low <= 0 else cdf((np.log(bracket.low) - grid) / sd)
    upto = 1.0 if bracket.high is None else cdf((np.log(bracket.high) - grid) / sd)
    return np.asarray(np.broadcast_to(upto - below, grid.shape)[None, :])


def _edge_on_grid(zones: tuple[EdgeLife, ...], grid: Floats) -> _Edge:
    table = _on_grid(zones[0], grid)
    for zone in zones[1:]:
        table = table * _on_grid(zone, grid)
    alone = zones[0] if len(zones) == 1 and isinstance(zones[0], Bracket) else None
    return _Edge(table / table.max(), alone)


@lru_cache(maxsize=_BLADES_REMEMBERED)
def _blade_posterior(blade: BladeEdges, nodes: _Nodes) -> BladePosterior:
    """What is known of one blade by itself: a reading on another blade changes nothing of it."""
    grid = _grid(nodes)
    edges = [_edge_on_grid(zones, grid) for zones in blade.edges]
    weights = masters().prior
    for edge in edges:
        weights = weights * np.maximum(edge.table.sum(axis=1), _LEAST_LIKELIHOOD)
    kept = np.flatnonzero(weights > _MASTER_FLOOR * weights.max())
    prior = masters().prior[kept]
    known = weights[kept] / weights[kept].sum()
    offs = [ODD_SHARE * edge.given(grid, ODD_SD, kept) for edge in edges]
    masses: list[Floats] = []
    evidences: list[float] = []
    odds: list[Floats] = []
    blocks: dict[int, list[Floats]] = {block: [] for block in dict.fromkeys(blade.blocks)}
    for number, spread in enumerate(SPREAD_NODES):
        if number >= _USUAL_SPREADS and _settled_among(evidences):
            evidences.append(evidences[-1])
            for held in (masses, odds, *blocks.values()):
                held.append(held[-1])
            continue
        usual, mixed = [], []
        for edge, off in zip(edges, offs, strict=True):
            usual.append((1.0 - ODD_SHARE) * edge.given(grid, spread, kept))
            mixed.append(np.maximum(usual[-1] + off, _LEAST_LIKELIHOOD))
        joint = prior[:, None] * _product(mixed, (prior.size, grid.size))
        mass = joint.sum(axis=0)
        evidences.append(float(mass.sum()))
        masses.append(mass / (mass.max() if blade.open_end else mass.sum()))
        share = joint / joint.sum()
        odds.append(
            np.array(
                [1.0 - float((share * u / m).sum()) for u, m in zip(usual, mixed, strict=True)]
            )
        )
        for block, rows in blocks.items():
            own = [m for m, of in zip(mixed, blade.blocks, strict=True) if of == block]
            rows.append(known @ _product(own, (prior.size, grid.size)))
    evidence = np.array(evidences)
    shares = spread_prior() * evidence
    return BladePosterior(
        blade.code,
        len(blade.edges),
        np.stack(masses),
        evidence / evidence.max(),
        blade.open_end,
        {block: np.stack(rows) for block, rows in blocks.items()},
        tuple((shares / shares.sum()) @ np.stack(odds)),
    )


def _product(tables: Sequence[Floats], shape: tuple[int, int]) -> Floats:
    out = np.ones(shape)
    for table in tables:
        out = out * table
    return out


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
