"""Today: what waits, told by every area of its own."""

from collections.abc import Callable, Mapping
from collections.abc import Set as AbstractSet
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
from kessik.store.queries.testers import Kept, blades_elsewhere, kept_elsewhere

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
    """What has a day first, soonest before later; then the rest, area by area. What other testers
    have at theirs is their own work; only loans are seen by both.
    """
    day = local_day(now)
    with db.read() as session:
        kept = kept_elsewhere(session)
        blades = blades_elsewhere(session, kept["blade"])
    found = [
        due
        for due in [*soak_duties(db, now), *(d for waiting in WAITING for d in waiting(db, day))]
        if due.kind == "loan" or not _is_theirs(due, kept, blades)
    ]
    return sorted(found, key=lambda due: (not due.on, due.on))


def _is_theirs(due: Due, kept: Mapping[Kept, Mapping[str, str]], blades: AbstractSet[str]) -> bool:
    """Whether another tester has what waits."""
    return (
        due.trial_id in kept["trial"]
        or due.soak_id in kept["soak"]
        or due.lot_id in kept["lot"]
        or due.batch_id in kept["assay_batch"]
        or due.blade_id in blades
    )
