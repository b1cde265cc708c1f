"""Which rows belong to which, as SQLite knows it."""

from collections.abc import Collection, Iterable

from sqlalchemy import Row, text
from sqlalchemy.orm import Session

BrokenKey = tuple[str, int, str, int]
"""A row that belongs to one that is not there: its table and number, the other's table, and which
of its keys says so.
"""


def tables_hanging_on(session: Session, tables: Collection[str]) -> set[str]:
    """The tables with rows that belong to rows of these."""
    every = session.execute(text("SELECT name FROM sqlite_master WHERE type = 'table'"))
    return {
        child
        for (child,) in every.all()
        if any(
            key[2] in tables for key in session.execute(text(f"PRAGMA foreign_key_list({child})"))
        )
    }


def _check(session: Session, table: str) -> Iterable[Row[str, int, str, int]]:
    return session.execute(text(f"PRAGMA foreign_key_check({table})"))


def broken_keys(session: Session, tables: Iterable[str]) -> set[BrokenKey]:
    """The rows of tables that belong to what is not there."""
    return {
        (child, number, parent, key)
        for table in tables
        for child, number, parent, key in _check(session, table)
    }
