"""The tester's own grades."""

from collections.abc import Mapping, Sequence
from typing import Any

from sqlalchemy import delete, select
from sqlalchemy.dialects import sqlite
from sqlalchemy.orm import Session

from kessik.core.composition.grades import Grade
from kessik.store.queries.records import record_of, row_values
from kessik.store.tables import GradeRow


def all_grades(session: Session) -> list[Grade]:
    """Every grade that the tester said something of."""
    return [
        record_of(Grade, row) for row in session.scalars(select(GradeRow).order_by(GradeRow.name))
    ]


def find_grade(session: Session, name: str) -> Grade | None:
    row = session.get(GradeRow, name)
    return record_of(Grade, row) if row else None


def save_grade(session: Session, grade: Grade) -> None:
    save_rows(session, rows_of([grade]))


def rows_of(found: Sequence[Grade]) -> list[dict[str, Any]]:
    """Grades as the table has them: made before the write lock is taken."""
    return [row_values(GradeRow, grade) for grade in found]


def save_rows(session: Session, rows: Sequence[Mapping[str, Any]]) -> None:
    """Insert or update many grades in one statement."""
    if not rows:
        return
    statement = sqlite.insert(GradeRow)
    changed = {name: statement.excluded[name] for name in rows[0] if name != "name"}
    session.execute(
        statement.on_conflict_do_update(index_elements=["name"], set_=changed), list(rows)
    )
    session.expire_all()


def delete_grade(session: Session, name: str) -> bool:
    """Take away what the tester said of a grade; whether there was anything."""
    was_there = session.get(GradeRow, name) is not None
    session.execute(delete(GradeRow).where(GradeRow.name == name))
    return was_there
