"""Shots that wait."""

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from kessik.core.devices import WaitingShots
from kessik.store.tables import ShotFileRow


def keep(session: Session, shots: WaitingShots) -> None:
    """Keep the shots of a file; the same file twice is one."""
    if session.get(ShotFileRow, shots.id) is None:
        session.add(
            ShotFileRow(
                id=shots.id,
                instrument_id=shots.instrument_id,
                name=shots.name,
                read_utc=shots.read_utc,
                rows=[dict(row) for row in shots.rows],
            )
        )
        session.flush()


def waiting(session: Session) -> list[WaitingShots]:
    """Every file whose shots wait, oldest first."""
    rows = session.scalars(select(ShotFileRow).order_by(ShotFileRow.read_utc))
    return [
        WaitingShots(row.id, row.instrument_id, row.name, row.read_utc, tuple(row.rows))
        for row in rows
    ]


def delete_shots(session: Session, shots_id: str) -> bool:
    """Take a file's shots away; whether they were there."""
    found = select(ShotFileRow.id).where(ShotFileRow.id == shots_id)
    was_there = session.scalar(found) is not None
    session.execute(delete(ShotFileRow).where(ShotFileRow.id == shots_id))
    return was_there
