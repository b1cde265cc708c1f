"""Reports that were made: what each said, so that an older one can be told from today's."""

import json
from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.moments import Moment
from kessik.core.packages import HIDDEN, Hidden
from kessik.store.database import Database
from kessik.store.queries import past_reports


@dataclass(frozen=True)
class PastReport:
    """The last report of a trial: what it was made from, without what, and when."""

    made_from: str
    hidden: tuple[Hidden, ...]
    made_utc: str


def last_report_of(db: Database, trial_id: str) -> PastReport | None:
    """The last report of a trial; None before the first."""
    with db.read() as session:
        found = past_reports.last_report(session, trial_id)
    if found is None:
        return None
    content, made_utc = found
    said = json.loads(content)
    hidden = tuple(each for each in HIDDEN if each in said["hidden"])
    return PastReport(said["made_from"], hidden, made_utc)


def note_report_of(
    db: Database, trial_id: str, made_from: str, hidden: Sequence[Hidden], now: Moment
) -> None:
    """Remember what a report said."""
    content = json.dumps({"made_from": made_from, "hidden": sorted(hidden)})
    with db.write() as session:
        past_reports.note_report(session, trial_id, content, now.utc)
