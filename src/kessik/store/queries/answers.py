"""Answers kept, and which of them are behind what they rest on."""

from dataclasses import asdict, dataclass
from typing import Literal

from sqlalchemy import exists, func, or_, select
from sqlalchemy.orm import Session

from kessik.store.tables import AnswerRow, RevisionRow, RunRow, TrialRow

Page = Literal["today", "verdict"]


@dataclass(frozen=True)
class KeptAnswer:
    """A trial's answer as it was at a revision; `summary` and the pages are JSON, `failed` says
    why there is none.
    """

    trial_id: str
    revision: int
    version: str
    sealed: bool
    under_way: bool
    summary: str
    today: str
    verdict: str
    failed: str = ""


@dataclass(frozen=True)
class KeptPage:
    """One page of a trial's answer, None where none was made yet, and whether it is the newest; a
    trial that is blind, or has a verification run, may be sealed by now.
    """

    trial_id: str
    name: str
    text: str | None
    sealed: bool
    under_way: bool
    failed: str
    is_current: bool
    may_be_sealed: bool
    revision: int


def revision_of(session: Session, trial_id: str) -> int:
    """How often what the trial's answer rests on has changed."""
    return session.scalar(select(RevisionRow.number).where(RevisionRow.trial_id == trial_id)) or 0


def behind(session: Session, version: str) -> list[str]:
    """The trials whose answer is not of their revision and of this version, newest first."""
    found = (
        select(TrialRow.id)
        .join(RevisionRow, RevisionRow.trial_id == TrialRow.id)
        .outerjoin(AnswerRow, AnswerRow.trial_id == TrialRow.id)
        .where(
            TrialRow.arriving.is_(None),
            or_(
                AnswerRow.trial_id.is_(None),
                AnswerRow.revision != RevisionRow.number,
                AnswerRow.version != version,
            ),
        )
        .order_by(TrialRow.created_utc.desc(), TrialRow.id)
    )
    return list(session.scalars(found))


def all_of(session: Session) -> int:
    """How many trials have an answer, or will have one."""
    return session.scalar(select(func.count()).where(TrialRow.arriving.is_(None))) or 0


def keep(session: Session, answer: KeptAnswer) -> None:
    """Keep an answer in place of the one before; nothing where its trial is gone meanwhile."""
    if session.get(TrialRow, answer.trial_id) is not None:
        session.merge(AnswerRow(**asdict(answer)))
        session.flush()


def pages(
    session: Session, page: Page, version: str, trial_id: str | None = None
) -> list[KeptPage]:
    """A page of every trial, or of one, newest first."""
    text = AnswerRow.today if page == "today" else AnswerRow.verdict
    found = (
        select(
            TrialRow.id,
            TrialRow.name,
            text,
            AnswerRow.sealed,
            AnswerRow.under_way,
            AnswerRow.failed,
            (AnswerRow.revision == RevisionRow.number) & (AnswerRow.version == version),
            or_(
                TrialRow.blind_seed.is_not(None) & TrialRow.unblinded_utc.is_(None),
                exists().where(RunRow.trial_id == TrialRow.id, RunRow.verifies_run_id != ""),
            ),
            RevisionRow.number,
        )
        .join(RevisionRow, RevisionRow.trial_id == TrialRow.id)
        .outerjoin(AnswerRow, AnswerRow.trial_id == TrialRow.id)
        .where(TrialRow.arriving.is_(None))
        .order_by(TrialRow.created_utc.desc(), TrialRow.id)
    )
    if trial_id is not None:
        found = found.where(TrialRow.id == trial_id)
    return [
        KeptPage(
            trial_id=row[0],
            name=row[1],
            text=row[2] or None,
            sealed=bool(row[3]),
            under_way=bool(row[4]),
            failed=row[5] or "",
            is_current=bool(row[6]),
            may_be_sealed=bool(row[7]),
            revision=row[8],
        )
        for row in session.execute(found)
    ]


def summaries(session: Session) -> dict[str, str]:
    """What others learn of each trial, by its id."""
    found = select(AnswerRow.trial_id, AnswerRow.summary).where(AnswerRow.summary != "")
    return dict(session.execute(found).tuples().all())
