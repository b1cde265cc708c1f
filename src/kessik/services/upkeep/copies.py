"""The copies of a data folder: what there is, by which rule it is kept, and where else."""

from contextlib import suppress
from dataclasses import dataclass
from pathlib import Path

from kessik.core.errors import KessikError, OutOfRangeError, UnknownError
from kessik.store import backups
from kessik.store.backups import BackupRule, Copy, CopyFailure
from kessik.store.contents import Holds, holds
from kessik.store.database import Database
from kessik.store.failures import told_plainly

MOST_KEPT = 60
_SYSTEM_FOLDERS = tuple(
    Path(name)
    for name in ("/bin", "/boot", "/dev", "/etc", "/lib", "/proc", "/run", "/sbin", "/sys", "/usr")
)


@dataclass(frozen=True)
class Copies:
    """The copies of a folder, newest first, with their rule, why the last was not made, and why the
    second disk has not got it.
    """

    folder: Path
    copies: tuple[Copy, ...]
    rule: BackupRule
    failed: CopyFailure | None
    second_failed: CopyFailure | None


def copies_of(db: Database) -> Copies:
    """What copies there are."""
    found = tuple(backups.all_copies(db.folder))
    rule = backups.read_rule(db.folder)
    failed = backups.last_failure(db.folder)
    return Copies(db.folder, found, rule, failed, backups.second_failure(db.folder))


def change_rule(db: Database, rule: BackupRule) -> Copies:
    """Keep by another rule from now on; a second folder has to be there, and elsewhere."""
    if not 1 <= rule.daily <= MOST_KEPT:
        raise OutOfRangeError(f"save 1 to {MOST_KEPT} daily backups", field="daily")
    if not 0 <= rule.weekly <= MOST_KEPT:
        raise OutOfRangeError(f"save 0 to {MOST_KEPT} weekly backups", field="weekly")
    if rule.second_folder:
        _check_folder(db, Path(rule.second_folder))
    with told_plainly():
        backups.write_rule(db.folder, rule)
        backups.delete_old(db.folder)
        with suppress(KessikError, OSError):  # noted, told on Today, and tried again
            db.copy_to_second_disk()
    return copies_of(db)


def held_by(db: Database, name: str) -> Holds:
    """What a copy holds, by its name."""
    found = next((c for c in backups.all_copies(db.folder) if c.path.name == name), None)
    if found is None:
        raise UnknownError("there is no such backup", field="name")
    return holds(found.path)


def _check_folder(db: Database, folder: Path) -> None:
    if not folder.is_absolute() or not folder.is_dir() or folder.parent == folder:
        raise OutOfRangeError(
            f"there is no folder {folder}; name one that is there, from the root on",
            field="second_folder",
        )
    if any(folder.resolve().is_relative_to(system) for system in _SYSTEM_FOLDERS):
        raise OutOfRangeError(
            f"{folder} belongs to the system; name a folder of your own", field="second_folder"
        )
    if folder.resolve() == db.folder.resolve() or db.folder.resolve() in folder.resolve().parents:
        raise OutOfRangeError(
            "this is inside the data folder; a second copy belongs on another disk",
            field="second_folder",
        )
    with told_plainly():
        probe = folder / ".kessik-writes-here"
        probe.touch()
        probe.unlink()
