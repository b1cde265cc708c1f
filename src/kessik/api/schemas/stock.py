"""Lots and stock over the wire."""

from typing import Any

from pydantic import Field

from kessik.api.schemas.common import Finite, ShortText, Wire
from kessik.api.schemas.records import Answer, Body
from kessik.core.limits import most
from kessik.core.stock import Detail, KindOfLot, Lot, LotCorrection, LotKind

Details = dict[str, ShortText | Finite | bool | None]


class LotBody(Body[Lot], without="archived_utc"):
    """One delivery of a medium, a check material, an abrasive or a salt."""

    details: Details = Field(default_factory=dict, max_length=most("details"))
    state: Details = Field(default_factory=dict, max_length=most("details"))


class DetailOut(Answer[Detail]):
    """One thing to say of a lot; without a unit it is words, with an empty one a bare number."""


class LotKindOut(Answer[KindOfLot]):
    """A kind of lot: its units, what is said of it, and whether its damp matters."""

    kind: LotKind


class CorrectionBody(Wire):
    """An amount used that no run shows; below zero where more was left than booked."""

    amount: Finite
    reason: ShortText


class CorrectionOut(Answer[LotCorrection], without="id lot_id"):
    """A correction as it is kept."""


class LotOut(Wire):
    """A lot with what is left of it."""

    id: str
    kind: LotKind
    name: str
    unit: str
    bought_amount: float | None
    bought_on: str
    price: float | None
    currency: str
    details: dict[str, Any]
    state: dict[str, Any]
    note: str
    archived: bool
    used: float
    corrected: float
    left: float | None
    is_low: bool
    runs: int
    corrections: list[CorrectionOut]
    about: str = Field(description="what it is and how it was kept, in words")


class PutAwayBody(Wire):
    """Whether a lot is put away."""

    archived: bool
