"""Lots, corrections of what was used, and the runs that took of them."""

from sqlalchemy import select
from sqlalchemy.orm import Session

from kessik.core.stock import Lot, LotCorrection
from kessik.store.queries.records import record_of, row_values
from kessik.store.tables import LotCorrectionRow, LotRow


def all_lots(session: Session) -> list[Lot]:
    """Every lot, newest first, the put away ones too."""
    return [
        record_of(Lot, row)
        for row in session.scalars(select(LotRow).order_by(LotRow.bought_on.desc(), LotRow.name))
    ]


def find_lot(session: Session, lot_id: str) -> Lot | None:
    row = session.get(LotRow, lot_id)
    return record_of(Lot, row) if row else None


def save_lot(session: Session, lot: Lot) -> None:
    """Insert or update."""
    session.merge(LotRow(**row_values(LotRow, lot)))
    session.flush()


def corrections(session: Session) -> list[LotCorrection]:
    """Every correction, in the order they were made."""
    rows = session.scalars(
        select(LotCorrectionRow).order_by(LotCorrectionRow.made_utc, LotCorrectionRow.id)
    )
    return [record_of(LotCorrection, r) for r in rows]


def find_correction(session: Session, correction_id: str) -> LotCorrection | None:
    r = session.get(LotCorrectionRow, correction_id)
    return record_of(LotCorrection, r) if r else None


def add_correction(session: Session, correction: LotCorrection) -> None:
    session.add(LotCorrectionRow(**row_values(LotCorrectionRow, correction)))
    session.flush()
