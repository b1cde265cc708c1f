"""One server on one data folder: the first holds it, the next is told who does."""

import json
import os
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path

from filelock import FileLock, Timeout

from kessik.core.errors import FolderInUseError
from kessik.store.failures import told_plainly

_LOCK_NAME = "kessik.lock"
_HOLDER_NAME = "kessik.served.json"


@contextmanager
def holding(folder: Path, address: str) -> Iterator[None]:
    """Hold a data folder while it is served at an address, or changed whole; FolderInUseError names
    who has it.
    """
    lock = FileLock(folder / _LOCK_NAME)
    try:
        with told_plainly():
            lock.acquire(timeout=0)
    except Timeout as taken:
        raise FolderInUseError(f"{folder} is {_who(folder)}; use that, or stop it first") from taken
    holder = folder / _HOLDER_NAME
    try:
        with told_plainly():
            holder.write_text(
                json.dumps({"process": os.getpid(), "address": address}), encoding="utf-8"
            )
        yield
    finally:
        with suppress(OSError):
            holder.unlink(missing_ok=True)
        lock.release()


def _who(folder: Path) -> str:
    try:
        found = json.loads((folder / _HOLDER_NAME).read_text(encoding="utf-8"))
        return f"held already, {found['address']} (process {found['process']})"
    except (OSError, ValueError, KeyError, TypeError):
        return "held by another Kessik already"
