"""One model for verdict and plan: ln life = blade + block + edge, each life entering with its own
estimation error.

The blade's mean and the edge-to-edge spread are solved on a grid, exactly, for curves and brackets
alike: a bracket is a likelihood that is flat between last pass and first fail, and an end that is
open stays open. A few edges are off by a factor (burr, chip, a tired apex), so edge errors have
heavy tails: edges that contradict each other widen an answer instead of spoiling it. Zones of one
edge are one edge.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Literal

import numpy as np
import scipy
from numpy.lib.stride_tricks import sliding_window_view
from numpy.typing import NDArray

from kessik.core.sharpness.joint import given_master, masters
from kessik.core.sharpness.posterior import EdgeLikelihood
from kessik.core.spreads import Z_95

Floats = NDArray[np.float64]

SPREAD_MEDIAN = float(np.sqrt(0.015 * 0.12))
SPREAD_LOG_SD = float(np.log(0.12 / 0.015) / (2 * Z_95))
SPREAD_NODES = SPREAD_MEDIAN * np.exp(SPREAD_LOG_SD * np.linspace(-2.2, 5.4, 13))
_GRID_STEP, _NODES_A_BLOCK = 0.015, 16
_GRID_MARGIN = 0.8
_WINDOWS_OF = 128
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

    Lives of one blade re-sharpened alike repeat within a few per cent; a hand that changes between
    edges makes a tenth. A worked example: 12 % lies ln(0.12 / 0.042) / 0.53 = 1.96 spreads from the
    middle, and so has exp(−1.96² / 2) = 0.15 of the weight that 4.2 % would.
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
    """One edge on the grid: a likelihood for each master, shape (masters or 1, grid), empty outside
    of a window of columns; `bracket` where it is nothing but one.
    """

    table: Floats
    window: tuple[int, int]
    bracket: Bracket | None

    def among(self, kept: NDArray[np.intp]) -> "_Edge":
        """The same for some of the masters."""
        if self.table.shape[0] in (1, kept.size):
            return self
        return replace(self, table=self.table[kept])

    def given(self, grid: Floats, spread: float) -> Floats:
        """Likelihood of the blade's mean for a spread, shape (masters or 1, grid)."""
        if self.bracket is not None:
            return chance(self.bracket, grid, spread)
        return _smoothed(self.table, spread, self.window)


def chance(
    bracket: Bracket,
    grid: Floats,
    sd: float,
    cdf: Callable[[Floats], Floats] | None = None,
) -> Floats:
    """How likely a life in (low, high] is for each mean ln life, one row; an open end takes all
    there is.

    `cdf` is the curve of ln lives around their mean: the normal one, unless another is asked for.
    """
    cdf = cdf or scipy.special.ndtr
    below = 0.0 if bracket.low <= 0 else cdf((np.log(bracket.low) - grid) / sd)
    upto = 1.0 if bracket.high is None else cdf((np.log(bracket.high) - grid) / sd)
    return np.asarray(np.broadcast_to(upto - below, grid.shape)[None, :])


def _edge_on_grid(zones: tuple[EdgeLife, ...], grid: Floats) -> _Edge:
    table = _on_grid(zones[0], grid)
    for zone in zones[1:]:
        table = table * _on_grid(zone, grid)
    alone = zones[0] if len(zones) == 1 and isinstance(zones[0], Bracket) else None
    filled = np.flatnonzero(table.any(axis=0))
    return _Edge(table / table.max(), (int(filled[0]), int(filled[-1]) + 1), alone)


@lru_cache(maxsize=_BLADES_REMEMBERED)
def _blade_posterior(blade: BladeEdges, nodes: _Nodes) -> BladePosterior:
    """What is known of one blade by itself: a reading on another blade changes nothing of it."""
    on_grid = _BladeOnGrid.of(blade, _grid(nodes))
    weighed: list[_Weighed] = []
    for number, spread in enumerate(SPREAD_NODES):
        is_far = number >= _USUAL_SPREADS and _settled_among([w.evidence for w in weighed])
        weighed.append(weighed[-1] if is_far else on_grid.at(spread))
    evidence = np.array([w.evidence for w in weighed])
    shares = spread_prior() * evidence
    return BladePosterior(
        blade.code,
        len(blade.edges),
        np.stack([w.mass / (w.mass.max() if blade.open_end else w.evidence) for w in weighed]),
        evidence / evidence.max(),
        blade.open_end,
        {
            block: np.stack([w.by_block[block] for w in weighed])
            for block in dict.fromkeys(blade.blocks)
        },
        tuple((shares / shares.sum()) @ np.stack([w.odd for w in weighed])),
    )


@dataclass(frozen=True)
class _Weighed:
    """A blade's mean at one spread: its `mass` as a whole and `by_block`, shape (grid,), and how
    likely each edge is off, shape (edges,).
    """

    mass: Floats
    evidence: float
    by_block: Mapping[int, Floats]
    odd: Floats


@dataclass(frozen=True)
class _BladeOnGrid:
    """The edges of a blade, what each would be if it were off, the masters worth a look with their
    `prior` and how likely they are since, `known`, and the block of each edge.
    """

    grid: Floats
    edges: Sequence[_Edge]
    offs: Sequence[Floats]
    prior: Floats
    known: Floats
    blocks: Sequence[int]

    @classmethod
    def of(cls, blade: BladeEdges, grid: Floats) -> "_BladeOnGrid":
        edges = [_edge_on_grid(zones, grid) for zones in blade.edges]
        weights = masters().prior
        for edge in edges:
            weights = weights * np.maximum(edge.table.sum(axis=1), _LEAST_LIKELIHOOD)
        kept = np.flatnonzero(weights > _MASTER_FLOOR * weights.max())
        edges = [edge.among(kept) for edge in edges]
        offs = [ODD_SHARE * edge.given(grid, ODD_SD) for edge in edges]
        known = weights[kept] / weights[kept].sum()
        return cls(grid, edges, offs, masters().prior[kept], known, blade.blocks)

    def at(self, spread: float) -> _Weighed:
        """The blade's mean at a spread."""
        each, usual = [], []
        for edge, off in zip(self.edges, self.offs, strict=True):
            as_usual = (1.0 - ODD_SHARE) * edge.given(self.grid, spread)
            either = as_usual + off
            np.maximum(either, _LEAST_LIKELIHOOD, out=either)
            each.append(either)
            usual.append(np.divide(as_usual, either, out=as_usual))
        joint = self._product(each)
        joint *= self.prior[:, None]
        mass = joint.sum(axis=0)
        evidence = float(mass.sum())
        by_usual = [np.vdot(joint if len(share) > 1 else mass, share) for share in usual]
        by_block = {
            block: self.known
            @ self._product([own for own, of in zip(each, self.blocks, strict=True) if of == block])
            for block in dict.fromkeys(self.blocks)
        }
        return _Weighed(mass, evidence, by_block, 1.0 - np.array(by_usual) / evidence)

    def _product(self, tables: Sequence[Floats]) -> Floats:
        out = np.ones((self.prior.size, self.grid.size))
        for table in tables:
            out *= table
        return out


def _smoothed(rows: Floats, sd: float, window: tuple[int, int]) -> Floats:
    """Rows smoothed by a Gaussian of `sd`, nothing beyond the grid; they are empty but for a
    window.
    """
    first, last = window
    size, within = rows.shape[1], last - first
    blur = _blur(sd, -(-within // _WINDOWS_OF) * _WINDOWS_OF)
    reach = _reach(sd)
    low, high = max(first - reach, 0), min(last + reach, size)
    out = np.zeros_like(rows)
    inside = slice(low - first + reach, high - first + reach)
    out[:, low:high] = rows[:, first:last] @ blur[:within, inside]
    return out


def _reach(sd: float) -> int:
    """The nodes over which a Gaussian spreads to either side: it is cut off at four of its s.d."""
    return int(4.0 * sd / _GRID_STEP + 0.5)


@lru_cache(maxsize=64)
def _blur(sd: float, within: int) -> Floats:
    """What a Gaussian makes of each node of a window, shape (within, within + 2 reach): with it,
    smoothing is one matrix product, several times quicker than a filter over the whole grid.
    """
    reach = _reach(sd)
    kernel = np.exp(-0.5 * (_GRID_STEP * np.arange(-reach, reach + 1) / sd) ** 2)
    padding = np.zeros(within - 1)
    padded = np.concatenate([padding, kernel / kernel.sum(), padding])
    return sliding_window_view(padded, within + 2 * reach)[::-1].copy()


def _settled_among(evidences: Sequence[float]) -> bool:
    """Whether the usual spreads explain the edges, so that the far ones, dear to compute, need no
    look of their own.
    """
    weights = np.array(evidences[:_USUAL_SPREADS]) * spread_prior()[:_USUAL_SPREADS]
    return bool(weights[-1] < 0.02 * weights.max())
