"""The last report of each trial."""

from sqlalchemy.orm import Session

from kessik.store.tables import ReportMadeRow


def last_report(session: Session, trial_id: str) -> tuple[str, str] | None:
    """What the last report of a trial was made from, and when; None before the first."""
    row = session.get(ReportMadeRow, trial_id)
    return (row.content, row.made_utc) if row else None


def note_report(session: Session, trial_id: str, content: str, now_utc: str) -> None:
    """Note that a report was made of a trial."""
    session.merge(ReportMadeRow(trial_id=trial_id, content=content, made_utc=now_utc))
    session.flush()
