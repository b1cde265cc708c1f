"""How a stand-in is plugged in: a TCP line on loopback, or a pseudo-terminal."""

import contextlib
import os
import socket
from threading import Lock, Thread
from typing import Protocol


class Line(Protocol):
    """A line to whoever is plugged in; `address` is what a reader opens."""

    address: str

    def say(self, text: str) -> None: ...
    def hang_up(self) -> None: ...
    def close(self) -> None: ...


class LoopbackLine:
    """A TCP line on this machine only; any number of readers, each hears what is said from
    then on.
    """

    def __init__(self, port: int = 0) -> None:
        self._server = socket.create_server(("127.0.0.1", port))
        self.address = f"socket://127.0.0.1:{self._server.getsockname()[1]}"
        self._readers: list[socket.socket] = []
        self._lock = Lock()
        Thread(target=self._accept, name="stand-in", daemon=True).start()

    def _accept(self) -> None:
        while True:
            try:
                reader, _ = self._server.accept()
            except OSError:
                return
            with self._lock:
                self._readers.append(reader)

    @property
    def readers(self) -> int:
        with self._lock:
            return len(self._readers)

    def say(self, text: str) -> None:
        """Send a line; a reader that is gone is forgotten."""
        with self._lock:
            for reader in list(self._readers):
                try:
                    reader.sendall(f"{text}\r\n".encode())
                except OSError:
                    self._readers.remove(reader)

    def hang_up(self) -> None:
        """Drop every reader, as a pulled plug does; they may come back."""
        with self._lock:
            for reader in self._readers:
                with contextlib.suppress(OSError):
                    reader.shutdown(socket.SHUT_RDWR)
                reader.close()
            self._readers.clear()

    def close(self) -> None:
        self.hang_up()
        self._server.close()


class PseudoTerminalLine:
    """A pseudo-terminal, read as a serial port is; only where the system has them."""

    def __init__(self) -> None:
        self._own, self._theirs = os.openpty()
        self.address = os.ttyname(self._theirs)

    def say(self, text: str) -> None:
        os.write(self._own, f"{text}\r\n".encode())

    def hang_up(self) -> None:
        self.close()

    def close(self) -> None:
        for end in (self._own, self._theirs):
            with contextlib.suppress(OSError):
                os.close(end)
