"""Sessions with the trainers: kept, scored, and what they teach of the rater's eye."""

from dataclasses import dataclass, replace

from kessik.core.errors import ConflictError, NotAllowedNowError, OutOfRangeError
from kessik.core.moments import Moment
from kessik.core.training.rounds import (
    ROUNDS,
    TRAINERS,
    JudgedAnswer,
    TrainerKind,
    judge_answer,
)
from kessik.core.training.scores import (
    LearnedEye,
    RaterError,
    SessionScore,
    Training,
    learned_eye,
    session_score,
)
from kessik.services.training.making import make_round
from kessik.store.database import Database
from kessik.store.queries import trainings


@dataclass(frozen=True)
class ScoredSession:
    """A session with its score."""

    training: Training
    score: SessionScore


@dataclass(frozen=True)
class TrainingRecord:
    """All sessions by trainer, oldest first; what the eye does at each grade of rust, and the
    rater's error that soaks reckon with (None: the usual one).
    """

    sessions: dict[TrainerKind, tuple[ScoredSession, ...]]
    eye: LearnedEye
    agreed: RaterError | None


def training_record(db: Database) -> TrainingRecord:
    """Every session with its score."""
    with db.read() as session:
        kept, agreed = trainings.all_trainings(session), trainings.rater_error(session)
    sessions = {
        kind: tuple(
            ScoredSession(training, session_score(training.judged))
            for training in kept
            if training.kind == kind
        )
        for kind in TRAINERS
    }
    graded = [each for training in kept for each in training.judged if each is not None]
    return TrainingRecord(sessions, learned_eye(graded), agreed)


def keep_session(db: Database, training: Training) -> SessionScore:
    """Judge a session and keep it; the same id twice is one session."""
    if len(training.answers) != ROUNDS:
        raise OutOfRangeError(f"a session has {ROUNDS} answers", field="answers")
    judged = replace(training, judged=_judged(training))
    with db.write() as session:
        there = trainings.find_training(session, training.id)
        if there is None:
            trainings.add_training(session, judged)
        elif replace(there, made=judged.made) != judged:
            raise ConflictError("this id was used for another session", field="id")
    return session_score(judged.judged)


def agree_on_rater(db: Database, agrees: bool, now: Moment) -> TrainingRecord:
    """Let soaks reckon with the error learned, or with the usual one again."""
    error = training_record(db).eye.error if agrees else None
    if agrees and error is None:
        raise NotAllowedNowError("grade 20 pictures first: two sessions of Read rust", field="rust")
    with db.write() as session:
        trainings.save_rater_error(session, error, now.utc)
    return training_record(db)


def _judged(training: Training) -> tuple[JudgedAnswer | None, ...]:
    return tuple(
        judge_answer(make_round(training.kind, training.seed, number), answer) if answer else None
        for number, answer in enumerate(training.answers, 1)
    )
