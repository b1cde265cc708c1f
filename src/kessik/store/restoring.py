"""A backup brought back: looked over before it replaces anything, and what was there is kept
aside.
"""

from datetime import UTC, datetime
from pathlib import Path

from kessik.core.errors import NotAFolderError, StoreDamagedError
from kessik.store import health
from kessik.store.backups import copy_database, copy_pictures
from kessik.store.database import DATABASE_NAME, check_revision
from kessik.store.failures import told_plainly
from kessik.store.folder_hold import holding
from kessik.store.photo_files import FOLDER_NAME as PHOTOS

_BESIDE = ("", "-wal", "-shm")


def restore(folder: Path, backup: Path) -> Path | None:
    """Put a backup in the place of a folder's database, with the pictures beside it; returns where
    the former one is kept, if there was one.

    A StorageError says why not, and nothing is changed then: a spoiled backup, one of a newer
    Kessik, a folder that is being served, a full disk.
    """
    if not backup.is_file():
        raise NotAFolderError(f"there is no file {backup}")
    with told_plainly():
        wrong = health.what_is_wrong(backup)
        if wrong:
            raise StoreDamagedError(f"the backup {backup} is damaged: {wrong}; nothing was changed")
        check_revision(backup)
        folder.mkdir(parents=True, exist_ok=True)
        with holding(folder, "a backup is being brought back"):
            fresh = folder / f"{DATABASE_NAME}.restored"
            copy_database(backup, fresh)
            kept = _put_aside(folder)
            fresh.rename(folder / DATABASE_NAME)
            copy_pictures(backup.parent / PHOTOS, folder / PHOTOS)
    return kept


def _put_aside(folder: Path) -> Path | None:
    there = [folder / f"{DATABASE_NAME}{end}" for end in _BESIDE]
    if not any(path.exists() for path in there):
        return None
    aside = folder / f"replaced-{datetime.now(UTC):%Y%m%dT%H%M%S}"
    aside.mkdir()
    for path in there:
        if path.exists():
            path.rename(aside / path.name)
    return aside
