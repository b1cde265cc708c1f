"""A method: what is cut, how sharpness is looked at, which stages are told apart and what ends a
run.
"""

from collections.abc import Mapping, Sequence, Set
from dataclasses import dataclass, replace
from itertools import pairwise
from typing import Literal, get_args

from kessik.core.errors import OutOfRangeError
from kessik.core.limits import LIMITS, check_limit

CheckKind = Literal["force", "paper", "shave", "hair_sample", "inspect", "effort", "rank", "depth"]
CountUnit = Literal["cuts", "mm", "m", "in", "ft", "cycles", "layers", "strokes"]
MediumKind = Literal["rope", "board", "card", "mixed"]
CutKind = Literal["slice", "push", "stroke"]
ScheduleKind = Literal["adaptive", "every", "geometric", "at", "ends"]
StopKind = Literal["limit", "stages", "dose", "cycles", "tester"]
Confirmation = Literal["same_count", "next_check", "none"]
Outcome = Literal["pass", "fail", "doubt"]
Together = Literal["any", "all"]

CHECK_KINDS: tuple[CheckKind, ...] = get_args(CheckKind)
JUDGED: frozenset[str] = frozenset({"paper", "shave", "hair_sample", "inspect"})
CHECK_WORDS = {
    "force": "force on the test line", "paper": "slices held paper", "shave": "shaves hair",
    "hair_sample": "cuts a hair sample off the body", "inspect": "apex under the lamp",
    "effort": "effort, 0 to 10",
    "rank": "effort, ranked", "depth": "depth cut, mm",
}  # fmt: skip  # a table is read by its rows
_OFF_THE_SKIN = (
    "Do not shave-test on skin: paper or a hair sample off the body does, and is not pooled with"
    " shaving."
)
CHECK_CAUTIONS: Mapping[str, str] = {"shave": _OFF_THE_SKIN, "hair_sample": _OFF_THE_SKIN}
"""What a check itself can hurt; said wherever the method has it."""
_FORCE_GF = LIMITS["force_gf"]
START_READINGS = 2
"""Force readings of the fresh edge, where a method does not say: common practice, no source."""


@dataclass(frozen=True)
class CheckSpec:
    """One kind of look: how many readings or tries it takes, the same for a pass and a fail, and on
    what.
    """

    kind: CheckKind
    readings: int = 1
    material: str = ""


@dataclass(frozen=True)
class Stage:
    """A sharpness that is lost on the way: a force limit in gf, or the outcomes by which an ability
    is lost. With `also` other checks it is lost when any of them fails, or only when all do, at
    one count.
    """

    name: str
    check: CheckKind = "force"
    limit_gf: float | None = None
    lost_on: tuple[Outcome, ...] = ("fail",)
    also: tuple[CheckKind, ...] = ()
    together: Together = "any"

    @property
    def kinds(self) -> tuple[CheckKind, ...]:
        """Every check that it goes by."""
        return (self.check, *self.also)

    def words(self) -> str:
        if self.also:
            return f"{self.name}: {self._joined_words()}"
        if self.limit_gf is not None:
            return f"{self.name}: above {self.limit_gf:g} gf"
        if self.check == "inspect":
            return f"{self.name}: a glint, roll, chip or burr is seen"
        how = "is no longer clean" if "doubt" in self.lost_on else "fails"
        return f"{self.name}: “{CHECK_WORDS[self.check]}” {how}"

    def _joined_words(self) -> str:
        names = [f"“{CHECK_WORDS[kind]}”" for kind in self.kinds]
        listed = f"{', '.join(names[:-1])} {'and' if self.together == 'all' else 'or'} {names[-1]}"
        return f"{listed} fail at one count" if self.together == "all" else f"{listed} fails"


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
    amount: float
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
    checks: tuple[CheckSpec, ...] = (CheckSpec("force"),)
    stages: tuple[Stage, ...] = (Stage("keen", limit_gf=300.0), Stage("dull", limit_gf=400.0))
    ends: tuple[StopRule, ...] = (StopRule("limit", "dull", "next_check"),)
    schedule: ScheduleKind = "adaptive"
    every: float = 1.0
    growth: float = 1.5
    at: tuple[float, ...] = ()
    stations_mm: tuple[float, ...] = ()
    start_readings: int = START_READINGS
    recipe: tuple[DosePart, ...] = ()
    spoiled_when: str = ""
    cautions: tuple[str, ...] = ()
    note: str = ""

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
    def force_stages(self) -> tuple[Stage, ...]:
        return tuple(stage for stage in self.stages if stage.limit_gf is not None)

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
        """The stage an answer is about first: the first deformation where the apex is looked at,
        else the one that ends a run.
        """
        if self.stages and self.stages[0].check == "inspect":
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

    def readings(self, kind: str) -> int:
        """Readings or tries of one check, over all stations."""
        spec = next((spec for spec in self.checks if spec.kind == kind), None)
        return (spec.readings if spec else 1) * max(len(self.stations_mm), 1)

    def all_cautions(self) -> tuple[str, ...]:
        """Its cautions and those of the checks that it has, each once."""
        of_checks = [CHECK_CAUTIONS.get(spec.kind, "") for spec in self.checks]
        own = [each for each in self.cautions if each not in CHECK_CAUTIONS.values()]
        return tuple(dict.fromkeys(each for each in (*own, *of_checks) if each))

    def ends_when(self) -> str:
        """The stop rules in plain words."""
        rules = [rule for rule in self.ends if rule.kind != "cycles"]
        said = "ends " + ", or ".join(_rule_words(rule, self) for rule in rules)
        return (
            f"{said}; so for {self.cycles} rounds, each after the same light sharpening"
            if self.cycles
            else said
        )

    def checked(self) -> str:
        """The check schedule in plain words."""
        unit = self.count_unit
        match self.schedule:
            case "adaptive":
                return "when Kessik says"
            case "every":
                return "every " + (_singular(unit) if self.every == 1 else f"{self.every:g} {unit}")
            case "geometric":
                return f"at {self.every:g} {unit}, then each time {self.growth:g} times as far"
            case "at":
                return f"at {', '.join(f'{count:g}' for count in self.at)} {unit}"
            case "ends":
                return "before and after"


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


def _singular(unit: str) -> str:
    return {"cuts": "cut", "cycles": "cycle", "layers": "layer", "strokes": "stroke"}.get(
        unit, unit
    )


def _rule_words(rule: StopRule, method: Method) -> str:
    stage = next((s for s in method.stages if s.name == rule.stage), None)
    match rule.kind:
        case "limit":
            assert stage is not None
            return f"when {_lost_words(stage, rule.confirm, method)}"
        case "stages":
            last = method.stages[-1]
            before = " and ".join(s.name for s in method.stages[:-1])
            said = f"when {_lost_words(last, 'none', method)}"
            stages = "stage is" if len(method.stages) == 2 else "stages are"
            return f"{said}, once the {before} {stages} lost" if before else said
        case "dose":
            return f"after {rule.amount:g} {method.count_unit}"
        case "tester" | "cycles":
            return "when the tester says so, with the reason"


def _lost_words(stage: Stage, confirm: Confirmation, method: Method) -> str:
    if stage.limit_gf is not None:
        beyond = f"above {stage.limit_gf:g} gf"
        return {
            "same_count": f"two readings in a row at one count are {beyond}",
            "next_check": f"two checks in a row are {beyond}",
            "none": f"a check is {beyond}",
        }[confirm]
    if stage.also:
        twice = " twice in a row" if confirm != "none" else ""
        return f"{stage.words().removeprefix(f'{stage.name}: ')}{twice}"
    tries = method.readings(stage.check)
    what = f"“{CHECK_WORDS[stage.check]}”"
    if stage.check == "inspect":
        what, how = "damage", "is seen"
    else:
        how = "fails" if tries == 1 else f"fails in all of {tries} tries"
    if confirm == "next_check":
        return f"{what} {how} at two checks in a row"
    if confirm == "same_count":
        return f"{what} {how} twice at one count"
    return f"{what} {how}"


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
    if not method.checks or len({spec.kind for spec in method.checks}) < len(method.checks):
        raise OutOfRangeError("name one check at least, and each kind once", field="checks")


def _check_stages(method: Method) -> None:
    kinds = {spec.kind for spec in method.checks}
    names = [stage.name for stage in method.stages]
    if len(set(names)) < len(names) or not all(name.strip() for name in names):
        raise OutOfRangeError("give every stage a name of its own", field="stages")
    for stage in method.stages:
        _check_joined(stage, kinds)
        if stage.check not in kinds:
            raise OutOfRangeError(
                f"“{stage.name}” goes by “{CHECK_WORDS[stage.check]}”, which is not among the"
                " checks",
                field="stages",
            )
        if (stage.check == "force") != (stage.limit_gf is not None):
            raise OutOfRangeError(
                f"“{stage.name}” needs a limit in gf exactly if it goes by force", field="stages"
            )
        if stage.check not in JUDGED and stage.check != "force":
            raise OutOfRangeError(
                f"no stage can go by “{CHECK_WORDS[stage.check]}”", field="stages"
            )
        if stage.limit_gf is not None and not _FORCE_GF.holds(stage.limit_gf):
            field = f"{stage.name}_gf" if stage.name in ("keen", "dull") else "stages"
            raise OutOfRangeError(
                f"the limit is {stage.limit_gf:g} gf; it must lie between 1 and 5000",
                field=field,
                value=stage.limit_gf,
            )
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
            raise OutOfRangeError(
                f"“{early.name}” is out of order: “{late.name}” is lost first, on a doubt already",
                field="stages",
            )


def _check_joined(stage: Stage, kinds: Set[str]) -> None:
    """Checks that decide a stage together are pass/fail checks of the method, each named once."""
    for kind in stage.also:
        if kind not in kinds:
            raise OutOfRangeError(
                f"“{stage.name}” goes by “{CHECK_WORDS[kind]}”, too, which is not among the checks",
                field="stages",
            )
    if not stage.also:
        return
    if len(set(stage.kinds)) < len(stage.kinds):
        raise OutOfRangeError(f"“{stage.name}” names one check twice", field="stages")
    if any(kind not in JUDGED for kind in stage.kinds):
        raise OutOfRangeError(
            f"“{stage.name}” goes by several checks: each must be one that passes or fails",
            field="stages",
        )
    if "doubt" in stage.lost_on:
        raise OutOfRangeError(
            f"“{stage.name}” goes by several checks: it is lost on a fail, not on a doubt",
            field="stages",
        )


def _check_ends(method: Method) -> None:
    if not method.ends:
        raise OutOfRangeError("say what ends a run; the tester's decision will do", field="ends")
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


def differences(old: Method, new: Method) -> list[str]:
    """What two versions of a method do not agree on, of what matters to the result; empty where
    runs may be pooled.

    Schedule, names, notes and cautions do not matter: estimates take care of the one, and the rest
    moves no edge. A force limit that moved does not either: readings answer for any limit they
    reached.
    """
    found: list[str] = []

    def unlike(what: str, before: object, after: object) -> None:
        if before != after:
            found.append(f"{what}: {_said(before)} against {_said(after)}")

    unlike("medium", old.medium, new.medium)
    unlike("cut", old.cut, new.cut)
    unlike("surface", old.surface, new.surface)
    unlike("counted in", old.count_unit, new.count_unit)
    unlike("contact length, mm", old.contact_mm, new.contact_mm)
    unlike("zone length, mm", old.zone_length_mm, new.zone_length_mm)
    unlike("stations, mm", old.stations_mm, new.stations_mm)
    unlike("dose", old.dose, new.dose)
    unlike("recipe", old.recipe, new.recipe)
    for kind in CHECK_KINDS:
        before, after = (next((s for s in m.checks if s.kind == kind), None) for m in (old, new))
        if before is None and after is None:
            continue
        unlike(
            f"“{CHECK_WORDS[kind]}” on",
            before and (before.material or "unnamed"),
            after and (after.material or "unnamed"),
        )
        if kind in JUDGED and before and after:
            unlike(f"tries of “{CHECK_WORDS[kind]}”", before.readings, after.readings)
    judged = [
        [replace(s, limit_gf=None) for s in m.stages if s.limit_gf is None] for m in (old, new)
    ]
    if judged[0] != judged[1]:
        found.append(
            "pass/fail stages: " + " against ".join(_stage_names(m.stages) for m in (old, new))
        )
    return found


def _said(value: object) -> str:
    if value is None or value == () or value == "":
        return "none"
    if isinstance(value, tuple):
        return ", ".join(
            f"{v.amount:g} of {v.medium}" if isinstance(v, DosePart) else f"{v:g}" for v in value
        )
    return f"{value:g}" if isinstance(value, float) else str(value)


def _stage_names(stages: Sequence[Stage]) -> str:
    return ", ".join(stage.words() for stage in stages) or "none"
