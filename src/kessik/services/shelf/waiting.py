"""What waits on the shelf: loans, care, and hardness that nobody has measured."""

from collections.abc import Mapping
from dataclasses import replace
from datetime import date

from kessik.core.due import (
    CareToRepeat,
    Due,
    HardnessNotMeasured,
    LoanToComeBack,
    LoanToReturn,
    MoreHardnessNotMeasured,
)
from kessik.core.facts import MEASURED, used
from kessik.core.shelf.care import CareAct, CareKind, care_to_come
from kessik.core.shelf.loans import loan_seen
from kessik.store.database import Database
from kessik.store.queries import hanging, testers, waiting
from kessik.store.queries.waiting import LentBlade, MarkedBlade

_MOST_NAMED = 6
_CARE_AHEAD_DAYS = 30
_How = tuple[CareKind, str, str]
"""Which care, with what, and the day it is due (ISO)."""


def loans(db: Database, day: date) -> list[Due]:
    """Every blade that is to go back to its lender, or to come back from whoever has it."""
    with db.read() as session:
        lent = waiting.lent_blades(session)
        sent_by = testers.kept_elsewhere(session)["blade"] if lent else {}
        here = testers.tester_here(session) if sent_by else None
    us = here.name if here else ""
    found = (_loan(blade, us, sent_by.get(blade.id, ""), day) for blade in lent)
    return [due for due in found if due]


def _loan(blade: LentBlade, us: str, sent_by: str, day: date) -> Due | None:
    loan = loan_seen(blade, us, sent_by)
    if loan is None:
        return None
    days = _days_from(day, loan.due)
    kind = LoanToReturn if loan.to == "give_back" else LoanToComeBack
    what = kind(blade.code, loan.other, days)
    return Due("loan", what, blade.id, mark=blade.mark, on=loan.due, overdue=days < 0)


def care(db: Database, day: date) -> list[Due]:
    """Care that is due again soon; what is due on one day in one way is one line."""
    with db.read() as session:
        ahead = care_to_come(hanging.all_noted(session, CareAct))
        if not ahead:
            return []
        kept = testers.kept_elsewhere(session)["blade"]
        elsewhere = testers.blades_elsewhere(session, kept)
        known = {
            blade_id: blade
            for blade_id, blade in waiting.blades_there(session).items()
            if blade_id not in elsewhere
        }
    alike: dict[_How, list[str]] = {}
    for act in ahead:
        if act.blade_id in known and _days_from(day, act.due_on) <= _CARE_AHEAD_DAYS:
            alike.setdefault((act.kind, act.used, act.due_on), []).append(act.blade_id)
    return [_care(how, ids, known, day) for how, ids in alike.items()]


def _care(how: _How, ids: list[str], known: Mapping[str, MarkedBlade], day: date) -> Due:
    kind, used, on = how
    days = _days_from(day, on)
    what = CareToRepeat(tuple(known[each].code for each in ids), kind, used, days)
    mark = known[ids[0]].mark if len(ids) == 1 else None
    return Due("care", what, ids[0], mark=mark, on=on, overdue=days < 0)


def _days_from(day: date, due: str) -> int:
    return (date.fromisoformat(due) - day).days


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
