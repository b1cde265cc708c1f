"""Sheets of results looked over: what would become of each row; nothing is stored."""

from collections.abc import Mapping
from dataclasses import dataclass

from kessik.core.errors import Fault
from kessik.core.limits import most
from kessik.core.protocols.methods import Method
from kessik.core.trials.paper.guessing import doubled_heads, guess
from kessik.core.trials.paper.heads import FACTS, heads_of
from kessik.core.trials.paper.lines import PaperLine, needs_gap
from kessik.core.trials.paper.sheets import (
    SheetLine,
    SheetReading,
    SheetStatus,
    ValueChange,
    changes_of,
)
from kessik.interchange.raw_sheets import RawSheet
from kessik.services.paper.runs import Entered, made_runs
from kessik.services.paper.sheet_plans import (
    BladeChoice,
    Sheet,
    SheetPlan,
    Target,
    method_for,
    placed_fault,
    planned,
)
from kessik.store.database import Database
from kessik.store.queries.sheet_readings import Remembered, remembered_for

_PREVIEWED = 60


@dataclass(frozen=True)
class PreviewLine:
    """What will become of one run, and the row it begins in, of so many."""

    row: int
    line: PaperLine
    rows: int
    status: SheetStatus


@dataclass(frozen=True)
class SheetPreview:
    """A sheet as it would be imported; facts of blades `on_shelf` stay as they are there."""

    raw: RawSheet
    reading: SheetReading
    method: Method
    lines: tuple[PreviewLine, ...]
    blades: tuple[BladeChoice, ...]
    counts: Mapping[SheetStatus, int]
    faults: tuple[Fault, ...]
    fault_count: int
    remembered: tuple[Remembered, ...]
    changes: tuple[ValueChange, ...]
    doubled_heads: tuple[str, ...]
    on_shelf: tuple[str, ...]
    totals_without_gap: int


def preview(
    db: Database, raw: RawSheet, reading: SheetReading | None, target: Target, entered: Entered
) -> SheetPreview:
    """What would become of a sheet: its reading, guessed where none is given, and every run."""
    with db.read() as session:
        method = method_for(session, raw, target)
        sheet = Sheet(raw, reading or guess(raw.rows, method), entered)
        heads = heads_of(raw.rows, sheet.reading.head_rows)
        known = tuple(remembered_for(session, heads))
        plan = planned(session, sheet, target, method)
    todo = [(own, line) for own, line in plan.lines if line.id not in plan.there]
    made = made_runs(plan.state, plan.cut, [line for _, line in todo], entered)
    faults = [*plan.faults, *(placed_fault(fault, todo, sheet) for fault in made.faults.first)]
    faults = sorted(faults, key=lambda fault: fault.line)[: most("faults_listed")]
    rows_at_fault = {fault.line for fault in plan.faults}

    def status(own: SheetLine, line: PaperLine) -> SheetStatus:
        if line.id in plan.there:
            return "there"
        return "faulty" if line.id in made.faulty or own.row in rows_at_fault else "new"

    lines = [
        PreviewLine(own.row, line, len(own.rows), status(own, line)) for own, line in plan.lines
    ]
    lines.sort(key=lambda line: (line.status != "faulty", line.row))
    counts: dict[SheetStatus, int] = {"new": 0, "there": 0, "faulty": 0}
    for line in lines:
        counts[line.status] += 1
    return SheetPreview(
        raw, sheet.reading, method, tuple(lines[:_PREVIEWED]),
        tuple(plan.choices.values()), counts, tuple(faults),
        len(plan.faults) + made.faults.count, known,
        tuple(changes_of(raw.rows, sheet.reading, method)),
        tuple(doubled_heads(raw.rows, sheet.reading)), _on_shelf(sheet.reading, plan),
        sum(1 for _, line in plan.lines if needs_gap(line, method)),
    )  # fmt: skip


def _on_shelf(reading: SheetReading, plan: SheetPlan) -> tuple[str, ...]:
    if not set(FACTS) & set(reading.roles):
        return ()
    known = (each for each in plan.choices.values() if each.known in ("in_trial", "on_shelf"))
    return tuple(each.code for each in known)
