"""The lives of a trial as standings take them: each edge with what it must agree in."""

import math

from kessik.core.comparison.findings import Mismatch
from kessik.core.comparison.results import RunResult
from kessik.core.comparison.stage_group import length_factor
from kessik.core.comparison.variables import BY_NAME
from kessik.core.protocols.methods import Method, Stage
from kessik.core.sharpness.life import (
    AsWritten,
    BeforeFirstCheck,
    Bracketed,
    Crossed,
    Found,
    NotReached,
)
from kessik.core.spreads import Z_95, flat_sd
from kessik.core.standings.comparable import TrialLife
from kessik.core.trials.state import TrialRun
from kessik.core.trials.verdict import Verdict
from kessik.core.units import MM_PER_LENGTH

_LENGTH_UNIT = "mm"


def standing_lives(found: Verdict) -> tuple[TrialLife, ...]:
    """Every life that counts in the trial, at every stage; none while its answer is hidden."""
    if found.sealed or not found.is_worked_out or found.trial.method.cycles:
        return ()
    runs = {_key(r): r for r in found.runs if r.counts}
    results = [r for r in found.analysis.runs if not r.left_out and r.run.key in runs]
    reference_mm = _reference_mm(results)
    has_blocks = all(result.run.block is not None for result in results)
    unlike = _unlike(found)
    out = []
    for result in results:
        r = runs[result.run.key]
        own = _TrialLifeOf(found, r, result, reference_mm, has_blocks)
        out += [own.at(stage, known.life.found, unlike) for stage, known in result.lives.items()]
    return tuple(out)


def _key(r: TrialRun) -> tuple[str, int, int]:
    return r.blade.code, r.edge.number, r.run.number


def _reference_mm(results: list[RunResult]) -> float | None:
    """The edge length that lives are put on; None where not every run tells its own."""
    lengths = sorted(r.run.edge_length_used_mm or 0.0 for r in results)
    return lengths[len(lengths) // 2] if lengths and lengths[0] > 0 else None


def _unlike(found: Verdict) -> dict[str, tuple[str, ...]]:
    """By code the variables of edges that were not matched; what belongs to a blade is its own."""
    out: dict[str, list[str]] = {}
    for cell in found.analysis.cells:
        finding = cell.finding
        if isinstance(finding, Mismatch) and finding.variable in BY_NAME:
            variable = BY_NAME[finding.variable]
            if variable.of == "edge":
                out.setdefault(finding.blade, []).append(variable.label)
    return {code: tuple(dict.fromkeys(names)) for code, names in out.items()}


class _TrialLifeOf:
    """A run of a trial, as its lives are told."""

    def __init__(
        self,
        found: Verdict,
        r: TrialRun,
        result: RunResult,
        reference_mm: float | None,
        has_blocks: bool,
    ) -> None:
        self.found, self.r, self.result = found, r, result
        self.reference_mm, self.has_blocks = reference_mm, has_blocks
        self.is_length = result.run.count_unit in MM_PER_LENGTH
        self.scale = MM_PER_LENGTH.get(result.run.count_unit, 1.0)
        self.scale *= length_factor(result.run, reference_mm)

    def at(self, stage: str, life: Found, unlike: dict[str, tuple[str, ...]]) -> TrialLife:
        """The life at a stage."""
        blade, run = self.r.blade, self.r.run
        lower, upper, log_sd = _bounds(life)
        unit = _LENGTH_UNIT if self.is_length else run.count_unit
        return TrialLife(
            arm=blade.arm_id,
            blade_id=blade.id,
            code=blade.code,
            tester=f"{run.operator} (paper)" if run.from_paper else run.operator,
            block=f"{unit} {run.block}" if self.has_blocks else unit,
            edge=self.r.edge.id,
            lower=None if lower is None else lower * self.scale,
            upper=None if upper is None else upper * self.scale,
            log_sd=log_sd,
            unit=unit,
            stage=stage,
            traits=self._traits(stage),
            unlike=unlike.get(blade.code, ()),
            ends_run=stage == self.found.trial.method.end_stage,
        )

    def _traits(self, stage: str) -> dict[str, str]:
        method = self.found.trial.method
        named = next((each for each in method.stages if each.name == stage), None)
        return {
            "school": method.school,
            "medium": method.medium,
            "cut": method.cut,
            "end": _end(stage, named, method),
            "hardness_reading": self.found.trial.rule.hardness_reading,
            "edge_length": "known" if self.reference_mm is not None else "not known",
        }


def _end(stage: str, known: Stage | None, method: Method) -> str:
    """What is lost: a force, else an ability by the checks that judge it."""
    if known is None:
        return stage
    if known.limit_gf is not None:
        return f"{known.limit_gf:g} gf"
    limit = f" {known.limit:g}" if known.limit is not None else ""
    joined = f" {known.together} of " if known.also else " "
    names = ", ".join(method.row(kind).name for kind in known.kinds)
    return f"{stage}:{joined}{names}{limit}"


def _bounds(found: Found) -> tuple[float | None, float | None, float]:
    """Bounds of a life, None where open, and the error of an estimate."""
    match found:
        case Crossed(estimate, low, high):
            log_sd = math.log(high / low) / (2.0 * Z_95) if low > 0 else 0.0
            return estimate, estimate, log_sd
        case Bracketed(last_pass, first_fail):
            return _or_none(last_pass), first_fail, 0.0
        case AsWritten(at, gap) if gap and not found.is_assumed:
            return _or_none(found.low), at, 0.0
        case AsWritten(at, gap):
            return at, at, flat_sd((gap or 0.0) / at)
        case BeforeFirstCheck(first_check):
            return None, max(first_check, 1.0), 0.0
        case NotReached(last_good):
            return _or_none(last_good), None, 0.0


def _or_none(count: float) -> float | None:
    return count if count > 0 else None
