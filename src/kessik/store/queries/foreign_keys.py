"""Which rows belong to which."""

from collections.abc import Collection, Iterable, Mapping
from functools import cache

from sqlalchemy import Row, text
from sqlalchemy.orm import Session

from kessik.store.tables import Base

BrokenKey = tuple[str, int, str, int]
"""A row that belongs to one that is not there: its table and number, the other's table, and which
of its keys says so.
"""


@cache
def parents_of(table: str) -> Mapping[str, str]:
    """What the rows of a table belong to, by the column that says so."""
    return {
        column.name: key.column.table.name
        for column in Base.metadata.tables[table].columns
        for key in column.foreign_keys
    }


def tables_hanging_on(tables: Collection[str]) -> set[str]:
    """The tables with rows that belong to rows of these."""
    return {
        child for child in Base.metadata.tables if set(tables) & set(parents_of(child).values())
    }


def broken_keys(session: Session, tables: Iterable[str]) -> set[BrokenKey]:
    """The rows of tables that belong to what is not there."""
    return {
        (child, number, parent, key)
        for table in tables
        for child, number, parent, key in _check(session, table)
    }


def _check(session: Session, table: str) -> Iterable[Row[str, int, str, int]]:
    return session.execute(text(f"PRAGMA foreign_key_check({table})"))
