"""Lots and stock over the wire."""

from kessik.api.schemas.stock import (
    LotBody,
    LotKindOut,
    LotOut,
)
from kessik.core.stock import KindOfLot, LotKind, StockedLot
from kessik.core.words.stock import lot_words


def lot_kind_out(kind: LotKind, of: KindOfLot) -> LotKindOut:
    """A kind of lot, and what is said of it."""
    return LotKindOut.showing(of, kind=kind)


def lot_out(stocked: StockedLot) -> LotOut:
    """A lot with what is left of it."""
    lot = stocked.lot
    return LotOut.showing(
        stocked,
        **dict(LotBody.showing(lot)),
        archived=lot.archived_utc is not None,
        about=lot_words(lot),
    )
