"""Photo files in the data folder, each named by the hash of its content."""

import os
import re
from pathlib import Path
from uuid import uuid4

from kessik.core.errors import UnknownError

FOLDER_NAME = "photos"
_NAME = re.compile(r"[0-9a-f]{64}")


def is_photo_name(content_hash: str) -> bool:
    """Whether it is a sum of a content, 64 hex digits, and so never a way out of the folder."""
    return _NAME.fullmatch(content_hash) is not None


def photo_path(folder: Path, content_hash: str) -> Path:
    """Where the picture with a content lies; UnknownError for what is no sum of one."""
    if not is_photo_name(content_hash):
        raise UnknownError("there is no such picture", field="picture")
    return folder / FOLDER_NAME / content_hash[:2] / content_hash


def keep_photo_file(folder: Path, content_hash: str, data: bytes) -> None:
    """Write the file to disk before its row is; the same content is kept once, and nothing by
    halves.
    """
    path = photo_path(folder, content_hash)
    if path.exists():
        return
    path.parent.mkdir(parents=True, exist_ok=True)
    partial = path.with_suffix(f".{uuid4().hex}.partial")
    try:
        with partial.open("wb") as file:
            file.write(data)
            file.flush()
            os.fsync(file.fileno())
        partial.replace(path)
    finally:
        partial.unlink(missing_ok=True)


def delete_photo_file(folder: Path, content_hash: str) -> None:
    """Remove a picture from the disk for good; of what is named otherwise there is none."""
    if not is_photo_name(content_hash):
        return
    photo_path(folder, content_hash).unlink(missing_ok=True)
