"""A folder that a device writes files to: pictures of a camera, result files of an analyser."""

import os
from collections.abc import Callable
from pathlib import Path
from threading import Event, Thread

from kessik.core.limits import most

LOOK_EVERY_S = 0.4
MOST_BYTES = most("picture_mb") * 1_000_000

OnFile = Callable[[str, bytes], None]
OnState = Callable[[bool, str], None]


def can_be_watched(address: str) -> bool:
    """Whether an address names a folder that can be read, by its whole path; why not is told to
    nobody.
    """
    try:
        path = Path(address)
        return path.is_absolute() and path.is_dir() and os.access(path, os.R_OK | os.X_OK)
    except (OSError, ValueError):
        return False


class FolderWatch:
    """Hands up every file that comes to the folder after it was opened, once it has stopped
    growing.
    """

    def __init__(
        self, folder: Path, suffixes: tuple[str, ...], on_file: OnFile, on_state: OnState
    ) -> None:
        self._folder, self._suffixes = folder, suffixes
        self._on_file, self._on_state = on_file, on_state
        self._closing = Event()
        self._thread = Thread(target=self._run, name=f"folder {folder}", daemon=True)

    def open(self) -> None:
        self._known = self._sizes() or {}
        self._thread.start()

    def close(self) -> None:
        self._closing.set()
        if self._thread.is_alive():
            self._thread.join(timeout=3)

    def _run(self) -> None:
        there: bool | None = None
        growing: dict[Path, int] = {}
        while not self._closing.is_set():
            sizes = self._sizes()
            if (sizes is not None) != there:
                there = sizes is not None
                self._on_state(there, "" if there else "its folder cannot be read")
            for path, size in (sizes or {}).items():
                if self._known.get(path) == size or not 0 < size <= MOST_BYTES:
                    continue
                if growing.get(path) == size:
                    self._known[path] = size
                    self._hand_up(path)
                growing[path] = size
            self._closing.wait(LOOK_EVERY_S)

    def _hand_up(self, path: Path) -> None:
        try:
            self._on_file(path.name, path.read_bytes())
        except OSError:
            self._known.pop(path, None)  # it is checked again

    def _sizes(self) -> dict[Path, int] | None:
        try:
            files = [p for p in self._folder.iterdir() if p.suffix.lower() in self._suffixes]
            return {p: p.stat().st_size for p in files if p.is_file()}
        except OSError:
            return None
