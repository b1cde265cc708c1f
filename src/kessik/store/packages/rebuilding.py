"""A package made into a data folder of its own, so that all that is asked of a folder is asked of
it before anything of it comes near another.
"""

import sqlite3
from collections.abc import Mapping, Sequence
from contextlib import closing
from pathlib import Path
from typing import Any

from sqlalchemy import create_engine

from kessik.core.errors import Fault, RefusedFileError
from kessik.core.protocols.entries import is_plain
from kessik.store.database import DATABASE_NAME, Database, check_revision, is_known, migrate
from kessik.store.packages.stored_rows import Tables, values_of
from kessik.store.vetting import why_unfit

_LATER = frozenset({"answer", "board", "revision", "bin", "paired_device", "alembic_version"})
"""What no package brings: it is worked out, or is no result."""


def rebuilt(folder: Path, tables: Tables, revision: str, called: str) -> Database:
    """A new folder that holds just these rows; RefusedFileError with what is wrong with them.

    Rows of an older Kessik are brought over as an older folder is.
    """
    if not is_known(revision):
        said = "it was made by a newer Kessik; update this one, then bring it in"
        raise _refused(called, said)
    path = folder / DATABASE_NAME
    engine = create_engine(f"sqlite:///{path}")
    try:
        migrate(engine, revision)
    finally:
        engine.dispose()
    with closing(sqlite3.connect(path)) as link:
        _fill(link, tables, called)
    database = Database(folder)
    wrong = why_unfit(path)
    if wrong:
        database.close()
        raise _refused(called, wrong)
    return database


def _fill(link: sqlite3.Connection, tables: Tables, called: str) -> None:
    made = {row[0] for row in link.execute("SELECT name FROM sqlite_master WHERE type = 'table'")}
    link.execute("PRAGMA foreign_keys = OFF")  # looked over once all of it is there
    for table, rows in tables.items():
        if table not in made - _LATER:
            raise _refused(called, f"it holds {table!r}, which no package has")
        _insert(link, table, rows, called)
    link.commit()


def _insert(
    link: sqlite3.Connection, table: str, rows: Sequence[Mapping[str, Any]], called: str
) -> None:
    columns = [row[1] for row in link.execute(f"PRAGMA table_info({table})")]
    for number, row in enumerate(rows, 1):
        if not _is_plain(row):
            raise _refused(called, f"row {number} of {table} holds what cannot be shown")
        if set(row) != set(columns):
            odd = ", ".join(sorted(set(row) ^ set(columns)))
            raise _refused(called, f"row {number} of {table} has other columns ({odd[:80]})")
    listed = ", ".join(f'"{name}"' for name in columns)
    marks = ", ".join("?" * len(columns))
    try:
        link.executemany(
            f"INSERT INTO {table} ({listed}) VALUES ({marks})",
            (values_of(table, row, columns) for row in rows),
        )
    except (sqlite3.Error, ValueError, OverflowError, TypeError) as error:
        raise _refused(called, f"a row of {table} cannot be stored: {error}") from error


def _is_plain(value: Any) -> bool:  # noqa: ANN401 - any JSON value
    if isinstance(value, str):
        return is_plain(value)
    if isinstance(value, Mapping):
        return all(_is_plain(each) for pair in value.items() for each in pair)
    return all(map(_is_plain, value)) if isinstance(value, list) else True


def revision_here(database: Database) -> str:
    """The revision of the tables of an open folder."""
    found = check_revision(database.folder / DATABASE_NAME)
    assert found is not None  # an open folder has one
    return found


def _refused(called: str, said: str) -> RefusedFileError:
    return RefusedFileError([Fault(called, 1, "", said)])
