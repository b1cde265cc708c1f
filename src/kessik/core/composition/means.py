"""What several shots say together of each element: weighted means with honest errors, shots that
stand out.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.composition.elements import visibility
from kessik.core.composition.shots import ElementReading, Shot

_OUTLYING = 4.0
_SCATTER_OF_SHOTS = 0.01
_LIMIT_IN_SDS = 3.0
"""A limit of detection is so many standard deviations of the blank; common practice, no source."""


@dataclass(frozen=True)
class Calibration:
    """How far the analyser itself may be off, whatever the number of shots: the larger of
    `absolute_percent` and a share of the value; more by a factor for what it sees poorly.
    """

    absolute_percent: float = 0.02
    relative: float = 0.02
    poorly_seen: float = 2.5

    def floor_percent(self, symbol: str, percent: float) -> float:
        """The standard uncertainty that stays, mass per cent."""
        times = self.poorly_seen if visibility(symbol) == "poorly" else 1.0
        return times * max(self.absolute_percent, self.relative * percent)


@dataclass(frozen=True)
class ElementMean:
    """What the shots say of one element, mass per cent.

    `shot_percent` is the standard uncertainty by the shots alone, `uncertainty_percent` with the
    calibration. Where it was never detected, `limit_percent` is the least limit of detection and
    `percent` a third of it. `scattered` where the shots differ by more than their ±.
    """

    element: str
    percent: float
    shot_percent: float
    uncertainty_percent: float
    shots: int
    detected: bool = True
    limit_percent: float | None = None
    scattered: bool = False


@dataclass(frozen=True)
class Outlier:
    """A shot that stands out from the others in one element, in standard errors; it counts until
    the tester strikes it.
    """

    shot_id: str
    shot: str
    element: str
    percent: float
    others_percent: float
    z: float


def element_means(shots: Sequence[Shot], calibration: Calibration) -> tuple[ElementMean, ...]:
    """The mean of each element that the shots speak of, in the order they name them."""
    symbols = dict.fromkeys(reading.element for shot in shots for reading in shot.readings)
    return tuple(
        _mean(symbol, [r for shot in shots if (r := shot.reading_of(symbol))], calibration)
        for symbol in symbols
    )


def _mean(symbol: str, readings: Sequence[ElementReading], calibration: Calibration) -> ElementMean:
    found = [r for r in readings if r.detected and r.plus_minus_percent]
    if not found:
        limit = min(reading.percent for reading in readings)
        shot = max(limit / _LIMIT_IN_SDS, 1e-4)
        whole = math.hypot(shot, calibration.floor_percent(symbol, shot))
        return ElementMean(symbol, shot, shot, whole, len(readings), False, limit)
    mean, error = weighted_mean(
        [r.percent for r in found], [r.plus_minus_percent or 1.0 for r in found]
    )
    chi2 = sum(((r.percent - mean) / (r.plus_minus_percent or 1.0)) ** 2 for r in found)
    ratio = chi2 / (len(found) - 1) if len(found) > 1 else 1.0
    scattered = ratio > 4.0
    shot = error * math.sqrt(max(ratio, 1.0))
    whole = math.hypot(shot, calibration.floor_percent(symbol, mean))
    return ElementMean(symbol, mean, shot, whole, len(readings), True, None, scattered)


def weighted_mean(values: Sequence[float], errors: Sequence[float]) -> tuple[float, float]:
    """Mean weighted by 1/u² and its standard error, in the unit of the values.

    References
    ----------
    [1] R. T. Birge, The calculation of errors by the method of least squares, 1932: the caller
    widens the error where values scatter more than theirs; from memory.
    """
    weights = [1.0 / error**2 for error in errors]
    whole = math.fsum(weights)
    mean = math.fsum(w * value for w, value in zip(weights, values, strict=True)) / whole
    return mean, whole**-0.5


def outliers(shots: Sequence[Shot]) -> tuple[Outlier, ...]:
    """The shots that stand out from their sisters, the worst first, each by the element it does so
    most in. Of two that differ nobody knows which is right: both are named.
    """
    found: list[Outlier] = []
    rest = list(shots)
    while len(rest) > 1:
        apart = _standing_out(rest)
        if not apart:
            break
        if len(rest) == 2:
            found.extend(apart)
            break
        worst = max(apart, key=lambda outlier: abs(outlier.z))
        found.append(worst)
        rest = [shot for shot in rest if shot.id != worst.shot_id]
    return tuple(found)


def _standing_out(shots: Sequence[Shot]) -> list[Outlier]:
    found = []
    for shot in shots:
        others = [other for other in shots if other.id != shot.id]
        apart = [o for r in shot.readings if (o := _apart(shot, r, others)) is not None]
        if apart:
            found.append(max(apart, key=lambda outlier: abs(outlier.z)))
    return found


def _apart(shot: Shot, reading: ElementReading, others: Sequence[Shot]) -> Outlier | None:
    beside = [
        r
        for other in others
        if (r := other.reading_of(reading.element)) and r.detected and r.plus_minus_percent
    ]
    if not beside or not reading.detected or not reading.plus_minus_percent:
        return None
    mean, error = weighted_mean(
        [r.percent for r in beside], [r.plus_minus_percent or 1.0 for r in beside]
    )
    own = math.hypot(reading.plus_minus_percent, error, _SCATTER_OF_SHOTS * mean)
    z = (reading.percent - mean) / own
    if abs(z) < _OUTLYING:
        return None
    return Outlier(shot.id, shot.name, reading.element, reading.percent, mean, z)
