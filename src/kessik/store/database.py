"""The database of a data folder: opened, migrated, and set so that an acknowledged event is on
disk.
"""

import sqlite3
import warnings
import zlib
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager
from pathlib import Path
from threading import Lock
from typing import Self
from uuid import uuid4

from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.orm import Session

from kessik.core.errors import NotAFolderError, StoreBusyError, StoreNewerError
from kessik.store import backups, changes, health
from kessik.store.failures import BUSY, told_plainly
from kessik.store.folder_hold import holding
from kessik.store.swapping import is_interrupted, settle

__all__ = ["DATABASE_NAME", "LOG_NAME", "Database", "Session", "migrate"]

DATABASE_NAME = "kessik.sqlite3"
LOG_NAME = "kessik.log"
BUSY_TIMEOUT_MS = 5000
_MIGRATIONS = Path(__file__).parent / "migrations"
_REVISIONS = sorted(path.name[:4] for path in (_MIGRATIONS / "versions").glob("[0-9]*.py"))
"""Alembic itself is loaded only where there is something to migrate."""
_READERS = 64
"""Connections that read at once; one more is only ever used to write."""


class Database:
    """One data folder's database; `read` and `write` give sessions, one transaction each.

    Where it is `hurried`, a commit does not wait for the disk: for data that can be made again. It
    stays whole all the same. `found_at_start` tells of a restore that was interrupted. Raises a
    StorageError that says why, where the folder cannot be opened; nothing in it is overwritten
    then.
    """

    def __init__(self, folder: Path, *, hurried: bool = False) -> None:
        self.folder = folder
        with told_plainly():
            make_folder(folder)
            path = folder / DATABASE_NAME
            self.found_at_start = _settled(folder)
            if not path.exists():
                _make_database(path)
            health.check_file(path)
            self._bring_over(path)
            self.engine = _engine(path, pool_size=_READERS)
            writing = _engine(path, pool_size=1, hurried=hurried)
            self._writing = writing.execution_options(immediate=True)
            self._watching = sqlite3.connect(path, check_same_thread=False)
        self._watch_lock, self._write_turn = Lock(), Lock()
        self._opened_as = uuid4().hex
        self.after_write: list[Callable[[], None]] = []
        self._closed = False

    def _bring_over(self, path: Path) -> None:
        """Bring data made by an older Kessik to the tables of this one; a copy is kept before
        anything changes.
        """
        before = check_revision(path)
        if before == _REVISIONS[-1]:
            return
        backups.back_up(path, f"before-migration-from-{before}")
        engine = _engine(path, pool_size=1)
        try:
            migrate(engine.execution_options(immediate=True))
        finally:
            engine.dispose()

    @contextmanager
    def read(self) -> Iterator[Session]:
        """A session that sees one state of the data and blocks nobody."""
        with told_plainly(), Session(self.engine) as session:
            yield session

    @contextmanager
    def write(self) -> Iterator[Session]:
        """A session that holds the write lock from its start; committed, and so on disk, when the
        block ends well.

        Writers of this process take turns before they ask SQLite, so that one at a time waits for
        another program.
        """
        if not self._write_turn.acquire(timeout=BUSY_TIMEOUT_MS / 1000):
            raise StoreBusyError(BUSY)
        try:
            with told_plainly(), Session(self._writing) as session, session.begin():
                changes.begin(session)
                yield session
                changes.end(session)
        finally:
            self._write_turn.release()
        for told in self.after_write:
            told()

    def stamp(self) -> tuple[str, int]:
        """Changes with every commit, of this process or another: for caches of what was worked out
        from the data.

        Asked of SQLite, which moves it only once a commit can be read; file times move before, and
        a cache filled in between would keep what was true before the commit.
        """
        with self._watch_lock:
            (version,) = self._watching.execute("PRAGMA data_version").fetchone()
        return self._opened_as, version

    def back_up(self, reason: str) -> Path:
        """A copy of the whole database in the backups folder; taps go on meanwhile, and what the
        log grew by is put into the database after it.
        """
        with told_plainly():
            made = backups.back_up(self.folder / DATABASE_NAME, reason)
        with self._watch_lock:
            self._watching.execute("PRAGMA wal_checkpoint(PASSIVE)")
        return made

    def copy_to_second_disk(self) -> None:
        """Bring the newest copy to the second disk, where one is named."""
        with told_plainly():
            backups.copy_to_second_disk(self.folder / DATABASE_NAME)

    def __enter__(self) -> Self:
        return self

    def __exit__(self, *_: object) -> None:
        self.close()

    def __del__(self) -> None:
        if not getattr(self, "_closed", True):
            warnings.warn(
                f"a store was not closed: {self.folder}", ResourceWarning, source=self, stacklevel=2
            )

    def close(self) -> None:
        """Let go of the database; afterwards the one file holds everything, and can be copied by
        itself.
        """
        with self._watch_lock:
            if self._closed:
                return
            self._closed = True
            self.engine.dispose()
            self._writing.dispose()
            self._watching.execute(f"PRAGMA busy_timeout={BUSY_TIMEOUT_MS}")
            self._watching.execute("PRAGMA wal_checkpoint(TRUNCATE)")
            self._watching.close()


def _settled(folder: Path) -> str:
    """What an interrupted restore left, in words, once it is brought to one of its ends;
    FolderInUseError while it still goes on.
    """
    if not is_interrupted(folder):
        return ""
    with holding(folder, "an interrupted restore is being settled"):
        return settle(folder, DATABASE_NAME)


def make_folder(folder: Path) -> None:
    """Make the data folder where it is not there; a StorageError says why it cannot be."""
    try:
        with told_plainly():
            folder.mkdir(parents=True, exist_ok=True)
    except (FileExistsError, NotADirectoryError) as error:
        raise NotAFolderError(f"{folder} is not a folder; name another one with --data") from error


def _make_database(path: Path) -> None:
    """Make an empty database aside, and put it in its place when it is whole: an empty file is
    never a new one.
    """
    made = path.with_suffix(f".{uuid4().hex}.new")
    engine = create_engine(f"sqlite:///{made}")
    event.listen(engine, "connect", _set_pragmas)
    event.listen(engine, "begin", _begin)
    try:
        migrate(engine)
        with engine.connect() as connection:
            connection.exec_driver_sql("PRAGMA wal_checkpoint(TRUNCATE)")
        engine.dispose()
        if not path.exists():
            made.rename(path)
    finally:
        engine.dispose()
        for rest in made.parent.glob(f"{made.name}*"):
            rest.unlink()


def _engine(path: Path, pool_size: int, *, hurried: bool = False) -> Engine:
    engine = create_engine(
        f"sqlite:///{path}",
        connect_args={"check_same_thread": False},
        pool_size=pool_size,
        max_overflow=0,
        pool_timeout=BUSY_TIMEOUT_MS / 1000,
    )
    event.listen(engine, "connect", _set_hurried_pragmas if hurried else _set_pragmas)
    event.listen(engine, "begin", _begin)
    return engine


def is_known(revision: str) -> bool:
    """Whether this Kessik knows tables of a revision."""
    return revision in _REVISIONS


def check_revision(path: Path) -> str | None:
    """The revision of a database's tables; StoreNewerError where this Kessik does not know it."""
    found = _revision(path)
    if found is not None and found not in _REVISIONS:
        raise StoreNewerError(
            f"{path} was written by a newer Kessik; start that one, or update this"
        )
    return found


def _revision(path: Path) -> str | None:
    with closing(sqlite3.connect(path)) as connection:
        try:
            row = connection.execute("SELECT version_num FROM alembic_version").fetchone()
        except sqlite3.OperationalError as error:
            if "no such table" not in str(error):
                raise
            row = None
    return row[0] if row else None


def _set_hurried_pragmas(connection: sqlite3.Connection, record: object) -> None:
    _set_pragmas(connection, record)
    connection.execute("PRAGMA synchronous=NORMAL")


def _set_pragmas(connection: sqlite3.Connection, _record: object) -> None:
    connection.isolation_level = None  # transactions are begun by hand, see _begin
    connection.text_factory = _readable
    connection.create_function("crc32", 1, _crc32, deterministic=True)
    busy = f"busy_timeout={BUSY_TIMEOUT_MS}"
    for pragma in (busy, "journal_mode=WAL", "synchronous=FULL", "foreign_keys=ON"):
        connection.execute(f"PRAGMA {pragma}")


def _crc32(text: str) -> int:
    """For finding out whether rows are what they were."""
    return zlib.crc32(text.encode())


def _readable(text: bytes) -> str:
    """Text of the database; a flipped bit spoils its character, not the query."""
    return text.decode("utf-8", "replace")


def _begin(connection: Connection) -> None:
    immediate = connection.get_execution_options().get("immediate", False)
    connection.exec_driver_sql("BEGIN IMMEDIATE" if immediate else "BEGIN")


def migrate(engine: Engine, revision: str = "head") -> None:
    """Run the migrations up to a revision."""
    from alembic import command
    from alembic.config import Config

    config = Config()
    config.set_main_option("script_location", str(_MIGRATIONS))
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, revision)
