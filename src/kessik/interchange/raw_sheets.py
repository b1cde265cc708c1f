"""A sheet of any make as rows of text: CSV, TSV, XLSX, or what was copied out of one.

What cannot be read is refused with where and why; nothing of a workbook is run.
"""

import csv
import io
import re
import zipfile
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import date, datetime, time
from typing import NoReturn

from kessik.core.errors import Fault, RefusedFileError
from kessik.core.limits import most
from kessik.interchange.named_files import NamedFile

_OLD_OFFICE = b"\xd0\xcf\x11\xe0"
_ZIP = b"PK\x03\x04"
_MOST_UNPACKED = 200_000_000
_MERGED = re.compile(rb'<mergeCell ref="([A-Z]+\d+:[A-Z]+\d+)"')
_NO_VALUE = re.compile(rb'<c r="([A-Z]+\d+)"[^>]*><f[^>]*>[^<]*</f>(?:<v\s*/>|<v></v>)?</c>')
_DELIMITERS = "\t;,"


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
    first = next((line for line in text.splitlines() if line.strip()), "")
    delimiter = max(_DELIMITERS, key=first.count)
    try:
        rows = _bounded(file.name, csv.reader(io.StringIO(text), delimiter=delimiter))
    except csv.Error as error:
        _refuse(file.name, f"this is not readable as CSV: {error}")
    return RawSheet(file.name, rows, tuple(notes))


def _workbook(file: NamedFile) -> RawSheet:
    try:
        with zipfile.ZipFile(io.BytesIO(file.data)) as archive:
            unpacked = sum(part.file_size for part in archive.infolist())
            if unpacked > _MOST_UNPACKED:
                _refuse(
                    file.name,
                    f"it would unpack to {unpacked / 1e6:.0f} MB, which no sheet of results is;"
                    " copy the results into a workbook of their own",
                )
            names = archive.namelist()
            if "xl/workbook.xml" not in names:
                _refuse(file.name, "this archive is not a workbook; save the sheet as XLSX or CSV")
            sheets = sorted(name for name in names if name.startswith("xl/worksheets/sheet"))
            inside = archive.read(sheets[0]) if sheets else b""
        import openpyxl  # only a workbook needs it

        book = openpyxl.load_workbook(io.BytesIO(file.data), read_only=True, data_only=True)
        sheet = book.worksheets[0]
        rows = _bounded(file.name, (_cells(row) for row in sheet.iter_rows(values_only=True)))
    except RefusedFileError:
        raise
    except Exception as error:
        raise RefusedFileError(
            [Fault(file.name, 1, "", "this workbook cannot be read; save it again, or as CSV")]
        ) from error
    notes = [f"only the first sheet, {sheet.title}, was read"] if len(book.worksheets) > 1 else []
    if any("vbaProject" in name for name in names):
        notes.append("its macros were not run")
    merged = [ref.decode() for ref in _MERGED.findall(inside)]
    if merged:
        notes.append(f"merged cells hold one value, in their first cell: {_some(merged)}")
    empty = [ref.decode() for ref in _NO_VALUE.findall(inside)]
    if empty:
        notes.append(
            f"formulas without a value were read as empty: {_some(empty)}; open and save the sheet"
            " where it was made"
        )
    return RawSheet(file.name, rows, tuple(notes))


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
