"""A copy looked over before it replaces anything: nothing of what it says is taken on trust.

Its tables and indexes have to be those that Kessik makes, column by column, and nothing else; its
rows have to refer to each other; what names a picture has to be the sum of a content, and the
picture to have it.
"""

import hashlib
import shutil
import sqlite3
from collections.abc import Iterable, Iterator
from contextlib import closing
from functools import cache
from pathlib import Path
from uuid import uuid4

from sqlalchemy import create_engine
from sqlalchemy.pool import StaticPool

from kessik.core.errors import StoreDamagedError
from kessik.store import health
from kessik.store.backups import FOLDER_NAME as BACKUPS
from kessik.store.backups import read_rule
from kessik.store.database import check_revision, migrate
from kessik.store.photo_files import is_photo_name, photo_path

_SCHEMA = (
    "SELECT type, name, sql FROM sqlite_master"
    " WHERE name NOT LIKE 'sqlite!_%' ESCAPE '!' AND name != 'alembic_version'"
)
_MOST_NAMED = 5
Schema = dict[tuple[str, str], tuple[tuple[object, ...], ...]]
"""Tables, indexes, views and triggers by kind and name, each with its shape."""


def vet(path: Path, called: Path) -> None:
    """Refuse a database that is damaged, no data of Kessik's, of a newer Kessik, or that holds
    anything that Kessik would not have put into it; `called` is what the tester knows it as.
    """
    wrong = health.what_is_wrong(path) or why_unfit(path)
    if wrong:
        raise StoreDamagedError(
            f"the backup {called} is not restored: {wrong}; nothing was changed"
        )


def vet_pictures(path: Path, *folders: Path) -> None:
    """Refuse a database whose pictures are there with another content than they are named by, in
    all of the folders that have them; one that no folder has is missing, and may be.
    """
    spoiled = [name for name in picture_names(path) if _is_spoiled(name, folders)]
    if spoiled:
        more = f" and {len(spoiled) - _MOST_NAMED} more" if len(spoiled) > _MOST_NAMED else ""
        named = ", ".join(spoiled[:_MOST_NAMED])
        raise StoreDamagedError(
            f"pictures beside the backup were changed since they were kept ({named}{more});"
            " nothing was changed"
        )


def picture_names(path: Path) -> list[str]:
    """The pictures that a database knows."""
    with closing(_opened(path)) as link:
        if ("table", "picture") not in _things(link):
            return []
        return [str(row[0]) for row in link.execute("SELECT hash FROM picture ORDER BY hash")]


def spoiled_pictures(path: Path) -> list[str]:
    """The pictures of a folder's database whose file has another content than its name says."""
    names = filter(is_photo_name, picture_names(path))
    return [name for name in names if _is_spoiled(name, (path.parent,))]


def whole_in_backups(folder: Path, names: Iterable[str]) -> list[str]:
    """Which of some pictures lie whole beside the backups, here or on the second disk."""
    there = _beside_backups(folder)
    return [
        name
        for name in filter(is_photo_name, names)
        if any(p.is_file() and is_whole(p) for p in (photo_path(each, name) for each in there))
    ]


def heal_pictures(folder: Path, names: Iterable[str]) -> list[str]:
    """Bring pictures back from beside the backups, where they lie whole; those that were."""
    wanted = [name for name in names if is_photo_name(name)]
    return [
        name for each in _beside_backups(folder) for name in bring_pictures(wanted, each, folder)
    ]


def _beside_backups(folder: Path) -> list[Path]:
    second = read_rule(folder).second_folder
    return [folder / BACKUPS, *([Path(second)] if second else [])]


def bring_pictures(names: Iterable[str], source: Path, target: Path) -> list[str]:
    """Bring pictures from one folder into another where that lacks them or has them spoiled, each
    looked over on its way; those that were brought.
    """
    brought = []
    for name in names:
        there, kept = photo_path(source, name), photo_path(target, name)
        if (kept.is_file() and is_whole(kept)) or not there.is_file():
            continue
        kept.parent.mkdir(parents=True, exist_ok=True)
        partial = kept.parent / f"{uuid4().hex}.partial" / name
        partial.parent.mkdir()
        try:
            shutil.copyfile(there, partial)
            if is_whole(partial):
                partial.replace(kept)
                brought.append(name)
        finally:
            shutil.rmtree(partial.parent)
    return brought


def is_whole(picture: Path) -> bool:
    """Whether a picture's file has the content that it is named by."""
    with picture.open("rb") as file:
        return hashlib.file_digest(file, "sha256").hexdigest() == picture.name


def _is_spoiled(name: str, folders: tuple[Path, ...]) -> bool:
    there = [path for folder in folders if (path := photo_path(folder, name)).is_file()]
    return bool(there) and not any(is_whole(path) for path in there)


def why_unfit(path: Path) -> str:
    """What of a database is not as Kessik makes it; nothing where all of it is."""
    revision = check_revision(path)
    if revision is None:
        return "it is no data of Kessik's"
    with closing(_opened(path)) as link:
        strange = next(_strange(_things(link), _things_at(revision)), "")
        if strange:
            return strange
        if link.execute("PRAGMA integrity_check(1)").fetchone()[0] != "ok":
            return "pages of it contradict each other"
        if link.execute("PRAGMA foreign_key_check").fetchone():
            return "rows of it refer to rows that are not there"
    unfit = [name for name in picture_names(path) if not is_photo_name(name)]
    if unfit:
        return "it names a picture in a way that Kessik never does"
    spoiled = health.spoiled_events(path)
    if spoiled:
        told = ", ".join(map(str, spoiled[:_MOST_NAMED]))
        return f"{len(spoiled)} events of it were changed since they were stored, such as {told}"
    return ""


def _strange(found: Schema, made: Schema) -> Iterator[str]:
    """What of a schema is not as Kessik makes it."""
    for kind, name in found.keys() - made.keys():
        yield f"it holds a {kind} that is no part of Kessik ({name[:60]})"
    for kind, name in made.keys() - found.keys():
        yield f"its {kind} {name} is not there"
    for (kind, name), shape in made.items():
        if found[kind, name] != shape:
            yield f"its {kind} {name} is not as Kessik makes it"


@cache
def _things_at(revision: str) -> Schema:
    """The schema of a revision, made anew."""
    engine = create_engine("sqlite://", poolclass=StaticPool)
    try:
        migrate(engine, revision)
        with engine.connect() as connection:
            made = connection.connection.dbapi_connection
            assert isinstance(made, sqlite3.Connection)
            return _things(made)
    finally:
        engine.dispose()


def _things(link: sqlite3.Connection) -> Schema:
    """Every thing of a schema with its shape: columns with their types and whom they refer to, what
    an index holds; of anything else its words.
    """
    found: Schema = {}
    for kind, name, sql in link.execute(_SCHEMA).fetchall():
        if kind == "table":
            shape = [*_rows(link, "table_xinfo", name), *_rows(link, "foreign_key_list", name)]
        elif kind == "index":
            shape = _rows(link, "index_xinfo", name)
        else:
            shape = [(str(sql),)]
        found[str(kind), str(name)] = tuple(shape)
    return found


def _rows(link: sqlite3.Connection, pragma: str, name: str) -> list[tuple[object, ...]]:
    quoted = name.replace('"', '""')
    return [tuple(row) for row in link.execute(f'PRAGMA {pragma}("{quoted}")')]


def _opened(path: Path) -> sqlite3.Connection:
    """To read only, and no function or trigger of its own is run."""
    link = sqlite3.connect(f"{path.resolve().as_uri()}?mode=ro", uri=True)
    link.text_factory = lambda text: text.decode("utf-8", "replace")
    link.execute("PRAGMA trusted_schema = OFF")
    return link
