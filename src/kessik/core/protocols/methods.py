"""A method: what is cut, how sharpness is checked, which stages are told apart and what ends a
run.
"""

from collections.abc import Set
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Annotated, Literal, NoReturn

from kessik.core.errors import OutOfRangeError
from kessik.core.limits import LIMITS, check_limit
from kessik.core.protocols.checks import (
    FORCE,
    OFF_THE_SKIN,
    PASS_FAIL,
    CheckKind,
    CheckSpec,
    built_in,
    check_name,
    check_spec,
)
from kessik.core.records import LongText, Within
from kessik.core.spreads import READING_SCATTER

CountUnit = Literal["cuts", "mm", "m", "in", "ft", "cycles", "layers", "strokes"]
MediumKind = Literal["rope", "board", "card", "mixed"]
CutKind = Literal["slice", "push", "stroke"]
ScheduleKind = Literal["adaptive", "every", "geometric", "at", "ends"]
StopKind = Literal["limit", "stages", "dose", "cycles", "tester"]
Confirmation = Literal["same_count", "next_check", "none"]
LostWhen = Literal["", "above", "below"]
Together = Literal["any", "all"]

_FORCE_GF = LIMITS["force_gf"]
START_READINGS = 2
"""Force readings of the fresh edge, where a method does not say: common practice, no source."""


@dataclass(frozen=True)
class Stage:
    """A sharpness that is lost on the way: beyond a force limit in gf, beyond the `limit` of a
    number of the tester's own, or on the outcomes or grades by which an ability is lost. With
    `also` other checks it is lost when any of them fails, or only when all do, at one count.
    """

    name: str
    check: str = FORCE
    limit_gf: float | None = None
    lost_on: Annotated[tuple[str, ...], Within("method_parts")] = ("fail",)
    also: Annotated[tuple[str, ...], Within("method_parts")] = ()
    together: Together = "any"
    limit: float | None = None
    lost_when: LostWhen = ""

    @property
    def kinds(self) -> tuple[str, ...]:
        """Every check that it goes by."""
        return (self.check, *self.also)

    def is_beyond(self, value: float) -> bool:
        """Whether a number of the tester's own is on the dull side of the limit."""
        assert self.limit is not None
        return value > self.limit if self.lost_when == "above" else value < self.limit


@dataclass(frozen=True)
class StopRule:
    """What ends a run. `limit`: one stage is lost, confirmed; `stages`: all of them, in order;
    `dose`: an amount is cut; `cycles`: so many rounds, each ended by the other rules; `tester`: the
    tester's own decision, with a reason.
    """

    kind: StopKind
    stage: str = ""
    confirm: Confirmation = "none"
    amount: float | None = None


@dataclass(frozen=True)
class DosePart:
    """One medium of a written recipe and how much of it is cut, in a unit of its own where it has
    one (feet of board, splits of wood), else in the method's.
    """

    medium: str
    amount: Annotated[float, Within("dose")]
    unit: str = ""


@dataclass(frozen=True)
class Method:
    """How a run goes. Lengths in mm, limits in gf, `every`, `at` and `piece` in the count unit.

    Raises OutOfRangeError, naming the field, where its parts contradict each other.
    """

    school: str = "force_limit_rope"
    name: str = "Force-limit rope series"
    medium: MediumKind = "rope"
    cut: CutKind = "slice"
    surface: str = "softwood"
    count_unit: CountUnit = "cuts"
    piece: float = 1.0
    contact_mm: float | None = None
    zone_length_mm: float | None = None
    checks: Annotated[tuple[CheckSpec, ...], Within("method_parts")] = (CheckSpec("force"),)
    stages: Annotated[tuple[Stage, ...], Within("method_parts")] = (
        Stage("keen", limit_gf=300.0),
        Stage("dull", limit_gf=400.0),
    )
    ends: Annotated[tuple[StopRule, ...], Within("method_parts")] = (
        StopRule("limit", "dull", "next_check"),
    )
    schedule: ScheduleKind = "adaptive"
    every: float = 1.0
    growth: float = 1.5
    at: Annotated[tuple[float, ...], Within("named_counts")] = ()
    stations_mm: Annotated[tuple[float, ...], Within("method_parts")] = ()
    start_readings: Annotated[int, Within("check_readings")] = START_READINGS
    recipe: Annotated[tuple[DosePart, ...], Within("method_parts")] = ()
    spoiled_when: LongText = ""
    cautions: Annotated[tuple[LongText, ...], Within("method_parts")] = ()
    note: LongText = ""

    def __post_init__(self) -> None:
        if not self.name.strip():
            raise OutOfRangeError("give the method a name", field="name")
        _check_numbers(self)
        _check_stages(self)
        _check_ends(self)
        _check_schedule(self)

    @property
    def dose(self) -> float | None:
        """The amount that ends a run, where one does."""
        return next((rule.amount for rule in self.ends if rule.kind == "dose"), None)

    @property
    def cycles(self) -> int | None:
        """How many rounds are cut, where the method goes by rounds."""
        return next((int(rule.amount or 0) for rule in self.ends if rule.kind == "cycles"), None)

    @property
    def limits_gf(self) -> tuple[tuple[str, float], ...]:
        """Force limits in the order they are met, gf."""
        return tuple(
            (stage.name, stage.limit_gf) for stage in self.stages if stage.limit_gf is not None
        )

    def limit_gf(self, stage: str) -> float | None:
        return dict(self.limits_gf).get(stage)

    @property
    def main_stage(self) -> str | None:
        """The stage an answer is about first: the first deformation where the apex is checked,
        else the one that ends a run.
        """
        if self.stages and self.row(self.stages[0].check).result == "damage":
            return self.stages[0].name
        return self.end_stage

    @property
    def end_stage(self) -> str | None:
        """The stage whose loss ends a run, where one does."""
        for rule in self.ends:
            if rule.kind == "limit":
                return rule.stage
            if rule.kind == "stages":
                return self.stages[-1].name
        return None

    def spec(self, kind: str) -> CheckSpec | None:
        """The check of a kind, where the method has it."""
        return next((spec for spec in self.checks if spec.kind == kind), None)

    def row(self, kind: str) -> CheckKind:
        """All that is known of a check: of the tester's own, or of one that every method can have;
        OutOfRangeError where neither is.
        """
        spec = self.spec(kind)
        return spec.row if spec else built_in(kind)

    @property
    def reading_scatter(self) -> float | None:
        """How readings of force scatter, s.d. of ln, as a gauge study found it; None without."""
        spec = self.spec(FORCE)
        percent = spec.scatter_percent if spec else None
        return None if percent is None else percent / 100

    @property
    def force_scatter(self) -> float:
        """How readings of force scatter, s.d. of ln: as a study found it, else as usual."""
        return READING_SCATTER if self.reading_scatter is None else self.reading_scatter

    @property
    def rows(self) -> tuple[CheckKind, ...]:
        """All that is known of its checks, in their order."""
        return tuple(spec.row for spec in self.checks)

    def has(self, kind: str) -> bool:
        return self.spec(kind) is not None

    def readings(self, kind: str) -> int:
        """Readings or tries of one check, over all stations."""
        spec = self.spec(kind)
        return (spec.readings if spec else 1) * max(len(self.stations_mm), 1)

    def all_cautions(self) -> tuple[str, ...]:
        """Its cautions and those of the checks that it has, each once."""
        own = [each for each in self.cautions if each != OFF_THE_SKIN]
        of_checks = [row.caution for row in self.rows]
        return tuple(dict.fromkeys(each for each in (*own, *of_checks) if each))


def with_scatter(method: Method, percent: float | None) -> Method:
    """The method with how its force readings scatter, by a study; None as usual. One that reads no
    force is as it was.
    """
    checks = tuple(
        replace(spec, scatter_percent=percent) if spec.kind == FORCE else spec
        for spec in method.checks
    )
    return replace(method, checks=checks)


def force_limit_rope(
    keen_gf: float = 300.0,
    dull_gf: float = 400.0,
    schedule: ScheduleKind = "adaptive",
    every: float = 1.0,
) -> Method:
    """The force-limit rope series with its limits in gf; adaptive checks confirm by the next one,
    others at once.
    """
    return Method(
        stages=(Stage("keen", limit_gf=keen_gf), Stage("dull", limit_gf=dull_gf)),
        ends=(StopRule("limit", "dull", "next_check" if schedule == "adaptive" else "same_count"),),
        schedule=schedule,
        every=every,
    )


def _check_numbers(method: Method) -> None:
    check_limit("piece", method.piece, "piece")
    if method.contact_mm is not None:
        check_limit("contact_mm", method.contact_mm, "contact_mm")
    if method.zone_length_mm is not None:
        check_limit("zone_length_mm", method.zone_length_mm, "zone_length_mm")
    check_limit("check_readings", method.start_readings, "start_readings")
    for station in method.stations_mm:
        check_limit("position_mm", station, "stations_mm")
    if len(set(method.stations_mm)) < len(method.stations_mm):
        raise OutOfRangeError("a station is named twice", field="stations_mm")
    for spec in method.checks:
        check_limit("check_readings", spec.readings, "checks")
        check_spec(spec)
    if not method.checks or len({s.kind.casefold() for s in method.checks}) < len(method.checks):
        raise OutOfRangeError("name one check at least, and each once", field="checks")


def _check_stages(method: Method) -> None:
    kinds = {spec.kind for spec in method.checks}
    names = [stage.name for stage in method.stages]
    if len(set(names)) < len(names) or not all(name.strip() for name in names):
        raise OutOfRangeError("give every stage a name of its own", field="stages")
    for stage in method.stages:
        _check_joined(stage, method, kinds)
        if stage.check not in kinds:
            raise OutOfRangeError(
                f"“{stage.name}” goes by “{check_name(stage.check)}”, which is not among the"
                " checks",
                field="stages",
            )
        _check_limits(stage, method.row(stage.check))
    for (first, first_gf), (second, second_gf) in pairwise(method.limits_gf):
        if first_gf >= second_gf:
            raise OutOfRangeError(
                f"{first} ({first_gf:g} gf) must lie below {second} ({second_gf:g} gf): it is met"
                " on the way",
                field=f"{first}_gf" if first in ("keen", "dull") else "stages",
                value=first_gf,
            )
    for early, late in pairwise(method.stages):
        if (
            early.check == late.check
            and set(early.lost_on) < set(late.lost_on)
            and early.limit_gf is None
        ):
            _refuse_stage(f"“{early.name}” is out of order: “{late.name}” is lost first")
        if (
            early.check == late.check
            and early.limit is not None
            and late.limit is not None
            and not early.is_beyond(late.limit)
        ):
            _refuse_stage(
                f"“{early.name}” is out of order: “{late.name}” is lost first, or at once with it"
            )


def _check_limits(stage: Stage, row: CheckKind) -> None:
    """What a stage is lost by fits the check that it goes by."""
    if not row.decides_stage:
        _refuse_stage(f"no stage can be decided by “{row.name}”")
    if (row.key == FORCE) != (stage.limit_gf is not None):
        _refuse_stage(f"“{stage.name}” needs a limit in gf if, and only if, it is decided by force")
    if stage.limit_gf is not None and not _FORCE_GF.holds(stage.limit_gf):
        field = f"{stage.name}_gf" if stage.name in ("keen", "dull") else "stages"
        raise OutOfRangeError(
            f"the limit is {stage.limit_gf:g} gf; it must lie between 1 and 5000",
            field=field,
            value=stage.limit_gf,
        )
    is_number = row.is_own and not row.is_judged
    if is_number != (stage.limit is not None) or is_number != bool(stage.lost_when):
        _refuse_stage(f"“{stage.name}” needs a limit if, and only if, it is decided by a number")
    if stage.limit is not None:
        check_limit("own_reading", stage.limit, "stages")
        dull = "above" if row.sharp_is == "low" else "below"
        if stage.lost_when != dull:
            _refuse_stage(
                f"“{stage.name}”: a sharp edge reads {row.sharp_is} on “{row.name}”, so the stage"
                f" is lost {dull} the limit"
            )
    if row.result == "scale":
        _check_lost_grades(stage, row)
    elif not set(stage.lost_on) <= set(PASS_FAIL):
        _refuse_stage(f"“{stage.name}” is lost on a fail, or on a doubt already")


def _check_lost_grades(stage: Stage, row: CheckKind) -> None:
    """A stage by a scale is lost at one grade and at every duller one, and not at the sharpest."""
    unknown = [grade for grade in stage.lost_on if grade not in row.grades]
    if unknown:
        _refuse_stage(
            f"“{stage.name}” is lost at “{unknown[0]}”, which is not a grade of “{row.name}”; its"
            f" grades are {', '.join(row.grades)}"
        )
    lost = len(stage.lost_on)
    if not 0 < lost < len(row.grades) or set(stage.lost_on) != set(row.grades[-lost:]):
        _refuse_stage(
            f"“{stage.name}”: say from which grade of “{row.name}” on it is lost, after"
            f" “{row.grades[0]}”"
        )


def _check_joined(stage: Stage, method: Method, kinds: Set[str]) -> None:
    """Checks that decide a stage together are pass/fail checks of the method, each named once."""
    for kind in stage.also:
        if kind not in kinds:
            _refuse_stage(
                f"“{stage.name}” goes by “{check_name(kind)}”, too, which is not among the checks"
            )
    if not stage.also:
        return
    if len(set(stage.kinds)) < len(stage.kinds):
        _refuse_stage(f"“{stage.name}” names one check twice")
    if any(kind in kinds and not method.row(kind).passes_or_fails for kind in stage.kinds):
        _refuse_stage(
            f"“{stage.name}” is decided by several checks: each must be one that passes or fails"
        )
    if "doubt" in stage.lost_on:
        _refuse_stage(
            f"“{stage.name}” is decided by several checks: it is lost on a fail, not on a doubt"
        )


def _refuse_stage(message: str) -> NoReturn:
    raise OutOfRangeError(message, field="stages")


def _check_ends(method: Method) -> None:
    if not method.ends:
        raise OutOfRangeError("name what ends a run; the tester's decision is enough", field="ends")
    names = [stage.name for stage in method.stages]
    for rule in method.ends:
        if rule.kind == "limit" and rule.stage not in names:
            raise OutOfRangeError(
                f"the run ends with “{rule.stage}”, which is not among its stages", field="ends"
            )
        if rule.kind == "limit" and rule.stage != names[-1]:
            raise OutOfRangeError(
                f"the run ends with “{rule.stage}”, so “{names[-1]}” after it is never reached",
                field="ends",
            )
        if rule.kind == "stages" and not names:
            raise OutOfRangeError(
                "the run ends when all stages are lost, and none is named", field="ends"
            )
        if rule.kind == "dose":
            check_limit("dose", rule.amount or 0.0, "ends")
        if rule.kind == "cycles":
            check_limit("rounds", rule.amount or 0.0, "ends")
            if len(method.ends) == 1:
                raise OutOfRangeError(
                    "say what ends each round, too: a limit or a dose", field="ends"
                )
    total = sum(part.amount for part in method.recipe)
    if method.recipe and (method.dose is None or abs(total - method.dose) > 1e-6 * max(total, 1.0)):
        raise OutOfRangeError(
            f"the steps of the recipe add up to {total:g}, and the dose is {method.dose or 0:g}",
            field="recipe",
        )


def _check_schedule(method: Method) -> None:
    check_limit("check_gap", method.every, "every")
    check_limit("gap_growth", method.growth, "growth")
    limited = any(
        rule.kind == "limit" and method.limit_gf(rule.stage) is not None for rule in method.ends
    )
    if method.schedule == "adaptive" and not limited:
        raise OutOfRangeError(
            "adaptive checks foresee a force limit, and no force limit ends this method; check at"
            " fixed counts",
            field="schedule",
        )
    if method.schedule == "at" and (not method.at or any(b <= a for a, b in pairwise(method.at))):
        raise OutOfRangeError("name the counts to check at, rising", field="at")
    if method.schedule == "ends" and method.dose is None:
        raise OutOfRangeError("checks before and after need a dose", field="schedule")
    if method.dose is None:
        return
    if method.schedule in ("every", "geometric") and method.every > method.dose:
        raise OutOfRangeError(
            f"checked every {method.every:g} {method.count_unit}, and the dose is {method.dose:g}: "
            "the gap is longer than the dose",
            field="every",
            value=method.every,
        )
    if method.schedule == "at" and method.at[-1] > method.dose:
        raise OutOfRangeError(
            f"a check at {method.at[-1]:g} {method.count_unit} lies beyond the dose of"
            f" {method.dose:g}",
            field="at",
        )
