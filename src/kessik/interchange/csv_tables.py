"""CSV tables as testers really save them: commas or semicolons, decimal point or comma, with or
without a BOM.

A reader collects every fault of a file before it answers, and keeps columns it does not know with
their rows.
"""

import csv
import difflib
import io
import math
import re
from collections.abc import Callable, Collection, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Any, Literal

from kessik.core.errors import Fault
from kessik.core.limits import LIMITS, most, plain
from kessik.core.protocols.entries import is_plain
from kessik.interchange.faults import NO_FAULTS, Faults, FoundFaults

_DELIMITERS = {",": "commas", ";": "semicolons", "\t": "tabs"}
_COMMA_NUMBER = re.compile(r"^[+-]?\d+,\d+$")
_POINT_NUMBER = re.compile(r"^[+-]?\d*\.\d+")
_FORMULA = ("=", "+", "-", "@")
_WIDE_TIMES = 20
"""Text in quotes may hold delimiters; so many times the columns that can be it never does."""
_YES_NO = {"yes": True, "no": False, "true": True, "false": False, "1": True, "0": False}

Kind = Literal["text", "number", "integer", "yes_no", "time", "day", "choice"]


@dataclass(frozen=True)
class Column:
    """One column of a format: how its cells read, and the bounds of its numbers.

    A required column must be there; its cells must hold something unless they `may_be_empty`. The
    `hint` says what else could be, where no word of a choice was found.
    """

    name: str
    kind: Kind = "text"
    required: bool = False
    choices: tuple[str, ...] = ()
    low: float | None = None
    above: float | None = None
    high: float | None = None
    unit: str = ""
    longest: str = "cell"
    zero_is_none: bool = False
    may_be_empty: bool = False
    hint: str = ""


_UNKNOWN = Column("")


def limited(name: str, limit: str, kind: Kind = "number", required: bool = False) -> Column:
    """A column of numbers within a limit of the table."""
    known = LIMITS[limit]
    return Column(name, kind, required, low=known.least, high=known.most, unit=known.unit)


@dataclass(frozen=True)
class Row:
    """One row: its line in the file, the values of known columns (None where empty), and unknown
    columns as text.
    """

    line: int
    values: Mapping[str, Any]
    extra: Mapping[str, str]


@dataclass(frozen=True)
class Table:
    """A file as read: rows, faults, and what was noticed on the way."""

    file: str
    rows: tuple[Row, ...] = ()
    faults: FoundFaults = NO_FAULTS
    unknown_columns: tuple[str, ...] = ()
    notes: tuple[str, ...] = ()
    known_columns: tuple[str, ...] = field(default_factory=tuple)


def read_table(file: str, data: bytes, columns: Sequence[Column]) -> Table:
    """Read one CSV file; faults name line, column, what stands there and what would be accepted.

    What is beyond the table of limits is refused before its rows are read.
    """
    faults = Faults()
    text = _decode(file, data, faults)
    required = [column.name for column in columns if column.required]
    header_line = next((line for line in lines_of(text) if line.strip()), "")
    if not faults.count and not header_line:
        message = f"the file is empty; a header row with {', '.join(required)} is needed"
        faults.add(Fault(file, 1, "", message))
    if faults.count:
        return Table(file, faults=faults.found())
    delimiter = max(_DELIMITERS, key=header_line.count)
    wide = wide_line(text, delimiter)
    if wide is not None:
        message = f"this line has {wide[1]} cells; up to {most('file_columns')} can be read"
        faults.add(Fault(file, wide[0], "", message))
        return Table(file, faults=faults.found())
    try:
        first, header = next(_records(text, delimiter))
        header = [name.strip() for name in header]
        unknown = _check_header(file, first, header, columns, faults)
        if any(fault.column in required for fault in faults.kept) or len(header) > most(
            "file_columns"
        ):
            return Table(file, faults=faults.found())
        row_count, decimal_comma = _survey(text, delimiter, header, columns)
        if row_count > most("file_rows"):
            message = (
                f"the file has {row_count} rows; up to {most('file_rows')} can be read: split it by"
                " trial"
            )
            faults.add(Fault(file, 1, "", message))
            return Table(file, faults=faults.found())
        reader = _RowReader(file, header, columns, decimal_comma, faults)
        rows = tuple(row for row in map(reader.row, _records(text, delimiter)) if row is not None)
    except csv.Error as error:
        faults.add(Fault(file, 1, "", f"this is not readable as CSV: {error}"))
        return Table(file, faults=faults.found())
    notes = [
        f"read with {_DELIMITERS[delimiter]} and decimal {'commas' if decimal_comma else 'points'}"
    ]
    if unknown:
        notes.append(f"columns stored but not used: {', '.join(unknown)}")
    if not rows and not faults.count:
        faults.add(Fault(file, first, "", "the file has a header but no rows"))
    known = tuple(name for name in header if name in reader.known)
    return Table(file, rows, faults.found(), tuple(unknown), tuple(notes), known)


def wide_line(text: str, delimiter: str) -> tuple[int, int] | None:
    """The first line with more delimiters than quoting explains, and how many cells it would have,
    before it is taken apart; None where there is none.
    """
    for number, line in enumerate(lines_of(text), 1):
        cells = line.count(delimiter) + 1
        if cells > _WIDE_TIMES * most("file_columns"):
            return number, cells
    return None


class _RowReader:
    """Reads the cells of one row after the other, by the columns of the header."""

    def __init__(
        self,
        file: str,
        header: list[str],
        columns: Sequence[Column],
        decimal_comma: bool,
        faults: Faults,
    ) -> None:
        self.known = {column.name: column for column in columns}
        self._file, self._header, self._decimal_comma, self._faults = (
            file,
            header,
            decimal_comma,
            faults,
        )
        self._is_header = True

    def row(self, record: tuple[int, list[str]]) -> Row | None:
        """The row; None for the header itself and where cells stand beyond it."""
        line, cells = record
        if self._is_header:
            self._is_header = False
            return None
        header = self._header
        if len(cells) > len(header) and any(cell.strip() for cell in cells[len(header) :]):
            message = (
                f"{len(cells)} cells are here under {len(header)} columns; quote cells that hold"
                " a delimiter"
            )
            self._faults.add(Fault(self._file, line, "", message))
            return None
        values: dict[str, Any] = {}
        extra: dict[str, str] = {}
        for name, cell in zip(header, [*cells, *[""] * (len(header) - len(cells))], strict=False):
            column = self.known.get(name, _UNKNOWN)
            text = restore(cell.strip()) if name in self.known else restore(cell)
            value, message = _value(column, text, self._decimal_comma)
            if message:
                self._faults.add(Fault(self._file, line, name, message))
            if name in self.known:
                values[name] = value
            elif name and text != "":
                extra[name] = text
        return Row(line, values, extra)


def _survey(
    text: str, delimiter: str, header: Sequence[str], columns: Sequence[Column]
) -> tuple[int, bool]:
    """How many rows there are, and whether their numbers are written with decimal commas."""
    numeric = {column.name for column in columns if column.kind in ("number", "integer")}
    places = [index for index, name in enumerate(header) if name in numeric]
    rows, commas, points = -1, False, False
    for _, record in _records(text, delimiter):
        rows += 1
        for place in places if rows and rows <= most("file_rows") else ():
            cell = record[place].strip() if place < len(record) else ""
            commas = commas or bool(_COMMA_NUMBER.match(cell))
            points = points or bool(_POINT_NUMBER.match(cell))
    return rows, commas and not points


def write_table(header: Sequence[str], rows: Iterable[Mapping[str, Any]]) -> str:
    """CSV text; cells a spreadsheet would run as a formula are neutralised in a way that reading
    undoes.
    """
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow([neutralise(name) for name in header])
    for row in rows:
        writer.writerow([_cell(row.get(name)) for name in header])
    return out.getvalue()


def without_columns(text: str, names: Collection[str]) -> str:
    """The same table without some of its columns."""
    rows = list(csv.reader(io.StringIO(text)))
    kept = [at for at, name in enumerate(rows[0]) if name not in names]
    if len(kept) == len(rows[0]):
        return text
    out = io.StringIO()
    csv.writer(out, lineterminator="\r\n").writerows([row[at] for at in kept] for row in rows)
    return out.getvalue()


def neutralise(text: str) -> str:
    """Put an apostrophe before text that begins like a formula, or like one already so marked."""
    return f"'{text}" if _is_like_formula(text) or _is_marked(text) else text


def restore(text: str) -> str:
    """Undo `neutralise`."""
    return text[1:] if _is_marked(text) else text


def _is_like_formula(text: str) -> bool:
    """A spreadsheet passes over tabs and spaces before a formula."""
    return text.lstrip().startswith(_FORMULA)


def _is_marked(text: str) -> bool:
    return text[:1] == "'" and (text[1:2] == "'" or _is_like_formula(text[1:]))


def _cell(value: object) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, int | float):
        return repr(value) if isinstance(value, int) or not value.is_integer() else str(int(value))
    return neutralise(str(value))


def _decode(file: str, data: bytes, faults: Faults) -> str:
    limit = LIMITS["file_mb"]
    if len(data) > limit.most * 1e6:
        message = (
            f"the file has {len(data) / 1e6:.0f} MB; up to {limit.most:.0f} MB can be read: split"
            " it by trial"
        )
        faults.add(Fault(file, 1, "", message))
        return ""
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        line = data[: error.start].count(b"\n") + 1
        wrong = data[error.start]
        message = f"byte 0x{wrong:02x} is not UTF-8; save the file as CSV UTF-8 and try again"
        faults.add(Fault(file, line, "", message))
        return ""
    if "\0" in text:
        faults.add(
            Fault(
                file, 1, "", "this is not a text file in UTF-8; save it as CSV UTF-8 and try again"
            )
        )
    return text if "\n" in text else text.replace("\r", "\n")


def _records(text: str, delimiter: str) -> Iterator[tuple[int, list[str]]]:
    reader = csv.reader(lines_of(text), delimiter=delimiter, strict=True)
    line = 1
    for cells in reader:
        if any(cell.strip() for cell in cells):
            yield line, cells
        line = reader.line_num + 1


def lines_of(text: str) -> Iterator[str]:
    """The lines of a text with their ends, one at a time: a file is not held twice."""
    start = 0
    while start < len(text):
        end = text.find("\n", start) + 1 or len(text)
        yield text[start:end]
        start = end


def _check_header(
    file: str, line: int, header: Sequence[str], columns: Sequence[Column], faults: Faults
) -> list[str]:
    """The columns nobody knows; what is wrong with the header is among the faults."""
    limit = LIMITS["file_columns"]
    if len(header) > limit.most:
        faults.add(Fault(file, line, "", limit.says(str(len(header)))))
        return []
    names = [column.name for column in columns]
    unknown = [name for name in header if name and name not in names]
    for name in dict.fromkeys(header):
        if name and header.count(name) > 1:
            faults.add(Fault(file, line, name, "this column is twice in the header"))
        if len(name) > most("word") or not is_plain(name):
            faults.add(Fault(file, line, name[:40], "this is not a column name"))
    for column in columns:
        if column.required and column.name not in header:
            close = difflib.get_close_matches(column.name, unknown, 1, 0.6)
            hint = f"; is “{close[0]}” meant?" if close else ""
            faults.add(Fault(file, line, column.name, f"this column is missing{hint}"))
    return unknown


def _value(column: Column, cell: str, decimal_comma: bool) -> tuple[Any, str]:
    if cell == "":
        wanted = column.required and not column.may_be_empty
        return None, "this cell is empty and must not be" if wanted else ""
    if len(cell) > most(column.longest):
        return None, LIMITS[column.longest].says(str(len(cell)))
    readers: dict[Kind, Callable[[], tuple[Any, str]]] = {
        "text": lambda: (
            (cell, "") if is_plain(cell) else (None, "this cell holds a character that is not text")
        ),
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
        mixed = (
            "; decimal points are used elsewhere in this file" if _COMMA_NUMBER.match(cell) else ""
        )
        return None, f"“{cell}” is not a number{mixed}"
    unit = f" {column.unit}" if column.unit else ""
    if not math.isfinite(value):
        return None, f"“{cell}” is not a number"
    if column.zero_is_none and value == 0:
        return value, ""
    if column.above is not None and value <= column.above:
        return None, f"{cell}{unit} is out of range: give more than {plain(column.above)}{unit}"
    if column.low is not None and value < column.low:
        none = ", or 0 for none" if column.zero_is_none else ""
        return None, f"{cell}{unit} is out of range: give {plain(column.low)}{unit} or more{none}"
    if column.high is not None and value > column.high:
        return None, f"{cell}{unit} is out of range: give {plain(column.high)}{unit} or less"
    return value, ""


def _integer(column: Column, cell: str) -> tuple[int | None, str]:
    value, message = _number(column, cell, False)
    if message or value is None:
        return None, message
    return (int(value), "") if value.is_integer() else (None, f"“{cell}” is not a whole number")


def _yes_no(cell: str) -> tuple[bool | None, str]:
    value = _YES_NO.get(cell.lower())
    return (value, "") if value is not None else (None, f"“{cell}” is neither yes nor no")


def is_time(cell: str) -> bool:
    """Whether a cell of the kind `time` would be read."""
    return not _time(cell)[1]


def _time(cell: str) -> tuple[str | None, str]:
    try:
        moment = datetime.fromisoformat(cell)
    except ValueError:
        return None, f"“{cell}” is not a time like 2026-05-04T14:30:00+02:00"
    if moment.tzinfo and not LIMITS["year"].holds(moment.year):
        return None, LIMITS["year"].says(str(moment.year))
    return (
        (cell, "")
        if moment.tzinfo
        else (None, f"“{cell}” has no offset; write it like 2026-05-04T14:30:00+02:00")
    )


def _day(cell: str) -> tuple[str | None, str]:
    try:
        day = date.fromisoformat(cell)
        return (
            (day.isoformat(), "")
            if LIMITS["year"].holds(day.year)
            else (None, LIMITS["year"].says(str(day.year)))
        )
    except ValueError:
        return None, f"“{cell}” is not a day like 2026-05-04"


def _choice(column: Column, cell: str) -> tuple[str | None, str]:
    if cell in column.choices:
        return cell, ""
    folded = {choice.casefold(): choice for choice in column.choices}
    if cell.casefold() in folded:
        return folded[cell.casefold()], ""
    close = difflib.get_close_matches(cell.lower(), column.choices, 1, 0.6)
    meant = f"; is “{close[0]}” meant?" if close else ""
    hint = f"; {column.hint}" if column.hint else ""
    return None, f"“{cell}” is not one of {', '.join(column.choices)}{meant}{hint}"
