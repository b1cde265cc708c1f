"""Many rows inserted at once."""

from collections.abc import Callable, Sequence
from typing import Any

from sqlalchemy import Column, Table
from sqlalchemy.orm import Session
from sqlalchemy.types import TypeDecorator


def insert_many(session: Session, table: Table, rows: Sequence[dict[str, Any]]) -> None:
    """Insert rows that all name the same columns in the same order; their values become what is
    stored.

    Handed to the driver: where a sheet brings thousands, making statements of them takes longer
    than SQLite does.
    """
    if not rows:
        return
    names = list(rows[0])
    for name in names:
        stored = _stored(session, table.columns[name])
        if stored is not None:
            for row in rows:
                row[name] = stored(row[name])
    session.connection().exec_driver_sql(
        f"INSERT INTO {table.name} ({', '.join(names)}) VALUES ({', '.join('?' * len(names))})",
        [tuple(row.values()) for row in rows],
    )


def _stored(session: Session, column: Column[Any]) -> Callable[[Any], Any] | None:
    """What makes of a value what is stored, where that is something else."""
    kind = column.type
    if not isinstance(kind, TypeDecorator):
        return None
    dialect = session.get_bind().dialect
    return lambda value: kind.process_bind_param(value, dialect)
