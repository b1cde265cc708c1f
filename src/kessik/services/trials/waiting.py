"""What waits in trials whose plan is dated: the work that is late or due soon."""

from datetime import date

from kessik.core.due import Due, WorkAhead
from kessik.services.reading.summaries import summaries
from kessik.store.database import Database

_DAYS_AHEAD = 7


def planned_work(db: Database, day: date) -> list[Due]:
    """Planned work that is late, or due within the days ahead."""
    found = []
    for trial_id, summary in summaries(db).items():
        for work in summary.work:
            days = (date.fromisoformat(work.on) - day).days
            if days <= _DAYS_AHEAD:
                ahead = WorkAhead(work, days)
                found.append(Due("work", ahead, trial_id=trial_id, on=work.on, overdue=days < 0))
    return found
