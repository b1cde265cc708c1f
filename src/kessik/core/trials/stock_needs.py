"""What a plan takes of the lots it names."""

from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.planning.budget import Budget
from kessik.core.stock import (
    Lot,
    StockedLot,
    StockUse,
    check_booking,
    medium_booking,
)
from kessik.core.trials.trial import Trial


@dataclass(frozen=True)
class StockNeed:
    """What a plan takes of a lot it names: in the lot's unit, with what is left and what it
    costs.
    """

    use: StockUse
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
