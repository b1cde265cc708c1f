"""Edges that do not fit their sisters: they are named and never dropped, and an answer that hangs
on one says so.
"""

from collections.abc import Mapping, Sequence

import numpy as np

from kessik.core.comparison.findings import (
    Contradicting,
    DoubtfulSpread,
    HingesOnEdge,
    Note,
    OddEdge,
)
from kessik.core.comparison.levels import spread_percent
from kessik.core.comparison.lives import LifePosterior, solve, spread_prior
from kessik.core.comparison.ratios import Ratio, blade_life, edge_scatter, ratio_of
from kessik.core.comparison.stage_group import StageGroup, log_lives

DOUBTFUL_SCATTER = 0.15
_SURELY_ODD = 0.5
_APART_IN_BLOCKS = 0.3
"""Edges in blocks are asked about that lie so far apart on the log scale: common practice, no
source."""


def odd_edges(group: StageGroup, posterior: LifePosterior) -> dict[str, list[int]]:
    """The edges of each blade that hardly fit their sisters; both where there are but two. Where
    blades were cut in blocks, edges that differ no more than the levels of those are no blade's
    fault.
    """
    found: dict[str, list[int]] = {}
    for solved in posterior.blades:
        edges = list(dict.fromkeys(r.run.edge for r in group.runs[solved.code]))
        own = list(log_lives(group, solved.code).values()) if group.in_blocks else []
        level = bool(own) and max(own) - min(own) <= _APART_IN_BLOCKS
        if solved.open_end or len(edges) < 2 or level:
            continue
        if len(edges) == 2:
            found[solved.code] = edges if sum(solved.odd) > _SURELY_ODD else []
            continue
        odd = zip(edges, solved.odd, strict=True)
        found[solved.code] = [edge for edge, share in odd if share > _SURELY_ODD]
    return found


Without = Mapping[str, Mapping[int, LifePosterior]]


def without_odd(group: StageGroup, odd: Mapping[str, Sequence[int]]) -> Without:
    """What is known without each edge that does not fit, by blade and edge."""
    return {
        code: {edge: _without(group, code, edge) for edge in edges} for code, edges in odd.items()
    }


def _without(group: StageGroup, code: str, edge: int) -> LifePosterior:
    return solve(
        [group.edges_of(each, without=edge if each == code else None) for each in group.runs]
    )


def doubts(group: StageGroup, posterior: LifePosterior, odd: Without) -> list[Note]:
    """What asks why before an answer is believed, blade by blade: edges that contradict each other,
    one that is off, or a spread far beyond what re-sharpening makes. No edge is dropped in silence.
    """
    found: list[Note] = []
    for solved in posterior.blades:
        code, own = solved.code, list(odd.get(solved.code, ()))
        edges = {r.run.edge for r in group.runs[code]}
        if len(own) == 2 and len(edges) == 2:
            found.append(Contradicting(group.stage, code, (own[0], own[1])))
        elif own:
            found += [_odd_edge(group, posterior, odd[code][edge], code, edge) for edge in own]
        elif code in odd and edge_scatter(spread_prior(), [solved.evidence]) > DOUBTFUL_SCATTER:
            spread = spread_percent(list(log_lives(group, code).values()))
            found += [DoubtfulSpread(group.stage, code, spread)] if spread is not None else []
    return found


def _odd_edge(
    group: StageGroup, posterior: LifePosterior, rest: LifePosterior, code: str, edge: int
) -> OddEdge:
    """An edge that is off, with the blade's life with it and without."""
    own = group.runs[code][0].run
    unit = group.scale(own)

    def life(known: LifePosterior) -> tuple[float, float, float]:
        found = blade_life(known, next(b for b in known.blades if b.code == code))
        return found.estimate / unit, found.low / unit, found.high / unit

    return OddEdge(group.stage, code, edge, life(posterior), life(rest), own.count_unit)


def hinges(group: StageGroup, ratio: Ratio, odd: Without) -> list[HingesOnEdge]:
    """The edges of a pair that do not fit their sisters, with the ratio with each and without."""
    if ratio.open_end:
        return []
    return [
        hinge
        for code in (ratio.a, ratio.b)
        for edge, rest in odd.get(code, {}).items()
        if (hinge := _hinge(group, ratio, rest, code, edge)) is not None
    ]


def _hinge(
    group: StageGroup, ratio: Ratio, rest: LifePosterior, code: str, edge: int
) -> HingesOnEdge | None:
    means = {each: log_lives(group, each) for each in (ratio.a, ratio.b)}
    sisters = [log_life for number, log_life in means[code].items() if number != edge]
    if edge not in means[code] or not sisters:
        return None
    with_it = np.mean(list(means[ratio.b].values())) - np.mean(list(means[ratio.a].values()))
    without = ratio_of(rest, ratio.a, ratio.b)
    if without.open_end:
        return None
    own = group.runs[code][0].run
    lives = [float(np.exp(x)) / group.scale(own) for x in (means[code][edge], np.mean(sisters))]
    return HingesOnEdge(
        code,
        edge,
        (lives[0], lives[1]),
        own.count_unit,
        float(np.exp(with_it)),
        without.at_95.estimate,
        len(sisters) == 1,
    )
