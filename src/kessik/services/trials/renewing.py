"""The process beside the server that works answers out: started, told of every write, and ended."""

import os
import subprocess
import sys
import time
from contextlib import suppress
from threading import Lock

from kessik.store.database import Database

_ENDS_WITHIN_S = 5.0
_BEGUN_AGAIN_AFTER_S = 60.0


class Renewing:
    """One process for one data folder, running `module`; it is started again should it be gone."""

    def __init__(self, db: Database, module: str) -> None:
        self._db, self._module = db, module
        self._lock = Lock()
        self._process: subprocess.Popen[bytes] | None = None
        self._closed, self._began = False, 0.0

    @property
    def is_running(self) -> bool:
        """Whether the process is there."""
        return self._process is not None and self._process.poll() is None

    def start(self) -> None:
        """Begin to renew, and go on after every write."""
        self._begin()
        self._db.after_write.append(self.tell)

    def _begin(self) -> None:
        command = [sys.executable, "-m", self._module, str(self._db.folder)]
        # In a session of its own: Ctrl-C at the terminal is for the server, which ends it then.
        self._process = subprocess.Popen(
            command, stdin=subprocess.PIPE, stderr=subprocess.DEVNULL, start_new_session=True
        )
        self._began = time.monotonic()
        assert self._process.stdin is not None
        os.set_blocking(self._process.stdin.fileno(), False)

    def tell(self) -> None:
        """Say that something may be behind; a process that is gone is begun again."""
        with self._lock:
            if self._closed or self._process is None or self._process.stdin is None:
                return
            try:
                os.write(self._process.stdin.fileno(), b".")
            except BlockingIOError:
                return  # it has been told often enough, and has yet to listen
            except OSError:
                if time.monotonic() - self._began > _BEGUN_AGAIN_AFTER_S:
                    self._begin()

    def close(self) -> None:
        """End the process; an answer under way is left, and worked out by the next."""
        with self._lock:
            self._closed = True
        if self.tell in self._db.after_write:
            self._db.after_write.remove(self.tell)
        if self._process is None or self._process.stdin is None:
            return
        with suppress(OSError):
            self._process.stdin.close()
        self._process.terminate()
        try:
            self._process.wait(_ENDS_WITHIN_S)
        except subprocess.TimeoutExpired:
            self._process.kill()
            self._process.wait()
