"""Sheets of results over the wire."""

from kessik.api.schemas.common import FaultOut
from kessik.api.schemas.sheets import (
    PreviewLineOut,
    RoleOut,
    SheetPreviewOut,
    SheetReadingBody,
)
from kessik.core.limits import most
from kessik.core.trials.paper.heads import BLADE_COLUMN, heads_of, roles_for
from kessik.core.trials.paper.sheets import (
    is_count,
    is_force,
)
from kessik.core.words.sheets import doubled_head_words, facts_on_shelf_words, line_words
from kessik.services.paper.sheets import PreviewLine, SheetPreview

_SHOWN_ROWS = 6


def sheet_preview_out(found: SheetPreview) -> SheetPreviewOut:
    """A sheet as it would be read, with the first of its rows and faults."""
    raw, reading, method = found.raw, found.reading, found.method
    return SheetPreviewOut.showing(
        found,
        name=raw.name,
        heads=heads_of(raw.rows, reading.head_rows),
        rows=[list(row) for row in raw.rows[: reading.head_rows + _SHOWN_ROWS]],
        row_count=len(raw.rows),
        reading=SheetReadingBody.showing(reading),
        school=method.school,
        roles=[RoleOut(role=role, label=label) for role, label in roles_for(method)],
        count_unit=method.count_unit,
        counted=[is_count(role, method) for role in reading.roles],
        forced=[is_force(role) or role == BLADE_COLUMN for role in reading.roles],
        new=found.counts["new"],
        there=found.counts["there"],
        faulty=found.counts["faulty"],
        lines=[_preview_line_out(line) for line in found.lines],
        notes=_notes(found),
        faults=[FaultOut.showing(f) for f in found.faults[: most("faults_listed")]],
    )


def _preview_line_out(found: PreviewLine) -> PreviewLineOut:
    line = found.line
    return PreviewLineOut(
        row=found.row,
        blade=line.text("blade"),
        edge=line.text("edge"),
        says=line_words(line.cells, found.rows if line.readings else 0),
        status=found.status,
    )


def _notes(found: SheetPreview) -> list[str]:
    notes = [*found.raw.notes, *(doubled_head_words(head) for head in found.doubled_heads)]
    facts = facts_on_shelf_words(found.on_shelf)
    return [*notes, facts] if facts else notes
