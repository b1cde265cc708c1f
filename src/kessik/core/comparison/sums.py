"""Stages that add up: what each stage lasted from the loss of the one before, and the total."""

from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.comparison.analysis import BladeResult, TrialAnalysis
from kessik.core.comparison.ranking import main_stage
from kessik.core.comparison.results import RunResult
from kessik.core.protocols.series import LOST_IN_ORDER
from kessik.core.sharpness.life import LifeSpan, span_of


@dataclass(frozen=True)
class StageSum:
    """One edge or a zone of it, or a blade over its edges (`edge` None): each stage by itself, and
    their total.
    """

    blade: str
    edge: int | None
    unit: str
    parts: tuple[tuple[str, LifeSpan], ...]
    total: LifeSpan
    zone_mm: tuple[float, float] | None = None


def stage_sums(analysis: TrialAnalysis) -> list[StageSum]:
    """Every edge and every blade whose pass/fail stages follow one another to a total; empty where
    the answer is about the first of them.
    """
    named = [stage.name for stage in analysis.method.stages if stage.limit_gf is None]
    seen = {stage for result in analysis.runs for stage in result.lives}
    stages = [stage for stage in named or LOST_IN_ORDER if stage in seen]
    if len(stages) < 2 or main_stage(analysis) != stages[-1]:
        return []
    found = []
    for result in analysis.runs:
        whole = _of_run(result, stages)
        found += [whole] if whole is not None else []
    for blade in analysis.blades:
        own = [each for each in found if each.blade == blade.blade]
        if len(own) > 1 and (over := _of_blade(blade, stages)) is not None:
            found.append(over)
    return found


def _of_run(result: RunResult, stages: Sequence[str]) -> StageSum | None:
    if any(stage not in result.lives for stage in stages):
        return None
    spans = [span_of(result.lives[stage].life.found) for stage in stages]
    run = result.run
    parts = _parts(stages, spans)
    return StageSum(run.blade, run.edge, run.count_unit, parts, spans[-1], run.worked_mm)


def _of_blade(blade: BladeResult, stages: Sequence[str]) -> StageSum | None:
    if any(stage not in blade.lives for stage in stages):
        return None
    spans = [span_of(blade.lives[stage].found) for stage in stages]
    return StageSum(blade.blade, None, blade.count_unit, _parts(stages, spans), spans[-1])


def _parts(stages: Sequence[str], spans: Sequence[LifeSpan]) -> tuple[tuple[str, LifeSpan], ...]:
    parts, before = [], LifeSpan(0.0, 0.0, 0.0)
    for stage, span in zip(stages, spans, strict=True):
        parts.append((stage, span.after(before)))
        before = span
    return tuple(parts)
