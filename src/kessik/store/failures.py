"""What can go wrong with a disk or a database, each as its own error with its own plain
sentence.
"""

import errno
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager

from sqlalchemy.exc import DBAPIError
from sqlalchemy.exc import TimeoutError as PoolTimeoutError

from kessik.core.errors import (
    StorageError,
    StoreBusyError,
    StoreDamagedError,
    StoreFullError,
    StoreReadOnlyError,
)

BUSY = "another program holds the data just now; nothing was stored, try again in a moment"
FULL = "the disk is full; nothing was stored, make room and try again"
READ_ONLY = "the data folder may only be read; nothing was stored, make it writable and try again"
DAMAGED = "the database is damaged; stop Kessik and run `kessik check` on its folder"
UNREADABLE = (
    "the disk could not be read or written; nothing was stored, look after the disk and try again"
)
_BY_CODE: dict[int, tuple[type[StorageError], str]] = {
    sqlite3.SQLITE_BUSY: (StoreBusyError, BUSY),
    sqlite3.SQLITE_LOCKED: (StoreBusyError, BUSY),
    sqlite3.SQLITE_FULL: (StoreFullError, FULL),
    sqlite3.SQLITE_READONLY: (StoreReadOnlyError, READ_ONLY),
    sqlite3.SQLITE_PERM: (StoreReadOnlyError, READ_ONLY),
    sqlite3.SQLITE_CANTOPEN: (
        StoreReadOnlyError,
        "the database cannot be opened; may this user write to its folder?",
    ),
    sqlite3.SQLITE_CORRUPT: (StoreDamagedError, DAMAGED),
    sqlite3.SQLITE_NOTADB: (StoreDamagedError, DAMAGED),
    sqlite3.SQLITE_IOERR: (StorageError, UNREADABLE),
}
_BY_ERRNO: dict[int, tuple[type[StorageError], str]] = {
    errno.ENOSPC: (StoreFullError, FULL),
    errno.EDQUOT: (StoreFullError, FULL),
    errno.EROFS: (StoreReadOnlyError, READ_ONLY),
    errno.EACCES: (StoreReadOnlyError, READ_ONLY),
    errno.EPERM: (StoreReadOnlyError, READ_ONLY),
}


def storage_error(error: BaseException) -> StorageError | None:
    """The storage error that an error of the database or the system means; None where it means
    something else.
    """
    found: tuple[type[StorageError], str] | None = None
    if isinstance(error, PoolTimeoutError):
        found = StoreBusyError, BUSY
    elif isinstance(error, DBAPIError):
        return storage_error(error.orig) if error.orig is not None else None
    elif isinstance(error, sqlite3.Error):
        code = getattr(error, "sqlite_errorcode", None)
        found = _BY_CODE.get(code & 0xFF) if code is not None else None
        if found is None and isinstance(error, sqlite3.DatabaseError) and "malformed" in str(error):
            found = StoreDamagedError, DAMAGED
    elif isinstance(error, OSError) and error.errno is not None:
        found = _BY_ERRNO.get(error.errno)
    return found[0](found[1]) if found else None


@contextmanager
def told_plainly() -> Iterator[None]:
    """Turn what a database or a disk raises inside into its storage error."""
    try:
        yield
    except (DBAPIError, PoolTimeoutError, sqlite3.Error, OSError) as error:
        meant = storage_error(error)
        if meant is None:
            raise
        raise meant from error
