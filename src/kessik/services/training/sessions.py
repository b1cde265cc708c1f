"""Sessions with the trainers: kept, scored, and what they teach of the rater's eye."""

from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.errors import ConflictError, KessikError, NotAllowedNowError, OutOfRangeError
from kessik.core.moments import Moment
from kessik.core.training.rounds import (
    ROUNDS,
    TRAINERS,
    JudgedAnswer,
    RustRound,
    TrainerKind,
    TrainingRound,
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
    """Every session with its score, worked out from its seed."""
    with db.read() as session:
        kept, agreed = trainings.all_trainings(session), trainings.rater_error(session)
    judged = [(training, _judged(training)) for training in kept]
    sessions = {
        kind: tuple(
            ScoredSession(training, session_score([each for _, each in rounds]))
            for training, rounds in judged
            if training.kind == kind
        )
        for kind in TRAINERS
    }
    graded = [
        (asked, each)
        for _, rounds in judged
        for asked, each in rounds
        if isinstance(asked, RustRound) and each is not None
    ]
    return TrainingRecord(sessions, learned_eye(graded), agreed)


def keep_session(db: Database, training: Training) -> SessionScore:
    """Keep a session and score it; the same id twice is one session."""
    if len(training.answers) != ROUNDS:
        raise OutOfRangeError(f"a session has {ROUNDS} answers", field="answers")
    for number, answer in enumerate(training.answers, 1):
        if answer:
            judge_answer(make_round(training.kind, training.seed, number), answer)
    with db.write() as session:
        there = trainings.find_training(session, training.id)
        if there is None:
            trainings.add_training(session, training)
        elif (there.kind, there.seed, there.answers) != (
            training.kind,
            training.seed,
            training.answers,
        ):
            raise ConflictError("this id was used for another session", field="id")
    return session_score([each for _, each in _judged(training)])


def agree_on_rater(db: Database, agrees: bool, now: Moment) -> TrainingRecord:
    """Let soaks reckon with the error learned, or with the usual one again."""
    error = training_record(db).eye.error if agrees else None
    if agrees and error is None:
        raise NotAllowedNowError("grade 20 pictures first: two sessions of Read rust", field="rust")
    with db.write() as session:
        trainings.save_rater_error(session, error, now.utc)
    return training_record(db)


def _judged(training: Training) -> Sequence[tuple[TrainingRound, JudgedAnswer | None]]:
    found = []
    for number, answer in enumerate(training.answers, 1):
        asked = make_round(training.kind, training.seed, number)
        found.append((asked, _answer(asked, answer)))
    return found


def _answer(asked: TrainingRound, answer: str) -> JudgedAnswer | None:
    """How an answer is judged; None where none was given, or an older Kessik drew other rounds."""
    try:
        return judge_answer(asked, answer) if answer else None
    except KessikError:
        return None
