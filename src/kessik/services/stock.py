"""Lots and stock: what was bought, what runs took of it by themselves, what was corrected, and what
is left.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from kessik.core.errors import NotAllowedNowError, OutOfRangeError, UnknownError
from kessik.core.limits import check_limit, most
from kessik.core.planning.budget import Budget, Pace, metres_per_count
from kessik.core.protocols.methods import Method
from kessik.services import run_logs
from kessik.services.methods import method_of_run
from kessik.services.summaries import used_by_runs
from kessik.store.database import Database, Session
from kessik.store.queries import bench_log, stock
from kessik.store.records import Booking, Lot, LotCorrection, Run, Trial

UNITS = {
    "rope": ("m",), "board": ("m", "sheets"), "card": ("packs", "sheets"), "paper": ("sheets",),
    "test_line": ("m",),
    "abrasive": ("pieces",), "salt": ("g", "kg"),
}  # fmt: skip  # a table is read by its rows
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


@dataclass(frozen=True)
class StockNeed:
    """What a plan takes of a lot it names: in the lot's unit, with what is left and what it
    costs.
    """

    use: Literal["medium", "check"]
    lot: Lot
    needed: float
    left: float | None
    price: float | None


def needs_of(lots: Sequence[StockedLot], trial: Trial, cost: Budget) -> list[StockNeed]:
    """What the runs still ahead take of the lots the plan names."""
    by_id = {stocked.lot.id: stocked for stocked in lots}
    found = []
    plan = trial.plan
    for use, lot_id in (("medium", plan.medium_lot_id), ("check", plan.check_lot_id)):
        known = by_id.get(lot_id or "")
        if known is None:
            continue
        lot = known.lot
        booking = (
            medium_booking(lot, trial.method, plan.pace)
            if use == "medium"
            else check_booking(lot, plan.pace)
        )
        needed = (
            cost.cuts * booking.per_count
            + cost.readings * booking.per_reading
            + cost.runs * booking.per_run
        )
        each = known.price_each
        found.append(
            StockNeed(booking.use, lot, needed, known.left, None if each is None else each * needed)
        )
    return found


def stocked(db: Database) -> list[StockedLot]:
    """Every lot with what is left of it."""
    with db.read() as session:
        lots = stock.all_lots(session)
        corrections = stock.corrections(session)
        used = _used(db, session) if lots else {}
    found = []
    for lot in lots:
        own = tuple(c for c in corrections if c.lot_id == lot.id)
        by_runs, runs = used.get(lot.id, (0.0, 0))
        corrected = sum(c.amount for c in own)
        left = None if lot.bought_amount is None else lot.bought_amount - by_runs - corrected
        found.append(StockedLot(lot, by_runs, corrected, left, runs, own))
    return found


def _used(db: Database, session: Session) -> dict[str, tuple[float, int]]:
    """What runs took of each lot, and how many runs did; practice takes nothing."""
    found: dict[str, tuple[float, int]] = {}
    known = used_by_runs(session)
    for run in bench_log.all_runs(session):
        if run.practice or not run.bookings:
            continue
        if run.id in known:
            count, checks = known[run.id]
        else:
            log = run_logs.log_of(db, session, run.id)
            state = run_logs.state_of(db, log, method_of_run(session, run))
            count, checks = state.count, len(state.checks)
        for booking in run.bookings:
            amount, runs = found.get(booking.lot_id, (0.0, 0))
            found[booking.lot_id] = (amount + booking.amount(count, checks), runs + 1)
    return found


def save_lot(db: Database, lot: Lot) -> Lot:
    """Keep a lot; what is impossible is refused at its field."""
    if not lot.name.strip():
        raise OutOfRangeError("give the lot a name", field="name")
    if lot.unit not in UNITS[lot.kind]:
        raise OutOfRangeError(
            f"{lot.kind.replace('_', ' ')} goes by {' or '.join(UNITS[lot.kind])}",
            field="unit",
            value=lot.unit,
        )
    for field in ("bought_amount", "price"):
        value = getattr(lot, field)
        if value is not None:
            check_limit("stock", value, field)
    with db.write() as session:
        stock.save_lot(session, replace(lot, name=lot.name.strip()))
    return lot


def correct(db: Database, correction: LotCorrection) -> None:
    """Book an amount that no run shows; the same id twice is one correction."""
    if not correction.reason.strip():
        raise OutOfRangeError("say why: it stays in the record", field="reason")
    if not 0 < abs(correction.amount) <= most("stock"):
        raise OutOfRangeError(
            "give the amount that was used besides, or less than booked below zero", field="amount"
        )
    with db.write() as session:
        if stock.find_lot(session, correction.lot_id) is None:
            raise UnknownError("there is no such lot", field="lot")
        if stock.find_correction(session, correction.id) is None:
            stock.add_correction(session, correction)


def put_away(db: Database, lot_id: str, archived_utc: str | None) -> None:
    """Put a used up lot away, or bring it back."""
    with db.write() as session:
        lot = stock.find_lot(session, lot_id)
        if lot is None:
            raise UnknownError("there is no such lot", field="lot")
        stock.save_lot(session, replace(lot, archived_utc=archived_utc))


def check_lots(session: Session, trial: Trial) -> None:
    """Refuse lots that are not there, or of the wrong kind."""
    for field, lot_id, kinds in (
        ("medium_lot_id", trial.plan.medium_lot_id, MEDIUM_KINDS),
        ("check_lot_id", trial.plan.check_lot_id, CHECK_KINDS),
    ):
        if lot_id is None:
            continue
        lot = stock.find_lot(session, lot_id)
        if lot is None:
            raise UnknownError("there is no such lot", field=field)
        if lot.kind not in kinds:
            wanted = " or ".join(kind.replace("_", " ") for kind in kinds)
            raise OutOfRangeError(
                f"{lot.name} is {lot.kind.replace('_', ' ')}; {wanted} goes here", field=field
            )


def bookings_for(session: Session, trial: Trial, method: Method) -> tuple[Booking, ...]:
    """What a run of the trial will take of the lots its plan names."""
    found = []
    medium = stock.find_lot(session, trial.plan.medium_lot_id) if trial.plan.medium_lot_id else None
    if medium is not None:
        found.append(medium_booking(medium, method, trial.plan.pace))
    material = stock.find_lot(session, trial.plan.check_lot_id) if trial.plan.check_lot_id else None
    if material is not None:
        found.append(check_booking(material, trial.plan.pace))
    return tuple(found)


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


def lot_change(session: Session, run: Run, earlier: Sequence[Run], insisted: bool) -> str:
    """Refuse another lot inside a block, or mark it where it is insisted on; empty where there is
    none.
    """
    mine = {booking.use: booking.lot_id for booking in run.bookings}
    for other in earlier:
        if other.block != run.block:
            continue
        for booking in other.bookings:
            lot_id = mine.get(booking.use)
            if lot_id is None or lot_id == booking.lot_id:
                continue
            before, after = (stock.find_lot(session, which) for which in (booking.lot_id, lot_id))
            assert before is not None
            assert after is not None
            said = f"block {run.block} was begun on {before.name}, and this run is on {after.name}"
            if not insisted:
                raise NotAllowedNowError(
                    f"{said}; finish the block on one lot, or insist, and the run is marked",
                    field=f"{booking.use}_lot_id",
                )
            return said
    return ""
