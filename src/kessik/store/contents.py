"""What a copy of the database holds, read without changing it."""

import sqlite3
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path

from kessik.store import health


@dataclass(frozen=True)
class Holds:
    """How much is in a database, and when its last event was told; `wrong` where it is damaged."""

    trials: int = 0
    runs: int = 0
    events: int = 0
    soaks: int = 0
    last_event: str = ""
    wrong: str = ""


def holds(path: Path) -> Holds:
    """What a database file holds."""
    wrong = health.what_is_wrong(path)
    if wrong:
        return Holds(wrong=wrong)
    address = f"{path.resolve().as_uri()}?mode=ro&immutable=1"
    with closing(sqlite3.connect(address, uri=True)) as link:
        return Holds(
            trials=_count(link, "trial"),
            runs=_count(link, "run"),
            events=_count(link, "event"),
            soaks=_count(link, "soak"),
            last_event=str(_one(link, "SELECT max(server_utc) FROM event") or ""),
        )


def _count(link: sqlite3.Connection, table: str) -> int:
    found = _one(link, f"SELECT count(*) FROM {table}")
    return found if isinstance(found, int) else 0


def _one(link: sqlite3.Connection, query: str) -> object:
    """One value; None where an older copy has no such table."""
    try:
        row = link.execute(query).fetchone()
    except sqlite3.OperationalError:
        return None
    return row[0] if row else None
