"""Sessions with the trainers, and the rater's error learned from them."""

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from kessik.core.moments import Moment
from kessik.core.training.rounds import JudgedAnswer
from kessik.core.training.scores import RaterError, Training
from kessik.store.tables import RaterErrorRow, TrainingRow

_RATER = "rater"


def all_trainings(session: Session) -> list[Training]:
    """Every session, oldest first."""
    rows = session.scalars(select(TrainingRow).order_by(TrainingRow.made_utc, TrainingRow.id))
    return [_training(row) for row in rows]


def find_training(session: Session, training_id: str) -> Training | None:
    row = session.get(TrainingRow, training_id)
    return _training(row) if row else None


def add_training(session: Session, training: Training) -> None:
    """Insert a session."""
    session.add(
        TrainingRow(
            id=training.id,
            kind=training.kind,
            seed=training.seed,
            answers=list(training.answers),
            judged=[each and [each.is_right, each.off, each.grade] for each in training.judged],
            made_utc=training.made.utc,
            made_offset_minutes=training.made.offset_minutes,
        )
    )
    session.flush()


def rater_error(session: Session) -> RaterError | None:
    """The error that the tester agreed to."""
    row = session.get(RaterErrorRow, _RATER)
    return RaterError(row.points, row.bias_points, row.rounds) if row else None


def save_rater_error(session: Session, error: RaterError | None, now_utc: str) -> None:
    """Take this error from now on; None for the usual one."""
    session.execute(delete(RaterErrorRow))
    if error is not None:
        session.add(
            RaterErrorRow(
                id=_RATER,
                points=error.points,
                bias_points=error.bias_points,
                rounds=error.rounds,
                agreed_utc=now_utc,
            )
        )
    session.flush()


def _training(row: TrainingRow) -> Training:
    return Training(
        row.id,
        row.kind,  # type: ignore[arg-type]  # checked on entry
        row.seed,
        tuple(str(answer) for answer in row.answers),
        Moment(row.made_utc, row.made_offset_minutes),
        tuple(JudgedAnswer(*each) if each else None for each in row.judged),
    )
