"""Played plans: what the verdicts of many virtual trials of one plan say, held against the lives
the trials were made with.
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations
from typing import Literal

from kessik.core.comparison.verdict import INDIFFERENCE, Comparison

Outcome = Literal["right", "wrong", "silent"]
_EQUAL = 1e-6


@dataclass(frozen=True)
class PlayedPair:
    """What one virtual trial says of a pair: the life of `b` over that of `a` with its 95 % bounds
    (None where open), and whether that is right.
    """

    a: str
    b: str
    ratio: float | None
    low: float | None
    high: float | None
    outcome: Outcome


@dataclass(frozen=True)
class PairTally:
    """How often the verdicts on a pair were right, wrong or silent; `true_ratio` is what they were
    held against.
    """

    a: str
    b: str
    true_ratio: float
    right: int
    wrong: int
    silent: int

    @property
    def trials(self) -> int:
        return self.right + self.wrong + self.silent

    @property
    def are_alike(self) -> bool:
        """Whether the lives stated were the same."""
        return abs(math.log(self.true_ratio)) < _EQUAL


def outcome_of_pair(found: Comparison, true_ratio: float) -> Outcome:
    """Whether a verdict on `b` is right where b truly lasts `true_ratio` times as long as a.

    To name one of two equal blades is wrong, and so is to call blades alike that differ by more
    than a tenth.
    """
    log_ratio = math.log(true_ratio)
    match found.verdict:
        case "longer" | "shorter":
            named = 1.0 if found.verdict == "longer" else -1.0
            return "right" if named * log_ratio > _EQUAL else "wrong"
        case "too_close":
            return "right" if abs(log_ratio) <= math.log(INDIFFERENCE) + _EQUAL else "wrong"
    return "silent"


def played_pairs(
    comparisons: Iterable[Comparison], lives: Mapping[str, float]
) -> tuple[PlayedPair, ...]:
    """The pairs of one trial's verdict, each held against the lives stated."""
    return tuple(
        PlayedPair(c.a, c.b, c.ratio, c.low, c.high, outcome_of_pair(c, lives[c.b] / lives[c.a]))
        for c in comparisons
    )


def tally(
    trials: Sequence[Sequence[PlayedPair]], lives: Mapping[str, float]
) -> tuple[PairTally, ...]:
    """The outcomes over all trials, pair by pair; a pair that a verdict leaves out is silent."""
    found = []
    for a, b in combinations(lives, 2):
        outcomes = [_outcome(trial, {a, b}) for trial in trials]
        counts = {word: outcomes.count(word) for word in ("right", "wrong", "silent")}
        found.append(PairTally(a, b, lives[b] / lives[a], **counts))
    return tuple(found)


def _outcome(trial: Sequence[PlayedPair], pair: set[str]) -> Outcome:
    return next((p.outcome for p in trial if {p.a, p.b} == pair), "silent")
