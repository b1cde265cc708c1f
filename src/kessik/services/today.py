"""Today: what waits, told by every area of its own."""

from collections.abc import Callable
from datetime import date

from kessik.core.due import Due
from kessik.core.moments import Moment
from kessik.services.assays.waiting import batches_away, claims_excluded
from kessik.services.clock import local_day
from kessik.services.devices.waiting import shots_to_use
from kessik.services.shelf.waiting import care, hardness_to_measure, loans
from kessik.services.soaks.waiting import soak_duties
from kessik.services.stock.waiting import low_lots
from kessik.services.trials.waiting import planned_work
from kessik.services.upkeep.upkeep import copy_to_make
from kessik.store.database import Database

WAITING: tuple[Callable[[Database, date], list[Due]], ...] = (
    loans,
    care,
    planned_work,
    low_lots,
    shots_to_use,
    batches_away,
    claims_excluded,
    hardness_to_measure,
    copy_to_make,
)
"""By the day. A new area adds its own here; soaks count hours, and stand by themselves."""


def what_waits(db: Database, now: Moment) -> list[Due]:
    """What has a day first, soonest before later; then the rest, area by area."""
    day = local_day(now)
    found = soak_duties(db, now) + [due for waiting in WAITING for due in waiting(db, day)]
    return sorted(found, key=lambda due: (not due.on, due.on))
