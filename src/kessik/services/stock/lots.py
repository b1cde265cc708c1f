"""Lots and stock: what was bought, what runs took of it by themselves, what was corrected, and what
is left.
"""

from collections.abc import Sequence
from dataclasses import replace

from kessik.core.errors import NotAllowedNowError, OutOfRangeError, UnknownError
from kessik.core.limits import check_limit, most
from kessik.core.protocols.methods import Method
from kessik.core.runs import Run
from kessik.core.stock import (
    CHECK_KINDS,
    LOT_KINDS,
    MEDIUM_KINDS,
    Booking,
    Lot,
    LotCorrection,
    StockedLot,
    check_booking,
    medium_booking,
)
from kessik.core.trials.trial import Trial
from kessik.services.reading.run_logs import RunLogs
from kessik.services.reading.summaries import used_by_runs
from kessik.services.reading.trials import method_of_run
from kessik.store.database import Database, Session
from kessik.store.queries import bench_log, stock


def stocked(db: Database, logs: RunLogs | None = None) -> list[StockedLot]:
    """Every lot with what is left of it."""
    with db.read() as session:
        lots = stock.all_lots(session)
        corrections = stock.corrections(session)
        used = _used(logs or RunLogs(), session) if lots else {}
    found = []
    for lot in lots:
        own = tuple(c for c in corrections if c.lot_id == lot.id)
        by_runs, runs = used.get(lot.id, (0.0, 0))
        corrected = sum(c.amount for c in own)
        left = None if lot.bought_amount is None else lot.bought_amount - by_runs - corrected
        found.append(StockedLot(lot, by_runs, corrected, left, runs, own))
    return found


def _used(logs: RunLogs, session: Session) -> dict[str, tuple[float, int]]:
    """What runs took of each lot, and how many runs did; practice takes nothing."""
    found: dict[str, tuple[float, int]] = {}
    known = used_by_runs(session)
    for run in bench_log.all_runs(session):
        if run.practice or not run.bookings:
            continue
        if run.id in known:
            count, checks = known[run.id]
        else:
            log = logs.log(session, run.id)
            state = logs.state(log, method_of_run(session, run))
            count, checks = state.count, len(state.checks)
        for booking in run.bookings:
            amount, runs = found.get(booking.lot_id, (0.0, 0))
            found[booking.lot_id] = (amount + booking.amount(count, checks), runs + 1)
    return found


def save_lot(db: Database, lot: Lot) -> Lot:
    """Keep a lot; what is impossible is refused at its field."""
    if not lot.name.strip():
        raise OutOfRangeError("give the lot a name", field="name")
    if lot.unit not in LOT_KINDS[lot.kind].units:
        raise OutOfRangeError(
            f"{lot.kind.replace('_', ' ')} is counted in {' or '.join(LOT_KINDS[lot.kind].units)}",
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
            "give the other amount used; negative if more is left than shown", field="amount"
        )
    with db.write() as session:
        if stock.find_lot(session, correction.lot_id) is None:
            raise UnknownError("there is no such lot", field="lot")
        if stock.find_correction(session, correction.id) is None:
            stock.add_correction(session, correction)


def archive(db: Database, lot_id: str, archived_utc: str | None) -> None:
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
                f"{lot.name} is {lot.kind.replace('_', ' ')}; choose {wanted} here", field=field
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
                    f"{said}; finish the block on one lot, or use the other lot and have the"
                    " run marked",
                    field=f"{booking.use}_lot_id",
                )
            return said
    return ""
