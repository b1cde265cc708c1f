"""Copies of the data: the database copied while taps go on, its pictures beside it, kept by a rule,
and on a second disk where one is named.
"""

import json
import shutil
import sqlite3
from collections.abc import Iterator, Sequence
from contextlib import closing, contextmanager, suppress
from dataclasses import asdict, dataclass
from datetime import UTC, datetime, timedelta
from pathlib import Path

from filelock import FileLock, Timeout

from kessik.core.errors import KessikError, NotAFolderError, StoreBusyError
from kessik.store.photo_files import FOLDER_NAME as PHOTOS
from kessik.store.photo_files import is_photo_name

FOLDER_NAME = "backups"
DAILY = "daily"
BY_HAND = "by-hand"
_RULE, _FAILED, _SECOND, _LOCK = (
    "rule.json",
    "failed.txt",
    "second-failed.txt",
    "kessik.backup.lock",
)
_AHEAD = timedelta(hours=26)
"""A copy dated further ahead than any time zone was made by a clock that was wrong."""
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
    """Copy a database and its pictures into the backups folder beside it, while others write;
    returns the copy. One at a time: StoreBusyError where another is being made.
    """
    folder = path.parent / FOLDER_NAME
    folder.mkdir(exist_ok=True)
    with _alone(folder):
        for left in folder.glob("*.partial"):
            left.unlink()
        target = folder / f"{reason}-{datetime.now(UTC):{_STAMP}}.sqlite3"
        copy_database(path, target)
        copy_pictures(path.parent / PHOTOS, folder / PHOTOS)
    return target


def copy_to_second_disk(path: Path) -> None:
    """Bring the newest copy to the second disk, where one is named and has not got it; a
    NotAFolderError says that it is gone, and the note of it stays until it is done.
    """
    folder, second = path.parent / FOLDER_NAME, read_rule(path.parent).second_folder
    newest = newest_backup(path.parent)
    if not second or newest is None:
        note_failure(path.parent, "", _SECOND)
        return
    beside = Path(second)
    try:
        if not beside.is_dir():
            raise NotAFolderError(f"the folder of the second copy, {beside}, is not there")
        with _alone(folder):
            for left in beside.glob("*.partial"):
                left.unlink()
            if not (beside / newest.name).exists():
                partial = beside / f"{newest.name}.partial"
                shutil.copyfile(newest, partial)
                partial.replace(beside / newest.name)
            copy_pictures(folder / PHOTOS, beside / PHOTOS)
    except (KessikError, OSError) as failed:
        note_failure(path.parent, getattr(failed, "message", str(failed)), _SECOND)
        raise
    note_failure(path.parent, "", _SECOND)


@contextmanager
def _alone(folder: Path) -> Iterator[None]:
    lock = FileLock(folder.parent / _LOCK)
    try:
        lock.acquire(timeout=0)
    except Timeout as taken:
        raise StoreBusyError("a backup is being made already; it will be there soon") from taken
    try:
        yield
    finally:
        lock.release()


def copy_database(path: Path, target: Path) -> None:
    """Copy a database to a file of its own, whole or not at all: one snapshot, in one step, so that
    it ends however much is written meanwhile.
    """
    partial = target.with_suffix(".partial")
    partial.unlink(missing_ok=True)
    try:
        with closing(sqlite3.connect(path)) as source, closing(sqlite3.connect(partial)) as copy:
            source.execute("PRAGMA trusted_schema = OFF")
            copy.execute("PRAGMA journal_mode=DELETE")  # one file, easily copied
            source.backup(copy)
        partial.replace(target)
    finally:
        partial.unlink(missing_ok=True)


def copy_pictures(source: Path, target: Path) -> int:
    """Copy the pictures that are not there yet: each is named by its content, and never changes."""
    made = 0
    for picture in sorted(source.glob("??/*")):
        kept = target / picture.parent.name / picture.name
        if kept.exists() or not is_photo_name(picture.name):
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


def newest_backup(folder: Path, now: datetime | None = None) -> Path | None:
    """The newest copy; one from the future counts only where there is no other."""
    every = all_copies(folder)
    past = _not_ahead(every, now or datetime.now(UTC))
    return next((copy.path for copy in [*past, *every]), None)


def _not_ahead(copies: Sequence[Copy], now: datetime) -> list[Copy]:
    return [copy for copy in copies if copy.made <= now + _AHEAD]


def is_daily_due(folder: Path, now: datetime) -> bool:
    """Whether no copy was made in the last day; one from the future counts for nothing."""
    newest = next(iter(_not_ahead(all_copies(folder), now)), None)
    return newest is None or now - newest.made >= timedelta(days=1)


def delete_old(folder: Path, now: datetime | None = None) -> None:
    """Keep the copies that the rule asks for, here and on the second disk; those from the future
    are neither counted nor deleted.
    """
    rule = read_rule(folder)
    there = _not_ahead(all_copies(folder), now or datetime.now(UTC))
    daily = [copy for copy in there if copy.reason == DAILY]
    for old in daily[rule.daily :]:
        if old not in _of_weeks(daily[rule.daily :], rule.weekly):
            old.path.unlink()
            if rule.second_folder:
                with suppress(OSError):  # a second disk that is gone keeps what it has
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


@dataclass(frozen=True)
class CopyFailure:
    """Why a copy is not made, and since when, UTC."""

    why: str
    since_utc: str


def note_failure(folder: Path, why: str, kind: str = _FAILED) -> None:
    """Keep why a copy was not made, with the time of its first failure; empty once one was."""
    place = folder / FOLDER_NAME / kind
    with suppress(OSError):  # on a full disk there is no room for this either
        if not why:
            place.unlink(missing_ok=True)
            return
        before = _failure(place)
        since = before.since_utc if before else datetime.now(UTC).isoformat(timespec="seconds")
        place.parent.mkdir(exist_ok=True)
        place.write_text(f"{since}\n{why}", encoding="utf-8")


def last_failure(folder: Path) -> CopyFailure | None:
    """Why the last copy was not made; None where it was."""
    return _failure(folder / FOLDER_NAME / _FAILED)


def second_failure(folder: Path) -> CopyFailure | None:
    """Why the second disk has not got the last copy; None where it has, or none is named."""
    return _failure(folder / FOLDER_NAME / _SECOND)


def _failure(place: Path) -> CopyFailure | None:
    try:
        since, _, why = place.read_text(encoding="utf-8").partition("\n")
    except OSError:
        return None
    return CopyFailure(why, since) if why else CopyFailure(since, "")
