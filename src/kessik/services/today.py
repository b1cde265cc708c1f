"""Today: the next thing to do in a trial, and what waits beside."""

from dataclasses import dataclass, replace
from datetime import date
from typing import Literal

from kessik.core.facts import MEASURED, used
from kessik.services.stock.lots import stocked
from kessik.services.trials.summaries import summaries
from kessik.store.database import Database
from kessik.store.queries import waiting
from kessik.store.queries.waiting import LentBlade

DAYS_AHEAD = 7
MOST_NAMED = 6


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
        lent = waiting.lent_blades(session)
        hardness = waiting.hardness_of_blades_in_trials(session)
    loans = [_loan(blade, day) for blade in lent]
    soft = []
    for known in hardness:
        counts = used(known.measurements, "hardness_hrc")
        if counts is None or counts.standing not in MEASURED:
            only = f"only {counts.standing}" if counts else "not known"
            says = f"Hardness of {known.code} is {only}"
            soft.append(Due("hardness", says, known.id, mark=known.mark))
    if len(soft) > MOST_NAMED:
        more = len(soft) - MOST_NAMED + 1
        rest = replace(
            soft[MOST_NAMED - 1], mark=None, says=f"Hardness of {more} more blades is not measured"
        )
        soft = [*soft[: MOST_NAMED - 1], rest]
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


def _loan(blade: LentBlade, day: date) -> Due:
    days = (date.fromisoformat(blade.loan_due) - day).days
    lender = f" to {blade.loan_from}" if blade.loan_from else ""
    says = f"Return {blade.code}{lender}, {_when(days)}"
    return Due("loan", says, blade.id, mark=blade.mark, on=blade.loan_due, overdue=days < 0)


def _when(days: int) -> str:
    if days < 0:
        return f"{-days} {'day' if days == -1 else 'days'} overdue"
    return "today" if days == 0 else "tomorrow" if days == 1 else f"in {days} days"
