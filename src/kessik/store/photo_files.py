"""Photo files in the data folder, each named by the hash of its content."""

import os
from pathlib import Path
from uuid import uuid4

FOLDER_NAME = "photos"


def photo_path(folder: Path, content_hash: str) -> Path:
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
    """Remove a picture from the disk for good."""
    photo_path(folder, content_hash).unlink(missing_ok=True)
