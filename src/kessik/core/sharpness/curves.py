"""The curve to draw: the posterior of force over the count, as median and 95 % band."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from kessik.core.sharpness import shapes
from kessik.core.sharpness.posterior import (
    SCATTER_NODES,
    EdgeLikelihood,
    ForceReadings,
    model_prior,
)

Floats = NDArray[np.float64]

_KEPT = 400
_START_PRIOR_WEIGHT = 0.5


@dataclass(frozen=True)
class CurveBand:
    """Counts and the median, 2.5 % and 97.5 % quantiles of the edge's force in gf, all shape
    (points,).
    """

    counts: Floats
    middle_gf: Floats
    low_gf: Floats
    high_gf: Floats


def curve_band(
    readings: ForceReadings, edge: EdgeLikelihood, limit_gf: float, to_count: float
) -> CurveBand:
    """Median curve and band from the start to `to_count`; the band speaks of the edge, not of
    single readings.
    """
    weights = model_prior()[:, None] * edge.likelihood * edge.spacing
    by_shape = weights.reshape(-1, SCATTER_NODES.size, edge.log_life.size).sum(axis=1)
    flat = by_shape.ravel()
    kept = np.argsort(flat)[-_KEPT:]
    weight = flat[kept] / flat[kept].sum()
    shape_index, life_index = np.unravel_index(kept, by_shape.shape)
    life = np.exp(edge.log_life[life_index])
    counts = np.linspace(0.0, to_count, 73)
    share = _shares(shape_index, counts, life)
    start = _starts(readings, _shares(shape_index, readings.counts, life), limit_gf)
    force = start[:, None] + (limit_gf - start[:, None]) * share
    order = np.argsort(force, axis=0)
    cumulative = np.cumsum(weight[order], axis=0)
    sorted_force = np.take_along_axis(force, order, axis=0)
    low, middle, high = (
        np.array([np.interp(q, cumulative[:, i], sorted_force[:, i]) for i in range(counts.size)])
        for q in (0.025, 0.5, 0.975)
    )
    return CurveBand(counts, middle, low, high)


def _shares(shape_index: NDArray[np.intp], counts: Floats, life: Floats) -> Floats:
    library = shapes.library()
    out = np.empty((life.size, counts.size))
    for index in np.unique(shape_index):
        rows = shape_index == index
        out[rows] = library[index].rise(counts[None, :] / life[rows, None])
    return out


def _starts(readings: ForceReadings, share: Floats, limit_gf: float) -> Floats:
    """Best start force for each curve: F - limit g = F0 (1 - g), weighted by 1 / F²; readings near
    the start decide.
    """
    weight = 1.0 / readings.force_gf**2
    free = 1.0 - share
    first = float(np.median(readings.force_gf[readings.counts == readings.counts.min()]))
    top = (weight * free * (readings.force_gf - limit_gf * share)).sum(
        axis=1
    ) + _START_PRIOR_WEIGHT / first
    bottom = (weight * free**2).sum(axis=1) + _START_PRIOR_WEIGHT / first**2
    return np.asarray(np.clip(top / bottom, 0.3 * first, 1.5 * first))
