"""Lots, corrections of what was used, and the runs that took of them."""

from sqlalchemy import select
from sqlalchemy.orm import Session

from kessik.core.stock import Lot, LotCorrection
from kessik.store.tables import LotCorrectionRow, LotRow


def all_lots(session: Session) -> list[Lot]:
    """Every lot, newest first, the put away ones too."""
    return [
        _lot(row)
        for row in session.scalars(select(LotRow).order_by(LotRow.bought_on.desc(), LotRow.name))
    ]


def find_lot(session: Session, lot_id: str) -> Lot | None:
    row = session.get(LotRow, lot_id)
    return _lot(row) if row else None


def save_lot(session: Session, lot: Lot) -> None:
    """Insert or update."""
    session.merge(
        LotRow(
            id=lot.id,
            kind=lot.kind,
            name=lot.name,
            unit=lot.unit,
            bought_amount=lot.bought_amount,
            bought_on=lot.bought_on,
            price=lot.price,
            currency=lot.currency,
            details=dict(lot.details),
            state=dict(lot.state),
            note=lot.note,
            archived_utc=lot.archived_utc,
        )
    )
    session.flush()


def corrections(session: Session) -> list[LotCorrection]:
    """Every correction, in the order they were made."""
    rows = session.scalars(
        select(LotCorrectionRow).order_by(LotCorrectionRow.made_utc, LotCorrectionRow.id)
    )
    return [LotCorrection(r.id, r.lot_id, r.amount, r.reason, r.made_utc) for r in rows]


def find_correction(session: Session, correction_id: str) -> LotCorrection | None:
    r = session.get(LotCorrectionRow, correction_id)
    return LotCorrection(r.id, r.lot_id, r.amount, r.reason, r.made_utc) if r else None


def add_correction(session: Session, correction: LotCorrection) -> None:
    session.add(
        LotCorrectionRow(
            id=correction.id,
            lot_id=correction.lot_id,
            amount=correction.amount,
            reason=correction.reason,
            made_utc=correction.made_utc,
        )
    )
    session.flush()


def _lot(row: LotRow) -> Lot:
    return Lot(
        id=row.id,
        kind=row.kind,  # type: ignore[arg-type]  # checked on entry
        name=row.name,
        unit=row.unit,
        bought_amount=row.bought_amount,
        bought_on=row.bought_on,
        price=row.price,
        currency=row.currency,
        details=row.details,
        state=row.state,
        note=row.note,
        archived_utc=row.archived_utc,
    )
