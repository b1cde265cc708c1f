"""Resharpening rounds: does the same light sharpening still restore the edge, round after round."""

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
import scipy
from numpy.typing import NDArray

FEWEST_ROUNDS = 4
"""A trend and its interval need more rounds than a line has parameters, and one to spare."""
WORTH_KNOWING_PERCENT = 10.0
LEAST_PERCENT = 1.0
"""A smaller change a round is no decline, however sure: common practice, no source."""
TrendState = Literal["too_few", "restoring", "no_longer", "not_settled"]


@dataclass(frozen=True)
class Round:
    """One round: its number, start reading (gf), life in the count unit, and strokes a side and
    minutes of sharpening it took; with the standard errors of ln start and ln life.
    """

    number: int
    start_gf: float | None
    life: float | None
    strokes: float | None = None
    start_log_sd: float = 0.0
    life_log_sd: float = 0.0
    minutes: float | None = None


@dataclass(frozen=True)
class Need:
    """What sharpening takes by the last round, as a multiple of the first: strokes or minutes."""

    what: str
    times: float
    by_round: int


@dataclass(frozen=True)
class RoundTrend:
    """Change a round in per cent with 95 % bounds, and since which round it stands apart from those
    before.
    """

    what: str
    percent: float
    low: float
    high: float
    since: int | None


@dataclass(frozen=True)
class Restoring:
    """Whether rounds still restore the edge, and by which trends."""

    standing: TrendState
    trends: tuple[RoundTrend, ...]
    need: Need | None = None

    @property
    def worse(self) -> tuple[RoundTrend, ...]:
        """The trends that surely go the wrong way, and by enough to matter."""
        return tuple(trend for trend in self.trends if _is_worse(trend))

    @property
    def since(self) -> int | None:
        """The round since which it no longer restores."""
        return min((t.since for t in self.worse if t.since is not None), default=None)


def still_restoring(rounds: Sequence[Round]) -> Restoring:
    """Judge rounds of one blade by the trend of life, start reading and strokes on the log scale.

    Not restoring: life falls, or start readings or strokes rise, with an interval wholly on that
    side. Restoring: no trend does, and life is known not to fall by 10 % a round. The round since
    which it no longer does splits the rounds into two levels with the least squared error.
    Student's t on a least-squares line [1].

    References
    ----------
    [1] NIST/SEMATECH e-Handbook of Statistical Methods, 4.1.4.1: linear least squares.
    """
    found = [
        trend for what, pick in _PICKED.items() if (trend := _trend(what, rounds, pick)) is not None
    ]
    need = _need("strokes", rounds) or _need("minutes", rounds)
    if not found:
        return Restoring("too_few", (), need)
    judged = Restoring("not_settled", tuple(found), need)
    if judged.worse:
        return replace(judged, standing="no_longer")
    life = next((trend for trend in found if trend.what == "life"), None)
    if life is not None and life.low > -WORTH_KNOWING_PERCENT:
        return replace(judged, standing="restoring")
    return judged


_Picked = tuple[float | None, float]
"""A value and the standard error of its ln."""


def _life(each: Round) -> _Picked:
    return each.life, each.life_log_sd


def _start(each: Round) -> _Picked:
    return each.start_gf, each.start_log_sd


def _strokes(each: Round) -> _Picked:
    return each.strokes, 0.0


def _minutes(each: Round) -> _Picked:
    return each.minutes, 0.0


_PICKED: Mapping[str, Callable[[Round], _Picked]] = {
    "life": _life,
    "start reading": _start,
    "strokes": _strokes,
    "minutes": _minutes,
}


def _need(what: str, rounds: Sequence[Round]) -> Need | None:
    """How much more the last round that tells took than the first; None where fewer than two do."""
    known = [(r.number, value) for r in rounds if (value := _PICKED[what](r)[0])]
    if len(known) < 2:
        return None
    return Need(what, known[-1][1] / known[0][1], known[-1][0])


def _trend(
    what: str, rounds: Sequence[Round], pick: Callable[[Round], _Picked]
) -> RoundTrend | None:
    """The trend on the log scale; its error is what the values scatter, and never less than what
    the error of their readings makes.
    """
    known = [
        (each.number, value, sd)
        for each in rounds
        for value, sd in [pick(each)]
        if value is not None and value > 0
    ]
    if len(known) < FEWEST_ROUNDS:
        return None
    numbers = np.array([number for number, _, _ in known], dtype=float)
    logs = np.log([value for _, value, _ in known])
    read = np.array([sd for _, _, sd in known])
    across = numbers - numbers.mean()
    square = float(across @ across)
    slope = float(across @ logs / square)
    residual = logs - logs.mean() - slope * across
    error = math.sqrt(float(residual @ residual) / (len(known) - 2) / square)
    of_readings = math.sqrt(float(across**2 @ read**2)) / square
    half = max(
        float(scipy.special.stdtrit(len(known) - 2, 0.975)) * error,
        float(scipy.special.ndtri(0.975)) * of_readings,
    )
    change, low, high = (100.0 * float(np.expm1(x)) for x in (slope, slope - half, slope + half))
    return RoundTrend(what, change, low, high, _splits_at(numbers, logs))


def _splits_at(numbers: NDArray[np.float64], logs: NDArray[np.float64]) -> int:
    """The first round of the second of two levels, where those leave the least squared error."""
    errors = [
        float(np.sum((logs[:i] - logs[:i].mean()) ** 2) + np.sum((logs[i:] - logs[i:].mean()) ** 2))
        for i in range(1, len(logs))
    ]
    return int(numbers[1 + int(np.argmin(errors))])


def _is_worse(trend: RoundTrend) -> bool:
    if abs(trend.percent) < LEAST_PERCENT:
        return False
    return trend.high < 0 if trend.what == "life" else trend.low > 0
