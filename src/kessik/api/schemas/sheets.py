"""Sheets of results over the wire."""

from dataclasses import asdict
from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import FaultOut, ShortText, Wire
from kessik.core.facts import Provenance
from kessik.core.limits import most
from kessik.core.trials.paper.heads import BLADE_COLUMN, heads_of, roles_for
from kessik.core.trials.paper.sheets import (
    AngleIs,
    BladeKnown,
    Change,
    ForceUnit,
    Shape,
    SheetReading,
    SheetStatus,
    is_count,
    is_force,
)
from kessik.services.paper.sheets import SheetPreview

_SHOWN_ROWS = 6


class SheetReadingBody(Wire):
    """How a sheet is read."""

    shape: Shape
    head_rows: Annotated[int, Field(ge=0, le=5)]
    roles: list[ShortText] = Field(max_length=most("file_columns"))
    count_unit: ShortText
    force_unit: ForceUnit = "gf"
    decimal_comma: bool = False
    angle_is: AngleIs = "side"
    check_every: ShortText = ""
    units: list[ShortText] = Field(default_factory=list, max_length=most("file_columns"))
    hardness_standing: Provenance = "measured_elsewhere"
    angle_standing: Provenance = "measured_elsewhere"

    def to_core(self) -> SheetReading:
        lists = {"roles": tuple(self.roles), "units": tuple(self.units)}
        return SheetReading(**{**self.model_dump(), **lists})

    @classmethod
    def of(cls, reading: SheetReading) -> "SheetReadingBody":
        return cls.model_validate(asdict(reading))


class RoleOut(Wire):
    """Something that a column can be."""

    role: str
    label: str


class RememberedOut(Wire):
    """A reading that was kept under a name for sheets of these heads."""

    name: str
    reading: SheetReadingBody


class PreviewLineOut(Wire):
    """What will become of one run."""

    row: int
    blade: str
    edge: str
    says: str
    status: SheetStatus


class ValueChangeOut(Wire):
    """A column whose values become others on reading, with an example."""

    place: int
    why: Change
    before: str
    after: str


class BladeChoiceOut(Wire):
    """A blade that the sheet names, and whether it is known."""

    code: str
    known: BladeKnown
    steel: str


class SheetPreviewOut(Wire):
    """A sheet as it would be brought in."""

    name: str
    notes: list[str]
    heads: list[str]
    rows: list[list[str]]
    row_count: int
    reading: SheetReadingBody
    school: str
    roles: list[RoleOut]
    remembered: list[RememberedOut]
    changes: list[ValueChangeOut] = Field(description="what a guess makes of the cells of columns")
    totals_without_gap: int = Field(description="runs whose totals tell no gap of the checks")
    count_unit: str = Field(description="the unit that the method counts in")
    counted: list[bool] = Field(description="whether each column holds counts")
    forced: list[bool] = Field(description="whether each column holds forces")
    lines: list[PreviewLineOut]
    blades: list[BladeChoiceOut]
    new: int
    there: int
    faulty: int
    faults: list[FaultOut]
    fault_count: int

    @classmethod
    def of(cls, found: SheetPreview) -> "SheetPreviewOut":
        raw, reading, method = found.raw, found.reading, found.method
        return cls(
            name=raw.name,
            notes=list(found.notes),
            heads=heads_of(raw.rows, reading.head_rows),
            rows=[list(row) for row in raw.rows[: reading.head_rows + _SHOWN_ROWS]],
            row_count=len(raw.rows),
            reading=SheetReadingBody.of(reading),
            school=method.school,
            roles=[RoleOut(role=role, label=label) for role, label in roles_for(method)],
            remembered=[
                RememberedOut(name=each.name, reading=SheetReadingBody.of(each.reading))
                for each in found.remembered
            ],
            changes=[ValueChangeOut.model_validate(change) for change in found.changes],
            totals_without_gap=found.totals_without_gap,
            count_unit=method.count_unit,
            counted=[is_count(role, method) for role in reading.roles],
            forced=[is_force(role) or role == BLADE_COLUMN for role in reading.roles],
            lines=[PreviewLineOut.model_validate(line) for line in found.lines],
            blades=[BladeChoiceOut.model_validate(choice) for choice in found.blades],
            new=found.counts["new"],
            there=found.counts["there"],
            faulty=found.counts["faulty"],
            faults=[
                FaultOut(file=f.file, line=f.line, column=f.column, message=f.message)
                for f in found.faults[: most("faults_listed")]
            ],
            fault_count=found.fault_count,
        )


class BroughtOut(Wire):
    """What was brought in."""

    trial_id: str
    trial_name: str
    kept: int
    skipped: int
    replaced: int
    blades: list[str] = Field(description="the blades whose runs were saved")
    new_blades: list[str]
