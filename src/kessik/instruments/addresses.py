"""Where an instrument is plugged in: a serial device by its path, or a TCP bridge by host and port;
nothing else.
"""

import os
import re
import stat
from dataclasses import dataclass

from kessik.core.errors import OutOfRangeError

_SERIAL = re.compile(
    r"/dev/(tty[A-Za-z]{1,8}\d{1,3}|rfcomm\d{1,3}|pts/\d{1,5}|serial/by-(id|path)/[\w.:@+-]{1,120}|(cu|tty)\.[\w.-]{1,80})"
    r"|COM\d{1,3}"
)
_DEVICE = re.compile(r"/dev/[\w:@+-][\w.:@+/-]{0,120}")
_BRIDGE = re.compile(
    r"(?:socket://)?(?P<host>[A-Za-z0-9](?:[A-Za-z0-9.-]{0,100}[A-Za-z0-9])?):(?P<port>\d{1,5})"
)
_WHERE = "a serial port like /dev/ttyUSB0, or a bridge like 192.168.1.20:4001"


@dataclass(frozen=True)
class SerialDevice:
    """A serial port of this machine, by its path."""

    path: str


@dataclass(frozen=True)
class TcpBridge:
    """A serial line behind a network bridge."""

    host: str
    port: int


Address = SerialDevice | TcpBridge


def read_address(text: str) -> Address:
    """The device or bridge that an address names; OutOfRangeError says what would be right."""
    bridge = _BRIDGE.fullmatch(text)
    if bridge is not None and 0 < int(bridge["port"]) < 65536:
        return TcpBridge(bridge["host"], int(bridge["port"]))
    if not _is_serial(text):
        raise OutOfRangeError(f"this is neither {_WHERE.replace(', or', ' nor')}", field="address")
    return SerialDevice(text)


def _is_serial(path: str) -> bool:
    """Whether a path names a serial port, links followed; a device that is unplugged may not be
    there now.
    """
    if path.startswith("COM"):
        return _SERIAL.fullmatch(path) is not None
    if _DEVICE.fullmatch(path) is None or ".." in path:
        return False
    real = os.path.realpath(path)
    try:
        return stat.S_ISCHR(os.stat(real).st_mode) and _SERIAL.fullmatch(real) is not None  # noqa: PTH116 - beside realpath
    except FileNotFoundError:
        return real.startswith("/dev/")
    except OSError:
        return False
