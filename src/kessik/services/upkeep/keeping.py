"""What is done by itself when a server starts: leftovers removed, and a backup a day."""

from datetime import UTC, datetime

from kessik.services.files.imports import remove_left_behind
from kessik.services.pictures.keeping import forget_unused
from kessik.services.record.bin import empty_old
from kessik.store import backups
from kessik.store.database import Database


def look_after(db: Database) -> None:
    """Remove what a killed import left what lay in the bin for its days and
    pictures that nothing shows, and keep a copy a day."""
    now = datetime.now(UTC)
    remove_left_behind(db, now)
    empty_old(db, now)
    forget_unused(db, now)
    if backups.is_daily_due(db.folder, now):
        db.back_up(backups.DAILY)
        backups.forget_old_dailies(db.folder)
