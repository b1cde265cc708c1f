"""What is noted of blades and grades: energies to break, hours wet without a soak."""

from collections.abc import Iterable
from dataclasses import asdict
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from kessik.core.shelf.field_exposures import FieldExposure
from kessik.core.shelf.toughness import Toughness
from kessik.store.tables import FieldExposureRow, ToughnessRow

_COLUMNS = ("id", "blade_id", "grade", "struck")


def all_toughness(session: Session) -> list[Toughness]:
    """Every energy, in the order they were recorded."""
    rows = session.scalars(select(ToughnessRow).order_by(ToughnessRow.recorded_utc))
    return [_toughness(row) for row in rows]


def find_toughness(session: Session, toughness_id: str) -> Toughness | None:
    row = session.get(ToughnessRow, toughness_id)
    return None if row is None else _toughness(row)


def save_toughness(session: Session, found: Toughness, now_utc: str) -> None:
    """Insert or update an energy; one that is there keeps the time it was recorded at."""
    there = session.get(ToughnessRow, found.id)
    session.merge(
        ToughnessRow(
            id=found.id,
            blade_id=found.blade_id or None,
            grade=found.grade,
            said=_said(found),
            struck=found.struck,
            recorded_utc=there.recorded_utc if there else now_utc,
        )
    )
    session.flush()


def exposures_of(session: Session, blade_ids: Iterable[str]) -> list[FieldExposure]:
    """The exposures of these blades, in the order they were recorded."""
    wanted = select(FieldExposureRow).where(FieldExposureRow.blade_id.in_(list(blade_ids)))
    return [_exposure(r) for r in session.scalars(wanted.order_by(FieldExposureRow.recorded_utc))]


def find_exposure(session: Session, exposure_id: str) -> FieldExposure | None:
    row = session.get(FieldExposureRow, exposure_id)
    return None if row is None else _exposure(row)


def save_exposure(session: Session, found: FieldExposure, now_utc: str) -> None:
    """Insert or update an exposure; one that is there keeps the time it was recorded at."""
    there = session.get(FieldExposureRow, found.id)
    session.merge(
        FieldExposureRow(
            id=found.id,
            blade_id=found.blade_id,
            said=_said(found),
            struck=found.struck,
            recorded_utc=there.recorded_utc if there else now_utc,
        )
    )
    session.flush()


def _said(found: Toughness | FieldExposure) -> dict[str, Any]:
    return {name: value for name, value in asdict(found).items() if name not in _COLUMNS}


def _toughness(row: ToughnessRow) -> Toughness:
    return Toughness(
        id=row.id, blade_id=row.blade_id or "", grade=row.grade, struck=row.struck, **row.said
    )


def _exposure(row: FieldExposureRow) -> FieldExposure:
    return FieldExposure(id=row.id, blade_id=row.blade_id, struck=row.struck, **row.said)
