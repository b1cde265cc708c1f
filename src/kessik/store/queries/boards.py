"""Answers about all trials kept, and what they rest on."""

from dataclasses import asdict, dataclass
from hashlib import sha256

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from kessik.store.tables import (
    AnswerRow,
    BladeRow,
    BoardRow,
    SameBladeRow,
    TesterRow,
    TrialOriginRow,
    TrialRow,
)

MOST_KEPT = 24
"""So many questions are kept answered; the one asked longest ago makes room."""


@dataclass(frozen=True)
class KeptBoard:
    """A question as JSON with its last answer, JSON too; `rests_on` tells whether it is today's."""

    question: str
    rests_on: str
    asked_utc: str
    answer: str = ""
    failed: str = ""


def rests_on(session: Session) -> str:
    """A sum over all that standings rest on: answers of trials as they are kept, and blades."""
    answers = select(AnswerRow.trial_id, AnswerRow.revision, AnswerRow.version)
    names = select(TrialRow.id, TrialRow.name).order_by(TrialRow.id)
    sums = sha256()
    blades = select(BladeRow.__table__).order_by(BladeRow.id)
    testers = select(TesterRow.__table__).order_by(TesterRow.id)
    origins = select(TrialOriginRow.__table__).order_by(TrialOriginRow.trial_id)
    same = select(SameBladeRow.__table__).order_by(SameBladeRow.one_id, SameBladeRow.other_id)
    for found in (answers.order_by(AnswerRow.trial_id), names, blades, testers, origins, same):
        rows = session.execute(found).tuples().all()
        sums.update(repr(rows).encode())
    return sums.hexdigest()


def kept_board(session: Session, question: str) -> KeptBoard | None:
    """The last answer to a question; None where it was never asked."""
    row = session.get(BoardRow, question)
    return None if row is None else _kept(row)


def kept_boards(session: Session) -> list[KeptBoard]:
    """All questions that are kept answered, the last asked first."""
    return [_kept(r) for r in session.scalars(select(BoardRow).order_by(BoardRow.asked_utc.desc()))]


def ask(session: Session, question: str, now_utc: str) -> None:
    """Note that a question is asked; those asked longest ago make room for it."""
    row = session.get(BoardRow, question)
    if row is not None:
        row.asked_utc = now_utc
    else:
        session.add(BoardRow(**asdict(KeptBoard(question, "", now_utc))))
        session.flush()
        kept = select(BoardRow.question).order_by(BoardRow.asked_utc.desc()).limit(MOST_KEPT)
        session.execute(delete(BoardRow).where(BoardRow.question.not_in(kept)))


def keep_board(session: Session, board: KeptBoard) -> None:
    """Keep an answer, if its question was not forgotten meanwhile; when it was asked stays."""
    row = session.get(BoardRow, board.question)
    if row is not None:
        row.rests_on, row.answer, row.failed = board.rests_on, board.answer, board.failed
        session.flush()


def _kept(row: BoardRow) -> KeptBoard:
    return KeptBoard(row.question, row.rests_on, row.asked_utc, row.answer, row.failed)
