"""CSV tables as testers really save them: commas or semicolons, decimal point or comma, with or without a BOM.

A reader collects every fault of a file before it answers, and keeps columns it does not know with their rows.
"""

import csv
import difflib
import io
import re
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Any, Literal

from kessik.core.errors import Fault

MOST_BYTES = 20_000_000
_DELIMITERS = {",": "commas", ";": "semicolons", "\t": "tabs"}
_COMMA_NUMBER = re.compile(r"^[+-]?\d+,\d+$")
_POINT_NUMBER = re.compile(r"^[+-]?\d*\.\d+")
_FORMULA = ("=", "+", "-", "@")
_YES_NO = {"yes": True, "no": False, "true": True, "false": False, "1": True, "0": False}

Kind = Literal["text", "number", "integer", "yes_no", "time", "day", "choice"]


@dataclass(frozen=True)
class Column:
    """One column of a format: how its cells read, and the bounds of its numbers."""

    name: str
    kind: Kind = "text"
    required: bool = False
    choices: tuple[str, ...] = ()
    low: float | None = None
    above: float | None = None
    high: float | None = None
    unit: str = ""


@dataclass(frozen=True)
class Row:
    """One row: its line in the file, the values of known columns (None where empty), and unknown columns as text."""

    line: int
    values: Mapping[str, Any]
    extra: Mapping[str, str]


@dataclass(frozen=True)
class Table:
    """A file as read: rows, faults, and what was noticed on the way."""

    file: str
    rows: tuple[Row, ...] = ()
    faults: tuple[Fault, ...] = ()
    unknown_columns: tuple[str, ...] = ()
    notes: tuple[str, ...] = ()
    known_columns: tuple[str, ...] = field(default_factory=tuple)


def read_table(file: str, data: bytes, columns: Sequence[Column]) -> Table:
    """Read one CSV file; faults name line, column, what stands there and what would be accepted."""
    text, fault = _decode(file, data)
    if fault:
        return Table(file, faults=(fault,))
    lines = text.splitlines()
    header_line = next((line for line in lines if line.strip()), "")
    required = [column.name for column in columns if column.required]
    if not header_line:
        needed = ", ".join(required)
        return Table(file, faults=(Fault(file, 1, "", f"the file is empty; a header row with {needed} is needed"),))
    delimiter = max(_DELIMITERS, key=header_line.count)
    try:
        records = list(_records(text, delimiter))
    except csv.Error as error:
        return Table(file, faults=(Fault(file, 1, "", f"this is not readable as CSV: {error}"),))
    header = [name.strip() for name in records[0][1]]
    faults, unknown = _check_header(file, records[0][0], header, columns)
    if any(f.column in required for f in faults):
        return Table(file, faults=tuple(faults))
    decimal_comma = _uses_decimal_comma(records[1:], header, columns)
    known = {column.name: column for column in columns}
    rows: list[Row] = []
    for line, cells in records[1:]:
        if len(cells) > len(header) and any(cell.strip() for cell in cells[len(header) :]):
            message = f"{len(cells)} cells stand here under {len(header)} columns; quote cells that hold a delimiter"
            faults.append(Fault(file, line, "", message))
            continue
        padded = dict(zip(header, [*cells, *[""] * (len(header) - len(cells))], strict=False))
        values: dict[str, Any] = {}
        for name, cell in padded.items():
            if name in known:
                value, message = _value(known[name], restore(cell.strip()), decimal_comma)
                values[name] = value
                if message:
                    faults.append(Fault(file, line, name, message))
        extra = {name: restore(cell) for name, cell in padded.items() if name not in known and name and cell != ""}
        rows.append(Row(line, values, extra))
    notes = [f"read with {_DELIMITERS[delimiter]} and decimal {'commas' if decimal_comma else 'points'}"]
    if unknown:
        notes.append(f"columns kept but not used: {', '.join(unknown)}")
    if not rows and not faults:
        faults.append(Fault(file, records[0][0], "", "the file has a header but no rows"))
    return Table(file, tuple(rows), tuple(faults), tuple(unknown), tuple(notes), tuple(n for n in header if n in known))


def write_table(header: Sequence[str], rows: Iterable[Mapping[str, Any]]) -> str:
    """CSV text; cells a spreadsheet would run as a formula are neutralised in a way that reading undoes."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow([neutralise(name) for name in header])
    for row in rows:
        writer.writerow([_cell(row.get(name)) for name in header])
    return out.getvalue()


def neutralise(text: str) -> str:
    """Put an apostrophe before text that begins like a formula, or like one already so marked."""
    return f"'{text}" if text.startswith(_FORMULA) or (text[:1] == "'" and text[1:2] in (*_FORMULA, "'")) else text


def restore(text: str) -> str:
    """Undo `neutralise`."""
    return text[1:] if text[:1] == "'" and text[1:2] in (*_FORMULA, "'") else text


def _cell(value: object) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, int | float):
        return repr(value) if isinstance(value, int) or not value.is_integer() else str(int(value))
    return neutralise(str(value))


def _decode(file: str, data: bytes) -> tuple[str, Fault | None]:
    if len(data) > MOST_BYTES:
        message = (
            f"the file has {len(data) / 1e6:.0f} MB; up to {MOST_BYTES / 1e6:.0f} MB can be read, "
            "about 300 000 checks: split it by trial"
        )
        return "", Fault(file, 1, "", message)
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        line = data[: error.start].count(b"\n") + 1
        wrong = data[error.start]
        return "", Fault(file, line, "", f"byte 0x{wrong:02x} is not UTF-8; save the file as CSV UTF-8 and try again")
    if "\0" in text:
        return "", Fault(file, 1, "", "this is not a text file in UTF-8; save it as CSV UTF-8 and try again")
    return text, None


def _records(text: str, delimiter: str) -> Iterable[tuple[int, list[str]]]:
    reader = csv.reader(io.StringIO(text, newline=""), delimiter=delimiter, strict=True)
    line = 1
    for cells in reader:
        if any(cell.strip() for cell in cells):
            yield line, cells
        line = reader.line_num + 1


def _check_header(
    file: str, line: int, header: Sequence[str], columns: Sequence[Column]
) -> tuple[list[Fault], list[str]]:
    names = [column.name for column in columns]
    unknown = [name for name in header if name and name not in names]
    faults = []
    for name in dict.fromkeys(header):
        if name and header.count(name) > 1:
            faults.append(Fault(file, line, name, "this column stands twice in the header"))
    for column in columns:
        if column.required and column.name not in header:
            close = difflib.get_close_matches(column.name, unknown, 1, 0.6)
            hint = f"; is “{close[0]}” meant?" if close else ""
            faults.append(Fault(file, line, column.name, f"this column is missing{hint}"))
    return faults, unknown


def _uses_decimal_comma(
    records: Sequence[tuple[int, list[str]]], header: Sequence[str], columns: Sequence[Column]
) -> bool:
    numeric = {column.name for column in columns if column.kind in ("number", "integer")}
    places = [index for index, name in enumerate(header) if name in numeric]
    cells = [record[i].strip() for _, record in records for i in places if i < len(record)]
    return any(_COMMA_NUMBER.match(c) for c in cells) and not any(_POINT_NUMBER.match(c) for c in cells)


def _value(column: Column, cell: str, decimal_comma: bool) -> tuple[Any, str]:
    if cell == "":
        return None, "this cell is empty and must not be" if column.required else ""
    readers: dict[Kind, Callable[[], tuple[Any, str]]] = {
        "text": lambda: (cell, ""),
        "number": lambda: _number(column, cell, decimal_comma),
        "integer": lambda: _integer(column, cell),
        "yes_no": lambda: _yes_no(cell),
        "time": lambda: _time(cell),
        "day": lambda: _day(cell),
        "choice": lambda: _choice(column, cell),
    }
    return readers[column.kind]()


def _number(column: Column, cell: str, decimal_comma: bool) -> tuple[float | None, str]:
    try:
        value = float(cell.replace(",", ".") if decimal_comma else cell)
    except ValueError:
        mixed = "; decimal points are used elsewhere in this file" if _COMMA_NUMBER.match(cell) else ""
        return None, f"“{cell}” is not a number{mixed}"
    unit = f" {column.unit}" if column.unit else ""
    if value != value or abs(value) == float("inf"):
        return None, f"“{cell}” is not a number"
    if column.above is not None and value <= column.above:
        return None, f"{cell}{unit} cannot be; it must be above {column.above:g}{unit}"
    if column.low is not None and value < column.low:
        return None, f"{cell}{unit} cannot be; it must be {column.low:g}{unit} or more"
    if column.high is not None and value > column.high:
        return None, f"{cell}{unit} cannot be; it must be {column.high:g}{unit} or less"
    return value, ""


def _integer(column: Column, cell: str) -> tuple[int | None, str]:
    value, message = _number(column, cell, False)
    if message or value is None:
        return None, message
    return (int(value), "") if value.is_integer() else (None, f"“{cell}” is not a whole number")


def _yes_no(cell: str) -> tuple[bool | None, str]:
    value = _YES_NO.get(cell.lower())
    return (value, "") if value is not None else (None, f"“{cell}” is neither yes nor no")


def _time(cell: str) -> tuple[str | None, str]:
    try:
        moment = datetime.fromisoformat(cell)
    except ValueError:
        return None, f"“{cell}” is not a time like 2026-05-04T14:30:00+02:00"
    return (cell, "") if moment.tzinfo else (None, f"“{cell}” has no offset; write it like 2026-05-04T14:30:00+02:00")


def _day(cell: str) -> tuple[str | None, str]:
    try:
        return date.fromisoformat(cell).isoformat(), ""
    except ValueError:
        return None, f"“{cell}” is not a day like 2026-05-04"


def _choice(column: Column, cell: str) -> tuple[str | None, str]:
    if cell in column.choices:
        return cell, ""
    if cell.lower() in column.choices:
        return cell.lower(), ""
    close = difflib.get_close_matches(cell.lower(), column.choices, 1, 0.6)
    hint = f"; is “{close[0]}” meant?" if close else ""
    return None, f"“{cell}” is not one of {', '.join(column.choices)}{hint}"
