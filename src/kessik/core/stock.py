"""Lots and stock: what was bought, what runs take of it by themselves, what was corrected."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from kessik.core.planning.budget import Pace, metres_per_count
from kessik.core.protocols.methods import Method
from kessik.core.records import Day, Id, LongText

StockUse = Literal["medium", "check"]
LotKind = Literal["rope", "board", "card", "paper", "test_line", "abrasive", "salt"]


@dataclass(frozen=True)
class Lot:
    """One delivery of a medium, a check material, an abrasive or a salt; amounts in `unit`, price
    for all of it.

    `details` say what it is (fibre, lay, strands, walls, flute), `state` how it was kept and cut
    (dry or damp, humidity, direction, what was avoided).
    """

    id: Id
    kind: LotKind
    name: str
    unit: str
    bought_amount: float | None = None
    bought_on: Day = ""
    price: float | None = None
    currency: str = ""
    details: Mapping[str, Any] = field(default_factory=dict)
    state: Mapping[str, Any] = field(default_factory=dict)
    note: LongText = ""
    archived_utc: str | None = None


@dataclass(frozen=True)
class LotCorrection:
    """An amount used that no run shows; below zero where more was left than booked."""

    id: str
    lot_id: str
    amount: float
    reason: str
    made_utc: str


@dataclass(frozen=True)
class Booking:
    """What a run takes of a lot, in the lot's unit: for each count, each reading, and once for the
    run.
    """

    lot_id: str
    use: StockUse
    per_count: float = 0.0
    per_reading: float = 0.0
    per_run: float = 0.0

    def amount(self, count: float, readings: int) -> float:
        used = count * self.per_count + readings * self.per_reading
        return used + self.per_run if count > 0 else used


@dataclass(frozen=True)
class Detail:
    """One thing to say of a lot; `unit` is None for words, empty for a bare number."""

    name: str
    label: str
    unit: str | None = None


@dataclass(frozen=True)
class KindOfLot:
    """What lots of one kind go by, what is said of them, and whether their damp matters."""

    label: str
    units: tuple[str, ...]
    details: tuple[Detail, ...]
    takes_up_damp: bool = False


LOT_KINDS: Mapping[LotKind, KindOfLot] = {
    "rope": KindOfLot(
        "rope",
        ("m",),
        (
            Detail("fibre", "Fibre"),
            Detail("lay", "Lay"),
            Detail("diameter_mm", "Diameter", "mm"),
            Detail("strands", "Strands", ""),
            Detail("treatment", "Treatment"),
            Detail("grit", "Clean or gritty"),
        ),
        takes_up_damp=True,
    ),
    "board": KindOfLot(
        "corrugated board",
        ("m", "sheets"),
        (
            Detail("walls", "Walls", ""),
            Detail("flute", "Flute"),
            Detail("thickness_mm", "Thickness", "mm"),
            Detail("piece_size", "Piece size"),
            Detail("m_per_sheet", "Cut a sheet", "m"),
        ),
        takes_up_damp=True,
    ),
    "card": KindOfLot(
        "card stack",
        ("packs", "sheets"),
        (Detail("silica_percent", "Silica", "%"),),
        takes_up_damp=True,
    ),
    "paper": KindOfLot(
        "paper",
        ("sheets",),
        (Detail("weight", "Weight", "g/m²"), Detail("tries_per_sheet", "Tries a sheet", "")),
    ),
    "test_line": KindOfLot("test line", ("m",), (Detail("diameter_mm", "Diameter", "mm"),)),
    "abrasive": KindOfLot("abrasive", ("pieces",), (Detail("grit", "Grit, as it is sold"),)),
    "salt": KindOfLot("salt", ("g", "kg"), (Detail("purity", "Purity, as it is sold"),)),
}


MEDIUM_KINDS = ("rope", "board", "card")


CHECK_KINDS = ("test_line", "paper")


LOW_SHARE = 0.15


USUAL_M_PER_SHEET = 10.0


USUAL_TRIES_PER_SHEET = 20.0


@dataclass(frozen=True)
class StockedLot:
    """A lot with what was used of it, in its unit; `left` is None where nobody said how much was
    bought.
    """

    lot: Lot
    used: float
    corrected: float
    left: float | None
    runs: int
    corrections: tuple[LotCorrection, ...]

    @property
    def is_low(self) -> bool:
        return self.left is not None and self.left <= LOW_SHARE * (self.lot.bought_amount or 0.0)

    @property
    def price_each(self) -> float | None:
        """Price of one unit."""
        if self.lot.price is None or not self.lot.bought_amount:
            return None
        return self.lot.price / self.lot.bought_amount


def medium_booking(lot: Lot, method: Method, pace: Pace) -> Booking:
    per_count, per_run = (
        metres_per_count(method, pace),
        pace.offcut_m if method.medium == "rope" else 0.0,
    )
    if lot.unit == "sheets":
        metres = float(lot.details.get("m_per_sheet") or USUAL_M_PER_SHEET)
        per_count, per_run = per_count / metres, per_run / metres
    if lot.kind == "card":
        per_count, per_run = 0.0, 1.0  # a run takes its stack, whatever depth it comes to
    return Booking(lot.id, "medium", per_count, 0.0, per_run)


def check_booking(lot: Lot, pace: Pace) -> Booking:
    each = pace.line_mm / 1000.0
    if lot.kind == "paper":
        each = 1.0 / float(lot.details.get("tries_per_sheet") or USUAL_TRIES_PER_SHEET)
    return Booking(lot.id, "check", 0.0, each)
