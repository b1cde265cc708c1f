"""Batches kept, changed and taken away."""

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from kessik.core.composition.batches import Batch, check_batch
from kessik.core.errors import UnknownError
from kessik.core.moments import Moment
from kessik.store.database import Database, Session
from kessik.store.queries import assays, shelf


def get_batch(session: Session, batch_id: str) -> Batch:
    """The batch, or UnknownError."""
    found = assays.find_batch(session, batch_id)
    if found is None:
        raise UnknownError("there is no such batch", field="batch")
    return found


def make_batch(db: Database, batch: Batch, now: Moment) -> Batch:
    """Keep a new batch; the same id twice is one."""
    check_batch(batch)
    with db.write() as session:
        there = assays.find_batch(session, batch.id)
        if there is not None:
            return there
        return _saved(session, replace(batch, created_utc=now.utc))


def change_batch(db: Database, batch_id: str, changes: Mapping[str, Any]) -> Batch:
    """Change what is said of a batch, or which blades are in it."""
    with db.write() as session:
        changed = replace(get_batch(session, batch_id), **changes)
        check_batch(changed)
        return _saved(session, changed)


def delete_batch(db: Database, batch_id: str) -> None:
    """Take a batch away; the blades and their shots stay."""
    with db.write() as session:
        get_batch(session, batch_id)
        assays.delete_batch(session, batch_id)


def with_blades(session: Session, batch: Batch, blade_ids: list[str]) -> Batch:
    """The batch with these blades in it, too."""
    every = tuple(dict.fromkeys([*batch.blade_ids, *blade_ids]))
    return _saved(session, replace(batch, blade_ids=every))


def _saved(session: Session, batch: Batch) -> Batch:
    there = shelf.known_ids(session, batch.blade_ids)
    if any(blade_id not in there for blade_id in batch.blade_ids):
        raise UnknownError("there is no such blade", field="blade_ids")
    tidy = replace(batch, name=batch.name.strip())
    assays.save_batch(session, tidy)
    return tidy
