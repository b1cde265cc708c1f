"""Pairing: letting a device of the local network in, by a code that is shown on this machine and used once."""

import hmac
import secrets
import time
from dataclasses import dataclass
from hashlib import sha256
from threading import Lock
from uuid import uuid4

from kessik.core.errors import NotAllowedNowError, OutOfRangeError
from kessik.services.clock import now
from kessik.store.database import Database
from kessik.store.queries import instruments as queries
from kessik.store.records import PairedDevice

CODE_LASTS_S = 300.0
MOST_TRIES = 5
_SIGNS = "23456789ABCDEFGHJKMNPQRSTUVWXYZ"  # none that are taken for one another
_LENGTH = 8


@dataclass
class _Code:
    code: str
    until_s: float
    tries_left: int = MOST_TRIES


class Pairing:
    """Who is let in from the network: `address` is where this machine is found, None where it serves only itself."""

    def __init__(self, db: Database, address: str | None) -> None:
        self.address = address
        self._db = db
        self._code: _Code | None = None
        self._lock = Lock()
        with db.read() as session:
            self._hashes = {device.session_hash for device in queries.paired_devices(session)}

    def new_code(self) -> str:
        """A fresh code; the one before it no longer works."""
        if self.address is None:
            raise NotAllowedNowError("Kessik serves this machine only; start it with --lan to pair a device")
        code = "".join(secrets.choice(_SIGNS) for _ in range(_LENGTH))
        with self._lock:
            self._code = _Code(code, time.monotonic() + CODE_LASTS_S)
        return code

    def pair(self, code: str, name: str) -> str:
        """Let a device in that names the code; returns its session, of which only a hash is kept.

        The code works once, for five minutes and five tries.
        """
        said = "".join(code.split()).replace("-", "").upper()
        with self._lock:
            known = self._code
            if known is None or time.monotonic() > known.until_s:
                raise OutOfRangeError("there is no code to pair with now; have a new one shown", field="code")
            if not hmac.compare_digest(known.code.encode(), said.encode()):
                known.tries_left -= 1
                if known.tries_left <= 0:
                    self._code = None
                raise OutOfRangeError("that is not the code shown", field="code")
            self._code = None
        token = secrets.token_urlsafe(32)
        device = PairedDevice(str(uuid4()), name.strip()[:60] or "a device", _hash(token), now().utc)
        with self._db.write() as session:
            queries.add_paired_device(session, device)
        self._hashes.add(device.session_hash)
        return token

    def knows(self, token: str) -> bool:
        """Whether a session is of a device that was let in."""
        return _hash(token) in self._hashes

    def devices(self) -> list[PairedDevice]:
        with self._db.read() as session:
            return queries.paired_devices(session)

    def forget(self, device_id: str) -> None:
        """Shut a device out again, at once."""
        with self._db.write() as session:
            queries.forget_paired_device(session, device_id)
            self._hashes = {device.session_hash for device in queries.paired_devices(session)}


def _hash(token: str) -> str:
    return sha256(token.encode()).hexdigest()
