"""`trials.kessik.json`: the records of a package as JSON, one row a line."""

import json
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import asdict, dataclass
from typing import Any

from kessik.core.packages import FORMAT

FILE_NAME = "trials.kessik.json"
PICTURES = "pictures"
"""The folder of its pictures in a package."""
Tables = Mapping[str, Sequence[dict[str, Any]]]


@dataclass(frozen=True)
class PackageHead:
    """What a package says of itself: the revision of its tables, when and by whom it was made."""

    revision: str
    made_utc: str
    tester_id: str
    tester: str
    analysis: str = ""
    hidden: tuple[str, ...] = ()


def written(head: PackageHead, tables: Tables) -> Iterator[str]:
    """The text in pieces of a row each, so that nothing waits long for any of them."""
    yield f'{{"format":"{FORMAT}",\n"head":{_line(asdict(head))},\n"tables":{{'
    for at, (table, rows) in enumerate(tables.items()):
        yield f'{"," if at else ""}\n"{table}":['
        for number, row in enumerate(rows):
            yield f"{',' if number else ''}\n{_line(row)}"
        yield "]"
    yield "}}\n"


def read(text: bytes) -> tuple[PackageHead, Tables]:
    """Head and tables; ValueError with what is wrong where it is no package."""
    try:
        found = json.loads(text)
    except (ValueError, RecursionError) as error:
        raise ValueError("it is no JSON") from error
    if not isinstance(found, dict) or found.get("format") != FORMAT:
        raise ValueError("it does not say that it is a package of Kessik's")
    tables = found.get("tables")
    if not isinstance(tables, dict) or not all(_are_rows(rows) for rows in tables.values()):
        raise ValueError("its tables are no lists of rows")
    return _head(found.get("head")), tables


def _head(said: object) -> PackageHead:
    if not isinstance(said, dict):
        raise ValueError("its head says nothing")
    try:
        hidden = tuple(said.pop("hidden", ()))
        head = PackageHead(**said, hidden=hidden)
    except TypeError as error:
        raise ValueError("its head says other things than a package's does") from error
    if not all(isinstance(value, str) for value in (*said.values(), *hidden)):
        raise ValueError("its head says other things than words")
    return head


def _are_rows(rows: object) -> bool:
    return isinstance(rows, list) and all(isinstance(row, dict) for row in rows)


def _line(value: object) -> str:
    return json.dumps(value, ensure_ascii=False, separators=(",", ":"), allow_nan=False)
