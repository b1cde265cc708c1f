"""Traces of what was changed, and what was put away."""

from sqlalchemy import delete, select
from sqlalchemy.dialects.sqlite import insert as insert_or
from sqlalchemy.orm import Session

from kessik.core.bin import Archived, Trace
from kessik.store.actor import ACTOR
from kessik.store.tables import ArchivedRow, TraceRow


def add(session: Session, trace: Trace) -> None:
    """Keep a trace; the same id twice is one."""
    row = insert_or(TraceRow).values(
        id=trace.id,
        kind=trace.kind,
        owner_id=trace.owner_id,
        trial_id=trace.trial_id,
        what=trace.what,
        was=trace.was,
        becomes=trace.becomes,
        reason=trace.reason,
        made_utc=trace.made_utc,
        by_device=trace.by or ACTOR.get(),
    )
    session.execute(row.on_conflict_do_nothing())


def of_trial(session: Session, trial_id: str) -> list[Trace]:
    """What was changed of a trial and of its runs, the newest first."""
    found = select(TraceRow).where(TraceRow.trial_id == trial_id)
    return [
        Trace(
            row.id,
            row.kind,  # type: ignore[arg-type]  # checked on entry
            row.owner_id,
            row.trial_id,
            row.what,
            row.was,
            row.becomes,
            row.reason,
            row.made_utc,
            row.by_device,
        )
        for row in session.scalars(found.order_by(TraceRow.made_utc.desc(), TraceRow.id))
    ]


def set_archived(session: Session, kind: Archived, owner_id: str, now_utc: str | None) -> None:
    """Put something away since a time, or, without one, bring it back."""
    if now_utc is None:
        session.execute(
            delete(ArchivedRow).where(ArchivedRow.kind == kind, ArchivedRow.owner_id == owner_id)
        )
        return
    row = insert_or(ArchivedRow).values(kind=kind, owner_id=owner_id, archived_utc=now_utc)
    session.execute(row.on_conflict_do_nothing())


def archived(session: Session, kind: Archived) -> dict[str, str]:
    """What was put away of a kind: since when, by id."""
    found = select(ArchivedRow.owner_id, ArchivedRow.archived_utc).where(ArchivedRow.kind == kind)
    return dict(session.execute(found).tuples().all())
