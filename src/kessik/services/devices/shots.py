"""Shots that an analyser wrote: kept as they were read, until they are used or put aside."""

import json
from uuid import NAMESPACE_URL, uuid5

from kessik.core.devices import WaitingShots
from kessik.core.errors import UnknownError
from kessik.interchange.csv_tables import Table
from kessik.store.database import Database
from kessik.store.queries import shots


def keep_shots(db: Database, instrument_id: str, name: str, table: Table, now_utc: str) -> None:
    """Keep the shots of a result file; the same content under the same name is kept once."""
    rows = tuple(dict(row.values) for row in table.rows)
    key = f"kessik:shots:{instrument_id}:{name}:{json.dumps(rows, sort_keys=True)}"
    found = WaitingShots(str(uuid5(NAMESPACE_URL, key)), instrument_id, name, now_utc, rows)
    with db.write() as session:
        shots.keep(session, found)


def waiting_shots(db: Database) -> list[WaitingShots]:
    """Every file whose shots wait."""
    with db.read() as session:
        return shots.waiting(session)


def put_shots_aside(db: Database, shots_id: str) -> None:
    """Take the shots of a file away; UnknownError where there are none."""
    with db.write() as session:
        if not shots.delete_shots(session, shots_id):
            raise UnknownError("there are no such shots", field="shots")
