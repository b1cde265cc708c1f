"""Pictures come onto the disk before anything shows them, and leave it when nothing does."""

from collections.abc import Sequence
from datetime import datetime, timedelta
from pathlib import Path

from kessik.core.errors import UnknownError
from kessik.core.pictures import Picture, Shown
from kessik.interchange.photos import DecodedPicture, decode_photo, read_photo
from kessik.store.database import Database
from kessik.store.failures import told_plainly
from kessik.store.photo_files import delete_photo_file, keep_photo_file, photo_path
from kessik.store.queries import pictures

_WAITS = timedelta(days=1)
"""How long a picture that a camera wrote waits for a look to show it."""


def keep_picture(db: Database, data: bytes, now_utc: str) -> Picture:
    """Keep a picture under the hash of its content; RefusedFileError where it is none."""
    read = read_photo(data)
    with told_plainly():
        keep_photo_file(db.folder, read.hash, read.data)
    kept = Picture(
        read.hash, read.media_type, read.width_px, read.height_px, read.taken_at, now_utc
    )
    with db.write() as session:
        pictures.keep(session, kept)
        keep_photo_file(db.folder, read.hash, read.data)  # it may have been forgotten meanwhile
    return kept


def hide_pictures(db: Database, shown: Sequence[Shown]) -> None:
    """Take pictures off what shows them; those that nothing else shows are let go, and leave the
    disk when the data are looked after next: until then it can be undone.
    """
    with db.write() as session:
        for each in shown:
            pictures.hide(session, each)
        pictures.release_unshown(session, [each.picture.hash for each in shown])


def delete_unused(db: Database, now: datetime) -> None:
    """Remove the pictures that nothing shows, let go or waiting for a day."""
    with db.read() as session:
        waited = pictures.unshown(session, (now - _WAITS).isoformat())
    _delete(db, waited)


def _delete(db: Database, hashes: Sequence[str]) -> None:
    if not hashes:
        return
    with db.write() as session:
        for content_hash in pictures.delete_unshown(session, hashes):
            delete_photo_file(db.folder, content_hash)


def decoded_picture(db: Database, content_hash: str) -> DecodedPicture:
    """A kept picture as an array, upright; UnknownError where it is not kept."""
    _, path = picture_file(db, content_hash)
    return decode_photo(path.read_bytes())


def picture_file(db: Database, content_hash: str) -> tuple[Picture, Path]:
    """A picture and its file; UnknownError where there is none."""
    with db.read() as session:
        found = pictures.find(session, content_hash)
    path = photo_path(db.folder, content_hash)
    if found is None or not path.is_file():
        raise UnknownError("there is no such picture", field="picture")
    return found, path
