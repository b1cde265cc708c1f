"""What waits on the shelf: blades to give back, and hardness that nobody has measured."""

from dataclasses import replace
from datetime import date

from kessik.core.due import Due, HardnessNotMeasured, LoanToReturn, MoreHardnessNotMeasured
from kessik.core.facts import MEASURED, used
from kessik.store.database import Database
from kessik.store.queries import waiting
from kessik.store.queries.waiting import LentBlade

_MOST_NAMED = 6


def loans(db: Database, day: date) -> list[Due]:
    """Every blade that is to go back to its lender."""
    with db.read() as session:
        return [_loan(blade, day) for blade in waiting.lent_blades(session)]


def _loan(blade: LentBlade, day: date) -> Due:
    days = (date.fromisoformat(blade.loan_due) - day).days
    back = LoanToReturn(blade.code, blade.loan_from, days)
    return Due("loan", back, blade.id, mark=blade.mark, on=blade.loan_due, overdue=days < 0)


def hardness_to_measure(db: Database, _day: date) -> list[Due]:
    """Blades in trials whose hardness is not measured; many of them are named in one line."""
    with db.read() as session:
        known = waiting.hardness_of_blades_in_trials(session)
    found = []
    for blade in known:
        counts = used(blade.measurements, "hardness_hrc")
        if counts is None or counts.standing not in MEASURED:
            what = HardnessNotMeasured(blade.code, counts.standing if counts else None)
            found.append(Due("hardness", what, blade.id, mark=blade.mark))
    if len(found) <= _MOST_NAMED:
        return found
    named, first_of_rest = found[: _MOST_NAMED - 1], found[_MOST_NAMED - 1]
    more = MoreHardnessNotMeasured(len(found) - len(named))
    return [*named, replace(first_of_rest, mark=None, what=more)]
