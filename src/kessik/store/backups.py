"""Copies of the data: the database copied while taps go on, its pictures beside it, kept by a rule,
and on a second disk where one is named.
"""

import json
import shutil
import sqlite3
from collections.abc import Sequence
from contextlib import closing, suppress
from dataclasses import asdict, dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from kessik.store.photo_files import FOLDER_NAME as PHOTOS

FOLDER_NAME = "backups"
DAILY = "daily"
BY_HAND = "by-hand"
_RULE, _FAILED = "rule.json", "failed.txt"
_PAGES_AT_ONCE = 256
_STAMP = "%Y%m%dT%H%M%S"


@dataclass(frozen=True)
class BackupRule:
    """How many copies of days and of weeks are kept; those before an upgrade, and those made by
    hand, always are. `second_folder` holds the same once more, where it is named.
    """

    daily: int = 7
    weekly: int = 4
    second_folder: str = ""


@dataclass(frozen=True)
class Copy:
    """One copy of the database: why and when it was made, and its size in bytes."""

    path: Path
    reason: str
    made: datetime
    size: int


def back_up(path: Path, reason: str) -> Path:
    """Copy a database and its pictures into the backups folder beside it, in steps that let writers
    through, and onto the second disk; returns the copy.
    """
    folder = path.parent / FOLDER_NAME
    target = folder / f"{reason}-{datetime.now(UTC):{_STAMP}}.sqlite3"
    folder.mkdir(exist_ok=True)
    copy_database(path, target)
    copy_pictures(path.parent / PHOTOS, folder / PHOTOS)
    second = read_rule(path.parent).second_folder
    if second:
        beside = Path(second)
        shutil.copyfile(target, beside / f"{target.name}.partial")
        (beside / f"{target.name}.partial").replace(beside / target.name)
        copy_pictures(folder / PHOTOS, beside / PHOTOS)
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


def copy_pictures(source: Path, target: Path) -> int:
    """Copy the pictures that are not there yet: each is named by its content, and never changes."""
    made = 0
    for picture in sorted(source.glob("??/*")):
        kept = target / picture.parent.name / picture.name
        if kept.exists() or picture.suffix:
            continue
        kept.parent.mkdir(parents=True, exist_ok=True)
        partial = kept.with_suffix(".partial")
        shutil.copyfile(picture, partial)
        partial.replace(kept)
        made += 1
    return made


def all_copies(folder: Path) -> list[Copy]:
    """The copies of a data folder, newest first."""
    found = [_copy(path) for path in (folder / FOLDER_NAME).glob("*.sqlite3")]
    return sorted(found, key=lambda copy: (copy.made, copy.path.name), reverse=True)


def _copy(path: Path) -> Copy:
    reason, _, stamp = path.stem.rpartition("-")
    size = path.stat()
    made = datetime.fromtimestamp(size.st_mtime, UTC)
    with suppress(ValueError):
        made = datetime.strptime(stamp, _STAMP).replace(tzinfo=UTC)
    return Copy(path, reason or path.stem, made, size.st_size)


def newest_backup(folder: Path) -> Path | None:
    return next((copy.path for copy in all_copies(folder)), None)


def is_daily_due(folder: Path, now: datetime) -> bool:
    """Whether no copy was made on this day yet."""
    newest = next(iter(all_copies(folder)), None)
    return newest is None or now - newest.made >= timedelta(days=1)


def delete_old(folder: Path) -> None:
    """Keep the copies that the rule asks for, here and on the second disk."""
    rule = read_rule(folder)
    daily = [copy for copy in all_copies(folder) if copy.reason == DAILY]
    for old in daily[rule.daily :]:
        if old not in _of_weeks(daily[rule.daily :], rule.weekly):
            old.path.unlink()
            if rule.second_folder:
                (Path(rule.second_folder) / old.path.name).unlink(missing_ok=True)


def _of_weeks(older: Sequence[Copy], weeks: int) -> list[Copy]:
    """The newest copy of each of so many weeks."""
    newest: dict[tuple[int, int], Copy] = {}
    for copy in older:
        year, week, _ = copy.made.isocalendar()
        newest.setdefault((year, week), copy)
    return list(newest.values())[:weeks]


def read_rule(folder: Path) -> BackupRule:
    """The rule of a data folder; the usual one where none can be read."""
    try:
        said = json.loads((folder / FOLDER_NAME / _RULE).read_text(encoding="utf-8"))
        return BackupRule(int(said["daily"]), int(said["weekly"]), str(said["second_folder"]))
    except (OSError, ValueError, KeyError, TypeError):
        return BackupRule()


def write_rule(folder: Path, rule: BackupRule) -> None:
    """Keep a rule; it lies beside the copies, so that bringing one back does not change it."""
    place = folder / FOLDER_NAME / _RULE
    place.parent.mkdir(exist_ok=True)
    partial = place.with_suffix(".partial")
    partial.write_text(json.dumps(asdict(rule)), encoding="utf-8")
    partial.replace(place)


def note_failure(folder: Path, why: str) -> None:
    """Keep why the last copy was not made; empty once one was."""
    place = folder / FOLDER_NAME / _FAILED
    with suppress(OSError):  # on a full disk there is no room for this either
        if why:
            place.parent.mkdir(exist_ok=True)
            place.write_text(why, encoding="utf-8")
        else:
            place.unlink(missing_ok=True)


def last_failure(folder: Path) -> str:
    """Why the last copy was not made; empty where it was."""
    try:
        return (folder / FOLDER_NAME / _FAILED).read_text(encoding="utf-8")
    except OSError:
        return ""
