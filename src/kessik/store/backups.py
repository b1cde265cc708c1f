"""Copies of the database: made while taps go on, kept in a folder of their own, and brought back
whole.
"""

import sqlite3
from contextlib import closing
from datetime import UTC, datetime
from pathlib import Path

FOLDER_NAME = "backups"
DAILY = "daily"
_KEPT_DAILY = 7
_PAGES_AT_ONCE = 256


def back_up(path: Path, reason: str) -> Path:
    """Copy a database into the backups folder beside it, in steps that let writers through; returns
    the copy.
    """
    target = path.parent / FOLDER_NAME / f"{reason}-{datetime.now(UTC):%Y%m%dT%H%M%S}.sqlite3"
    target.parent.mkdir(exist_ok=True)
    copy_database(path, target)
    return target


def copy_database(path: Path, target: Path) -> None:
    """Copy a database to a file of its own, whole or not at all."""
    partial = target.with_suffix(".partial")
    partial.unlink(missing_ok=True)
    try:
        with closing(sqlite3.connect(path)) as source, closing(sqlite3.connect(partial)) as copy:
            copy.execute("PRAGMA journal_mode=DELETE")  # one file, easily copied
            source.backup(copy, pages=_PAGES_AT_ONCE, sleep=0.001)
        partial.replace(target)
    finally:
        partial.unlink(missing_ok=True)


def all_backups(folder: Path) -> list[Path]:
    """Backups of a data folder, newest first."""
    found = (folder / FOLDER_NAME).glob("*.sqlite3")
    return sorted(found, key=lambda backup: backup.stat().st_mtime, reverse=True)


def newest_backup(folder: Path) -> Path | None:
    return next(iter(all_backups(folder)), None)


def is_daily_due(folder: Path, now: datetime) -> bool:
    """Whether a day went by since the last backup of any reason."""
    newest = newest_backup(folder)
    return newest is None or now.timestamp() - newest.stat().st_mtime >= 24 * 3600


def forget_old_dailies(folder: Path) -> None:
    """Keep the newest daily backups; those made for another reason stay."""
    daily = [backup for backup in all_backups(folder) if backup.name.startswith(f"{DAILY}-")]
    for old in daily[_KEPT_DAILY:]:
        old.unlink()
