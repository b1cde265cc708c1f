"""Today: the next thing to do in a trial, and what waits beside."""

from dataclasses import dataclass
from datetime import date
from typing import Literal

from kessik.core.facts import MEASURED
from kessik.core.shelf.blades import Blade
from kessik.services.stock.lots import stocked
from kessik.services.trials.summaries import summaries
from kessik.store.database import Database
from kessik.store.queries import shelf

DAYS_AHEAD = 7


DueKind = Literal["loan", "hardness", "work", "stock"]


@dataclass(frozen=True)
class Due:
    """Something that waits, in words; `on` is the day it is due, empty where there is none."""

    kind: DueKind
    says: str
    blade_id: str = ""
    trial_id: str = ""
    mark: int | None = None
    on: str = ""
    overdue: bool = False


def what_waits(db: Database, day: date) -> list[Due]:
    """Planned work and loans to return, soonest first; lots running low; blades whose hardness is
    not measured.
    """
    with db.read() as session:
        blades = [blade for blade in shelf.all_blades(session) if blade.archived_utc is None]
        in_trials = shelf.trials_of_blades(session)
    loans = [_loan(blade, day) for blade in blades if blade.loan_due and not blade.loan_returned]
    soft = []
    for blade in blades:
        known = blade.used("hardness_hrc")
        if in_trials.get(blade.id) and (known is None or known.standing not in MEASURED):
            only = f"only {known.standing}" if known else "not known"
            soft.append(
                Due("hardness", f"Hardness of {blade.code} is {only}", blade.id, mark=blade.mark)
            )
    dated = sorted([*loans, *_work(db, day)], key=lambda due: due.on)
    return [*dated, *_low_lots(db), *soft]


def _work(db: Database, day: date) -> list[Due]:
    """The work of trials with a plan that is dated: what is late or due within the days ahead."""
    found = []
    for trial_id, summary in summaries(db).items():
        for on, what in summary.work:
            days = (date.fromisoformat(on) - day).days
            if days <= DAYS_AHEAD:
                says = f"{what}, {_when(days)}"
                found.append(Due("work", says, trial_id=trial_id, on=on, overdue=days < 0))
    return found


def _low_lots(db: Database) -> list[Due]:
    found = []
    for low in stocked(db):
        if low.is_low and low.lot.archived_utc is None:
            assert low.left is not None
            found.append(
                Due(
                    "stock",
                    f"{low.lot.name} runs low: {max(low.left, 0.0):.1f} {low.lot.unit} left",
                )
            )
    return found


def _loan(blade: Blade, day: date) -> Due:
    days = (date.fromisoformat(blade.loan_due) - day).days
    lender = f" to {blade.loan_from}" if blade.loan_from else ""
    says = f"Return {blade.code}{lender}, {_when(days)}"
    return Due("loan", says, blade.id, mark=blade.mark, on=blade.loan_due, overdue=days < 0)


def _when(days: int) -> str:
    if days < 0:
        return f"{-days} {'day' if days == -1 else 'days'} overdue"
    return "today" if days == 0 else "tomorrow" if days == 1 else f"in {days} days"
