"""What several shots say together of each element: weighted means with honest errors, shots that
stand out.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from kessik.core.composition.elements import visibility
from kessik.core.composition.shots import ElementReading, Shot

Floats = NDArray[np.float64]

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
    read = _Read.of(shots)
    rest = list(range(len(shots)))
    found: list[Outlier] = []
    while len(rest) > 1:
        z, others = read.apart(rest)
        worst_of = np.abs(z).max(axis=1, initial=0.0)
        standing_out = np.flatnonzero(worst_of >= _OUTLYING)
        if not standing_out.size:
            break
        worst = int(worst_of.argmax())
        named = standing_out.tolist() if len(rest) == 2 else [worst]
        found.extend(read.outlier(rest[row], z[row], others[row]) for row in named)
        rest = [] if len(rest) == 2 else rest[:worst] + rest[worst + 1 :]
    return tuple(found)


@dataclass(frozen=True)
class _Read:
    """Shots as arrays: content and weight 1/u², 0 where nothing was found, both of shape (shots,
    elements).
    """

    shots: tuple[Shot, ...]
    elements: tuple[str, ...]
    percent: Floats
    weight: Floats

    @classmethod
    def of(cls, shots: Sequence[Shot]) -> "_Read":
        elements = tuple(dict.fromkeys(r.element for shot in shots for r in shot.readings))
        column = {symbol: place for place, symbol in enumerate(elements)}
        percent = np.zeros((len(shots), len(elements)))
        weight = np.zeros_like(percent)
        for row, shot in enumerate(shots):
            for r in shot.readings:
                if r.detected and r.plus_minus_percent:
                    percent[row, column[r.element]] = r.percent
                    weight[row, column[r.element]] = r.plus_minus_percent**-2
        return cls(tuple(shots), elements, percent, weight)

    def apart(self, rows: Sequence[int]) -> tuple[Floats, Floats]:
        """How far each shot lies from the weighted mean of the others, in standard errors, and that
        mean, both of shape (rows, elements); 0 where one side found nothing.
        """
        x, w = self.percent[list(rows)], self.weight[list(rows)]
        others = w.sum(axis=0) - w
        known = (w > 0) & (others > 1e-12)
        safe = np.where(known, others, 1.0)
        mean = np.where(known, ((w * x).sum(axis=0) - w * x) / safe, 0.0)
        own = np.where(known, w, 1.0)
        error = np.sqrt(1.0 / own + 1.0 / safe + (_SCATTER_OF_SHOTS * mean) ** 2)
        return np.where(known, (x - mean) / error, 0.0), mean

    def outlier(self, row: int, z: Floats, others: Floats) -> Outlier:
        place = int(np.abs(z).argmax())
        shot = self.shots[row]
        percent, mean = float(self.percent[row, place]), float(others[place])
        return Outlier(shot.id, shot.name, self.elements[place], percent, mean, float(z[place]))
