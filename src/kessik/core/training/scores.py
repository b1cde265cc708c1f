"""What sessions with a trainer come to: a score, and of rust what the eye does at each grade."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from statistics import fmean

from kessik.core.corrosion.agreement import UsualRater
from kessik.core.moments import Moment
from kessik.core.training.rounds import JudgedAnswer, TrainerKind

LEAST_ROUNDS = 20
"""Graded pictures before a rater's error is offered: two sessions; common practice, no source."""


@dataclass(frozen=True)
class Training:
    """Ten rounds with a trainer as they were answered and judged; a round that was left out has an
    empty answer.
    """

    id: str
    kind: TrainerKind
    seed: int
    answers: tuple[str, ...]
    made: Moment
    judged: tuple[JudgedAnswer | None, ...] = ()


@dataclass(frozen=True)
class SessionScore:
    """How many of the rounds were right, and the typical size of what numbers were off by, in the
    unit of the trainer (None where nothing is a number).
    """

    right: int
    of: int
    typical_off: float | None
    mean_off: float | None


def session_score(judged: Sequence[JudgedAnswer | None]) -> SessionScore:
    """The score of one session; a round without an answer is not right."""
    offs = [each.off for each in judged if each is not None and each.off is not None]
    right = sum(each is not None and each.is_right for each in judged)
    return SessionScore(
        right,
        len(judged),
        math.sqrt(fmean(off * off for off in offs)) if offs else None,
        fmean(offs) if offs else None,
    )


@dataclass(frozen=True)
class GradeBias:
    """At one true grade: how many were graded, and how far off on average, in rating points
    (positive: better than it is).
    """

    grade: int
    rounds: int
    bias_points: float


@dataclass(frozen=True)
class RaterError:
    """What one rating by eye is off by, in rating points: on average, and by chance (a standard
    deviation), from so many graded pictures.
    """

    points: float
    bias_points: float
    rounds: int

    @property
    def as_usual(self) -> UsualRater:
        """The error as soaks reckon with it, worth as many pairs as pictures were graded."""
        return UsualRater(self.points, float(self.rounds))


@dataclass(frozen=True)
class LearnedEye:
    """What graded pictures teach: by grade, and in all where there are enough of them."""

    by_grade: tuple[GradeBias, ...]
    error: RaterError | None


def learned_eye(graded: Sequence[JudgedAnswer]) -> LearnedEye:
    """Bias by grade, and the rater's error once twenty pictures are graded.

    The error is the spread about the mean, so that a steady eye that grades all too well has a
    bias and a small error. A worked example: offs of 0.5, 0.5, 1.5 and 1.5 points are a bias of 1.0
    and an error of 0.58.
    """
    by_grade: dict[int, list[float]] = {}
    for judged in graded:
        if judged.off is not None and judged.grade is not None:
            by_grade.setdefault(judged.grade, []).append(judged.off)
    rows = tuple(
        GradeBias(grade, len(offs), fmean(offs)) for grade, offs in sorted(by_grade.items())
    )
    offs = [off for own in by_grade.values() for off in own]
    if len(offs) < LEAST_ROUNDS:
        return LearnedEye(rows, None)
    bias = fmean(offs)
    spread = math.sqrt(sum((off - bias) ** 2 for off in offs) / (len(offs) - 1))
    return LearnedEye(rows, RaterError(spread, bias, len(offs)))
