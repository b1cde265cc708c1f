"""A whole trial analysed: lives of runs, lives of blades, and every pair judged. The one road for
screen and file.
"""

from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace

import numpy as np

from kessik.core.comparison.figures import KINDS, EffortTable, effort_table, measured, run_figures
from kessik.core.comparison.findings import (
    DoubtfulSpread,
    EdgeLeftOut,
    LoneEdge,
    Note,
    Oddity,
    OnOneLength,
    Open,
    StartedDuller,
    UnlikeCounts,
)
from kessik.core.comparison.lives import BladeEdges, Bracket, EdgeLife, LifePosterior, solve
from kessik.core.comparison.matching import (
    BladeFacts,
    Cell,
    Fact,
    MatchingRule,
    Variable,
    match,
    not_recorded,
)
from kessik.core.comparison.ratios import all_ratios, blade_life, blade_spread_percent
from kessik.core.comparison.verdict import Comparison, judge, open_facts
from kessik.core.media import cuts_at_reference_length
from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import Check, RunSeries, by_count
from kessik.core.protocols.stop_rules import ByRule, lost_at, mean_force_gf
from kessik.core.sharpness.life import (
    BeforeFirstCheck,
    Bracketed,
    Crossed,
    Found,
    Life,
    NotReached,
    RunLife,
    force_lives,
    outcome_life,
)
from kessik.core.sharpness.posterior import EdgeLikelihood
from kessik.core.units import MM_PER_LENGTH

ANALYSIS_VERSION = "1"
DOUBTFUL_SPREAD_PERCENT = 15.0


@dataclass(frozen=True)
class RunResult:
    """One run: its lives by stage and the plain figures beside them."""

    run: RunSeries
    lives: Mapping[str, RunLife]
    start_gf: float | None
    end_gf: float | None
    change_percent: float | None
    warnings: tuple[Oddity, ...] = ()
    start_readings: int = 0
    left_out: str = ""
    figures: Mapping[str, float] = field(default_factory=dict)


@dataclass(frozen=True)
class BladeResult:
    """One blade over its edges; lives in the count unit of its runs. `left_out` where none of its
    edges counts.
    """

    blade: str
    edges: int
    count_unit: str
    lives: Mapping[str, Life]
    spread_percent: float | None
    left_out: bool = False
    figures: Mapping[str, float] = field(default_factory=dict)


@dataclass(frozen=True)
class TrialAnalysis:
    """Runs, blades and pairs of one trial, with the matching they rest on.

    `comparisons` follow the settled-edge rule; `with_all` are the same pairs with every edge, empty
    where the rule leaves none out. `taken_as_equal` names what nobody recorded for any blade.
    `figure_comparisons` hold a figure's name where others hold a stage: there the ratio is of that
    figure, and the verdict words speak of its size.
    """

    method: Method
    rule: MatchingRule
    runs: tuple[RunResult, ...]
    blades: tuple[BladeResult, ...]
    comparisons: tuple[Comparison, ...]
    cells: tuple[Cell, ...]
    pending: tuple[Open, ...]
    notes: tuple[Note, ...] = field(default_factory=tuple)
    with_all: tuple[Comparison, ...] = ()
    taken_as_equal: tuple[Variable, ...] = ()
    figure_comparisons: tuple[Comparison, ...] = ()
    efforts: EffortTable | None = None


LeftOut = Mapping[tuple[str, int], str]


def analyse(
    runs: Sequence[RunSeries],
    facts: Mapping[str, BladeFacts],
    rule: MatchingRule,
    method: Method,
    left_out: LeftOut | None = None,
    apart: Collection[tuple[str, int]] = (),
) -> TrialAnalysis:
    """Analyse the runs of one trial; practice runs are left out. Blades without facts have all of
    them pending.

    `left_out` names the edges, by (blade, edge), that do not count, with the reason. Those `apart`
    among them were cut under an unlike method: they stand in no comparison, not even the one with
    every edge.
    """
    counted = [run for run in runs if not run.practice]
    blades = list(dict.fromkeys(run.blade for run in counted))
    results = [
        replace(result, left_out=(left_out or {}).get(run.key[:2], ""))
        for run, result in zip(counted, _run_results(counted, blades, method), strict=True)
    ]
    known = {code: _with_runs(facts.get(code), code, results, rule) for code in blades}
    kept = [result for result in results if not result.left_out]
    ruled = _compare(kept, known, rule, method)
    alike = [result for result in results if result.run.key[:2] not in apart]
    everything = ruled if len(kept) == len(alike) else _compare(alike, known, rule, method)
    alone = _compare(results, known, rule, method) if len(alike) < len(results) else everything
    blade_results = tuple(
        _blade_result(
            code,
            counted,
            *next(found for found in (ruled, everything, alone) if code in found.lives).of(code),
            code not in ruled.lives,
            _mean_figures(
                [r for r in (kept if code in ruled.lives else results) if r.run.blade == code]
            ),
        )
        for code in blades
    )
    cells = match(list(known.values()), rule)
    pending = open_facts(cells, list(known.values()), rule)
    equal = tuple(not_recorded(list(known.values()), rule))
    with_all = everything.comparisons if everything is not ruled else ()
    notes = tuple(dict.fromkeys((*ruled.notes, *_left_out_notes(results))))
    return TrialAnalysis(
        method,
        rule,
        tuple(results),
        blade_results,
        ruled.comparisons,
        tuple(cells),
        pending,
        notes,
        with_all,
        equal,
        _compare_figures(kept, known, rule),
        effort_table([r.run for r in kept]),
    )


def _left_out_notes(results: Sequence[RunResult]) -> list[Note]:
    edges = {result.run.key[:2]: result.left_out for result in results if result.left_out}
    return [EdgeLeftOut(blade, edge, why) for (blade, edge), why in edges.items()]


def _with_runs(
    facts: BladeFacts | None, code: str, results: Sequence[RunResult], rule: MatchingRule
) -> BladeFacts:
    """The facts of a blade with what its runs show: start readings, and the length of edge they
    used.
    """
    known = facts or BladeFacts(code, micro_bevel_known=False)
    own = [r for r in results if r.run.blade == code and not r.left_out]
    starts = [Fact(r.start_gf, readings=r.start_readings) for r in own if r.start_gf is not None]
    edges = {**known.edges, "start_gf": starts} if starts else dict(known.edges)
    lengths = [r.run.edge_length_used_mm for r in own]
    if own and None not in lengths:
        edges["edge_length_mm"] = lengths
    return replace(known, edges=edges)


@dataclass(frozen=True)
class _Compared:
    """Lives and spreads by blade, pairs and notes, over one choice of edges."""

    lives: Mapping[str, Mapping[str, Life]]
    spreads: Mapping[str, float | None]
    comparisons: tuple[Comparison, ...]
    notes: tuple[Note, ...]

    def of(self, code: str) -> tuple[Mapping[str, Life], float | None]:
        return self.lives[code], self.spreads[code]


def _mean_figures(results: Sequence[RunResult]) -> dict[str, float]:
    """Figures over a blade's edges: means on the log scale where they are compared as ratios."""
    found: dict[str, float] = {}
    for name in dict.fromkeys(name for r in results for name in r.figures):
        values = [r.figures[name] for r in results if name in r.figures]
        positive = KINDS[name].compared and min(values) > 0
        found[name] = float(np.exp(np.mean(np.log(values)))) if positive else float(np.mean(values))
    return found


def _compare_figures(
    results: Sequence[RunResult], known: Mapping[str, BladeFacts], rule: MatchingRule
) -> tuple[Comparison, ...]:
    """Every pair of blades by every figure whose ratio makes sense, by the model that compares
    lives.
    """
    comparisons: list[Comparison] = []
    for name in (name for name, kind in KINDS.items() if kind.compared):
        having = [r for r in results if r.figures.get(name, 0.0) > 0.0]
        edges: dict[str, dict[int, list[EdgeLife]]] = {}
        for r in having:
            own = edges.setdefault(r.run.blade, {}).setdefault(r.run.edge, [])
            own.append(measured(name, r.figures[name], r.run))
        if len(edges) < 2:
            continue
        blades = [
            BladeEdges(code, tuple(tuple(lives) for lives in own.values()))
            for code, own in edges.items()
        ]
        for ratio in all_ratios(solve(blades)):
            fewest = min(len(edges[code]) for code in (ratio.a, ratio.b))
            comparisons.append(
                judge(ratio, name, (known[ratio.a], known[ratio.b]), rule, fewest, len(edges))
            )
    return tuple(comparisons)


def _compare(
    results: Sequence[RunResult],
    known: Mapping[str, BladeFacts],
    rule: MatchingRule,
    method: Method,
) -> _Compared:
    blades = list(dict.fromkeys(result.run.blade for result in results))
    lives: dict[str, dict[str, Life]] = {code: {} for code in blades}
    spreads: dict[str, float | None] = dict.fromkeys(blades)
    comparisons: list[Comparison] = []
    notes: list[Note] = []
    reference_mm = _reference_length_mm(results, rule, notes)
    for stage in _stages(results, method):
        at_stage = {
            code: [r for r in results if r.run.blade == code and stage in r.lives]
            for code in blades
        }
        for group in _comparable({code: rs for code, rs in at_stage.items() if rs}, notes, stage):
            posterior = solve(
                [_blade_edges(code, rs, stage, reference_mm) for code, rs in group.items()]
            )
            for index, (code, rs) in enumerate(group.items()):
                solved = posterior.blades[index]
                lives[code][stage] = _blade_life(stage, rs, posterior, index, reference_mm)
                spreads[code] = blade_spread_percent(solved)
                notes.extend(_doubtful_spread(code, stage, spreads[code]))
                notes.extend(_lone_edges(code, stage, rs, lives[code][stage].found))
            for ratio in all_ratios(posterior):
                edges = min(len({r.run.edge for r in group[code]}) for code in (ratio.a, ratio.b))
                pair = (known[ratio.a], known[ratio.b])
                comparison = judge(ratio, stage, pair, rule, edges, len(group))
                comparisons.append(_with_start_warning(comparison, group))
    return _Compared(lives, spreads, tuple(comparisons), tuple(notes))


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


def _doubtful_spread(code: str, stage: str, spread_percent: float | None) -> list[Note]:
    """A difference far beyond what re-sharpening makes asks why before either edge is believed."""
    if spread_percent is None or spread_percent <= DOUBTFUL_SPREAD_PERCENT:
        return []
    return [DoubtfulSpread(stage, code, spread_percent)]


def _lone_edges(code: str, stage: str, results: Sequence[RunResult], blade: Found) -> list[Note]:
    """An edge so far from its blade's answer that it hardly weighs in it is said, never dropped in
    silence.
    """
    if not isinstance(blade, Crossed):
        return []
    said: list[Note] = []
    for result in results:
        found = result.lives[stage].life.found
        if isinstance(found, Crossed) and (found.high < blade.low or found.low > blade.high):
            said.append(LoneEdge(stage, code, result.run.edge))
    return said


def _run_results(
    runs: Sequence[RunSeries], blades: Sequence[str], method: Method
) -> list[RunResult]:
    lives: dict[tuple[str, int, int], dict[str, RunLife]] = {run.key: {} for run in runs}
    for code in blades:
        own = [run for run in runs if run.blade == code]
        for stage, limit_gf in method.limits_gf:
            for run, life in zip(own, force_lives(own, stage, limit_gf), strict=True):
                if life is not None:
                    lives[run.key][stage] = life
        for run in own:
            for stage, checks in run.outcomes(method.stages).items():
                lives[run.key][stage] = RunLife(_outcome_life(run, stage, checks, method), None)
    return [
        replace(_run_result(run, lives[run.key]), figures=run_figures(run, method)) for run in runs
    ]


def _outcome_life(run: RunSeries, stage: str, checks: Sequence[Check], method: Method) -> Life:
    """A pass/fail life; its plain rule is the one that ends a run live, where the method names the
    stage.
    """
    life = outcome_life(stage, checks)
    named = next((s for s in method.stages if s.name == stage and s.limit_gf is None), None)
    if named is None:
        return life
    unstruck = [check for check in run.checks if not check.struck]
    rule = ByRule(lost_at(unstruck, named, method), named.words(), life.by_rule.schedule)
    return replace(life, by_rule=rule)


def _run_result(run: RunSeries, lives: Mapping[str, RunLife]) -> RunResult:
    means = [mean_force_gf(group) for _, group in by_count(run.force_checks())]
    if not means:
        return RunResult(run, lives, None, None, None)
    start, end = means[0], means[-1]
    change = 100.0 * (end / start - 1.0) if len(means) > 1 else None
    first = next(by_count(run.force_checks()))[1]
    return RunResult(run, lives, start, end, change, _oddities(means), len(first))


def _oddities(means: Sequence[float]) -> tuple[Oddity, ...]:
    found: list[Oddity] = []
    if len(means) == 1:
        found.append("read_at_one_count")
    elif len(means) >= 4 and np.polyfit(np.arange(len(means)), np.log(means), 1)[0] < -0.01:
        found.append("reads_ever_sharper")
    if all(m == means[0] for m in means) and len(means) > 2:
        found.append("always_reads_the_same")
    return tuple(found)


def _stages(results: Iterable[RunResult], method: Method) -> list[str]:
    seen = [stage for result in results for stage in result.lives]
    order = [*(stage.name for stage in method.stages), "fine", "working"]
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


def _scale(run: RunSeries, reference_mm: float | None) -> float:
    """What a count of this run is multiplied by before lives are compared: unit of length, and edge
    length.
    """
    unit = MM_PER_LENGTH.get(run.count_unit, 1.0)
    if reference_mm is None or run.edge_length_used_mm is None:
        return unit
    return unit * cuts_at_reference_length(1.0, run.edge_length_used_mm, reference_mm)


def _blade_edges(
    code: str, results: Sequence[RunResult], stage: str, reference_mm: float | None
) -> BladeEdges:
    edges: dict[int, list[EdgeLife]] = {}
    for result in results:
        scale = _scale(result.run, reference_mm)
        edges.setdefault(result.run.edge, []).append(edge_life(result.lives[stage], scale))
    return BladeEdges(code, tuple(tuple(lives) for lives in edges.values()))


def edge_life(life: RunLife, scale: float) -> EdgeLife:
    """A life as the comparison takes it, its counts multiplied by a scale."""
    if life.likelihood is not None:
        edge = life.likelihood
        return edge if scale == 1.0 else replace(edge, log_life=edge.log_life + np.log(scale))
    match life.life.found:
        case Bracketed(last_pass, first_fail):
            return Bracket(last_pass * scale, first_fail * scale)
        case BeforeFirstCheck(first_check):
            return Bracket(0.0, max(first_check, 1.0) * scale)
        case NotReached(last_good):
            return Bracket(max(last_good, 1.0) * scale, None)
        case Crossed(_, low, high):
            return Bracket(low * scale, high * scale)


def _blade_life(
    stage: str,
    results: Sequence[RunResult],
    posterior: LifePosterior,
    index: int,
    reference_mm: float | None,
) -> Life:
    """The blade's life over its edges; a blade none of whose runs got there says so instead."""
    founds = [r.lives[stage].life.found for r in results]
    rules = [r.lives[stage].life.by_rule for r in results]
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
    return Life(
        stage, _blade_found(founds, posterior, index, _scale(results[0].run, reference_mm)), rule
    )


def _blade_found(
    founds: Sequence[Found], posterior: LifePosterior, index: int, scale: float
) -> Found:
    if len(founds) == 1 and not isinstance(founds[0], Crossed):
        return founds[0]
    if all(isinstance(found, BeforeFirstCheck) for found in founds):
        return max(
            (f for f in founds if isinstance(f, BeforeFirstCheck)), key=lambda f: f.first_check
        )
    interval = blade_life(posterior, posterior.blades[index])
    whole = Crossed(interval.estimate / scale, interval.low / scale, interval.high / scale)
    if all(isinstance(found, NotReached) for found in founds):
        goods = [f for f in founds if isinstance(f, NotReached)]
        supported = all(f.ahead is not None for f in goods)
        return NotReached(min(f.last_good for f in goods), whole if supported else None)
    return whole


def _with_start_warning(
    comparison: Comparison, group: Mapping[str, Sequence[RunResult]]
) -> Comparison:
    starts = []
    for code in (comparison.a, comparison.b):
        known = [np.log(r.start_gf) for r in group[code] if r.start_gf is not None]
        if not known:
            return comparison
        starts.append(float(np.exp(np.mean(known))))
    apart = max(starts) / min(starts) - 1.0
    if apart <= 0.15:
        return comparison
    duller = comparison.a if starts[0] > starts[1] else comparison.b
    reasons = (*comparison.reasons, StartedDuller(duller, 100 * apart))
    return replace(comparison, reasons=reasons)


def _blade_result(
    code: str,
    runs: Sequence[RunSeries],
    lives: Mapping[str, Life],
    spread_percent: float | None,
    left_out: bool,
    figures: Mapping[str, float],
) -> BladeResult:
    own = [run for run in runs if run.blade == code]
    return BladeResult(
        code,
        len({run.edge for run in own}),
        own[0].count_unit,
        lives,
        spread_percent,
        left_out,
        figures,
    )


def likelihood_of(result: RunResult, stage: str) -> EdgeLikelihood | None:
    """The likelihood behind a run's life at a stage, for drawing its curve."""
    life = result.lives.get(stage)
    return life.likelihood if life else None
