"""Uses that blades are chosen for, as they are kept."""

from typing import Any

from pydantic import TypeAdapter, ValidationError
from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from kessik.core.choice.uses import Use
from kessik.store.tables import UseRow

_USE: TypeAdapter[Use] = TypeAdapter(Use)


def all_uses(session: Session) -> list[Use]:
    """Every use by name; one that cannot be read is passed over."""
    rows = session.scalars(select(UseRow).order_by(UseRow.name, UseRow.id))
    return [use for row in rows if (use := _use(row)) is not None]


def save_use(session: Session, use: Use, now_utc: str) -> None:
    """Insert or update a use."""
    body: dict[str, Any] = _USE.dump_python(use, mode="json")
    session.merge(UseRow(id=use.id, name=use.name, body=body, changed_utc=now_utc))
    session.flush()


def delete_use(session: Session, use_id: str) -> bool:
    """Delete a use; whether it was there."""
    there = session.get(UseRow, use_id) is not None
    session.execute(delete(UseRow).where(UseRow.id == use_id))
    return there


def _use(row: UseRow) -> Use | None:
    try:
        return _USE.validate_python({**row.body, "id": row.id, "name": row.name})
    except ValidationError:
        return None
