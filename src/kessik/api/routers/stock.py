"""Lots and stock."""

from fastapi import APIRouter

from kessik.api.dependencies import Store
from kessik.api.schemas.common import Id
from kessik.api.schemas.stock import CorrectionBody, LotBody, LotKindOut, LotOut, PutAwayBody
from kessik.core.stock import LOT_KINDS, LotCorrection
from kessik.services.clock import now
from kessik.services.stock import lots

router = APIRouter(tags=["stock"])


@router.get("/lots")
def get_lots(store: Store) -> list[LotOut]:
    """Every lot with what is left of it, newest first."""
    return [LotOut.of(stocked) for stocked in lots.stocked(store)]


@router.get("/lots/kinds")
def get_lot_kinds() -> list[LotKindOut]:
    """The kinds of lots, with what is asked of each."""
    return [LotKindOut.of(kind, of) for kind, of in LOT_KINDS.items()]


@router.put("/lots/{lot_id}")
def put_lot(lot_id: Id, body: LotBody, store: Store) -> LotOut:
    """Keep a lot under a client-made id."""
    lots.save_lot(store, body.model_copy(update={"id": lot_id}).to_core())
    return _one(store, lot_id)


@router.put("/lots/{lot_id}/corrections/{correction_id}")
def put_correction(lot_id: Id, correction_id: Id, body: CorrectionBody, store: Store) -> LotOut:
    """Book an amount that no run shows."""
    lots.correct(store, LotCorrection(correction_id, lot_id, body.amount, body.reason, now().utc))
    return _one(store, lot_id)


@router.put("/lots/{lot_id}/archived")
def put_archived(lot_id: Id, body: PutAwayBody, store: Store) -> LotOut:
    """Put a used up lot away, or bring it back."""
    lots.put_away(store, lot_id, now().utc if body.archived else None)
    return _one(store, lot_id)


def _one(store: Store, lot_id: str) -> LotOut:
    return LotOut.of(next(s for s in lots.stocked(store) if s.lot.id == lot_id))
