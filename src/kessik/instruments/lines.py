"""A line of text from a device: read over a serial port or a TCP bridge, found again when it was
lost.
"""

import errno
from collections.abc import Callable
from threading import Event, Thread
from typing import Protocol

from serial import Serial, SerialBase, SerialException, serial_for_url

from kessik.core.errors import KessikError
from kessik.instruments.addresses import TcpBridge, read_address

READ_TIMEOUT_S = 0.02
FIRST_WAIT_S, LONGEST_WAIT_S = 0.25, 4.0
LONGEST_LINE = 200


class OnLine(Protocol):
    """Takes a line as the device sent it, without its end."""

    def __call__(self, line: str) -> None: ...


OnState = Callable[[bool, str], None]


class LineReader:
    """Reads one device in a thread of its own until closed; tells lines, and when the device is
    there or lost.

    `address` is a serial port by its path, or host:port of a bridge; nothing else is opened.
    Nothing a device sends ends the reader: bytes that are no text come through as replacement
    characters.
    """

    def __init__(self, address: str, baud: int, on_line: OnLine, on_state: OnState) -> None:
        self._address, self._baud = address, baud
        self._on_line, self._on_state = on_line, on_state
        self._closing = Event()
        self._thread = Thread(target=self._run, name=f"line {address}", daemon=True)

    def open(self) -> None:
        self._thread.start()

    def close(self) -> None:
        """Stop reading; returns once the port is let go."""
        self._closing.set()
        if self._thread.is_alive():
            self._thread.join(timeout=3)

    def _run(self) -> None:
        wait = FIRST_WAIT_S
        said_lost = False
        while not self._closing.is_set():
            try:
                with self._port() as port:
                    self._on_state(True, "")
                    wait, said_lost = FIRST_WAIT_S, False
                    self._read(port.read)
            except (SerialException, OSError, ValueError, KessikError) as lost:
                if not said_lost:
                    self._on_state(False, _why(lost))
                    said_lost = True
            self._closing.wait(wait)
            wait = min(2 * wait, LONGEST_WAIT_S)

    def _port(self) -> SerialBase:
        address = read_address(self._address)
        if isinstance(address, TcpBridge):
            return serial_for_url(f"socket://{address.host}:{address.port}", timeout=READ_TIMEOUT_S)
        return Serial(address.path, baudrate=self._baud, timeout=READ_TIMEOUT_S)

    def _read(self, read: Callable[[int], bytes]) -> None:
        kept = b""
        while not self._closing.is_set():
            kept += read(256)
            *lines, kept = kept.replace(b"\r", b"\n").split(b"\n")
            for line in lines:
                if line.strip():
                    self._on_line(line[:LONGEST_LINE].decode("utf-8", "replace").strip())
            if len(kept) > LONGEST_LINE:  # noise without an end of line
                self._on_line(kept[:LONGEST_LINE].decode("utf-8", "replace"))
                kept = b""


def _why(lost: Exception) -> str:
    """Why a port is not there, for a tester."""
    number = getattr(lost, "errno", None)
    if number == errno.ENOENT:
        return "there is no such port now"
    if number == errno.EACCES:
        return "this user may not open the port"
    if isinstance(lost, KessikError):
        return lost.message
    return "nothing answers there"
