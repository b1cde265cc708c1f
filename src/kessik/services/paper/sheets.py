"""Sheets of results looked over: what would become of each row; nothing is stored."""

from collections.abc import Iterator, Mapping
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
_NO_RESULT = frozenset({"blade", "edge", "note", "block", "verifies", "check_every"})


@dataclass(frozen=True)
class PreviewLine:
    """What will become of one run: the row it begins in, what it says, and why not."""

    row: int
    blade: str
    edge: str
    says: str
    status: SheetStatus


@dataclass(frozen=True)
class SheetPreview:
    """A sheet as it would be brought in."""

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
    notes: tuple[str, ...]
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

    lines = [_shown(own, line, status(own, line)) for own, line in plan.lines]
    lines.sort(key=lambda line: (line.status != "faulty", line.row))
    counts: dict[SheetStatus, int] = {"new": 0, "there": 0, "faulty": 0}
    for line in lines:
        counts[line.status] += 1
    return SheetPreview(
        raw, sheet.reading, method, tuple(lines[:_PREVIEWED]),
        tuple(plan.choices.values()), counts, tuple(faults),
        len(plan.faults) + made.faults.count, known,
        tuple(changes_of(raw.rows, sheet.reading, method)), tuple(_notes(raw, sheet.reading, plan)),
        sum(1 for _, line in plan.lines if needs_gap(line, method)),
    )  # fmt: skip


def _notes(raw: RawSheet, reading: SheetReading, plan: SheetPlan) -> Iterator[str]:
    """What a reader has to know of a sheet besides its faults."""
    yield from raw.notes
    for head in doubled_heads(raw.rows, reading):
        yield f"Two columns are called “{head}”: the first is read, the other saved as a note."
    there = [each.code for each in plan.choices.values() if each.known in ("in_trial", "on_shelf")]
    if there and set(FACTS) & set(reading.roles):
        yield f"Steel, hardness and angle of {', '.join(there)} stay as they are on the shelf."


def _shown(own: SheetLine, line: PaperLine, status: SheetStatus) -> PreviewLine:
    return PreviewLine(own.row, line.text("blade"), line.text("edge"), _says(own, line), status)


def _says(own: SheetLine, line: PaperLine) -> str:
    if line.readings:
        return f"{len(own.rows)} readings"
    return ", ".join(f"{key} {text}" for key, text in line.cells.items() if key not in _NO_RESULT)
