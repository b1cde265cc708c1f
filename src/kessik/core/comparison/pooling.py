"""Lives of runs pooled into lives of blades and ratios of pairs, stage by stage."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np

from kessik.core.comparison.findings import (
    EndOpen,
    GapNotKnown,
    InsideBlocks,
    Note,
    OnOneLength,
    StartedDuller,
    UnlikeCounts,
)
from kessik.core.comparison.levels import spread_percent
from kessik.core.comparison.lives import (
    SPREAD_MEDIAN,
    BladePosterior,
    LifePosterior,
    solve,
    spread_prior,
)
from kessik.core.comparison.matching import BladeFacts, MatchingRule
from kessik.core.comparison.odd_edges import Without, doubts, hinges, odd_edges, without_odd
from kessik.core.comparison.ratios import Ratio, all_ratios, blade_life, edge_scatter
from kessik.core.comparison.results import RunResult
from kessik.core.comparison.stage_group import StageGroup, in_blocks, length_factor, log_lives
from kessik.core.comparison.verdict import Comparison, judge
from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import LOST_IN_ORDER
from kessik.core.protocols.stop_rules import ByRule, MeanRule
from kessik.core.sharpness.life import (
    BeforeFirstCheck,
    Bracketed,
    Crossed,
    Found,
    Life,
    NotReached,
)
from kessik.core.units import MM_PER_LENGTH


@dataclass(frozen=True)
class Pooled:
    """Lives and spreads by blade, pairs and notes, over one choice of edges; `edge_scatter` holds
    by blade and stage how far repeats scatter by the blades beside it, as s.d. of ln life.
    """

    lives: Mapping[str, Mapping[str, Life]]
    spreads: Mapping[str, float | None]
    comparisons: tuple[Comparison, ...]
    notes: tuple[Note, ...]
    length_factors: Mapping[str, float]
    edge_scatter: Mapping[tuple[str, str], float]

    def of(self, code: str) -> tuple[Mapping[str, Life], float | None, float]:
        """The lives of a blade, its spread, and the factor that puts them on one edge length."""
        return self.lives[code], self.spreads[code], self.length_factors.get(code, 1.0)

    def scatter_of(self, code: str, stage: str) -> float:
        """How far repeats scatter, by the blades beside this one, else by common practice."""
        return self.edge_scatter.get((code, stage), SPREAD_MEDIAN)


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
    scatters: dict[tuple[str, str], float] = {}
    comparisons: list[Comparison] = []
    notes: list[Note] = []
    reference_mm = _reference_length_mm(results, rule, notes)
    factors = {r.run.blade: length_factor(r.run, reference_mm) for r in reversed(results)}
    for stage in _stages(results, method):
        runs = {
            code: [r for r in results if r.run.blade == code and stage in r.lives]
            for code in blades
        }
        for own in _comparable({code: rs for code, rs in runs.items() if rs}, notes, stage):
            group = StageGroup(stage, own, reference_mm, in_blocks(own))
            posterior = solve([group.edges_of(code) for code in own])
            for solved in posterior.blades:
                lives[solved.code][stage] = _blade_life(group, posterior, solved)
                spreads[solved.code] = spread_percent(list(log_lives(group, solved.code).values()))
                others = [b.evidence for b in posterior.blades if b.code != solved.code]
                scatters[solved.code, stage] = edge_scatter(spread_prior(), others)
            notes.extend(_gaps_wanted(group))
            odd = without_odd(group, odd_edges(group, posterior))
            notes.extend(doubts(group, posterior, odd))
            found = lives_at(lives, stage)
            comparisons.extend(
                _judged(group, ratio, known, rule, found, odd) for ratio in all_ratios(posterior)
            )
    return Pooled(lives, spreads, tuple(comparisons), tuple(notes), factors, scatters)


def lives_at(lives: Mapping[str, Mapping[str, Life]], stage: str) -> dict[str, Found]:
    """What was found of each blade at a stage."""
    return {code: own[stage].found for code, own in lives.items() if stage in own}


def _judged(
    group: StageGroup,
    ratio: Ratio,
    known: Mapping[str, BladeFacts],
    rule: MatchingRule,
    found: Mapping[str, Found],
    odd: Without,
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
    return replace(
        comparison,
        reasons=(*comparison.reasons, *hinges(group, ratio, odd), *ends, *blocks, *started),
    )


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


def _gaps_wanted(group: StageGroup) -> list[Note]:
    """Runs by pass and fail of which no check passed, though they were checked more than once."""
    edges = tuple(
        (code, r.run.edge)
        for code, own in group.runs.items()
        for r in own
        if isinstance(r.lives[group.stage].life.found, BeforeFirstCheck)
        and not r.run.force_checks()
        and not r.run.passes_noted
    )
    return [GapNotKnown(group.stage, edges)] if edges else []


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


def _blade_life(group: StageGroup, posterior: LifePosterior, solved: BladePosterior) -> Life:
    """The blade's life over its edges; a blade none of whose runs got there says so instead."""
    runs = group.runs[solved.code]
    founds = [r.lives[group.stage].life.found for r in runs]
    rules = [r.lives[group.stage].life.by_rule for r in runs]
    found = _blade_found(founds, posterior, solved, group.scale(runs[0].run))
    return Life(group.stage, found, _mean_rule(rules))


def _mean_rule(rules: Sequence[ByRule]) -> ByRule:
    first = rules[0]
    if len(rules) == 1 or isinstance(first.rule, MeanRule):
        return first
    values = [rule.value for rule in rules if rule.value is not None]
    mean = float(np.mean(values)) if values else None
    return ByRule(mean, MeanRule(len(values), len(rules), first.rule), first.gaps)


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
