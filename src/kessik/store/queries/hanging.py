"""What is noted of blades and grades: energies to break, hours wet without a soak, care."""

from collections.abc import Iterable, Mapping
from dataclasses import asdict
from typing import TypeVar

from sqlalchemy import select
from sqlalchemy.orm import Session

from kessik.core.shelf.care import CareAct
from kessik.core.shelf.field_exposures import FieldExposure
from kessik.core.shelf.toughness import Toughness
from kessik.store.tables import CareRow, FieldExposureRow, ToughnessRow

Noted = TypeVar("Noted", Toughness, FieldExposure, CareAct)
_Row = ToughnessRow | FieldExposureRow | CareRow
_Table = type[ToughnessRow] | type[FieldExposureRow] | type[CareRow]
_ROWS: Mapping[type, _Table] = {
    Toughness: ToughnessRow,
    FieldExposure: FieldExposureRow,
    CareAct: CareRow,
}


def all_noted(session: Session, kind: type[Noted]) -> list[Noted]:
    """Everything of a kind, in the order it was recorded."""
    table = _ROWS[kind]
    return _in_turn(kind, session.scalars(select(table)))


def noted_of(session: Session, kind: type[Noted], blade_ids: Iterable[str]) -> list[Noted]:
    """What is noted of these blades, in the order it was recorded."""
    table = _ROWS[kind]
    return _in_turn(kind, session.scalars(select(table).where(table.blade_id.in_(list(blade_ids)))))


def find_noted(session: Session, kind: type[Noted], noted_id: str) -> Noted | None:
    row = _row(session, _ROWS[kind], noted_id)
    return None if row is None else _noted(kind, row)


def save_noted(session: Session, found: Toughness | FieldExposure | CareAct, now_utc: str) -> None:
    """Insert or update; what is there keeps the time it was recorded at."""
    table = _ROWS[type(found)]
    there = _row(session, table, found.id)
    said = asdict(found)
    own = {name: said.pop(name) for name in _columns(table) if name in said}
    own["blade_id"] = own["blade_id"] or None
    recorded_utc = there.recorded_utc if there else now_utc
    session.merge(table(**own, said=said, recorded_utc=recorded_utc))
    session.flush()


def _row(session: Session, table: _Table, row_id: str) -> _Row | None:
    row = session.get(table, row_id)
    return row if isinstance(row, _Row) else None


def _columns(table: type[_Row]) -> list[str]:
    return table.__table__.columns.keys()


def _in_turn(kind: type[Noted], rows: Iterable[_Row]) -> list[Noted]:
    return [_noted(kind, row) for row in sorted(rows, key=lambda row: (row.recorded_utc, row.id))]


def _noted(kind: type[Noted], row: _Row) -> Noted:
    own = {name: getattr(row, name) for name in _columns(type(row))}
    del own["recorded_utc"]
    said = own.pop("said")
    return kind(**{**own, "blade_id": row.blade_id or "", **said})
