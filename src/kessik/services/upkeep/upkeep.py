"""What is done by itself, once an hour while a server runs: leftovers removed, and a backup a day,
here and on the second disk.
"""

import logging
from collections.abc import Callable
from contextlib import suppress
from datetime import UTC, date, datetime
from pathlib import Path

from kessik.core.due import BackupFailed, Due, RestoreInterrupted, SecondCopyFailed
from kessik.core.errors import KessikError, StoreBusyError
from kessik.services.arriving import delete_left_behind
from kessik.services.clock import local_day_of
from kessik.services.pictures.storing import delete_unused
from kessik.services.record.bin import delete_expired
from kessik.store import backups, seen_days
from kessik.store.database import Database


def look_after(db: Database) -> None:
    """Remove what a killed import left, what lay in the bin for its days and pictures that nothing
    shows, and keep a copy a day. What fails is written to the log, and ends nothing else.
    """
    now = datetime.now(UTC)
    steps: list[Callable[[], object]] = [
        lambda: seen_days.see(db.folder, now.date()),
        lambda: delete_left_behind(db, now),
        lambda: delete_expired(db),
        lambda: delete_unused(db, now),
        lambda: _daily_copy(db, now),
        lambda: db.copy_to_second_disk(),
    ]
    for step in steps:
        try:
            step()
        except Exception as failed:
            logging.getLogger("kessik").error("upkeep: %s", getattr(failed, "message", failed))


def _daily_copy(db: Database, now: datetime) -> None:
    if backups.is_daily_due(db.folder, now):
        _copy(db, backups.DAILY)


def make_copy(db: Database, reason: str) -> Path:
    """Make a copy, here and on the second disk, and keep by the rule; a failure is noted, and told
    on Today until one is made.
    """
    made = _copy(db, reason)
    with suppress(KessikError, OSError):  # noted, told on Today, and tried again
        db.copy_to_second_disk()
    return made


def _copy(db: Database, reason: str) -> Path:
    try:
        made = db.back_up(reason)
        backups.delete_old(db.folder)
    except StoreBusyError:
        raise
    except (KessikError, OSError) as failed:
        backups.note_failure(db.folder, getattr(failed, "message", str(failed)))
        raise
    backups.note_failure(db.folder, "")
    return made


def copy_to_make(db: Database, _day: date) -> list[Due]:
    """That the last copy was not made, or is not on the second disk, said calmly; and what a
    restore that was interrupted left.
    """
    found = []
    if db.found_at_start:
        found.append(Due("backup", RestoreInterrupted(db.found_at_start)))
    failed = backups.last_failure(db.folder)
    if failed:
        found.append(Due("backup", BackupFailed(failed.why)))
    second = backups.second_failure(db.folder)
    if second:
        since = local_day_of(second.since_utc).isoformat() if second.since_utc else ""
        found.append(Due("backup", SecondCopyFailed(second.why, since)))
    return found
