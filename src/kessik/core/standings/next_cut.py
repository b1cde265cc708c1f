"""The next most useful cut: which two blades, side by side, would tell most for the work.

Cut m edges each of two arms in a block of its own, at one tester's bench. The contrast that is
asked for, with variance V and covariance g with the difference of the two, is then known to
V − g² / (2 σ² / m + v + new), v being the variance of the difference as that tester would see it
and new what this tester has yet to show of arms they never cut.

References
----------
[1] V. V. Fedorov, Theory of Optimal Experiments, chapter 2: sequential designs for contrasts.
"""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field
from itertools import combinations
from typing import Literal

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.spreads import Z_95
from kessik.core.standings.answer import Standings
from kessik.core.standings.fit import Fit
from kessik.core.standings.network import Indices, Network

Floats = NDArray[np.float64]
MOST_EDGES = 12
Asked = Literal["pair", "place", "top", "bridge"]

EDGES = (2, 3, 4)
"""One edge each is an anecdote with a number."""
_GOOD_ENOUGH = 0.02
_MOST_CUTS = 6


@dataclass(frozen=True)
class CuttingWork:
    """What cutting takes: minutes an edge (sharpening and readings), minutes and metres of medium a
    count, and by arm the counts of an edge's usual life, by number; `usual` for any other.
    """

    edge_min: float = 24.0
    count_min: float = 0.5
    count_m: float = 0.025
    counts: Mapping[int, float] = field(default_factory=dict)
    usual: float = 100.0

    def counts_of(self, x: int, y: int, edges: int) -> float:
        """Counts of so many edges each of two arms."""
        return edges * (self.counts.get(x, self.usual) + self.counts.get(y, self.usual))

    def hours(self, x: int, y: int, edges: int) -> float:
        """Hours that they take."""
        minutes = 2 * edges * self.edge_min + self.counts_of(x, y, edges) * self.count_min
        return minutes / 60.0


@dataclass(frozen=True)
class UsefulCut:
    """Edges of two arms to cut side by side, what it takes, and what it is expected to do: the
    95 % interval (of the pair asked about, else of these two) as a factor to either side, now and
    after. `gain` is by hour.
    """

    a: str
    b: str
    edges: int
    hours: float
    metres: float
    factor_now: float
    factor_after: float
    gain: float


@dataclass(frozen=True)
class Advice:
    """The cuts that tell most for their work, the best first; `is_enough` where none of them would
    change much. Of a pair `edges_to_order` says how many edges each, side by side, are expected to
    tell which lasts longer; 0 where that is known, None where a dozen would not.
    """

    asked: Asked
    cuts: tuple[UsefulCut, ...]
    is_enough: bool = False
    edges_to_order: int | None = None


class _AtBench:
    """What cutting arms side by side at one tester's bench would show of differences of arms.

    `shown[x, y]` is the covariance of two arms as the tester would cut them, `told[a, x]` that of
    an arm itself with one as cut there, and `unseen[x]` what the tester's hand adds where it never
    cut the arm.
    """

    def __init__(self, fit: Fit, tester: int) -> None:
        design = fit.design
        size = len(design.network.arms)
        padded = np.pad(fit.covariance, ((0, 1), (0, 1)))
        columns = design.arm_column
        cells = {cell: design.fixed + at for at, cell in enumerate(design.cells)}
        cell_column = np.array([cells.get((arm, tester), -1) for arm in range(size)])
        both = padded[columns] + padded[cell_column]
        self.shown = both[:, columns] + both[:, cell_column]
        self.told = padded[columns][:, columns] + padded[columns][:, cell_column]
        own = design.network.tester[design.runs] == tester
        is_new = np.ones(size, dtype=bool)
        is_new[design.arm[own]] = False
        variance = fit.variances.tester_sd**2
        alone = design.alone_with_a_tester & is_new
        # an arm of one other tester: what that one's hand did is taken off, too
        self.unseen = variance * (is_new.astype(float) + alone)
        self.told = self.told + variance * np.diag(alone)

    def covariance_with(self, a: Indices, b: Indices, x: int, others: Indices) -> Floats:
        """Of arms a less arms b with what cutting x beside others shows, shape (a, others)."""
        own, other = self.told[a, x] - self.told[b, x], self.told[:, others]
        return np.asarray(own[:, None] - (other[a] - other[b]))

    def variances(self, x: int, others: Indices) -> Floats:
        """Of the difference of two arms as the tester would cut them, shape (others,)."""
        shown = self.shown[x, x] + np.diag(self.shown)[others] - 2.0 * self.shown[x, others]
        return np.asarray(shown + self.unseen[x] + self.unseen[others])

    def of_pair(self, i: int, j: int, x: int, y: int) -> tuple[float, float]:
        """Both for arm i less arm j, and one cut."""
        a, b, others = np.array([i]), np.array([j]), np.array([y])
        covariance = self.covariance_with(a, b, x, others)[0, 0]
        return float(covariance), float(self.variances(x, others)[0])


def usual_tester(found: Standings) -> int:
    """The tester with most runs."""
    return int(np.argmax(np.bincount(found.network.tester)))


def advise_pair(found: Standings, work: CuttingWork, a: str, b: str) -> Advice:
    """Which of these two: the cuts that narrow their ratio most by the hour."""
    network = found.network
    i, j = network.arms.index(a), network.arms.index(b)
    cuts = tuple(_for_contrast(found, work, i, j)[:_MOST_CUTS])
    return Advice("pair", cuts, edges_to_order=_edges_to_order(found, i, j))


def _edges_to_order(found: Standings, i: int, j: int) -> int | None:
    size, variance = found.differences.log_ratio[i, j], found.differences.variance[i, j]
    if not np.isfinite(variance):
        return None
    half_widths = found.differences.half_width()[i, j] / np.sqrt(variance)
    if abs(size) > half_widths * np.sqrt(variance):
        return 0
    covariance, own = _AtBench(found.fit, usual_tester(found)).of_pair(i, j, i, j)
    scatter = found.fit.variances.common_sd**2
    for edges in range(1, MOST_EDGES + 1):
        after = variance - covariance**2 / (2.0 * scatter / edges + own)
        if abs(size) > half_widths * np.sqrt(max(after, 0.0)):
            return edges
    return None


def advise_place(found: Standings, work: CuttingWork, arm: str, limit: int = _MOST_CUTS) -> Advice:
    """Where does this one stand: the cuts that settle most pairs with it."""
    network = found.network
    i = network.arms.index(arm)
    others = [j for j in np.flatnonzero(network.group_of == network.group_of[i]) if j != i]
    return _for_order(found, work, "place", [(i, int(j)) for j in others], {i}, limit)


def advise_top(found: Standings, work: CuttingWork, limit: int = _MOST_CUTS) -> Advice:
    """Is the top really the top: the cuts that settle most pairs of whatever could be first."""
    ladder = found.ladders()[0]
    network = found.network
    firsts = [network.arms.index(arm) for arm in ladder if found.place(arm).best == 1][:12]
    firsts = [i for i in firsts if found.fit.design.placed[i]]
    pairs = [
        (i, j) for i, j in combinations(firsts, 2) if network.group_of[i] == network.group_of[j]
    ]
    return _for_order(found, work, "top", pairs, set(firsts), limit)


def _candidates(found: Standings, wanted: Iterable[int]) -> Iterator[tuple[int, int]]:
    """Pairs worth thinking of: those asked for, each beside each other arm with a place."""
    placed = np.flatnonzero(found.fit.design.placed)
    group = found.network.group_of
    seen: set[tuple[int, int]] = set()
    for i in wanted:
        for j in placed:
            pair = (min(i, int(j)), max(i, int(j)))
            if i != j and group[i] == group[j] and pair not in seen:
                seen.add(pair)
                yield pair


def _for_contrast(found: Standings, work: CuttingWork, i: int, j: int) -> list[UsefulCut]:
    network, scatter = found.network, found.fit.variances.common_sd**2
    variance = found.differences.variance[i, j]
    if not np.isfinite(variance):
        after = scatter + 2.0 * found.fit.variances.tester_sd**2
        return [_useful(network, work, (i, j), 2, np.inf, after, 1.0)]
    seen = _AtBench(found.fit, usual_tester(found))
    cuts = []
    for x, y in _candidates(found, (i, j)):
        covariance, own = seen.of_pair(i, j, x, y)
        for edges in EDGES:
            after = max(variance - covariance**2 / (2.0 * scatter / edges + own), 0.0)
            gain = 1.0 - after / variance
            cuts.append(_useful(network, work, (x, y), edges, variance, after, gain))
    return _best_by_pair(cuts)


def _for_order(
    found: Standings,
    work: CuttingWork,
    asked: Asked,
    pairs: list[tuple[int, int]],
    wanted: set[int],
    limit: int,
) -> Advice:
    """Cuts by how much they are expected to lower the chance of a wrong order over pairs."""
    network, scatter = found.network, found.fit.variances.common_sd**2
    if not pairs:
        return Advice(asked, (), True)
    seen = _AtBench(found.fit, usual_tester(found))
    a, b = np.array(pairs).T
    size = np.abs(found.differences.log_ratio[a, b])
    variance = found.differences.variance[a, b]
    wrong = scipy.special.ndtr(-size / np.sqrt(variance))
    cuts, most = [], 0.0
    for x, others in _by_first(_candidates(found, wanted)):
        covariance, own = seen.covariance_with(a, b, x, others), seen.variances(x, others)
        for edges in EDGES:
            drop = covariance**2 / (2.0 * scatter / edges + own)
            after = np.maximum(variance[:, None] - drop, 1e-6)
            better = (wrong[:, None] - scipy.special.ndtr(-size[:, None] / np.sqrt(after))).sum(0)
            most = max(most, float(better.max()))
            hours = np.array([work.hours(x, int(y), edges) for y in others])
            for at in np.argsort(-better / hours)[:limit]:
                pair = (x, int(others[at]))
                now = float(found.differences.variance[pair])
                own_covariance, shown = seen.of_pair(*pair, *pair)
                then = max(now - own_covariance**2 / (2.0 * scatter / edges + shown), 0.0)
                cuts.append(_useful(network, work, pair, edges, now, then, float(better[at])))
    return Advice(asked, tuple(_best_by_pair(cuts)[:limit]), most < _GOOD_ENOUGH)


def _by_first(pairs: Iterable[tuple[int, int]]) -> list[tuple[int, Indices]]:
    found: dict[int, list[int]] = {}
    for x, y in pairs:
        found.setdefault(x, []).append(y)
    return [(x, np.array(others)) for x, others in found.items()]


def _useful(
    network: Network,
    work: CuttingWork,
    pair: tuple[int, int],
    edges: int,
    now: float,
    after: float,
    gain: float,
) -> UsefulCut:
    hours = work.hours(*pair, edges)
    metres = work.counts_of(*pair, edges) * work.count_m
    a, b = (network.arms[arm] for arm in pair)
    return UsefulCut(a, b, edges, hours, metres, _factor(now), _factor(after), gain / hours)


def _best_by_pair(cuts: Iterable[UsefulCut]) -> list[UsefulCut]:
    """The best number of edges of each pair, the best pair first."""
    best: dict[tuple[str, str], UsefulCut] = {}
    for cut in cuts:
        known = best.get((cut.a, cut.b))
        if known is None or cut.gain > known.gain:
            best[cut.a, cut.b] = cut
    return sorted(best.values(), key=lambda cut: -cut.gain)


def _factor(variance: float) -> float:
    return float(np.exp(Z_95 * np.sqrt(variance)))


@dataclass(frozen=True)
class Bridge:
    """Two arms of different islands to be cut side by side, and how well pairs across would then
    be known, as a factor to either side.
    """

    a: str
    b: str
    islands: tuple[int, int]
    edges: int
    factor_after: float


def bridges(found: Standings, edges: int = 2) -> list[Bridge]:
    """For each smaller island the cut that joins it to the largest most cheaply."""
    network, scatter = found.network, found.fit.variances.common_sd**2
    members = [[network.arms.index(arm) for arm in arms] for arms in network.islands()]
    unseen = 2.0 * found.fit.variances.tester_sd**2
    out = []
    main, main_cost = _hub(found, members[0])
    for number, island in enumerate(members[1:], start=1):
        hub, cost = _hub(found, island)
        total = main_cost + cost + 2.0 * scatter / edges + unseen
        out.append(
            Bridge(network.arms[main], network.arms[hub], (0, number), edges, _factor(total))
        )
    return out


def _hub(found: Standings, members: list[int]) -> tuple[int, float]:
    """The arm of an island that the others are known best beside, and their mean variance."""
    if len(members) == 1:
        return members[0], 0.0
    variance = found.differences.variance[np.ix_(members, members)]
    known = np.isfinite(variance)
    unknown = len(members) - 1 - known.sum(axis=1)
    cost = np.where(known, variance, 0.0).sum(axis=1) / np.maximum(known.sum(axis=1), 1)
    best = min(range(len(members)), key=lambda n: (unknown[n], cost[n]))
    return members[best], float(cost[best])
