"""Lots and stock."""

from fastapi import APIRouter

from kessik.api.dependencies import Store
from kessik.api.schemas.common import Id
from kessik.api.schemas.stock import CorrectionBody, LotBody, LotKindOut, LotOut, PutAwayBody
from kessik.api.views.stock import lot_kind_out, lot_out
from kessik.core.stock import LOT_KINDS, LotCorrection
from kessik.services.clock import now
from kessik.services.stock import lots

router = APIRouter(tags=["stock"])


@router.get("/lots")
def get_lots(store: Store) -> list[LotOut]:
    """Every lot with what is left of it, newest first."""
    return [lot_out(stocked) for stocked in lots.stocked(store)]


@router.get("/lots/kinds")
def get_lot_kinds() -> list[LotKindOut]:
    """The kinds of lots, with what is asked of each."""
    return [lot_kind_out(kind, of) for kind, of in LOT_KINDS.items()]


@router.put("/lots/{lot_id}")
def put_lot(lot_id: Id, body: LotBody, store: Store) -> LotOut:
    """Keep a lot under a client-made id."""
    lots.save_lot(store, body.to_core(id=lot_id))
    return _one(store, lot_id)


@router.put("/lots/{lot_id}/corrections/{correction_id}")
def put_correction(lot_id: Id, correction_id: Id, body: CorrectionBody, store: Store) -> LotOut:
    """Book an amount that no run shows."""
    lots.correct(store, LotCorrection(correction_id, lot_id, body.amount, body.reason, now().utc))
    return _one(store, lot_id)


@router.put("/lots/{lot_id}/archived")
def put_archived(lot_id: Id, body: PutAwayBody, store: Store) -> LotOut:
    """Put a used up lot away, or bring it back."""
    lots.archive(store, lot_id, now().utc if body.archived else None)
    return _one(store, lot_id)


def _one(store: Store, lot_id: str) -> LotOut:
    return lot_out(next(s for s in lots.stocked(store) if s.lot.id == lot_id))
