"""A package written: tables that others can read, the records that Kessik reads, and what of all
that is where.
"""

import zipfile
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import datetime
from hashlib import sha256
from pathlib import Path

from kessik.core.comparison.analysis import ANALYSIS_VERSION
from kessik.core.errors import NotAllowedNowError, UnknownError
from kessik.core.moments import Moment
from kessik.core.packages import Hidden
from kessik.core.shelf.blades import Blade
from kessik.interchange import package_json
from kessik.interchange.csv_tables import without_columns
from kessik.interchange.data_package import FILE_NAME as DESCRIPTION
from kessik.interchange.data_package import FileFacts, describe_package
from kessik.interchange.looks_csv import write_looks
from kessik.interchange.package_json import PICTURES, PackageHead
from kessik.interchange.shots_csv import write_shots
from kessik.services.files.trial_export import TrialTables
from kessik.services.soaks.files import look_rows
from kessik.services.soaks.sheets import sheets_of_blades
from kessik.services.work import ImportWork
from kessik.store.database import Database, Session
from kessik.store.packages.gathering import gather
from kessik.store.packages.hiding import without
from kessik.store.packages.rebuilding import revision_here
from kessik.store.packages.stored_rows import Tables
from kessik.store.photo_files import photo_path
from kessik.store.queries import assays
from kessik.store.queries.testers import Tester, name_tester_here, tester_here
from kessik.store.queries.trials import all_trials

SUFFIX = ".kessik.zip"
GATHERS, WRITES = "gathering", "writing"
_COLUMNS: Mapping[Hidden, tuple[str, ...]] = {
    "owners": ("owner", "loan_from", "lent_to"),
    "prices": ("price",),
    "notes": ("note",),
}
_AT_ONCE = 1 << 16


@dataclass(frozen=True)
class PackageWish:
    """What goes into a package: trials (all where none is named), what is left out, pictures."""

    trial_ids: tuple[str, ...] = ()
    hidden: tuple[Hidden, ...] = ()
    with_pictures: bool = False


def write_package(
    db: Database, wish: PackageWish, out: Path, now: Moment, work: ImportWork | None = None
) -> list[str]:
    """Write a package to a file; the names of its trials.

    NotAllowedNowError where nobody was named yet as whoever sends it; UnknownError for a trial that
    is not here.
    """
    work = work or ImportWork()
    with db.read() as session:
        maker = _maker(session)
        names = _chosen(session, wish)
        work.begin(GATHERS, len(names))
        rows = without(gather(session, list(names)), wish.hidden)
        tables = TrialTables()
        for trial_id in names:
            tables.add(session, trial_id)
            work.step()
    head = PackageHead(
        revision_here(db), now.utc, maker.id, maker.name, ANALYSIS_VERSION, wish.hidden
    )
    texts = {**tables.files("trials"), **_beside(db, tables.blades, now)}
    left_out = {column for each in wish.hidden for column in _COLUMNS[each]}
    texts = {name: without_columns(text, left_out) for name, text in texts.items()}
    texts |= {f"methods/{name}": text for name, text in tables.methods.items()}
    work.begin(WRITES, len(texts) + len(rows))
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        package = _Package(archive, now)
        for name, text in texts.items():
            package.add(name, [text])
            work.step()
        package.add(package_json.FILE_NAME, package_json.written(head, rows))
        if wish.with_pictures:
            _add_pictures(db, package, rows, work)
        title = ", ".join(names.values()) if len(names) <= 3 else f"{len(names)} trials"
        package.add(DESCRIPTION, [describe_package(title, now.utc, package.files)])
    return list(names.values())


def name_maker(db: Database, name: str) -> Tester:
    """Name whoever sends packages of this folder."""
    with db.write() as session:
        return name_tester_here(session, name.strip())


def _maker(session: Session) -> Tester:
    found = tester_here(session)
    if found is None or not found.name:
        raise NotAllowedNowError("say once who sends this package", field="tester")
    return found


def _chosen(session: Session, wish: PackageWish) -> dict[str, str]:
    """The names of the trials by id, in the order they were made."""
    names = {trial.id: trial.name for trial in reversed(all_trials(session))}
    lost = [each for each in wish.trial_ids if each not in names]
    if lost:
        raise UnknownError(f"there is no trial {lost[0]}", field="trials")
    if not names:
        raise NotAllowedNowError("there is no trial here yet", field="trials")
    wanted = set(wish.trial_ids or names)
    return {trial_id: name for trial_id, name in names.items() if trial_id in wanted}


@dataclass
class _Package:
    """An archive being written, with what is in it so far."""

    archive: zipfile.ZipFile
    made: Moment
    files: list[FileFacts] = field(default_factory=list)

    def add(self, name: str, pieces: Sequence[str] | Iterator[str]) -> None:
        """Write a text and note what it is; the description of all is not one of them."""
        summed, size, first = sha256(), 0, ""
        entry = self._entry(name)
        with self.archive.open(entry, "w") as file:
            for piece in pieces:
                data = piece.encode()
                first = first or piece.partition("\n")[0]
                summed.update(data)
                size += len(data)
                file.write(data)
        self.files.append(FileFacts(name, summed.hexdigest(), size, first))

    def add_file(self, name: str, path: Path) -> None:
        """Copy a file as it is; what is pressed already is not pressed again."""
        entry = self._entry(name)
        entry.compress_type = zipfile.ZIP_STORED
        summed = sha256()
        with path.open("rb") as source, self.archive.open(entry, "w") as file:
            while data := source.read(_AT_ONCE):
                summed.update(data)
                file.write(data)
        self.files.append(FileFacts(name, summed.hexdigest(), path.stat().st_size))

    def _entry(self, name: str) -> zipfile.ZipInfo:
        at = datetime.fromisoformat(self.made.utc)
        entry = zipfile.ZipInfo(name, (at.year, at.month, at.day, at.hour, at.minute, at.second))
        entry.compress_type = zipfile.ZIP_DEFLATED
        return entry


def _beside(db: Database, blades: Mapping[str, Blade], now: Moment) -> dict[str, str]:
    """Shots and looks of blades, where there are any."""
    with db.read() as session:
        shots = assays.shots_by_blade(session, blades)
    rows = [(blades[own].own_code, s) for own, some in shots.items() for s in some if not s.struck]
    sheets = {s.soak.id: s for own in sheets_of_blades(db, list(blades), now).values() for s in own}
    looks = [row for sheet in sheets.values() for row in look_rows(sheet)]
    found = {}
    if rows:
        found["trials.shots.csv"] = write_shots(rows)
    if looks:
        found["trials.looks.csv"] = write_looks(looks)
    return found


def _add_pictures(db: Database, package: _Package, rows: Tables, work: ImportWork) -> None:
    for row in rows["picture"]:
        path = photo_path(db.folder, row["hash"])
        if path.is_file():
            package.add_file(f"{PICTURES}/{row['hash']}", path)
        work.step()
