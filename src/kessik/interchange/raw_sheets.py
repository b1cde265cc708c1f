"""A sheet of any make as rows of text: CSV, TSV, XLSX, or what was copied out of one.

What cannot be read is refused with where and why; nothing of a workbook is run.
"""

import csv
import io
import zipfile
import zlib
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date, datetime, time
from typing import IO, TYPE_CHECKING, NoReturn
from xml.etree import ElementTree

from kessik.core.errors import Fault, RefusedFileError
from kessik.core.limits import most
from kessik.interchange.csv_tables import lines_of, wide_line
from kessik.interchange.named_files import NamedFile

if TYPE_CHECKING:
    from python_calamine import CalamineSheet

_OLD_OFFICE = b"\xd0\xcf\x11\xe0"
_ZIP = b"PK\x03\x04"
_DELIMITERS = "\t;,"
_MANY_TIMES = 50
"""Cells may hold line ends, and lines be empty; so many times the rows they never are."""


@dataclass(frozen=True)
class RawSheet:
    """Rows of a sheet as text, from the top left on, without empty rows at its end; and what was
    noticed.
    """

    name: str
    rows: tuple[tuple[str, ...], ...]
    notes: tuple[str, ...] = ()

    @property
    def width(self) -> int:
        return max((len(row) for row in self.rows), default=0)


def read_sheet(file: NamedFile) -> RawSheet:
    """A file as rows; RefusedFileError where it cannot be one."""
    if not file.data.strip():
        _refuse(file.name, "the file is empty")
    if file.data.startswith(_OLD_OFFICE):
        _refuse(
            file.name,
            "this workbook is protected by a password, or of an old kind (.xls): open it, and save"
            " it as .xlsx without a password, or as CSV",
        )
    if file.data.startswith(_ZIP):
        return _workbook(file)
    return _text(file)


def _text(file: NamedFile) -> RawSheet:
    try:
        text = file.data.decode("utf-8-sig")
        notes = []
    except UnicodeDecodeError:
        if b"\x00" in file.data[:4096]:
            _refuse(file.name, "this is neither text nor an .xlsx workbook; save it as CSV or XLSX")
        text = file.data.decode("cp1252", "replace")
        notes = ["read as Windows text, as it is not UTF-8"]
    if text.count("\n") > _MANY_TIMES * most("sheet_rows"):
        _refuse(file.name, f"it has more than {most('sheet_rows')} rows; import it in parts")
    first = next((line for line in lines_of(text) if line.strip()), "")
    delimiter = max(_DELIMITERS, key=first.count)
    wide = wide_line(text, delimiter)
    if wide is not None:
        line, cells = wide
        _refuse(
            file.name, f"row {line} has {cells} columns; up to {most('file_columns')} can be read"
        )
    try:
        rows = _bounded(file.name, csv.reader(lines_of(text), delimiter=delimiter))
    except csv.Error as error:
        _refuse(file.name, f"this is not readable as CSV: {error}")
    return RawSheet(file.name, rows, tuple(notes))


def _workbook(file: NamedFile) -> RawSheet:
    from python_calamine import CalamineError, CalamineWorkbook  # only a workbook needs it

    names, empty = _looked_into(file)
    try:
        with CalamineWorkbook.from_filelike(io.BytesIO(file.data)) as book:
            sheet = book.get_sheet_by_index(0)
            _refuse_too_large(file.name, sheet)
            before = [""] * (sheet.start[1] if sheet.start else 0)
            rows = _bounded(file.name, ([*before, *_cells(row)] for row in sheet.iter_rows()))
            notes = (
                [f"only the first sheet, {sheet.name}, was read"]
                if len(book.sheet_names) > 1
                else []
            )
            merged = [_reference(*corners) for corners in sheet.merged_cell_ranges or ()]
    except (CalamineError, ValueError, OSError) as error:
        raise RefusedFileError([Fault(file.name, 1, "", _UNREADABLE)]) from error
    if any("vbaProject" in name for name in names):
        notes.append("its macros were not run")
    if merged:
        notes.append(f"merged cells hold one value, in their first cell: {_some(merged)}")
    if empty:
        notes.append(
            f"formulas without a value were read as empty: {_some(empty)}; open and save the sheet"
            " where it was made"
        )
    return RawSheet(file.name, rows, tuple(notes))


_UNREADABLE = "this workbook cannot be read; save it again, or as CSV"


def _looked_into(file: NamedFile) -> tuple[list[str], list[str]]:
    """The parts of a workbook, and the cells of its first sheet whose formula has no value; refused
    by what its directory says before anything is unpacked.
    """
    try:
        with zipfile.ZipFile(io.BytesIO(file.data)) as archive:
            unpacked = sum(part.file_size for part in archive.infolist())
            if unpacked > most("unpacked_mb") * 1_000_000:
                _refuse(
                    file.name,
                    f"it would unpack to {unpacked / 1e6:.0f} MB, which no sheet of results is;"
                    " copy the results into a workbook of their own",
                )
            names = archive.namelist()
            if "xl/workbook.xml" not in names:
                _refuse(file.name, "this archive is not a workbook; save the sheet as XLSX or CSV")
            sheets = sorted(name for name in names if name.startswith("xl/worksheets/sheet"))
            if not sheets:
                return names, []
            with archive.open(sheets[0]) as inside:
                return names, list(_without_value(inside))
    except (zipfile.BadZipFile, ElementTree.ParseError, NotImplementedError, OSError, EOFError,
            zlib.error) as error:  # fmt: skip
        raise RefusedFileError([Fault(file.name, 1, "", _UNREADABLE)]) from error


def _without_value(inside: IO[bytes]) -> Iterator[str]:
    """The cells of a sheet that have a formula and no value, read as it streams."""
    is_formula = has_value = False
    for _, part in ElementTree.iterparse(inside):
        match part.tag.rpartition("}")[2]:
            case "f":
                is_formula = True
            case "v" | "is":
                has_value = has_value or bool(part.text) or len(part) > 0
            case "c":
                if is_formula and not has_value:
                    yield part.get("r", "")
                is_formula = has_value = False
            case "row":
                part.clear()


def _refuse_too_large(name: str, sheet: "CalamineSheet") -> None:
    """Refuse by how far its cells reach, before a row of it is made."""
    if sheet.end is None:
        return
    row, column = sheet.end
    if column >= most("file_columns"):
        _refuse(
            name,
            f"its cells reach to column {column + 1}; up to {most('file_columns')} columns can be"
            " read",
        )
    if row >= most("sheet_rows"):
        _refuse(name, f"it has more than {most('sheet_rows')} rows; import it in parts")


def _reference(first: tuple[int, int], last: tuple[int, int]) -> str:
    """Cells as a spreadsheet names them, from one corner to the other."""
    return ":".join(f"{_letters(column)}{row + 1}" for row, column in (first, last))


def _letters(column: int) -> str:
    letters = ""
    column += 1
    while column:
        column, rest = divmod(column - 1, 26)
        letters = chr(ord("A") + rest) + letters
    return letters


def _some(names: Sequence[str]) -> str:
    return ", ".join(names[:5]) + (f" and {len(names) - 5} more" if len(names) > 5 else "")


def _cells(row: Sequence[object]) -> list[str]:
    return [_as_text(value) for value in row]


def _as_text(value: object) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return repr(int(value)) if value.is_integer() and abs(value) < 1e15 else repr(value)
    if isinstance(value, datetime):
        is_day = value.time() == time()
        return value.date().isoformat() if is_day else value.isoformat(timespec="seconds")
    if isinstance(value, date | time):
        return value.isoformat()
    return str(value)


def _bounded(name: str, rows: Iterator[Sequence[str]]) -> tuple[tuple[str, ...], ...]:
    """The rows, if there are no more than can be; trailing empty cells and rows are dropped."""
    limit, columns = most("sheet_rows"), most("file_columns")
    found: list[tuple[str, ...]] = []
    filled = 0
    for number, row in enumerate(rows, 1):
        cells = [cell.strip() for cell in row]
        while cells and not cells[-1]:
            cells.pop()
        if len(cells) > columns:
            _refuse(name, f"row {number} has {len(cells)} columns; up to {columns} can be read")
        found.append(tuple(cells))
        if cells:
            filled = len(found)
        if filled > limit:
            _refuse(name, f"it has more than {limit} rows; import it in parts")
        if len(found) - filled > limit:
            break
    if not filled:
        _refuse(name, "its first sheet is empty")
    return tuple(found[:filled])


def _refuse(name: str, message: str) -> NoReturn:
    raise RefusedFileError([Fault(name, 1, "", message)])
