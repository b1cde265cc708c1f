"""Rounds of the trainers, each with its truth, and how an answer is judged.

An answer is what was typed: a number, or the key of an option. Rounds are drawn from a seed, so
that the same seed and number are the same round.
"""

import math
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal, get_args

from kessik.core.comparison.findings import ClaimStanding
from kessik.core.corrosion.ratings import Standard, grade_of, rating_points
from kessik.core.errors import OutOfRangeError

TrainerKind = Literal["count", "foresee", "rust", "call", "unfair", "steel"]
TRAINERS: tuple[TrainerKind, ...] = get_args(TrainerKind)
ROUNDS = 10
FORESEEN_WITHIN = 1.2
"""A foreseen life is right within this factor of the true one."""
STANDARD: Standard = "iso_10289"
FAIR = "0"
"""The option that says a line-up is fair."""


@dataclass(frozen=True)
class Tap:
    """Something that happens while counting, at a time: a cut, a spoiled cut that does not count,
    or an interruption, of which `place` says which.
    """

    at_ms: int
    kind: Literal["cut", "spoiled", "interruption"]
    place: int = 0


@dataclass(frozen=True)
class CountRound:
    """Cuts to count through interruptions."""

    taps: tuple[Tap, ...]

    @property
    def cuts(self) -> int:
        return sum(tap.kind == "cut" for tap in self.taps)


@dataclass(frozen=True)
class ForeseeRound:
    """Readings (count, gf) of an edge up to some count, and where it truly becomes dull; `forecast`
    is Kessik's own, as low, middle and high count.
    """

    readings: tuple[tuple[float, float], ...]
    later: tuple[tuple[float, float], ...]
    limit_gf: float
    life: float
    forecast: tuple[float, float, float]


@dataclass(frozen=True)
class RustRound:
    """A side with so much of its area rusted, per cent, drawn from a seed of its own;
    `drawn_percent` is what its picture was asked to show, and missed by a spot.
    """

    picture_seed: int
    rust_percent: float
    drawn_percent: float = 0.0

    @property
    def grade(self) -> int:
        return grade_of(STANDARD, self.rust_percent)


@dataclass(frozen=True)
class CallRound:
    """Two small trials: lives of edges as (low, estimate, high) by blade, the true ratio of B over
    A, and the interval that a verdict gives it.
    """

    lives: Mapping[str, tuple[tuple[float, float, float], ...]]
    true_ratio: float
    low: float
    high: float

    @property
    def supported(self) -> Literal["a", "b", "n"]:
        """What the interval supports: A or B longer, or neither."""
        return "b" if self.low > 1 else "a" if self.high < 1 else "n"


@dataclass(frozen=True)
class UnfairRound:
    """A line-up: values by variable for each blade, and the variable at which one blade differs by
    more than its tolerance; None where none does.
    """

    blades: tuple[str, ...]
    values: Mapping[str, tuple[float, ...]]
    planted: str | None
    odd_blade: str = ""


@dataclass(frozen=True)
class SteelRound:
    """What an analyser read of a blade (element, mass per cent, ±), what it is sold as, the ranges
    of that grade, and what the readings say of the claim.
    """

    claim: str
    readings: tuple[tuple[str, float, float], ...]
    ranges: tuple[tuple[str, float | None, float | None], ...]
    standing: ClaimStanding
    truly: str
    fitting: tuple[str, ...]


TrainingRound = CountRound | ForeseeRound | RustRound | CallRound | UnfairRound | SteelRound


@dataclass(frozen=True)
class JudgedAnswer:
    """Whether an answer is right, and by how much a number is off: cuts, ln of lives, or points of
    the rust rating (positive: rated better than it is); `grade` is the true one of a picture.
    """

    is_right: bool
    off: float | None = None
    grade: int | None = None


_STANDING_KEYS: Mapping[str, ClaimStanding] = {
    "1": "consistent",
    "2": "undecidable",
    "3": "excluded",
}


def judge_answer(asked: TrainingRound, answer: str) -> JudgedAnswer:
    """Judge an answer; OutOfRangeError where it is no number, or no option of the round."""
    match asked:
        case CountRound():
            off = _number(answer) - asked.cuts
            return JudgedAnswer(off == 0, off)
        case ForeseeRound():
            off = math.log(_number(answer, least=0.01) / asked.life)
            return JudgedAnswer(abs(off) <= math.log(FORESEEN_WITHIN), off)
        case RustRound():
            grade = int(_option(answer, "0123456789"))
            true_points = rating_points(max(asked.rust_percent, 0.01))
            off = _points_of(grade) - true_points
            return JudgedAnswer(grade == asked.grade, off, asked.grade)
        case CallRound():
            return JudgedAnswer(_option(answer, "abn") == asked.supported)
        case UnfairRound():
            keys = FAIR + "".join(str(n) for n in range(1, len(asked.values) + 1))
            key = int(_option(answer, keys))
            named = None if key == 0 else list(asked.values)[key - 1]
            return JudgedAnswer(named == asked.planted)
        case SteelRound():
            return JudgedAnswer(_STANDING_KEYS[_option(answer, "123")] == asked.standing)


def _points_of(grade: int) -> float:
    """The middle of a grade in rating points."""
    middles = (70.0, 35.0, 16.0, 7.0, 3.5, 1.6, 0.7, 0.35, 0.16, 0.05, 0.01)
    return rating_points(middles[grade])


def _number(answer: str, least: float = 0.0, most: float = 10_000.0) -> float:
    try:
        value = float(answer.strip().replace(",", "."))
    except ValueError:
        value = math.nan
    if not least <= value <= most:
        raise OutOfRangeError(f"give a number from {least:g} to {most:g}", field="answer")
    return value


def _option(answer: str, keys: str) -> str:
    key = answer.strip().lower()
    if len(key) != 1 or key not in keys:
        raise OutOfRangeError(f"press one of {', '.join(keys)}", field="answer")
    return key
