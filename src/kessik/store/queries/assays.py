"""Batches and shots."""

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.dialects import sqlite
from sqlalchemy.orm import Session

from kessik.core.composition.batches import Batch
from kessik.core.composition.shots import Shot
from kessik.store.queries.records import record_of, row_values
from kessik.store.tables import BatchBladeRow, BatchRow, ShotRow


def all_batches(session: Session) -> list[Batch]:
    """Every batch, the newest first."""
    rows = session.scalars(select(BatchRow).order_by(BatchRow.created_utc.desc())).all()
    blades: dict[str, list[str]] = defaultdict(list)
    placed = select(BatchBladeRow).order_by(BatchBladeRow.batch_id, BatchBladeRow.place)
    for row in session.scalars(placed):
        blades[row.batch_id].append(row.blade_id)
    return [_batch(row, blades[row.id]) for row in rows]


def find_batch(session: Session, batch_id: str) -> Batch | None:
    row = session.get(BatchRow, batch_id)
    if row is None:
        return None
    placed = select(BatchBladeRow.blade_id).where(BatchBladeRow.batch_id == batch_id)
    return _batch(row, session.scalars(placed.order_by(BatchBladeRow.place)).all())


def save_batch(session: Session, batch: Batch) -> None:
    """Insert or update a batch with its blades in their order."""
    session.merge(BatchRow(**row_values(BatchRow, batch)))
    session.flush()
    there = select(BatchBladeRow.blade_id).where(BatchBladeRow.batch_id == batch.id)
    gone = set(session.scalars(there)) - set(batch.blade_ids)
    session.execute(
        delete(BatchBladeRow)
        .where(BatchBladeRow.batch_id == batch.id)
        .where(BatchBladeRow.blade_id.in_(gone))
    )
    for place, blade_id in enumerate(batch.blade_ids):
        session.merge(BatchBladeRow(batch_id=batch.id, blade_id=blade_id, place=place))
    session.flush()


def delete_batch(session: Session, batch_id: str) -> None:
    """Take a batch away; its shots stay with their blades."""
    session.execute(delete(BatchBladeRow).where(BatchBladeRow.batch_id == batch_id))
    session.execute(delete(BatchRow).where(BatchRow.id == batch_id))


def shots_by_blade(
    session: Session, blade_ids: Iterable[str] | None = None
) -> dict[str, list[Shot]]:
    """The shots of these blades, or of all, in the order they were recorded."""
    wanted = select(ShotRow).order_by(ShotRow.recorded_utc, ShotRow.name, ShotRow.id)
    if blade_ids is not None:
        wanted = wanted.where(ShotRow.blade_id.in_(list(blade_ids)))
    found: dict[str, list[Shot]] = defaultdict(list)
    for row in session.scalars(wanted):
        found[row.blade_id].append(_shot(row))
    return found


def find_shot(session: Session, shot_id: str) -> Shot | None:
    row = session.get(ShotRow, shot_id)
    return _shot(row) if row else None


def save_shots(session: Session, shots: Sequence[Shot], now_utc: str) -> None:
    """Insert or update shots; one that is there keeps the time it was recorded at."""
    save_shot_rows(session, shot_rows(shots, now_utc))


def shot_rows(shots: Sequence[Shot], now_utc: str) -> list[dict[str, Any]]:
    """Shots as the table has them: made before the write lock is taken."""
    return [row_values(ShotRow, shot, made_on=shot.on, recorded_utc=now_utc) for shot in shots]


def save_shot_rows(session: Session, rows: Sequence[Mapping[str, Any]]) -> None:
    """Insert or update many shots in one statement."""
    if not rows:
        return
    statement = sqlite.insert(ShotRow)
    kept = ("id", "recorded_utc")
    changed = {name: statement.excluded[name] for name in rows[0] if name not in kept}
    session.execute(
        statement.on_conflict_do_update(index_elements=["id"], set_=changed), list(rows)
    )
    session.expire_all()


def _batch(row: BatchRow, blade_ids: Sequence[str]) -> Batch:
    return record_of(Batch, row, blade_ids=tuple(blade_ids))


def _shot(row: ShotRow) -> Shot:
    return record_of(Shot, row, on=row.made_on)
