"""Pairing: letting a device of the local network in, by a code that is shown on this machine and
used once.
"""

import hmac
import secrets
import time
from collections import OrderedDict
from collections.abc import Sequence
from dataclasses import dataclass
from hashlib import sha256
from threading import Lock
from uuid import uuid4

from kessik.core.devices import Grant, PairedDevice
from kessik.core.errors import (
    NotAllowedNowError,
    OutOfRangeError,
    TooOftenError,
    UnknownError,
)
from kessik.services.clock import now
from kessik.services.live import DEVICES, Live
from kessik.store.database import Database
from kessik.store.queries import instruments as queries

CODE_LASTS_S = 300.0
FREE_TRIES = 3
LONGEST_WAIT_S = 60.0
_ADDRESSES_KEPT = 1000
_SIGNS = "23456789ABCDEFGHJKMNPQRSTUVWXYZ"  # none that are taken for one another
_LENGTH = 8


@dataclass(frozen=True)
class _Code:
    code: str
    until_s: float


@dataclass
class _Tries:
    """Wrong codes of one address, and until when it has to wait."""

    wrong: int = 0
    until_s: float = 0.0


class _Waiting:
    """Who guesses waits ever longer, address by address; nobody's guesses shut another one out."""

    def __init__(self) -> None:
        self._tries: OrderedDict[str, _Tries] = OrderedDict()

    def check(self, address: str, at_s: float) -> None:
        known = self._tries.get(address)
        if known is not None and at_s < known.until_s:
            wait = max(round(known.until_s - at_s), 1)
            raise TooOftenError(
                f"too many wrong codes from here; try again in {wait} s", field="code", wait_s=wait
            )

    def guessed_wrong(self, address: str, at_s: float) -> None:
        known = self._tries.setdefault(address, _Tries())
        self._tries.move_to_end(address)
        known.wrong += 1
        if known.wrong >= FREE_TRIES:
            known.until_s = at_s + min(2.0 ** (known.wrong - FREE_TRIES + 1), LONGEST_WAIT_S)
        while len(self._tries) > _ADDRESSES_KEPT:
            self._tries.popitem(last=False)

    def clear(self, address: str) -> None:
        self._tries.pop(address, None)


class Pairing:
    """Who is let in from the network: `address` is where this machine is found, None where it
    serves only itself.
    """

    def __init__(self, db: Database, live: Live, address: str | None) -> None:
        self.address = address
        self._db, self._live = db, live
        self._code: _Code | None = None
        self._waiting = _Waiting()
        self._lock = Lock()
        self._known: dict[str, PairedDevice] = {}
        self._read()

    def _read(self) -> None:
        with self._db.read() as session:
            found = queries.paired_devices(session)
        self._known = {device.session_hash: device for device in found}

    def new_code(self) -> str:
        """A fresh code; the one before it no longer works."""
        if self.address is None:
            raise NotAllowedNowError(
                "Kessik serves this machine only; start it with --lan to pair a device"
            )
        code = "".join(secrets.choice(_SIGNS) for _ in range(_LENGTH))
        with self._lock:
            self._code = _Code(code, time.monotonic() + CODE_LASTS_S)
        return code

    def pair(self, code: str, name: str, address: str) -> str:
        """Let a device in that names the code; returns its session, of which only a hash is kept.

        The code works once and for five minutes. A wrong one uses nothing up: whoever guesses
        waits, ever longer.
        """
        said = "".join(code.split()).replace("-", "").upper()
        at_s = time.monotonic()
        with self._lock:
            self._waiting.check(address, at_s)
            known = self._code
            if known is None or at_s > known.until_s:
                raise OutOfRangeError("no pairing code is active; show a new one", field="code")
            if not hmac.compare_digest(known.code.encode(), said.encode()):
                self._waiting.guessed_wrong(address, at_s)
                raise OutOfRangeError("this is not the code shown", field="code")
            self._code = None
            self._waiting.clear(address)
        token = secrets.token_urlsafe(32)
        device = PairedDevice(
            str(uuid4()), name.strip()[:60] or "a device", _hash(token), now().utc
        )
        with self._db.write() as session:
            queries.add_paired_device(session, device)
        self._read()
        return token

    def knows(self, token: str) -> bool:
        """Whether a session is of a device that was let in."""
        return self.device(token) is not None

    def device(self, token: str) -> PairedDevice | None:
        """The device with a session; None where it was not let in."""
        return self._known.get(_hash(token))

    def grant(self, device_id: str, grants: Sequence[Grant]) -> None:
        """Say what a device may do besides counting, noting and reading."""
        with self._db.write() as session:
            if not queries.grant(session, device_id, grants):
                raise UnknownError("there is no such device", field="device")
        self._read()

    def devices(self) -> list[PairedDevice]:
        with self._db.read() as session:
            return queries.paired_devices(session)

    def delete_device(self, device_id: str) -> None:
        """Shut a device out again, at once: what it listens to ends, too."""
        with self._db.write() as session:
            queries.delete_paired_device(session, device_id)
        self._read()
        self._live.tell(DEVICES, device_id)


def _hash(token: str) -> str:
    return sha256(token.encode("utf-8", "replace")).hexdigest()
