"""The verdicts, means and shots of a batch as a workbook (Office Open XML)."""

from collections.abc import Iterable, Sequence
from io import BytesIO
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from openpyxl.worksheet.worksheet import Worksheet

Cell = str | float | None


def workbook(sheets: Iterable[tuple[str, Sequence[str], Iterable[Sequence[Cell]]]]) -> bytes:
    """A workbook of named sheets, each with its header and rows; text stays text, whatever it
    begins with.
    """
    from openpyxl import Workbook  # only a batch that is handed over needs it
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
    out = BytesIO()
    book.save(out)
    return out.getvalue()


def _write(sheet: "Worksheet", number: int, values: Sequence[Cell]) -> None:
    for column, value in enumerate(values, 1):
        if value is None:
            continue
        cell = sheet.cell(row=number, column=column, value=value)
        if isinstance(value, str):
            cell.data_type = "s"
