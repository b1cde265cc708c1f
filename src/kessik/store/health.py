"""Whether a database file is whole; where it is not, what of it can still be read. Nothing is
changed here.
"""

import sqlite3
from collections.abc import Mapping
from contextlib import closing
from pathlib import Path

from kessik.core.errors import StoreBusyError, StoreDamagedError
from kessik.store.backups import newest_backup
from kessik.store.check_sums import SUMMED, check_sum
from kessik.store.failures import BUSY
from kessik.store.photo_files import is_photo_name, photo_path

_MAGIC = b"SQLite format 3\x00"
_COUNTED = {"trial": "trial", "blade": "blade", "run": "run", "event": "event"}


def check_file(path: Path) -> None:
    """StoreDamagedError, with what can still be read and how to bring a backup back, where the file
    is not whole.
    """
    wrong = what_is_wrong(path)
    if wrong:
        raise StoreDamagedError(
            f"the database {path} is damaged: {wrong}. {_readable_words(path)} {_way_back(path)}"
        )


def what_is_wrong(path: Path) -> str:
    """Why a database file is not whole, in words; empty where it is."""
    size = path.stat().st_size
    if size == 0:
        return "the file is empty"
    with path.open("rb") as file:
        if file.read(len(_MAGIC)) != _MAGIC:
            return "it does not begin like a database"
    try:
        with closing(sqlite3.connect(path, timeout=5)) as connection:
            (found,) = connection.execute("PRAGMA quick_check(1)").fetchone()
            return "" if found == "ok" else "pages of it contradict each other"
    except sqlite3.OperationalError as error:
        if error.sqlite_errorcode & 0xFF in (sqlite3.SQLITE_BUSY, sqlite3.SQLITE_LOCKED):
            raise StoreBusyError(BUSY) from error
        if error.sqlite_errorcode & 0xFF not in (sqlite3.SQLITE_CORRUPT, sqlite3.SQLITE_NOTADB):
            raise
        return "pages of it are missing or spoiled"
    except sqlite3.DatabaseError:
        return "pages of it are missing or spoiled"


def readable_rows(path: Path) -> Mapping[str, int]:
    """How many trials, blades, runs and events can still be read; what cannot be opened counts
    none.
    """
    found = dict.fromkeys(_COUNTED, 0)
    address = f"{path.resolve().as_uri()}?mode=ro"
    for name, table in _COUNTED.items():
        try:
            with closing(sqlite3.connect(address, uri=True)) as connection:
                connection.text_factory = bytes
                for _ in connection.execute(f"SELECT * FROM {table}"):
                    found[name] += 1
        except sqlite3.Error:
            continue
    return found


def spoiled_events(path: Path) -> list[int]:
    """Log positions of events that were changed since they were stored."""
    address = f"{path.resolve().as_uri()}?mode=ro"
    with closing(sqlite3.connect(address, uri=True)) as connection:
        connection.text_factory = lambda text: text.decode("utf-8", "replace")
        try:
            rows = connection.execute(f"SELECT position, check_sum, {', '.join(SUMMED)} FROM event")
        except sqlite3.OperationalError:
            return []  # made before events had check sums
        return [
            position
            for position, kept, *row in rows
            if kept is not None and kept != check_sum(*row)
        ]


def missing_pictures(path: Path) -> list[str]:
    """The hashes of pictures that the database knows, and whose file is not in its folder."""
    address = f"{path.resolve().as_uri()}?mode=ro"
    with closing(sqlite3.connect(address, uri=True)) as connection:
        try:
            known = [row[0] for row in connection.execute("SELECT hash FROM picture")]
        except sqlite3.OperationalError:
            return []  # made before pictures were kept by their content
    return [
        found
        for found in known
        if not is_photo_name(found) or not photo_path(path.parent, found).is_file()
    ]


def _readable_words(path: Path) -> str:
    rows = readable_rows(path)
    if not any(rows.values()):
        return "Nothing of it can be read."
    said = ", ".join(f"{count} {name}{'' if count == 1 else 's'}" for name, count in rows.items())
    return f"Of it {said} can still be read. Nothing was changed."


def _way_back(path: Path) -> str:
    backup = newest_backup(path.parent)
    if backup is None:
        return "There is no backup in its folder; keep a copy of this file before anything else."
    return f"Bring the newest backup back with: kessik restore {backup} --data {path.parent}"
