"""What waits in trials whose plan is dated: the work that is late or due soon."""

from datetime import date

from kessik.core.due import Due, when
from kessik.services.reading.summaries import summaries
from kessik.store.database import Database

_DAYS_AHEAD = 7


def planned_work(db: Database, day: date) -> list[Due]:
    """Planned work that is late, or due within the days ahead."""
    found = []
    for trial_id, summary in summaries(db).items():
        for on, what in summary.work:
            days = (date.fromisoformat(on) - day).days
            if days <= _DAYS_AHEAD:
                says = f"{what}, {when(days)}"
                found.append(Due("work", says, trial_id=trial_id, on=on, overdue=days < 0))
    return found
