"""One database file put in the place of another by one rename; what was there is kept aside.

Killed at any step, the next start finds a note of what was going on: where the rename was not
reached everything goes back as it was, else nothing is left to do.
"""

import json
import os
import shutil
import sqlite3
from contextlib import closing, suppress
from datetime import UTC, datetime
from pathlib import Path

FRESH = ".restored"
"""What the name of a database that is to come into the place of another ends in."""
_NOTE = "restoring.json"
_LOGS = ("-wal", "-shm")
_UNDONE = (
    "a restore was interrupted before it replaced anything: the data are as they were. Run"
    " `kessik restore` again"
)
_DONE = "a restore was interrupted after its last step: the restored data are in place"


def swap(folder: Path, name: str, fresh: Path) -> Path | None:
    """Put `fresh`, a whole database in the same folder, in the place of the one called `name`;
    returns the folder where that is kept, None where there was none.
    """
    main = folder / name
    if not any((folder / f"{name}{end}").exists() for end in ("", *_LOGS)):
        _put(fresh, main)
        return None
    aside = _new_folder(folder)
    note = folder / _NOTE
    _write(note, json.dumps({"aside": aside.name, "fresh": fresh.name}))
    _empty_log(main)
    if main.exists():
        _link(main, aside / name)
    for end in _LOGS:
        log = folder / f"{name}{end}"
        if log.exists():
            log.rename(aside / log.name)
    _put(fresh, main)
    note.unlink()
    return aside


def is_interrupted(folder: Path) -> bool:
    """Whether a swap was begun in a folder and not ended."""
    return (folder / _NOTE).exists()


def settle(folder: Path, name: str) -> str:
    """Bring a swap that was interrupted to one of its ends; what was found, in words, empty where
    there was nothing. Only for whoever holds the folder.
    """
    note = folder / _NOTE
    if not note.exists():
        left = list(folder.glob(f"{name}{FRESH}*"))
        for each in left:
            each.unlink()
        return _UNDONE if left else ""
    said = _read(note)
    fresh = folder / str(said.get("fresh", ""))
    aside = folder / str(said.get("aside", ""))
    if not (fresh.is_file() and fresh.parent == folder):
        note.unlink()
        return f"{_DONE}, and what was there before is in {aside}"
    main = folder / name
    if not main.exists() and (aside / name).exists():
        _link(aside / name, main)
    for end in _LOGS:
        log = aside / f"{name}{end}"
        if log.exists():
            log.replace(folder / log.name)
    (aside / name).unlink(missing_ok=True)
    with suppress(OSError):
        aside.rmdir()
    fresh.unlink()
    note.unlink()
    return _UNDONE


def _read(note: Path) -> dict[str, str]:
    """The names in a note, and no more of them than names."""
    said = json.loads(note.read_text(encoding="utf-8"))
    return {key: Path(str(value)).name for key, value in said.items()}


def _put(fresh: Path, main: Path) -> None:
    """The one rename, on disk before anything else happens."""
    with fresh.open("rb+") as file:
        os.fsync(file.fileno())
    fresh.replace(main)
    _sync_folder(main.parent)


def _new_folder(folder: Path) -> Path:
    stamp = f"replaced-{datetime.now(UTC):%Y%m%dT%H%M%S}"
    number = 1
    while True:
        aside = folder / (stamp if number == 1 else f"{stamp}-{number}")
        try:
            aside.mkdir()
        except FileExistsError:
            number += 1
        else:
            return aside


def _empty_log(main: Path) -> None:
    """Put what stands in the log into the database, so that it is one file; a spoiled one keeps its
    log beside it.
    """
    if main.exists():
        with suppress(sqlite3.Error), closing(sqlite3.connect(main, timeout=5)) as connection:
            connection.execute("PRAGMA wal_checkpoint(TRUNCATE)")


def _link(source: Path, target: Path) -> None:
    """The same file under a second name; a copy where the disk knows no links."""
    target.unlink(missing_ok=True)
    try:
        os.link(source, target)
    except OSError:
        partial = target.with_suffix(".partial")
        shutil.copyfile(source, partial)
        partial.replace(target)


def _write(path: Path, text: str) -> None:
    partial = path.with_suffix(".partial")
    with partial.open("w", encoding="utf-8") as file:
        file.write(text)
        file.flush()
        os.fsync(file.fileno())
    partial.replace(path)
    _sync_folder(path.parent)


def _sync_folder(folder: Path) -> None:
    """Names of files are on disk, too, where a system can say so of a folder."""
    with suppress(OSError):
        handle = os.open(folder, os.O_RDONLY)
        try:
            os.fsync(handle)
        finally:
            os.close(handle)
