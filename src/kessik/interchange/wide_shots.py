"""Result files with one row a shot and a column an element, as analysers export them, read as the
rows of `*.shots.csv`.
"""

import re
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Any

from kessik.core.composition.elements import ELEMENTS
from kessik.core.errors import Fault
from kessik.interchange.csv_tables import Column, Row, Table, read_table
from kessik.interchange.faults import Faults

_BLADE = ("blade", "sample", "sample id", "sample name", "name")
_SHOT = ("shot", "reading", "reading no", "reading #", "no", "no.", "test")
_HEAD = re.compile(r"([A-Za-z]{1,2})\s*(?:\(?(%|wt%|mass%|ppm)\)?)?", re.IGNORECASE)
_SPREAD = re.compile(
    r"([A-Za-z]{1,2})\s*(?:\(?(?:%|wt%|mass%|ppm)\)?\s*)?"
    r"(?:±|\+/-|err\.?|error|unc\.?|uncertainty|sd|sigma|1s|2s|std\.?)",
    re.IGNORECASE,
)
_NUMBER = re.compile(r"[+-]?\d+(?:[.,]\d+)?(?:[eE][+-]?\d+)?")
_NOT_READ = {"", "-", "–", "n/a", "na", "nr"}
_BELOW = {"<lod", "lod", "nd", "n.d.", "bdl"}
_PPM = 1e-4
_LEAST_ELEMENTS = 2


@dataclass(frozen=True)
class _Head:
    """Which columns of a file hold what, by their own names; `spread` the ± of an element."""

    blade: str
    shot: str
    content: Mapping[str, str]
    spread: Mapping[str, str]
    ppm: frozenset[str]


def read_wide(file: str, data: bytes) -> Table | None:
    """The file as rows of an element each, with the lines of the file; None where it has no column
    an element.
    """
    head = _head_of(data)
    if head is None:
        return None
    names = [head.blade, head.shot]
    columns = [Column(name, required=True) for name in names]
    columns += [Column(name) for name in (*head.content.values(), *head.spread.values())]
    columns += [
        Column("surface", "choice", choices=("bare", "coated")),
        Column("normalised", "choice", choices=("yes", "no", "unknown")),
    ]
    table = read_table(file, data, columns)
    faults = Faults.of(table.faults)
    rows = tuple(made for row in table.rows for made in _long(file, row, head, faults))
    if not rows and not faults.count:
        faults.add(Fault(file, 1, "", "no content of any element is in this file"))
    note = f"one row a shot, with {', '.join(head.content)}"
    return replace(table, rows=rows, faults=faults.found(), notes=(*table.notes, note))


def _head_of(data: bytes) -> _Head | None:
    line = data[:20_000].decode("utf-8-sig", errors="replace").lstrip().split("\n", 1)[0]
    delimiter = max(",;\t", key=line.count)
    names = [name.strip().strip('"') for name in line.split(delimiter)]
    by_low = {name.casefold(): name for name in names}
    if "element" in by_low:
        return None
    content, spread, ppm = {}, {}, set()
    for name in names:
        plain, beside = _HEAD.fullmatch(name), _SPREAD.fullmatch(name)
        if plain and _symbol(plain[1]):
            content[_symbol(plain[1])] = name
            if (plain[2] or "").lower() == "ppm":
                ppm.add(_symbol(plain[1]))
        elif beside and _symbol(beside[1]):
            spread[_symbol(beside[1])] = name
    blade = next((by_low[name] for name in _BLADE if name in by_low), "blade")
    shot = next((by_low[name] for name in _SHOT if name in by_low), "shot")
    if len(content) < _LEAST_ELEMENTS:
        return None
    return _Head(blade, shot, content, spread, frozenset(ppm))


def _symbol(text: str) -> str:
    symbol = text.capitalize()
    return symbol if symbol in ELEMENTS else ""


def _long(file: str, row: Row, head: _Head, faults: Faults) -> Iterator[Row]:
    for symbol, name in head.content.items():
        said = str(row.values.get(name) or "").strip()
        beside = str(row.values.get(head.spread.get(symbol, "")) or "").strip()
        spread = _number(beside)
        if said.casefold() in _NOT_READ or (said.casefold() in _BELOW and spread is None):
            continue  # below a limit that the file does not tell says nothing
        percent, is_detected = _content(said, spread)
        if percent is None:
            message = f"“{said}” is not a content; write a number, or <0.02 for a limit"
            faults.add(Fault(file, row.line, name, message))
            continue
        scale = _PPM if symbol in head.ppm else 1.0
        yield Row(row.line, _values(row, head, symbol, percent, spread, scale, is_detected), {})


def _content(said: str, spread: float | None) -> tuple[float | None, bool]:
    """A content and whether it was detected; below detection it is the limit."""
    if said.casefold() in _BELOW:
        return spread, False
    if said.startswith("<"):
        return _number(said[1:].strip()), False
    return _number(said), True


def _number(text: str) -> float | None:
    return float(text.replace(",", ".")) if _NUMBER.fullmatch(text) else None


def _values(
    row: Row,
    head: _Head,
    symbol: str,
    percent: float,
    spread: float | None,
    scale: float,
    is_detected: bool,
) -> dict[str, Any]:
    return {
        "blade": row.values.get(head.blade),
        "shot": row.values.get(head.shot),
        "element": symbol,
        "percent": percent * scale,
        "plus_minus": None if spread is None else spread * scale,
        "detected": is_detected,
        "surface": row.values.get("surface"),
        "normalised": row.values.get("normalised"),
    }
