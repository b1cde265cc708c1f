"""The trainers over the wire."""

from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Bounded, Finite, ShortText, Wire
from kessik.api.schemas.records import Answer
from kessik.core.training.rounds import ROUNDS, Tap, TrainerKind
from kessik.core.training.scores import GradeBias


class TapOut(Answer[Tap], without="place"):
    """Something that happens while counting."""

    words: str


class OptionOut(Wire):
    """A key, and what it says."""

    key: str
    says: str


class PointOut(Wire):
    """A reading, or a true force, at a count."""

    count: Finite
    gf: Finite


class CalledLifeOut(Wire):
    """The life of an edge with its 95 % interval."""

    low: Finite
    estimate: Finite
    high: Finite


class CallBladeOut(Wire):
    """The lives of a blade's edges, with their intervals."""

    name: str
    lives: list[CalledLifeOut]


class TrainingRoundOut(Wire):
    """What a round asks, without its truth; of the parts those that its trainer has."""

    kind: TrainerKind
    number: int
    of: int
    asks: str
    options: list[OptionOut]
    taps: list[TapOut]
    readings: list[PointOut]
    limit_gf: Finite | None
    has_picture: bool
    blades: list[CallBladeOut]
    heads: list[str]
    rows: list[list[str]]


class AnswerBody(Wire):
    """An answer: a number, or the key of an option."""

    seed: Annotated[int, Bounded("seed")]
    answer: ShortText


class JudgedOut(Wire):
    """Whether an answer is right, and the truth."""

    is_right: bool
    says: str
    later: list[PointOut]


class TrainingBody(Wire):
    """A session as it was answered; empty where a round was left out."""

    kind: TrainerKind
    seed: Annotated[int, Bounded("seed")]
    answers: Annotated[list[ShortText], Field(min_length=ROUNDS, max_length=ROUNDS)]


class SessionOut(Wire):
    """A session with its score."""

    id: str
    made_utc: str
    right: int
    of: int
    says: str


class GradeBiasOut(Answer[GradeBias]):
    """How far off the eye is at one true grade."""


class TrainerOut(Wire):
    """A trainer with the sessions so far, oldest first."""

    kind: TrainerKind
    name: str
    teaches: str
    sessions: list[SessionOut]


class TrainingRecordOut(Wire):
    """All trainers, and what the eye has learned of rust."""

    trainers: list[TrainerOut]
    eye: str
    by_grade: list[GradeBiasOut]
    can_agree: bool
    has_agreed: bool
    agreed: str


class AgreedBody(Wire):
    """Whether soaks reckon with the rater's own error."""

    agrees: bool
