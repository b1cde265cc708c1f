"""Trainers: rounds by seed, answers judged, sessions kept."""

from typing import Annotated

from fastapi import APIRouter, Query, Response
from pydantic import Field

from kessik.api.dependencies import Store
from kessik.api.schemas.common import Id
from kessik.api.schemas.training import (
    AgreedBody,
    AnswerBody,
    JudgedOut,
    SessionOut,
    TrainingBody,
    TrainingRecordOut,
    TrainingRoundOut,
)
from kessik.api.views.training import judged_out, round_out, session_out, training_record_out
from kessik.core.errors import UnknownError
from kessik.core.training.rounds import ROUNDS, RustRound, TrainerKind, judge_answer
from kessik.core.training.scores import Training
from kessik.services.clock import now
from kessik.services.training.making import make_round, picture_of
from kessik.services.training.sessions import (
    ScoredSession,
    agree_on_rater,
    keep_session,
    training_record,
)

router = APIRouter(tags=["training"])

Number = Annotated[int, Field(ge=1, le=ROUNDS)]
Seed = Annotated[int, Query(ge=0, le=2**31)]


@router.get("/trainers")
def get_trainers(store: Store) -> TrainingRecordOut:
    """The trainers, with every session so far."""
    return training_record_out(training_record(store))


@router.get("/trainers/{kind}/rounds/{number}")
def get_round(kind: TrainerKind, number: Number, seed: Seed = 0) -> TrainingRoundOut:
    """What a round asks; the same seed is the same round."""
    return round_out(kind, number, make_round(kind, seed, number))


@router.get(
    "/trainers/rust/rounds/{number}/picture",
    response_class=Response,
    responses={200: {"content": {"image/jpeg": {}}}},
)
def get_round_picture(number: Number, seed: Seed = 0) -> Response:
    """The picture of a round of Read rust."""
    asked = make_round("rust", seed, number)
    if not isinstance(asked, RustRound):
        raise UnknownError("this round has no picture", field="number")
    return Response(picture_of(asked), media_type="image/jpeg")


@router.post("/trainers/{kind}/rounds/{number}")
def post_answer(kind: TrainerKind, number: Number, body: AnswerBody) -> JudgedOut:
    """Judge an answer; nothing is kept of it before its session is."""
    asked = make_round(kind, body.seed, number)
    return judged_out(asked, judge_answer(asked, body.answer))


@router.put("/trainings/{training_id}")
def put_training(training_id: Id, body: TrainingBody, store: Store) -> SessionOut:
    """Keep a session under a client-made id; the same request twice keeps one."""
    training = Training(training_id, body.kind, body.seed, tuple(body.answers), now())
    score = keep_session(store, training)
    return session_out(body.kind, ScoredSession(training, score))


@router.put("/rater-error")
def put_rater_error(body: AgreedBody, store: Store) -> TrainingRecordOut:
    """Let soaks reckon with the rater's own error, or with the usual one again."""
    return training_record_out(agree_on_rater(store, body.agrees, now()))
