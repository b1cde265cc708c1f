"""Workbooks (Office Open XML): values, and formulas where they show how a number comes about."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime
from io import BytesIO
from typing import TYPE_CHECKING
from zipfile import ZIP_DEFLATED, ZipFile, ZipInfo

if TYPE_CHECKING:
    from openpyxl.worksheet.worksheet import Worksheet


@dataclass(frozen=True)
class Formula:
    """What a cell works out, such as `=LN(F2)`."""

    text: str


Cell = str | float | Formula | None
Rows = Iterable[Sequence[Cell]]
_ALWAYS = datetime(2000, 1, 1)  # noqa: DTZ001 - a workbook knows no zone
_WIDEST = 48
_MARGIN = 2


def workbook(sheets: Iterable[tuple[str, Sequence[str], Rows]]) -> bytes:
    """A workbook of named sheets, each with its header and rows; text stays text, whatever it
    begins with, and the same sheets give the same bytes.
    """
    from openpyxl import Workbook  # only what is handed over needs it
    from openpyxl.styles import Font

    book = Workbook()
    book.remove(book.active)
    for name, header, rows in sheets:
        sheet = book.create_sheet(name)
        for number, row in enumerate((header, *rows), 1):
            _write(sheet, number, row)
        for cell in sheet[1]:
            cell.font = Font(bold=True)
        sheet.freeze_panes = "B2"
        _widen(sheet)
    book.properties.created = _ALWAYS
    out = BytesIO()
    book.save(out)
    return _undated(out)


def _write(sheet: "Worksheet", number: int, values: Sequence[Cell]) -> None:
    for column, value in enumerate(values, 1):
        if value is None:
            continue
        said = value.text if isinstance(value, Formula) else value
        cell = sheet.cell(row=number, column=column, value=said)
        if isinstance(value, str):
            cell.data_type = "s"


def _widen(sheet: "Worksheet") -> None:
    for column in sheet.columns:
        longest = max(len(str(c.value)) for c in column if c.value is not None)
        sheet.column_dimensions[column[0].column_letter].width = min(longest, _WIDEST) + _MARGIN


def _undated(book: BytesIO) -> bytes:
    """The same workbook without the time it was written at."""
    out = BytesIO()
    with ZipFile(book) as written, ZipFile(out, "w", ZIP_DEFLATED) as again:
        for name in written.namelist():
            content = written.read(name)
            if name == "docProps/core.xml":
                content = _without_changed(content)
            again.writestr(ZipInfo(name), content, ZIP_DEFLATED)
    return out.getvalue()


def _without_changed(properties: bytes) -> bytes:
    before, _, rest = properties.partition(b"<dcterms:modified")
    return before + rest.partition(b"</dcterms:modified>")[2]
