"""A method in plain words: what ends a run, when it is checked, and what two versions differ in."""

from collections.abc import Iterator, Sequence

from kessik.core.protocols.checks import CheckSpec
from kessik.core.protocols.methods import Confirmation, DosePart, Method, Stage, StopRule
from kessik.core.protocols.unlike_methods import (
    Compared,
    MethodDifference,
    UnlikeCheck,
    UnlikeField,
    UnlikeStages,
)

_ONE = {"cuts": "cut", "cycles": "cycle", "layers": "layer", "strokes": "stroke"}


def ends_when(method: Method) -> str:
    """The stop rules of a method."""
    rules = [rule for rule in method.ends if rule.kind != "cycles"]
    words = "ends " + ", or ".join(_rule_words(rule, method) for rule in rules)
    return (
        f"{words}; so for {method.cycles} rounds, each after the same light sharpening"
        if method.cycles
        else words
    )


def schedule_words(method: Method) -> str:
    """When a method has sharpness checked."""
    unit = method.count_unit
    match method.schedule:
        case "adaptive":
            return "when Kessik says"
        case "every":
            gap = _ONE.get(unit, unit) if method.every == 1 else f"{method.every:g} {unit}"
            return f"every {gap}"
        case "geometric":
            return f"at {method.every:g} {unit}, then each time {method.growth:g} times as far"
        case "at":
            return f"at {', '.join(f'{count:g}' for count in method.at)} {unit}"
        case "ends":
            return "before and after"


def checked_words(method: Method) -> str:
    """When a method has sharpness checked, and how the readings scatter where a study told."""
    scatter, words = method.reading_scatter, schedule_words(method)
    return words if scatter is None else f"{words}; readings scatter by {100 * scatter:g} %"


def stage_words(stage: Stage, method: Method) -> str:
    """A stage with what it is lost by."""
    return f"{stage.name}: {_what_loses(stage, method)}"


def _what_loses(stage: Stage, method: Method) -> str:
    if stage.also:
        return _joined_words(stage, method)
    if stage.limit_gf is not None:
        return f"above {stage.limit_gf:g} gf"
    row = method.row(stage.check)
    if stage.limit is not None:
        return f"“{row.name}” is {stage.lost_when} {stage.limit:g} {row.unit}".strip()
    if row.result == "damage":
        return "a glint, roll, chip or burr is seen"
    if row.result == "scale":
        return f"“{row.name}” {_grade_words(stage, row.grades)}"
    return f"“{row.name}” {'is no longer clean' if 'doubt' in stage.lost_on else 'fails'}"


def _grade_words(stage: Stage, grades: Sequence[str]) -> str:
    """From which grade on a stage is lost."""
    first = next(grade for grade in grades if grade in stage.lost_on)
    return f"is at “{first}”" if first == grades[-1] else f"is at “{first}” or duller"


def _joined_words(stage: Stage, method: Method) -> str:
    names = [f"“{method.row(kind).name}”" for kind in stage.kinds]
    if stage.together == "all":
        return f"{', '.join(names[:-1])} and {names[-1]} fail at one count"
    return f"{', '.join(names[:-1])} or {names[-1]} fails"


def _rule_words(rule: StopRule, method: Method) -> str:
    stage = next((s for s in method.stages if s.name == rule.stage), None)
    match rule.kind:
        case "limit":
            assert stage is not None
            return f"when {_lost_words(stage, rule.confirm, method)}"
        case "stages":
            before = " and ".join(s.name for s in method.stages[:-1])
            words = f"when {_lost_words(method.stages[-1], 'none', method)}"
            stages = "stage is" if len(method.stages) == 2 else "stages are"
            return f"{words}, once the {before} {stages} lost" if before else words
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
        return _joined_words(stage, method) + (" twice in a row" if confirm != "none" else "")
    row, tries = method.row(stage.check), method.readings(stage.check)
    if row.result == "damage":
        words = "damage is seen"
    elif row.result == "pass_fail":
        words = f"“{row.name}” fails" + (f" in all of {tries} tries" if tries > 1 else "")
    else:
        words = _what_loses(stage, method) + (f" in all of {tries} tries" if tries > 1 else "")
    if confirm == "next_check":
        return f"{words} at two checks in a row"
    return f"{words} twice at one count" if confirm == "same_count" else words


_COMPARED: dict[Compared, str] = {
    "medium": "medium", "cut": "cut", "surface": "surface", "count_unit": "counted in",
    "contact_mm": "contact length, mm", "zone_length_mm": "zone length, mm",
    "stations_mm": "stations, mm", "dose": "dose", "recipe": "recipe",
}  # fmt: skip


def difference_words(found: MethodDifference) -> str:
    """One thing that two versions of a method do not agree on."""
    match found:
        case UnlikeField(field, before, after):
            return _against(_COMPARED[field], _value_words(before), _value_words(after))
        case UnlikeStages(before, after):
            return _against("pass/fail stages", _stage_names(before), _stage_names(after))
        case UnlikeCheck(name, before, after):
            return "; ".join(_check_differences(name, before, after))


def _check_differences(
    name: str, before: CheckSpec | None, after: CheckSpec | None
) -> Iterator[str]:
    materials = [spec.material or "unnamed" if spec else "none" for spec in (before, after)]
    if materials[0] != materials[1]:
        yield _against(f"“{name}” on", *materials)
    if before is None or after is None:
        return
    if before.row.is_judged and before.readings != after.readings:
        yield _against(f"tries of “{name}”", f"{before.readings}", f"{after.readings}")
    if before.own != after.own:
        yield _against(f"“{name}”", _own_words(before), _own_words(after))


def _against(what: str, before: str, after: str) -> str:
    return f"{what}: {before} against {after}"


def _own_words(spec: CheckSpec) -> str:
    """What a check of the tester's own shows."""
    row = spec.row
    match row.result:
        case "scale":
            return f"grades {', '.join(row.grades)}"
        case "number":
            return f"a number{f' in {row.unit}' if row.unit else ''}, sharp is {row.sharp_is}"
        case _:
            return "pass or fail"


def _value_words(value: object) -> str:
    if value is None or value == () or value == "":
        return "none"
    if isinstance(value, tuple):
        return ", ".join(
            f"{v.amount:g} of {v.medium}" if isinstance(v, DosePart) else f"{v:g}" for v in value
        )
    return f"{value:g}" if isinstance(value, float) else str(value)


def _stage_names(method: Method) -> str:
    return ", ".join(stage_words(stage, method) for stage in method.stages) or "none"
