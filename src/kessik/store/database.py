"""The database of a data folder: opened, migrated, and set so that an acknowledged event is on disk."""

from collections.abc import Iterator
from contextlib import closing, contextmanager
from datetime import UTC, datetime
from pathlib import Path
from sqlite3 import Connection as SqliteConnection
from sqlite3 import connect
from threading import Lock
from uuid import uuid4

from alembic import command
from alembic.config import Config
from alembic.runtime.migration import MigrationContext
from alembic.script import ScriptDirectory
from sqlalchemy import Connection, Engine, create_engine, event
from sqlalchemy.exc import OperationalError as StoreBusyError
from sqlalchemy.orm import Session

__all__ = ["DATABASE_NAME", "Database", "Session", "StoreBusyError", "migrate"]

DATABASE_NAME = "kessik.sqlite3"
BACKUPS_NAME = "backups"
_BUSY_TIMEOUT_MS = 5000


class Database:
    """One data folder's database; `read` and `write` give sessions, one transaction each."""

    def __init__(self, folder: Path) -> None:
        folder.mkdir(parents=True, exist_ok=True)
        self.folder = folder
        self.engine = create_engine(f"sqlite:///{folder / DATABASE_NAME}", connect_args={"check_same_thread": False})
        event.listen(self.engine, "connect", _set_pragmas)
        event.listen(self.engine, "begin", _begin)
        self._writing = self.engine.execution_options(immediate=True)
        self._back_up_before_migrating()
        migrate(self._writing)
        self._watching = connect(folder / DATABASE_NAME, check_same_thread=False)
        self._watch_lock = Lock()
        self._opened_as = uuid4().hex

    def _back_up_before_migrating(self) -> None:
        """Keep a copy of data made by an older Kessik before its tables are changed."""
        with self.engine.connect() as connection:
            revision = MigrationContext.configure(connection).get_current_revision()
        if revision is None or revision == ScriptDirectory.from_config(_alembic()).get_current_head():
            return
        stamp = datetime.now(UTC).strftime("%Y%m%dT%H%M%S")
        target = self.folder / BACKUPS_NAME / f"before-migration-from-{revision}-{stamp}.sqlite3"
        target.parent.mkdir(exist_ok=True)
        source = self.engine.raw_connection()
        try:
            with closing(connect(target)) as copy:
                copy.execute("PRAGMA journal_mode=DELETE")  # one file, easily copied
                source.driver_connection.backup(copy)  # type: ignore[union-attr]  # it is sqlite3's own
        finally:
            source.close()

    @contextmanager
    def read(self) -> Iterator[Session]:
        """A session that sees one state of the data and blocks nobody."""
        with Session(self.engine) as session:
            yield session

    @contextmanager
    def write(self) -> Iterator[Session]:
        """A session that holds the write lock from its start; committed, and so on disk, when the block ends well."""
        with Session(self._writing) as session, session.begin():
            yield session

    def stamp(self) -> tuple[str, int]:
        """Changes with every commit, of this process or another: for caches of what was worked out from the data.

        Asked of SQLite, which moves it only once a commit can be read; file times move before, and a cache filled
        in between would keep what was true before the commit.
        """
        with self._watch_lock:
            (version,) = self._watching.execute("PRAGMA data_version").fetchone()
        return self._opened_as, version

    def close(self) -> None:
        self._watching.close()
        self.engine.dispose()


def _set_pragmas(connection: SqliteConnection, _record: object) -> None:
    connection.isolation_level = None  # transactions are begun by hand, see _begin
    for pragma in ("journal_mode=WAL", "synchronous=FULL", "foreign_keys=ON", f"busy_timeout={_BUSY_TIMEOUT_MS}"):
        connection.execute(f"PRAGMA {pragma}")


def _begin(connection: Connection) -> None:
    immediate = connection.get_execution_options().get("immediate", False)
    connection.exec_driver_sql("BEGIN IMMEDIATE" if immediate else "BEGIN")


def migrate(engine: Engine, revision: str = "head") -> None:
    """Run the migrations up to a revision."""
    config = _alembic()
    with engine.begin() as connection:
        config.attributes["connection"] = connection
        command.upgrade(config, revision)


def _alembic() -> Config:
    config = Config()
    config.set_main_option("script_location", str(Path(__file__).parent / "migrations"))
    return config
