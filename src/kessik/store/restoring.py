"""A backup brought back: looked over before it replaces anything, and what was there is kept
aside.
"""

from pathlib import Path

from kessik.core.errors import NotAFolderError, StoreDamagedError
from kessik.store import health
from kessik.store.backups import copy_database
from kessik.store.database import DATABASE_NAME
from kessik.store.failures import told_plainly
from kessik.store.folder_hold import holding
from kessik.store.swapping import FRESH, settle, swap
from kessik.store.vetting import bring_pictures, picture_names, vet, vet_pictures


def restore(folder: Path, backup: Path) -> Path | None:
    """Put a backup in the place of a folder's database, with the pictures beside it; returns where
    the former one is kept, if there was one.

    A StorageError says why not, and nothing is changed then: a spoiled backup, one that is no data
    of Kessik's or of a newer Kessik, a folder that is being served, a full disk. Pictures come
    first and the database last, by one rename.
    """
    if not backup.is_file():
        raise NotAFolderError(f"there is no file {backup}")
    with told_plainly():
        wrong = health.what_is_wrong(backup)
        if wrong:
            raise StoreDamagedError(f"the backup {backup} is damaged: {wrong}; nothing was changed")
        folder.mkdir(parents=True, exist_ok=True)
        with holding(folder, "a backup is being brought back"):
            settle(folder, DATABASE_NAME)
            fresh = folder / f"{DATABASE_NAME}{FRESH}"
            try:
                copy_database(backup, fresh)
                vet(fresh, backup)
                vet_pictures(fresh, folder, backup.parent)
                bring_pictures(picture_names(fresh), backup.parent, folder)
                return swap(folder, DATABASE_NAME, fresh)
            finally:
                fresh.unlink(missing_ok=True)
