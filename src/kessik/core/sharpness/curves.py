"""The curve to draw: the posterior of force over the count, as median and 95 % band."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from kessik.core.sharpness import shapes
from kessik.core.sharpness.jumps import level_course
from kessik.core.sharpness.level_chain import STEP
from kessik.core.sharpness.posterior import (
    SCATTER_NODES,
    EdgeLikelihood,
    ForceReadings,
    fall_scatter_weights,
    lowest_start,
    model_prior,
)

Floats = NDArray[np.float64]

_KEPT, _POINTS = 400, 73
_WORTH_DRAWING, _PARTS = 0.05, 4
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
    single readings. Where an edge rests and falls, the jump process has its share in it.
    """
    counts = np.unique(np.concatenate([np.linspace(0.0, to_count, _POINTS), readings.counts]))
    counts = counts[counts <= to_count]
    force, weight = _by_shapes(readings, edge, limit_gf, counts)
    share = edge.fall.share if edge.fall is not None else 0.0
    if share > _WORTH_DRAWING and lowest_start(readings, limit_gf) < -STEP:
        levels, chance = _by_levels(readings, edge.studied, limit_gf, counts)
        force = np.concatenate([force, levels])
        weight = np.concatenate([(1.0 - share) * weight, share * chance])
    order = np.argsort(force, axis=0)
    cumulative = np.cumsum(np.take_along_axis(weight, order, axis=0), axis=0)
    in_order = np.take_along_axis(force, order, axis=0)
    low, middle, high = (
        np.maximum.accumulate(
            [np.interp(q, cumulative[:, i], in_order[:, i]) for i in range(counts.size)]
        )
        for q in (0.025, 0.5, 0.975)
    )
    return CurveBand(counts, middle, low, high)


def through_lives(band: CurveBand, crossings: Sequence[tuple[float, float]]) -> CurveBand:
    """The curve moved along the counts so that it meets each limit (gf) at the life that is told of
    it; `crossings` are limits with lives.
    """
    found, told = [0.0], [0.0]
    for limit_gf, life in sorted(crossings):
        over = np.flatnonzero(band.middle_gf > limit_gf)
        if not over.size or over[0] == 0:
            continue
        i = int(over[0])
        part = (limit_gf - band.middle_gf[i - 1]) / (band.middle_gf[i] - band.middle_gf[i - 1])
        at = float(band.counts[i - 1] + part * (band.counts[i] - band.counts[i - 1]))
        if at > found[-1] and life > told[-1]:
            found.append(at)
            told.append(life)
    last = float(band.counts[-1])
    if last > found[-1] and last > told[-1]:
        found.append(last)
        told.append(last)
    moved = np.interp(band.counts, found, told)
    return replace(band, counts=np.asarray(moved))


def _by_shapes(
    readings: ForceReadings, edge: EdgeLikelihood, limit_gf: float, counts: Floats
) -> tuple[Floats, Floats]:
    """Forces and weights of the likeliest curves of the library, shape (curves, counts)."""
    weights = model_prior()[:, None] * edge.likelihood * edge.spacing
    by_shape = weights.reshape(-1, SCATTER_NODES.size, edge.log_life.size).sum(axis=1)
    flat = by_shape.ravel()
    kept = np.argsort(flat)[-_KEPT:]
    weight = flat[kept] / flat[kept].sum()
    shape_index, life_index = np.unravel_index(kept, by_shape.shape)
    life = np.exp(edge.log_life[life_index])
    share = _shares(shape_index, counts, life)
    start = _starts(readings, _shares(shape_index, readings.counts, life), limit_gf)
    force = start[:, None] + (limit_gf - start[:, None]) * share
    return force, np.broadcast_to(weight[:, None], force.shape)


def _by_levels(
    readings: ForceReadings, studied: float | None, limit_gf: float, counts: Floats
) -> tuple[Floats, Floats]:
    """Forces and chances of the levels of the jump process, shape (levels, counts); beyond the last
    reading as there.
    """
    course = level_course(
        readings.counts,
        np.log(readings.force_gf / limit_gf),
        lowest_start(readings, limit_gf),
        fall_scatter_weights(studied),
        np.minimum(counts, readings.counts.max()),
    )
    parts = STEP * ((np.arange(_PARTS) + 0.5) / _PARTS - 0.5)  # a level is as wide as its step
    force = limit_gf * np.exp(course.levels[:, None] + parts).ravel()
    chance = np.repeat(course.chance.T / _PARTS, _PARTS, axis=0)
    return np.broadcast_to(force[:, None], chance.shape), chance


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
