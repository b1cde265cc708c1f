"""A trial's answer as its pages have it: written once when it was worked out, and read after."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from functools import lru_cache
from zlib import crc32

from kessik.api.schemas.common import shape_of
from kessik.api.schemas.trials import NextStepOut
from kessik.api.schemas.verdict import (
    AlongOut,
    AnswerOut,
    ArmMarkOut,
    BandOut,
    BladeVerdictOut,
    ByRuleOut,
    ComparisonOut,
    LifeOut,
    ReadingOut,
    RunVerdictOut,
    SealedAnswerOut,
    StageAnswerOut,
    TrialHeadOut,
    TrialTodayOut,
)
from kessik.api.views.shelf import blade_out
from kessik.api.views.trials import cell_out, run_brief, trial_out
from kessik.api.views.verdict import efforts_out, figures_out, upkeep_out
from kessik.core.comparison.along import along
from kessik.core.comparison.analysis import ANALYSIS_VERSION, BladeResult, TrialAnalysis
from kessik.core.comparison.findings import OnOneLength, Reason
from kessik.core.comparison.matching import MatchingRule
from kessik.core.comparison.ranking import confounded_blades, ranked, tie_groups
from kessik.core.comparison.results import RunResult
from kessik.core.comparison.sums import stage_sums
from kessik.core.comparison.variables import BY_NAME
from kessik.core.comparison.verdict import Comparison
from kessik.core.sharpness.curves import CurveBand
from kessik.core.sharpness.life import Life, figures_of
from kessik.core.trials.courses import courses_after_keen, keener_on_the_way, ways
from kessik.core.trials.next_step import next_step
from kessik.core.trials.state import TrialRun
from kessik.core.trials.upkeep import upkeep
from kessik.core.trials.verdict import Verdict, band_of
from kessik.core.words.after_keen import after_keen_words
from kessik.core.words.blinding import sealed_trial_words
from kessik.core.words.figures import figure_words
from kessik.core.words.lives import life_words, scaled_words
from kessik.core.words.matching import open_lines
from kessik.core.words.methods import ends_when
from kessik.core.words.notes import lot_factor_words, note_words, oddity_words
from kessik.core.words.pairs import (
    oriented,
    pair_words,
    reason_words,
    shared_reasons,
    size_cells,
    tag_words,
)
from kessik.core.words.rules import by_rule_words
from kessik.core.words.sentences import as_sentence
from kessik.core.words.settled import left_out_words
from kessik.core.words.stages import sum_words
from kessik.core.words.verdict import (
    answer_headline,
    answer_standing,
    headline,
    with_all_words,
)
from kessik.core.words.ways import keener_words, way_words
from kessik.services.reading.summaries import SHAPE
from kessik.services.trials.answers import Pages


@lru_cache(maxsize=1)
def pages() -> Pages:
    """How answers are written down; their version changes with the analysis and with what a page
    says.
    """
    shapes = [shape_of(made) for made in (AnswerOut, SealedAnswerOut, TrialTodayOut)]
    version = f"{ANALYSIS_VERSION}-{crc32(''.join([*shapes, SHAPE]).encode()):08x}"
    return Pages(today_line, verdict_page, version)


def today_line(found: Verdict) -> str:
    """A trial at the front door, as JSON; a finished one in a line."""
    hidden, step = bool(found.sealed), next_step(found.state)
    finished = step.kind == "read_verdict" and found.is_worked_out
    shows_runs = not hidden and not finished
    line = TrialTodayOut(
        trial=_head(found),
        is_finished=finished,
        last_cut_utc=max((r.run.started.utc for r in found.runs), default=""),
        arms=[
            ArmMarkOut(code=b.code, mark=b.mark, steel=b.claimed_grade or "") for b in found.blades
        ],
        blades=[] if finished else [blade_out(blade) for blade in found.blades],
        headline=sealed_trial_words(found.sealed) or answer_headline(found),
        standing="" if hidden else answer_standing(found),
        runs=[run_brief(r) for r in found.runs] if shows_runs else [],
        lives={
            b.blade: _life(b.lives[found.stage], b.count_unit)
            for b in found.analysis.blades
            if found.stage in b.lives and shows_runs
        },
        next_step=NextStepOut.showing(step),
    )
    return line.model_dump_json()


def _head(found: Verdict) -> TrialHeadOut:
    trial = found.trial
    return TrialHeadOut(
        id=trial.id,
        name=trial.name,
        question=trial.question,
        created_utc=trial.created.utc,
        source=trial.source,
        factor=trial.rule.factor,
        medium=trial.medium,
        school=trial.method.school,
        method_name=trial.method.name,
        ends_when=ends_when(trial.method),
    )


def verdict_page(found: Verdict) -> str:
    """A trial's answer, as JSON: sentence, curves, ladder, pairs."""
    out = _sealed_verdict(found) if found.sealed else _open_verdict(found)
    return out.model_dump_json()


def _sealed_verdict(found: Verdict) -> SealedAnswerOut:
    """All that may be shown of an answer while it is hidden: the question, the prediction, and
    why.
    """
    why = sealed_trial_words(found.sealed)
    return SealedAnswerOut(
        trial=trial_out(found.trial),
        headline=why,
        sealed=why,
        prediction=found.trial.plan.prediction,
        next_step=NextStepOut.showing(next_step(found.state)),
    )


def _open_verdict(found: Verdict) -> AnswerOut:
    analysis, stage = found.analysis, found.stage
    results = {result.run.key: result for result in analysis.runs}
    main = _stage_answer(found, stage)
    stages = list(dict.fromkeys(s for result in analysis.runs for s in result.lives))
    bands = {key: band_of(result, analysis, stage) for key, result in results.items()}
    return AnswerOut(
        trial=trial_out(found.trial),
        blades=[blade_out(blade) for blade in found.blades],
        stage=stage,
        stages=stages,
        headline=answer_headline(found),
        standing=answer_standing(found),
        pending=open_lines(analysis.pending, len(analysis.blades)),
        notes=[as_sentence(f"{note_words(note)}.") for note in analysis.notes],
        runs=[
            _run_verdict(r, results[key], bands[key], found.trial.rope_diameter_mm)
            for r in found.runs
            if (key := _key(r)) in results
        ],
        ladder=main.ladder,
        tie_groups=main.tie_groups,
        comparisons=main.comparisons,
        shared_reasons=main.shared_reasons,
        reasons=main.reasons,
        other_stages=[_stage_answer(found, other) for other in stages if other != stage],
        sums=[sum_words(each) for each in stage_sums(analysis)],
        ways=_ways(found, bands),
        figure_blades=[_rung(found, blade, True) for blade in analysis.measured_blades],
        figure_comparisons=[
            _comparison(c, found.trial.rule, figure_words(c)) for c in analysis.figure_comparisons
        ],
        efforts=efforts_out(analysis.efforts) if analysis.efforts else None,
        lot_factors=[lot_factor_words(each) for each in found.lot_factors],
        cells=[cell_out(cell, found.trial.rule) for cell in analysis.cells],
        left_out=_left_out(analysis, stage),
        with_all=with_all_words(analysis, stage),
        prediction=found.trial.plan.prediction,
        taken_as_equal=[variable.label for variable in analysis.taken_as_equal],
        let_go=[BY_NAME[name].label for name in found.trial.rule.let_go],
        upkeep=[upkeep_out(each) for each in upkeep(found)],
        next_step=NextStepOut.showing(next_step(found.state)),
    )


def _left_out(analysis: TrialAnalysis, stage: str) -> list[str]:
    return confounded_blades([c for c in analysis.comparisons if c.stage == stage])


def _stage_answer(found: Verdict, stage: str) -> StageAnswerOut:
    """The answer at one stage: its sentence, its ladder, and its pairs in the ladder's order."""
    analysis, rule = found.analysis, found.trial.rule
    blades = ranked(analysis, stage)
    order = [blade.blade for blade in blades]
    own = [c for c in analysis.comparisons if c.stage == stage]
    pairs = sorted(own, key=lambda c: _place(c, order))
    shared = shared_reasons(pairs)
    told = dict.fromkeys(r for pair in pairs for r in pair.reasons if r not in shared)
    numbers = {reason: number for number, reason in enumerate(told, 1)}
    left_out = _left_out(analysis, stage)
    return StageAnswerOut(
        stage=stage,
        headline=headline(analysis, stage),
        ladder=[_rung(found, blade, blade.blade not in left_out) for blade in blades],
        tie_groups=tie_groups(analysis, stage),
        comparisons=[_comparison(c, rule, pair_words(c), numbers) for c in pairs],
        shared_reasons=[reason_words(reason, rule) for reason in shared],
        reasons=[reason_words(reason, rule) for reason in told],
    )


def _comparison(
    pair: Comparison, rule: MatchingRule, words: str, numbers: Mapping[Reason, int] | None = None
) -> ComparisonOut:
    """A pair as its table has it; of its reasons those that have a number."""
    known = numbers or {}
    own = replace(pair, reasons=tuple(r for r in pair.reasons if numbers is None or r in known))
    told = oriented(pair)
    size, interval = size_cells(pair)
    return ComparisonOut.showing(
        own,
        pending=open_lines(own.pending),
        reasons=[reason_words(reason, rule) for reason in own.reasons],
        words=as_sentence(words),
        order=[told.longer, told.shorter],
        tag=as_sentence(tag_words(pair)),
        size=size,
        interval=interval,
        reason_numbers=[known[reason] for reason in own.reasons if reason in known],
    )


def _place(pair: Comparison, order: Sequence[str]) -> list[int]:
    """Pairs stand as their blades do in the ranking."""
    return sorted(order.index(code) if code in order else len(order) for code in (pair.a, pair.b))


def _key(r: TrialRun) -> tuple[str, int, int]:
    return r.blade.code, r.edge.number, r.run.number


def _life(life: Life, unit: str) -> LifeOut:
    return LifeOut.showing(
        figures_of(life.found),
        by_rule=ByRuleOut.showing(life.by_rule, **by_rule_words(life.by_rule)),
        words=life_words(life.found, unit),
    )


def _ways(found: Verdict, bands: Mapping[tuple[str, int, int], CurveBand | None]) -> list[str]:
    """How good each blade was on the way, and where that says something else than its life."""
    curves: dict[str, list[CurveBand]] = {}
    for result in found.analysis.runs:
        band = bands[result.run.key]
        if band is not None and not result.left_out:
            curves.setdefault(result.run.blade, []).append(band)
    told = [keener_words(each) for each in keener_on_the_way(found, curves)]
    told += [way_words(each) for each in ways(found, curves)]
    units = {b.blade: b.count_unit for b in found.analysis.blades}
    for blade, edges in courses_after_keen(found).items():
        told.append(after_keen_words(blade, edges, units[blade]).removesuffix("."))
    return [as_sentence(f"{line}.") for line in told]


def _run_verdict(
    r: TrialRun, result: RunResult, band: CurveBand | None, rope_diameter_mm: float | None
) -> RunVerdictOut:
    axes = along(r.run.count_unit, result.run.edge_length_used_mm, rope_diameter_mm)
    return RunVerdictOut.showing(
        result,
        run=run_brief(r),
        blade=r.blade.code,
        mark=r.blade.mark,
        readings=[
            ReadingOut(count=c.count, force_gf=c.force_gf, struck=c.struck)
            for c in result.run.checks
            if c.force_gf is not None and not result.run.is_control(c)
        ],
        lives={stage: _life(known.life, r.run.count_unit) for stage, known in result.lives.items()},
        along=[AlongOut.showing(axis) for axis in axes],
        warnings=[oddity_words(each) for each in result.warnings],
        left_out=left_out_words(result.left_out) if result.left_out else "",
        figures=figures_out(result.figures),
        controls=_controls(result),
        band=(
            BandOut(
                counts=band.counts.tolist(),
                middle_gf=band.middle_gf.tolist(),
                low_gf=band.low_gf.tolist(),
                high_gf=band.high_gf.tolist(),
            )
            if band
            else None
        ),
    )


def _controls(result: RunResult) -> list[str]:
    """What was read beside the worked zone, each with its place: the untouched edge."""
    told = []
    for check in result.run.control_checks():
        shown = f"{check.force_gf:.0f} gf" if check.force_gf is not None else check.outcome
        at = f"{check.position_mm:g} mm"
        told.append(f"untouched edge at {at}, after {check.count:g}: {check.kind} {shown}")
    return told


def _on_one_length(analysis: TrialAnalysis, result: BladeResult) -> dict[str, str]:
    """The lives of a blade on the edge length that ratios are scaled to, where there is one."""
    length_mm = next((n.edge_length_mm for n in analysis.notes if isinstance(n, OnOneLength)), None)
    if length_mm is None:
        return {}
    factor, unit = result.length_factor, result.count_unit
    words = {s: scaled_words(life, factor, length_mm, unit) for s, life in result.lives.items()}
    return {stage: said for stage, said in words.items() if said}


def _rung(found: Verdict, result: BladeResult, is_ranked: bool) -> BladeVerdictOut:
    blade = next(b for b in found.blades if b.code == result.blade)
    return BladeVerdictOut.showing(
        result,
        mark=blade.mark,
        grade=blade.claimed_grade,
        lives={stage: _life(life, result.count_unit) for stage, life in result.lives.items()},
        on_one_length=_on_one_length(found.analysis, result),
        ranked=is_ranked,
        figures=figures_out(result.figures),
    )
