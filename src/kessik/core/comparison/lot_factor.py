"""How much faster one lot wears an edge than another, by a blade that was cut on both; shown, never
applied.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise

from kessik.core.comparison.lives import BladeEdges, EdgeLife, solve
from kessik.core.comparison.ratios import all_ratios
from kessik.core.comparison.results import RunResult
from kessik.core.comparison.stage_group import edge_life


@dataclass(frozen=True)
class LotFactor:
    """life on `new` / life on `old` of one blade at a stage, with 95 % bounds; edges on each."""

    blade: str
    stage: str
    old: str
    new: str
    ratio: float
    low: float
    high: float
    edges: tuple[int, int]


def lot_factors(
    results: Sequence[RunResult], lots: Mapping[tuple[str, int, int], str], stage: str
) -> list[LotFactor]:
    """For each blade cut on several lots, each lot against the one before it; `lots` by (blade,
    edge, run).
    """
    by_blade: dict[str, dict[str, dict[int, list[EdgeLife]]]] = {}
    for result in results:
        lot = lots.get(result.run.key)
        if lot is None or stage not in result.lives:
            continue
        edges = by_blade.setdefault(result.run.blade, {}).setdefault(lot, {})
        edges.setdefault(result.run.edge, []).append(edge_life(result.lives[stage], 1.0))
    found = []
    for blade, on_lots in by_blade.items():
        names = list(on_lots)
        for old, new in pairwise(names):
            pair = [
                BladeEdges(lot, tuple(tuple(lives) for lives in on_lots[lot].values()))
                for lot in (old, new)
            ]
            (ratio,) = all_ratios(solve(pair))
            edges_on = (len(on_lots[old]), len(on_lots[new]))
            if ratio.open_end:
                continue
            at = ratio.at_95
            found.append(LotFactor(blade, stage, old, new, at.estimate, at.low, at.high, edges_on))
    return found
