"""How well shots fit every grade of a shelf: distances from its ranges, and weights of evidence."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.composition.means import ElementMean
from kessik.core.composition.shots import Normalised
from kessik.core.composition.table import GradeTable

Floats = NDArray[np.float64]

EXCLUDED_Z, CLOSE_Z = 3.0, 2.0


@dataclass(frozen=True)
class Fits:
    """How each assay lies against each grade.

    `z`, shape (elements, assays, grades): how many standard uncertainties an element lies outside
    the range, negative below it. `worst`, shape (assays, grades), the largest |z|. `scale`, of the
    same shape, corrects what was read for what is not seen of that grade, and `log_weight` is the
    ln of how likely the shots are.
    """

    z: Floats
    worst: Floats
    scale: Floats
    log_weight: Floats


def fits(
    table: GradeTable,
    assays: Sequence[Sequence[ElementMean]],
    normalised: Sequence[Normalised],
) -> Fits:
    """Hold the means of each assay against every grade of a table.

    A file that is normalised to 100 % reads high by what the analyser does not see; that is taken
    back with each grade's own carbon and nitrogen. Where nobody knows, the kinder reading counts
    against a range, and both count alike as evidence.
    """
    percent, error = _arrays(table, assays)
    corrected = np.broadcast_to(1.0 - table.unseen / 100.0, (len(assays), len(table.grades)))
    mode = np.array(normalised, dtype=str)[:, None]
    found = _held_against(table, percent, error, np.where(mode == "no", 1.0, corrected))
    if not (mode == "unknown").any():
        return found
    plain = _held_against(table, percent, error, np.ones_like(corrected))
    return _either(found, plain, mode == "unknown")


def _arrays(table: GradeTable, assays: Sequence[Sequence[ElementMean]]) -> tuple[Floats, Floats]:
    """What was read of each element and its uncertainty, both of shape (elements, assays)."""
    column = {symbol: place for place, symbol in enumerate(table.elements)}
    percent = np.full((len(table.elements), len(assays)), np.nan)
    error = np.ones_like(percent)
    for row, means in enumerate(assays):
        for mean in means:
            place = column.get(mean.element)
            if place is not None:
                percent[place, row], error[place, row] = mean.percent, mean.uncertainty_percent
    return percent, error


def _held_against(table: GradeTable, percent: Floats, error: Floats, scale: Floats) -> Fits:
    z = np.zeros((len(table.elements), *scale.shape))
    log_weight = np.zeros(scale.shape)
    for place in range(len(table.elements)):
        rows = np.flatnonzero(~np.isnan(percent[place]))
        measured = percent[place, rows, None] * scale[rows]
        sd = error[place, rows, None] * scale[rows]
        outside = np.maximum(measured - table.high[:, place], 0.0)
        outside -= np.maximum(table.low[:, place] - measured, 0.0)
        z[place, rows] = outside / sd
        variance = sd**2 + table.spread[:, place] ** 2
        measured -= table.centre[:, place]
        log_weight[rows] -= 0.5 * (measured**2 / variance + np.log(variance))
    worst = np.maximum(z.max(axis=0, initial=0.0), -z.min(axis=0, initial=0.0))
    return Fits(z, worst, scale, log_weight)


def _either(one: Fits, other: Fits, where: NDArray[np.bool_]) -> Fits:
    """The kinder of two readings of the same shots, grade by grade; as evidence both count."""
    second = where & (other.worst < one.worst)
    both = np.logaddexp(one.log_weight, other.log_weight) - np.log(2.0)
    return Fits(
        np.where(second, other.z, one.z),
        np.where(second, other.worst, one.worst),
        np.where(second, other.scale, one.scale),
        np.where(where, both, one.log_weight),
    )


def weights(log_weight: Floats, is_in: NDArray[np.bool_]) -> Floats:
    """Weights of evidence of the grades still in, which sum to 1; 0 for those that are out."""
    if not is_in.any():
        return np.zeros_like(log_weight)
    masked = np.where(is_in, log_weight, -np.inf)
    return np.asarray(scipy.special.softmax(masked))
