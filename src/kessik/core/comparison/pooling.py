"""Lives of runs pooled into lives of blades and ratios of pairs, stage by stage."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from kessik.core.comparison.findings import (
    Contradicting,
    DoubtfulSpread,
    EndOpen,
    GapNotKnown,
    InsideBlocks,
    Note,
    OddEdge,
    OnOneLength,
    StartedDuller,
    UnlikeCounts,
)
from kessik.core.comparison.levels import Place, levelled, log_life_of, spread_percent
from kessik.core.comparison.lives import (
    BladeEdges,
    BladePosterior,
    Bracket,
    EdgeLife,
    LifePosterior,
    solve,
)
from kessik.core.comparison.matching import BladeFacts, MatchingRule
from kessik.core.comparison.ratios import Ratio, all_ratios, blade_life, blade_spread_percent
from kessik.core.comparison.results import RunResult
from kessik.core.comparison.verdict import Comparison, judge
from kessik.core.media import cuts_at_reference_length
from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import LOST_IN_ORDER, RunSeries
from kessik.core.protocols.stop_rules import ByRule
from kessik.core.sharpness.life import (
    BeforeFirstCheck,
    Bracketed,
    Crossed,
    Found,
    Life,
    NotReached,
    RunLife,
)
from kessik.core.units import MM_PER_LENGTH

DOUBTFUL_SPREAD_PERCENT = 15.0
_SURELY_ODD = 0.5
_APART_IN_BLOCKS = 0.3
"""Edges in blocks are asked about that lie so far apart on the log scale: common practice, no
source."""


@dataclass(frozen=True)
class Pooled:
    """Lives and spreads by blade, pairs and notes, over one choice of edges."""

    lives: Mapping[str, Mapping[str, Life]]
    spreads: Mapping[str, float | None]
    comparisons: tuple[Comparison, ...]
    notes: tuple[Note, ...]
    length_factors: Mapping[str, float]

    def of(self, code: str) -> tuple[Mapping[str, Life], float | None, float]:
        """The lives of a blade, its spread, and the factor that puts them on one edge length."""
        return self.lives[code], self.spreads[code], self.length_factors.get(code, 1.0)


@dataclass(frozen=True)
class _Group:
    """The blades of one stage whose counts go on one scale, with their runs."""

    stage: str
    runs: Mapping[str, Sequence[RunResult]]
    reference_mm: float | None
    in_blocks: bool

    def edges_of(self, code: str, without: int | None = None) -> BladeEdges:
        """The independent edges of a blade as the comparison takes them."""
        own = [r for r in self.runs[code] if r.run.edge != without]
        unreached = all(isinstance(r.lives[self.stage].life.found, NotReached) for r in own)
        edges: dict[int, list[EdgeLife]] = {}
        blocks: dict[int, int] = {}
        for result in own:
            scale, life = self.scale(result.run), result.lives[self.stage]
            edge = edge_life(life, scale, is_open=unreached)
            edges.setdefault(result.run.edge, []).append(edge)
            blocks[result.run.edge] = result.run.block or 0
        found = tuple(tuple(lives) for lives in edges.values())
        return BladeEdges(code, found, tuple(blocks.values()) if self.in_blocks else ())

    def scale(self, run: RunSeries) -> float:
        """What a count of this run is multiplied by before lives are compared: unit of length, and
        edge length.
        """
        unit = MM_PER_LENGTH.get(run.count_unit, 1.0)
        return unit * _length_factor(run, self.reference_mm)


def _length_factor(run: RunSeries, reference_mm: float | None) -> float:
    if reference_mm is None or run.edge_length_used_mm is None:
        return 1.0
    return cuts_at_reference_length(1.0, run.edge_length_used_mm, reference_mm)


def pooled(
    results: Sequence[RunResult],
    known: Mapping[str, BladeFacts],
    rule: MatchingRule,
    method: Method,
) -> Pooled:
    """Every blade's life at every stage over its edges, and every pair judged."""
    blades = list(dict.fromkeys(result.run.blade for result in results))
    lives: dict[str, dict[str, Life]] = {code: {} for code in blades}
    spreads: dict[str, float | None] = dict.fromkeys(blades)
    comparisons: list[Comparison] = []
    notes: list[Note] = []
    reference_mm = _reference_length_mm(results, rule, notes)
    factors = {r.run.blade: _length_factor(r.run, reference_mm) for r in reversed(results)}
    for stage in _stages(results, method):
        runs = {
            code: [r for r in results if r.run.blade == code and stage in r.lives]
            for code in blades
        }
        for own in _comparable({code: rs for code, rs in runs.items() if rs}, notes, stage):
            group = _Group(stage, own, reference_mm, _in_blocks(own))
            posterior = solve([group.edges_of(code) for code in own])
            for solved in posterior.blades:
                lives[solved.code][stage] = _blade_life(group, posterior, solved)
                spreads[solved.code] = _spread(group, solved)
                notes.extend(_gaps_wanted(group, solved.code))
            notes.extend(_doubts(group, posterior))
            found = lives_at(lives, stage)
            comparisons.extend(
                _judged(group, ratio, known, rule, found) for ratio in all_ratios(posterior)
            )
    return Pooled(lives, spreads, tuple(comparisons), tuple(notes), factors)


def _spread(group: _Group, solved: BladePosterior) -> float | None:
    """How far the edges of a blade lie apart, per cent; where blades were cut in blocks, without
    the levels of those.
    """
    inside, errors = _inside_blocks(group)
    if not inside and not (group.in_blocks and len(group.runs) > 1):
        return blade_spread_percent(solved)
    own = [place for place in inside if place[0] == solved.code]
    return spread_percent([inside[place] for place in own], [errors[place] for place in own])


def _inside_blocks(group: _Group) -> tuple[dict[Place, float], dict[Place, float]]:
    """Ln lives of the edges without the levels of their blocks, with their errors; empty where
    there are no blocks of several blades, or too few edges to tell.
    """
    if not group.in_blocks or len(group.runs) < 2:
        return {}, {}
    told = {
        (code, r.run.edge, r.run.block or 0): told
        for code, own in group.runs.items()
        for r in own
        if (told := log_life_of(r.lives[group.stage].life.found)) is not None
    }
    inside = levelled({place: log_life for place, (log_life, _) in told.items()})
    return inside, {place: error for place, (_, error) in told.items()}


def lives_at(lives: Mapping[str, Mapping[str, Life]], stage: str) -> dict[str, Found]:
    """What was found of each blade at a stage."""
    return {code: own[stage].found for code, own in lives.items() if stage in own}


def _judged(
    group: _Group,
    ratio: Ratio,
    known: Mapping[str, BladeFacts],
    rule: MatchingRule,
    found: Mapping[str, Found],
) -> Comparison:
    edges = min(len({r.run.edge for r in group.runs[code]}) for code in (ratio.a, ratio.b))
    pair = (known[ratio.a], known[ratio.b])
    comparison = judge(ratio, group.stage, pair, rule, edges, len(group.runs))
    ends = [
        EndOpen(code, side, at, group.runs[code][0].run.count_unit)
        for code in (ratio.a, ratio.b)
        for side, at in _open_ends(found[code])
        if ratio.open_end
    ]
    blocks = [InsideBlocks(ratio.blocks)] if ratio.blocks else []
    started = _started_duller(ratio.a, ratio.b, group.runs)
    return replace(comparison, reasons=(*comparison.reasons, *ends, *blocks, *started))


def _open_ends(found: Found) -> list[tuple[Literal["above", "below"], float]]:
    match found:
        case NotReached(last_good):
            return [("above", last_good)]
        case BeforeFirstCheck(first_check):
            return [("below", first_check)]
        case Bracketed(0.0, first_fail):
            return [("below", first_fail)]
    return []


def _started_duller(a: str, b: str, runs: Mapping[str, Sequence[RunResult]]) -> list[StartedDuller]:
    starts = []
    for code in (a, b):
        known = [np.log(r.start_gf) for r in runs[code] if r.start_gf is not None]
        if not known:
            return []
        starts.append(float(np.exp(np.mean(known))))
    apart = max(starts) / min(starts) - 1.0
    duller = a if starts[0] > starts[1] else b
    return [StartedDuller(duller, 100 * apart)] if apart > 0.15 else []


def _in_blocks(runs: Mapping[str, Sequence[RunResult]]) -> bool:
    """Whether every run tells its block, and there are several; then only what one block saw of
    both blades of a pair compares them.
    """
    blocks = [r.run.block for own in runs.values() for r in own]
    return None not in blocks and len(set(blocks)) > 1


def _gaps_wanted(group: _Group, code: str) -> list[Note]:
    """Runs by pass and fail whose first look found the stage lost."""
    return [
        GapNotKnown(group.stage, code, r.run.edge)
        for r in group.runs[code]
        if isinstance(r.lives[group.stage].life.found, BeforeFirstCheck)
        and not r.run.force_checks()
    ]


def _doubts(group: _Group, posterior: LifePosterior) -> list[Note]:
    """What asks why before an answer is believed, blade by blade. Where blades were cut in blocks,
    edges that differ no more than the levels of those are no blade's fault.
    """
    inside, _ = _inside_blocks(group)
    found: list[Note] = []
    for solved in posterior.blades:
        own = [log_life for place, log_life in inside.items() if place[0] == solved.code]
        if not own or max(own) - min(own) > _APART_IN_BLOCKS:
            found.extend(_doubts_of(group, solved))
    return found


def _doubts_of(group: _Group, solved: BladePosterior) -> list[Note]:
    """Edges that contradict each other, one that is off, or a spread far beyond what re-sharpening
    makes. No edge is ever dropped in silence.
    """
    code, stage = solved.code, group.stage
    edges = list(dict.fromkeys(r.run.edge for r in group.runs[code]))
    if solved.open_end or len(edges) < 2:
        return []
    odd = [edge for edge, share in zip(edges, solved.odd, strict=True) if share > _SURELY_ODD]
    if len(edges) == 2 and sum(solved.odd) > _SURELY_ODD:
        return [Contradicting(stage, code, (edges[0], edges[1]))]
    if odd:
        return [_odd_edge(group, code, edge) for edge in odd]
    spread = blade_spread_percent(solved)
    if spread is not None and spread > DOUBTFUL_SPREAD_PERCENT:
        return [DoubtfulSpread(stage, code, spread)]
    return []


def _odd_edge(group: _Group, code: str, edge: int) -> OddEdge:
    """An edge that is off, with the blade's life with it and without."""
    unit = group.scale(group.runs[code][0].run)

    def life(edges: BladeEdges) -> tuple[float, float, float]:
        posterior = solve([edges])
        found = blade_life(posterior, posterior.blades[0])
        return found.estimate / unit, found.low / unit, found.high / unit

    count_unit = group.runs[code][0].run.count_unit
    whole, rest = group.edges_of(code), group.edges_of(code, without=edge)
    return OddEdge(group.stage, code, edge, life(whole), life(rest), count_unit)


def _reference_length_mm(
    results: Sequence[RunResult], rule: MatchingRule, notes: list[Note]
) -> float | None:
    """The edge length that counts are put on, where the trial asks for one and every run tells its
    own.
    """
    lengths = [r.run.edge_length_used_mm for r in results]
    known = sorted(length for length in lengths if length is not None)
    if not rule.scale_edge_length or not known or len(known) < len(lengths):
        return None
    reference = known[len(known) // 2]
    if known[-1] - known[0] > 1e-9:
        notes.append(OnOneLength(reference))
    return reference


def _stages(results: Iterable[RunResult], method: Method) -> list[str]:
    seen = [stage for result in results for stage in result.lives]
    order = [*(stage.name for stage in method.stages), *LOST_IN_ORDER]
    return sorted(
        dict.fromkeys(seen), key=lambda s: (order.index(s) if s in order else len(order), s)
    )


def _comparable(
    at_stage: dict[str, list[RunResult]], notes: list[Note], stage: str
) -> list[dict[str, list[RunResult]]]:
    """Blades whose counts can be put on one scale; lengths convert, cuts and lengths do not."""
    groups: dict[str, dict[str, list[RunResult]]] = {}
    for code, results in at_stage.items():
        kinds = {
            "length" if r.run.count_unit in MM_PER_LENGTH else r.run.count_unit for r in results
        }
        groups.setdefault(sorted(kinds)[0], {})[code] = results
    if len(groups) > 1:
        notes.append(UnlikeCounts(stage, tuple(sorted(groups))))
    return list(groups.values())


def edge_life(life: RunLife, scale: float, is_open: bool = False) -> EdgeLife:
    """A life as the comparison takes it, its counts multiplied by a scale; `is_open` where nothing
    of the blade tells how far it would go.
    """
    found = life.life.found
    if life.likelihood is not None and not (is_open and isinstance(found, NotReached)):
        edge = life.likelihood
        return edge if scale == 1.0 else replace(edge, log_life=edge.log_life + np.log(scale))
    match found:
        case Bracketed(last_pass, first_fail):
            return Bracket(last_pass * scale, first_fail * scale)
        case BeforeFirstCheck(first_check):
            return Bracket(0.0, max(first_check, 1.0) * scale)
        case NotReached(last_good):
            return Bracket(last_good * scale, None)
        case Crossed(_, low, high):
            return Bracket(low * scale, high * scale)


def _blade_life(group: _Group, posterior: LifePosterior, solved: BladePosterior) -> Life:
    """The blade's life over its edges; a blade none of whose runs got there says so instead."""
    runs = group.runs[solved.code]
    founds = [r.lives[group.stage].life.found for r in runs]
    rules = [r.lives[group.stage].life.by_rule for r in runs]
    values = [rule.value for rule in rules if rule.value is not None]
    rule = (
        rules[0]
        if len(rules) == 1
        else ByRule(
            float(np.mean(values)) if values else None,
            f"mean of {len(values)} of {len(rules)} runs, {rules[0].rule}",
            rules[0].schedule,
        )
    )
    found = _blade_found(founds, posterior, solved, group.scale(runs[0].run))
    return Life(group.stage, found, rule)


def _blade_found(
    founds: Sequence[Found], posterior: LifePosterior, solved: BladePosterior, scale: float
) -> Found:
    if len(founds) == 1 and not isinstance(founds[0], Crossed):
        return founds[0]
    if solved.open_end == "above":
        return NotReached(min(f.last_good for f in founds if isinstance(f, NotReached)))
    if solved.open_end == "below":
        ends = [f.first_check for f in founds if isinstance(f, BeforeFirstCheck)]
        ends += [f.first_fail for f in founds if isinstance(f, Bracketed)]
        return BeforeFirstCheck(max(ends))
    interval = blade_life(posterior, solved)
    return Crossed(interval.estimate / scale, interval.low / scale, interval.high / scale)
