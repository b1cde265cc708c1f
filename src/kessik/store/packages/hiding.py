"""What a tester leaves out of a package by choice: owners, prices, notes."""

import json
from collections.abc import Callable, Mapping, Sequence
from typing import Any

from kessik.core.packages import Hidden
from kessik.store.check_sums import SUMMED, check_sum
from kessik.store.packages.stored_rows import StoredRow, Tables
from kessik.store.tables.base import JSON_TEXT

_EMPTY: Mapping[Hidden, Mapping[str, Sequence[str]]] = {
    "owners": {"blade": ("owner", "loan_from", "lent_to"), "assay_batch": ("owner",)},
    "prices": {"blade": ("price",), "lot": ("price", "currency")},
    "notes": {
        "blade": ("note",), "edge": ("note",), "measurement": ("note",), "lot": ("note",),
        "soak": ("note",), "assay_batch": ("note",), "recipe": ("note",),
    },
}  # fmt: skip  # a table is read by its rows
_NULL = frozenset({("lot", "price")})
_SAID: Mapping[Hidden, str] = {"owners": "owner", "prices": "price", "notes": "note"}


def without(tables: Tables, hidden: Sequence[Hidden]) -> Tables:
    """The same rows without what is hidden; what was excluded keeps its reason."""
    found = {table: [dict(row) for row in rows] for table, rows in tables.items()}
    for each in hidden:
        for table, columns in _EMPTY[each].items():
            for row in found.get(table, ()):
                row.update({c: None if (table, c) in _NULL else "" for c in columns})
        _drop_said(found, _SAID[each])
    if "notes" in hidden:
        found["event"] = [_silent(e) for e in found.get("event", ()) if e["kind"] != "note"]
    return found


def _drop_said(tables: Mapping[str, Sequence[StoredRow]], key: str) -> None:
    """Leave out a word wherever a row holds it among other things."""
    for table, rows in tables.items():
        if table != "event":
            for row in rows:
                for name, value in row.items():
                    row[name] = _dropped(value, lambda k: k == key)


def _silent(event: StoredRow) -> StoredRow:
    """An event without its note, under a check sum of its own."""
    said = json.loads(event["payload"])
    silent = _dropped(said, lambda k: k == "note")
    if silent == said:
        return event
    changed = {**event, "payload": JSON_TEXT.encode(silent)}
    if event["check_sum"] is not None:
        summed = {name: changed[name] for name in SUMMED[1:]}
        changed["check_sum"] = check_sum(changed["id"], **summed)
    return changed


def _dropped(value: Any, is_hidden: Callable[[str], bool]) -> Any:  # noqa: ANN401 - any JSON value
    if isinstance(value, dict):
        return {k: _dropped(v, is_hidden) for k, v in value.items() if not is_hidden(k)}
    if isinstance(value, list):
        return [_dropped(each, is_hidden) for each in value]
    return value
