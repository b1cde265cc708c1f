"""Sheets of results over the wire."""

from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import FaultOut, ShortText, Wire
from kessik.api.schemas.records import Answer, Body
from kessik.core.limits import most
from kessik.core.trials.paper.sheets import (
    SheetReading,
    SheetStatus,
    ValueChange,
)
from kessik.services.paper.sheet_import import ImportedSheet
from kessik.services.paper.sheet_plans import BladeChoice
from kessik.store.queries.sheet_readings import Remembered


class SheetReadingBody(Body[SheetReading]):
    """How a sheet is read."""

    head_rows: Annotated[int, Field(ge=0, le=5)]
    roles: list[ShortText] = Field(max_length=most("file_columns"))
    units: list[ShortText] = Field(default_factory=list, max_length=most("file_columns"))


class RoleOut(Wire):
    """Something that a column can be."""

    role: str
    label: str


class RememberedOut(Answer[Remembered]):
    """A reading that was kept under a name for sheets of these heads."""


class PreviewLineOut(Wire):
    """What will become of one run: the row it begins in, and what it says."""

    row: int
    blade: str
    edge: str
    says: str
    status: SheetStatus


class ValueChangeOut(Answer[ValueChange]):
    """A column whose values become others on reading, with an example."""


class BladeChoiceOut(Answer[BladeChoice]):
    """A blade that the sheet names, and whether it is known."""


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


class BroughtOut(Answer[ImportedSheet], without="trial"):
    """What was brought in."""

    trial_id: str
    trial_name: str
    blades: list[str] = Field(description="the blades whose runs were saved")
