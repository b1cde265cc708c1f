"""What a paper record of a method holds, column by column."""

from dataclasses import dataclass, replace
from typing import Literal

from kessik.core.protocols.checks import FORCE, CheckKind
from kessik.core.protocols.methods import Method, Stage

ColumnKind = Literal["text", "whole", "number", "life"]
LIFE_HINT = "60, or 48-60 (still there, gone), or >60"
TOTAL, START, END, CUT, EFFORT = "total", "start_gf", "end_gf", "cut", "effort_"
AFTER, CONTROL = "after_", "control_"
_PASS_FAIL = "pass, fail or doubt"
CHECK_EVERY, ROUND, ZONE, LENGTH = "check_every", "round", "zone", "edge_length_used_mm"
STROKES, MINUTES = "strokes", "minutes"


@dataclass(frozen=True)
class PaperColumn:
    """One thing that a line says: how it is called, in which unit, and what may be written; `usual`
    where most records of its school have it.
    """

    key: str
    label: str
    kind: ColumnKind
    unit: str = ""
    hint: str = ""
    usual: bool = True


BLADE = PaperColumn("blade", "blade or arm", "text")
EDGE = PaperColumn("edge", "edge", "text", hint="its number since new, or 3+ for at least 3")
_ROUND = PaperColumn(ROUND, "round", "whole")
_SHARPENING = (
    PaperColumn(STROKES, "strokes a side", "whole", hint="of the sharpening before", usual=False),
    PaperColumn(MINUTES, "minutes", "number", "min", "of the sharpening before", usual=False),
)
_WHERE = (
    PaperColumn(ZONE, "zone", "text", "mm", "0-48, from the heel", usual=False),
    PaperColumn(LENGTH, "edge used", "number", "mm", usual=False),
)


def adds_up(method: Method) -> bool:
    """Whether its stages are lengths one after the other, which make the total together."""
    return (
        any(rule.kind == "stages" for rule in method.ends)
        and len(method.stages) == 2
        and all(stage.limit_gf is None for stage in method.stages)
    )


def result_columns(method: Method) -> list[PaperColumn]:
    """What its school reports, in the order of the bench."""
    unit = method.count_unit
    reads_force = method.has(FORCE)
    found = [PaperColumn(START, "start", "number", "gf")] if reads_force else []
    if method.has("effort"):
        found += [
            PaperColumn(f"{EFFORT}{at:g}", f"effort at {at:g}", "number", "0 to 10")
            for at in method.at
        ]
    if adds_up(method):
        found += [PaperColumn(s.name, s.name, "life", unit, LIFE_HINT) for s in method.stages]
        found.append(PaperColumn(TOTAL, "total", "life", unit, LIFE_HINT))
    else:
        found += [_to(stage, unit) for stage in method.stages]
    if reads_force:
        found += [PaperColumn(CUT, "cut", "number", unit), PaperColumn(END, "end", "number", "gf")]
    if method.dose is not None:
        found += [column for row in method.rows for column in _after_dose(row)]
    return found


def sharpening_columns(method: Method) -> list[PaperColumn]:
    """What the sharpening before a run took; where rounds are cut, that is half the question."""
    return [replace(column, usual=bool(method.cycles)) for column in _SHARPENING]


def paper_columns(method: Method) -> list[PaperColumn]:
    """Every column of a line; readings stand beside them."""
    unit = method.count_unit
    every = PaperColumn(CHECK_EVERY, "checked every", "number", unit, "if unlike the others", False)
    return [
        BLADE,
        EDGE,
        *([_ROUND] if method.cycles else []),
        *result_columns(method),
        *sharpening_columns(method),
        *_WHERE,
        every,
        PaperColumn("block", "block", "whole", hint="cut from one piece or on one day"),
        PaperColumn("verifies", "verifies edge", "text", hint="3, or 3/2 for its second run"),
        PaperColumn("note", "note", "text"),
    ]


def _to(stage: Stage, unit: str) -> PaperColumn:
    return PaperColumn(stage.name, f"to {stage.name}", "life", unit, LIFE_HINT)


def _after_dose(row: CheckKind) -> list[PaperColumn]:
    """What a check shows after the dose, in the worked zone and beside it."""
    words = ", ".join(word.key for word in row.outcomes) if row.result == "scale" else _PASS_FAIL
    beside = words if row.is_judged else "its reading"
    control = PaperColumn(
        f"{CONTROL}{row.key}", "untouched edge", "text", "", f"{beside} and place: … at 12",
        usual=row.is_judged,
    )  # fmt: skip  # a column a line
    if row.key == FORCE:
        return [control]
    if not row.is_judged and not row.is_own:
        return []
    after = PaperColumn(
        f"{AFTER}{row.key}", f"{row.name}, after", "text", row.unit, words if row.is_judged else ""
    )
    return [after, control]
