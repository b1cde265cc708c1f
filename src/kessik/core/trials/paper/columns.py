"""What a paper record of a method holds, column by column."""

from dataclasses import dataclass
from typing import Literal

from kessik.core.protocols.methods import JUDGED, Method, Stage

ColumnKind = Literal["text", "whole", "number", "life"]
LIFE_HINT = "60, or 48-60 (still there, gone), or >60"
TOTAL, START, END, CUT, EFFORT = "total", "start_gf", "end_gf", "cut", "effort_"


@dataclass(frozen=True)
class PaperColumn:
    """One thing that a line says: how it is called, in which unit, and what may be written."""

    key: str
    label: str
    kind: ColumnKind
    unit: str = ""
    hint: str = ""


BLADE = PaperColumn("blade", "blade or arm", "text")
EDGE = PaperColumn("edge", "edge", "whole", hint="its number since new")
CHECK_EVERY = "check_every"


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
    reads_force = any(check.kind == "force" for check in method.checks)
    found = [PaperColumn(START, "start", "number", "gf")] if reads_force else []
    if any(check.kind == "effort" for check in method.checks):
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
    return found


def paper_columns(method: Method) -> list[PaperColumn]:
    """Every column of a line; readings stand beside them."""
    unit = method.count_unit
    every = PaperColumn(CHECK_EVERY, "checked every", "number", unit, "the gap of the checks")
    return [
        BLADE,
        EDGE,
        *result_columns(method),
        every,
        PaperColumn("block", "block", "whole"),
        PaperColumn("verifies", "verifies edge", "text", hint="3, or 3/2 for its second run"),
        PaperColumn("note", "note", "text"),
    ]


def number_check(method: Method) -> str:
    """The check whose numbers a tally holds; empty where the method has none."""
    return next((check.kind for check in method.checks if check.kind not in JUDGED), "")


def _to(stage: Stage, unit: str) -> PaperColumn:
    return PaperColumn(stage.name, f"to {stage.name}", "life", unit, LIFE_HINT)
