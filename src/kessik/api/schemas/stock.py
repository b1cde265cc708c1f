"""Lots and stock over the wire."""

from dataclasses import asdict
from typing import Any

from pydantic import Field

from kessik.api.schemas.common import Day, Finite, Id, LongText, ShortText, Wire
from kessik.core.limits import most
from kessik.core.stock import KindOfLot, Lot, LotKind, StockedLot
from kessik.core.words.stock import lot_words

Details = dict[str, ShortText | Finite | bool | None]


class LotBody(Wire):
    """One delivery of a medium, a check material, an abrasive or a salt."""

    id: Id
    kind: LotKind
    name: ShortText
    unit: ShortText
    bought_amount: Finite | None = None
    bought_on: Day = ""
    price: Finite | None = None
    currency: ShortText = ""
    details: Details = Field(default_factory=dict, max_length=most("details"))
    state: Details = Field(default_factory=dict, max_length=most("details"))
    note: LongText = ""

    def to_core(self) -> Lot:
        return Lot(**self.model_dump())


class DetailOut(Wire):
    """One thing to say of a lot; without a unit it is words, with an empty one a bare number."""

    name: str
    label: str
    unit: str | None


class LotKindOut(Wire):
    """A kind of lot: its units, what is said of it, and whether its damp matters."""

    kind: LotKind
    label: str
    units: list[str]
    details: list[DetailOut]
    takes_up_damp: bool

    @classmethod
    def of(cls, kind: LotKind, of: KindOfLot) -> "LotKindOut":
        return cls(kind=kind, **asdict(of))


class CorrectionBody(Wire):
    """An amount used that no run shows; below zero where more was left than booked."""

    amount: Finite
    reason: ShortText


class CorrectionOut(Wire):
    """A correction as it is kept."""

    amount: float
    reason: str
    made_utc: str


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

    @classmethod
    def of(cls, stocked: StockedLot) -> "LotOut":
        lot = stocked.lot
        own = {name: getattr(lot, name) for name in LotBody.model_fields}
        return cls(
            **own,
            archived=lot.archived_utc is not None,
            used=stocked.used,
            corrected=stocked.corrected,
            left=stocked.left,
            is_low=stocked.is_low,
            about=lot_words(lot),
            runs=stocked.runs,
            corrections=[
                CorrectionOut(amount=c.amount, reason=c.reason, made_utc=c.made_utc)
                for c in stocked.corrections
            ],
        )


class PutAwayBody(Wire):
    """Whether a lot is put away."""

    archived: bool
