"""The verdicts, means and shots of a batch as a workbook (Office Open XML)."""

from collections.abc import Iterable, Sequence
from io import BytesIO

from openpyxl import Workbook
from openpyxl.styles import Font
from openpyxl.worksheet.worksheet import Worksheet

Cell = str | float | None


def workbook(sheets: Iterable[tuple[str, Sequence[str], Iterable[Sequence[Cell]]]]) -> bytes:
    """A workbook of named sheets, each with its header and rows; text stays text, whatever it
    begins with.
    """
    book = Workbook()
    book.remove(book.active)
    for name, header, rows in sheets:
        sheet = book.create_sheet(name)
        _append(sheet, header)
        for cell in sheet[1]:
            cell.font = Font(bold=True)
        for row in rows:
            _append(sheet, row)
        sheet.freeze_panes = "B2"
    out = BytesIO()
    book.save(out)
    return out.getvalue()


def _append(sheet: Worksheet, values: Sequence[Cell]) -> None:
    row = sheet.max_row + 1 if sheet.max_row > 1 or sheet["A1"].value is not None else 1
    for column, value in enumerate(values, 1):
        if value is None:
            continue
        cell = sheet.cell(row=row, column=column, value=value)
        if isinstance(value, str):
            cell.data_type = "s"
