"""Rows as a package holds them: by the names of their columns, JSON as JSON, bytes as base64."""

import base64
import json
from collections.abc import Iterable, Mapping, Sequence
from functools import cache
from typing import Any

from sqlalchemy import LargeBinary
from sqlalchemy.orm import Session

from kessik.store.tables import Base
from kessik.store.tables.base import JSON_TEXT, JsonText

StoredRow = dict[str, Any]
Tables = Mapping[str, Sequence[StoredRow]]


def read_rows(
    session: Session, table: str, where: str, ids: Mapping[str, Iterable[str]]
) -> list[StoredRow]:
    """The rows of a table in the order they came; `ids` are lists that the condition names."""
    columns = [column.name for column in Base.metadata.tables[table].columns]
    listed = ", ".join(f'"{name}"' for name in columns)
    found = session.connection().exec_driver_sql(
        f"SELECT {listed} FROM {table} WHERE {where} ORDER BY rowid",
        {name: json.dumps(sorted(set(values))) for name, values in ids.items()},
    )
    rows = [dict(zip(columns, row, strict=True)) for row in found.cursor.fetchall()]
    for row in rows:
        _opened(table, row)
    return rows


def values_of(table: str, row: Mapping[str, Any], columns: Sequence[str]) -> tuple[Any, ...]:
    """What SQLite holds of a row; ValueError where bytes are no base64."""
    return tuple(_closed(_kinds(table).get(name), row[name]) for name in columns)


def _opened(table: str, row: StoredRow) -> None:
    for name, kind in _kinds(table).items():
        if row[name] is None:
            continue
        row[name] = json.loads(row[name]) if kind == "json" else _as_base64(row[name])


def _closed(kind: str | None, value: Any) -> Any:  # noqa: ANN401 - whatever a column holds
    if kind is None or value is None:
        return value
    return JSON_TEXT.encode(value) if kind == "json" else base64.b64decode(value, validate=True)


def _as_base64(value: bytes) -> str:
    return base64.b64encode(value).decode()


@cache
def _kinds(table: str) -> Mapping[str, str]:
    """The columns of a table that are not written as they are stored."""
    kinds = {JsonText: "json", LargeBinary: "bytes"}
    columns = Base.metadata.tables[table].columns
    return {c.name: kinds[type(c.type)] for c in columns if type(c.type) in kinds}
