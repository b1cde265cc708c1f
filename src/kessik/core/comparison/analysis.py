"""A whole trial analysed: lives of runs, lives of blades, and every pair judged. The one road for
screen and file.
"""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, field, replace
from itertools import combinations

import numpy as np

from kessik.core.comparison.dose_outcomes import (
    AfterDose,
    ShownAfterDose,
    after_dose,
    shown_after_dose,
)
from kessik.core.comparison.efforts import EffortTable, effort_table
from kessik.core.comparison.figures import KINDS, measured, run_figures
from kessik.core.comparison.findings import (
    EdgeLeftOut,
    Note,
    Oddity,
    Open,
    PercentMisleads,
    WhyLeftOut,
)
from kessik.core.comparison.lives import BladeEdges, EdgeLife, solve
from kessik.core.comparison.matching import (
    BladeFacts,
    Cell,
    MatchingRule,
    Variable,
    match,
    not_recorded,
    shown_by_runs,
)
from kessik.core.comparison.pooling import pooled
from kessik.core.comparison.ratios import all_ratios
from kessik.core.comparison.results import RunResult
from kessik.core.comparison.verdict import Comparison, judge, open_facts
from kessik.core.comparison.verification import verifications
from kessik.core.comparison.written import with_widths
from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import LOST_IN_ORDER, RunSeries, by_count, speaks_of
from kessik.core.protocols.stop_rules import ByRule, StageRule, lost_at, mean_force_gf
from kessik.core.sharpness.life import (
    Life,
    RunLife,
    force_lives,
)
from kessik.core.sharpness.outcomes import outcome_lives
from kessik.core.sharpness.posterior import EdgeLikelihood

ANALYSIS_VERSION = "6"


@dataclass(frozen=True)
class BladeResult:
    """One blade over its edges; lives in the count unit of its runs. `left_out` where none of its
    edges counts; `length_factor` puts lives on the edge length that ratios are scaled to.
    """

    blade: str
    edges: int
    count_unit: str
    lives: Mapping[str, Life]
    spread_percent: float | None
    left_out: bool = False
    figures: Mapping[str, float] = field(default_factory=dict)
    length_factor: float = 1.0


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
    after_dose: tuple[AfterDose, ...] = ()
    shown_after_dose: tuple[ShownAfterDose, ...] = ()

    @property
    def measured_blades(self) -> list[BladeResult]:
        """Blades that have figures, or an effort at some layers of a run that is not over."""
        felt = self.efforts.by_blade if self.efforts else {}
        return [blade for blade in self.blades if blade.figures or blade.blade in felt]

    def is_measured(self, result: RunResult) -> bool:
        """Whether a run belongs to a blade that has figures."""
        return any(blade.blade == result.run.blade for blade in self.measured_blades)


LeftOut = Mapping[tuple[str, int], WhyLeftOut]


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
    if method.dose is not None:
        # a dose is checked once, when it is over: no pass before was left out of the record
        counted = [replace(run, passes_noted=True) for run in counted]
    blades = list(dict.fromkeys(run.blade for run in counted))
    found, widths = with_widths(_run_results(counted, blades, method))
    results = [
        replace(result, left_out=(left_out or {}).get(run.key[:2]))
        for run, result in zip(counted, found, strict=True)
    ]
    known = {
        code: _with_runs(facts.get(code) or BladeFacts(code), results, method) for code in blades
    }
    repeats = repeats_of(results, method)
    kept = [result for result in repeats if not result.left_out]
    ruled = pooled(kept, known, rule, method)
    alike = [result for result in repeats if result.run.key[:2] not in apart]
    everything = ruled if len(kept) == len(alike) else pooled(alike, known, rule, method)
    is_whole = everything.lives.keys() >= set(blades)
    alone = everything if is_whole else pooled(results, known, rule, method)
    blade_results = tuple(
        _blade_result(
            code,
            counted,
            *next(found for found in (ruled, everything, alone) if code in found.lives).of(code),
            code not in ruled.lives,
            _mean_figures(
                [r for r in (kept if code in ruled.lives else repeats) if r.run.blade == code]
            ),
        )
        for code in blades
    )
    cells = match(list(known.values()), rule)
    pending = open_facts(cells, list(known.values()), rule)
    equal = tuple(not_recorded(list(known.values()), rule))
    with_all = everything.comparisons if everything is not ruled else ()
    notes = tuple(
        dict.fromkeys(
            (
                *verifications(results, alone.scatter_of),
                *widths,
                *ruled.notes,
                *_dose_notes(blade_results),
                *_left_out_notes(results),
            )
        )
    )
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
        _compare_figures(kept, known, rule, method),
        effort_table([r.run for r in kept]),
        tuple(after_dose(kept, method)),
        tuple(shown_after_dose(kept, method)),
    )


def repeats_of(results: Sequence[RunResult], method: Method) -> list[RunResult]:
    """The runs that repeat one another: of blades cut in rounds the first round alone, because what
    comes after it is the question and no repeat.
    """
    if not method.cycles:
        return list(results)
    first: dict[str, int] = {}
    for result in results:
        run = result.run
        first[run.blade] = min(first.get(run.blade, run.edge), run.edge)
    return [r for r in results if (r.run.round or (r.run.edge == first[r.run.blade])) == 1]


def _dose_notes(blades: Sequence[BladeResult]) -> list[Note]:
    """Pairs in which the one that lost less of its own start ends duller all the same."""
    dosed = [b for b in blades if {"end_gf", "change_percent"} <= b.figures.keys()]
    found: list[Note] = []
    for one, other in combinations(dosed, 2):
        less, more = sorted((one, other), key=lambda b: b.figures["change_percent"])
        percents = (less.figures["change_percent"], more.figures["change_percent"])
        ends = (less.figures["end_gf"], more.figures["end_gf"])
        if percents[0] < percents[1] and ends[0] > ends[1]:
            found.append(PercentMisleads((less.blade, more.blade), percents, ends))
    return found


def _left_out_notes(results: Sequence[RunResult]) -> list[Note]:
    edges = {result.run.key[:2]: result.left_out for result in results if result.left_out}
    return [EdgeLeftOut(blade, edge, why) for (blade, edge), why in edges.items()]


def _with_runs(facts: BladeFacts, results: Sequence[RunResult], method: Method) -> BladeFacts:
    """The facts of a blade with what its runs show; of edges that count alone."""
    own = [r for r in results if r.run.blade == facts.code and not r.left_out]
    starts = [(r.start_gf, r.start_readings) for r in own if r.start_gf is not None]
    lengths = [r.run.edge_length_used_mm for r in own]
    return shown_by_runs(facts, starts, lengths, method.force_scatter)


def _mean_figures(results: Sequence[RunResult]) -> dict[str, float]:
    """Figures over a blade's edges: means on the log scale where they are compared as ratios."""
    found: dict[str, float] = {}
    for name in dict.fromkeys(name for r in results for name in r.figures):
        by_edge: dict[int, list[float]] = {}
        for r in results:
            if name in r.figures:
                by_edge.setdefault(r.run.edge, []).append(r.figures[name])
        values = [float(np.mean(zones)) for zones in by_edge.values()]
        positive = KINDS[name].compared and min(values) > 0
        found[name] = float(np.exp(np.mean(np.log(values)))) if positive else float(np.mean(values))
    return found


def _compare_figures(
    results: Sequence[RunResult],
    known: Mapping[str, BladeFacts],
    rule: MatchingRule,
    method: Method,
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
            own.append(measured(name, r.figures[name], r.run, method))
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


def _run_results(
    runs: Sequence[RunSeries], blades: Sequence[str], method: Method
) -> list[RunResult]:
    lives: dict[tuple[str, int, int], dict[str, RunLife]] = {run.key: {} for run in runs}
    for code in blades:
        own = [run for run in runs if run.blade == code]
        for stage, limit_gf in method.limits_gf:
            by_force = force_lives(own, stage, limit_gf, method.reading_scatter)
            for run, life in zip(own, by_force, strict=True):
                if life is not None:
                    lives[run.key][stage] = life
        for run in own:
            judged = run.outcomes(method.stages)
            named = [s.name for s in method.stages if s.limit_gf is None or s.name in judged]
            order = named or LOST_IN_ORDER
            lost = outcome_lives(judged, order, run.check_every, passes_noted=run.passes_noted)
            for stage, found in lost.items():
                lives[run.key][stage] = RunLife(_by_the_method(run, found, method), None)
    return [
        replace(_run_result(run, lives[run.key]), figures=run_figures(run, method)) for run in runs
    ]


def _by_the_method(run: RunSeries, life: Life, method: Method) -> Life:
    """A pass/fail life whose plain rule is the one that ends a run live, where the method names the
    stage.
    """
    named = next((s for s in method.stages if s.name == life.stage and s.limit_gf is None), None)
    counting = [check for check in run.checks if not check.struck and not run.is_control(check)]
    if named is None or not any(speaks_of(check, named) for check in counting):
        return life
    lost = lost_at(counting, named, method)
    rule = ByRule(lost, StageRule(named, method), life.by_rule.gaps)
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


def _blade_result(
    code: str,
    runs: Sequence[RunSeries],
    lives: Mapping[str, Life],
    spread_percent: float | None,
    length_factor: float,
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
        length_factor,
    )


def likelihood_of(result: RunResult, stage: str) -> EdgeLikelihood | None:
    """The likelihood behind a run's life at a stage, for drawing its curve."""
    life = result.lives.get(stage)
    return life.likelihood if life else None
