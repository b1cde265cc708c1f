"""What is done by itself when a server starts: leftovers removed, and a backup a day."""

from datetime import UTC, date, datetime
from pathlib import Path

from kessik.core.due import BackupFailed, Due
from kessik.core.errors import KessikError
from kessik.services.files.arriving import delete_left_behind
from kessik.services.pictures.storing import delete_unused
from kessik.services.record.bin import delete_expired
from kessik.store import backups
from kessik.store.database import Database


def look_after(db: Database) -> None:
    """Remove what a killed import left what lay in the bin for its days and
    pictures that nothing shows, and keep a copy a day."""
    now = datetime.now(UTC)
    delete_left_behind(db, now)
    delete_expired(db, now)
    delete_unused(db, now)
    if backups.is_daily_due(db.folder, now):
        make_copy(db, backups.DAILY)


def make_copy(db: Database, reason: str) -> Path:
    """Make a copy and keep by the rule; a failure is noted, and told on Today until one is made."""
    try:
        made = db.back_up(reason)
        backups.delete_old(db.folder)
    except (KessikError, OSError) as failed:
        backups.note_failure(db.folder, getattr(failed, "message", str(failed)))
        raise
    backups.note_failure(db.folder, "")
    return made


def copy_to_make(db: Database, _day: date) -> list[Due]:
    """That the last copy was not made, said calmly."""
    why = backups.last_failure(db.folder)
    return [Due("backup", BackupFailed(why))] if why else []
