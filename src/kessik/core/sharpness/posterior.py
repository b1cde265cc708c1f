"""The grid likelihood of one edge: shape x scatter x life, with the start force integrated out.

Errors on ln force are Student t, so that one bad reading moves little. Weak priors: life
log-uniform over the plausible range of the run, scatter around 5 % (as scale of the t), start near
the first readings. Cost grows in proportion to the number of readings.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.sharpness import shapes
from kessik.core.sharpness.jumps import JumpLife, jump_life
from kessik.core.sharpness.level_chain import SCATTERS, STEP
from kessik.core.spreads import READING_SCATTER

Floats = NDArray[np.float64]
Floats32 = NDArray[np.float32]

DEGREES_OF_FREEDOM = 4.0
SCATTER_NODES = np.array([0.025, 0.038, 0.052, 0.07, 0.095, 0.13])
_SCATTER_CENTRE, _SCATTER_SPREAD = 0.055, 0.45
_SCALE_OF_SD = _SCATTER_CENTRE / READING_SCATTER
_DAY_TO_DAY = 0.25
"""How far the ln scatter of a run lies from what a study of its gauge found: common practice, no
source."""
EARLY_DOWN_WEIGHT = 0.8
LATE_DOWN_WEIGHT = 0.8
MOST_EFFECTIVE_READINGS = 30.0
FEWEST_FOR_FALLS = 3
FALL_ODDS, WARY_ODDS = 2.0, 0.0
"""ln odds of the jump process beside the shapes, as the estimate takes it; and of one that may come
to rest late, beside both, as the interval does. Chosen by the mean interval score [1] over four
usual edges to one that rests (`make bench --only interval-score`).

[1] T. Gneiting and A. E. Raftery, Strictly proper scoring rules, 2007.
"""
_COARSE_LIVES, _FINE_LIVES = 36, 44
_START_NODES = 7
_READINGS_AT_ONCE = 128  # bounds the memory of a long run
_LEAST_SHAPE_MASS, _LEAST_SCATTER_MASS = 2e-4, 2e-3
_LOWEST_LIFE, _HIGHEST_LIFE = 0.25, 16.0
_EDGES_REMEMBERED = 384


def scatter_prior(studied: float | None = None) -> Floats:
    """Prior probabilities of the scatter nodes, shape (scatters,); log-normal around 5.5 %, and
    nearer to what a gauge study found: `studied`, the standard deviation of ln of one reading.

    By common practice, no source: readings of one edge on a test line repeat within 5 to 7 %, of a
    careless hand within 13 %. A worked example: the node of 13 % lies ln(0.13 / 0.055) / 0.45 =
    1.91 spreads from the middle, and so has exp(−1.91² / 2) = 0.16 of the weight that 5.5 % would.
    """
    density = np.exp(-0.5 * (np.log(SCATTER_NODES / _SCATTER_CENTRE) / _SCATTER_SPREAD) ** 2)
    density *= _by_study(studied)
    return np.asarray(density / density.sum())


def _by_study(studied: float | None) -> Floats:
    """How likely a gauge study found what it did at each scatter node, shape (scatters,); 1 without
    a study.

    A worked example: a study of 3.5 % speaks of a scale of 0.035 * 0.055 / 0.07 = 2.75 %; the node
    of 5.2 % lies ln(5.2 / 2.75) / 0.25 = 2.55 away from it, and so has exp(−2.55² / 2) = 0.04.
    """
    if studied is None:
        return np.ones(SCATTER_NODES.size)
    # a gauge beyond the last node is as coarse, or as fine, as the nodes tell
    scale = float(np.clip(_SCALE_OF_SD * studied, SCATTER_NODES[0], SCATTER_NODES[-1]))
    return np.asarray(np.exp(-0.5 * (np.log(SCATTER_NODES / scale) / _DAY_TO_DAY) ** 2))


@dataclass(frozen=True)
class ForceReadings:
    """Unstruck readings of one edge in order: `counts` and `force_gf`, both shape (readings,)."""

    counts: Floats
    force_gf: Floats

    @property
    def size(self) -> int:
        return int(self.counts.size)


@dataclass(frozen=True)
class FallMass:
    """What the jump process makes of an edge's readings, shape (lives,), summing to 1, and how
    much it has to say beside the shapes.
    """

    mass: Floats
    share: float


@dataclass(frozen=True, eq=False)
class EdgeLikelihood:
    """Likelihood of one edge over its life, given shape and scatter; two are the same only where
    they are one.

    `log_life` and the quadrature weights `spacing` have shape (lives,), unevenly spaced: dense
    where the mass is. `likelihood` has shape (shapes * scatters, lives), scaled so that its largest
    value is 1. `fall` is what an estimate takes of the jump process, `conservative_drop` what an
    interval has to reckon with; None where there are too few readings for it. `studied` is the
    scatter that a study of the gauge found, if any; the likelihood holds it already.
    """

    log_life: Floats
    spacing: Floats
    likelihood: Floats
    fall: FallMass | None = None
    conservative_drop: FallMass | None = None
    studied: float | None = None


def model_prior() -> Floats:
    """Prior over (shape, scatter) flattened, shape (shapes * scatters,)."""
    return np.outer(shapes.prior_weights(), scatter_prior()).ravel()


def edge_likelihood(
    readings: ForceReadings, limit_gf: float, studied: float | None = None, *, falls: bool = True
) -> EdgeLikelihood:
    """Likelihood of one edge's life to a limit, in two passes: coarse over all lives, then fine
    where it matters.

    `limit_gf` in gf; lives in the unit of the counts; `studied` is the standard deviation of ln
    that a gauge study found of one reading. Needs one reading at a count above zero.
    Without `falls` the shapes alone are asked: where a check goes next is no better known with
    them.

    References
    ----------
    [1] A. Gelman et al., Bayesian Data Analysis, chapters 10 and 17: grids, Student t errors;
    from memory.
    """
    start = _start_nodes(readings)
    rough = _rough_look(readings, limit_gf, studied, start)
    fallen: tuple[tuple[JumpLife, float], ...] = ()
    if falls:
        fallen = _falls(readings, limit_gf, rough.log_evidence, studied)
    mass = rough.mass
    if fallen:
        conservative = _on_lives(fallen[-1], rough.log_life)
        mass = (1.0 - conservative.share) * mass + conservative.share * conservative.mass
    fine = _fine_lives(rough.log_life, mass)
    likelihood = _close_look(readings, limit_gf, studied, start, rough, fine)
    fall, wary = (_on_lives(each, fine) for each in fallen) if fallen else (None, None)
    return EdgeLikelihood(fine, _spacing(fine), likelihood, fall, wary, studied)


@dataclass(frozen=True)
class _RoughLook:
    """A first pass over every plausible life, on every second scatter node: `joint` is how likely
    each model is with each life, prior and all, shape (shapes * scatters, lives).
    """

    log_life: Floats
    joint: Floats
    log_evidence: float

    @property
    def mass(self) -> Floats:
        """The mass of the life, shape (lives,)."""
        return np.asarray(self.joint.sum(axis=0) / self.joint.sum())

    @property
    def middle(self) -> float:
        return float(np.exp(self.log_life[np.searchsorted(np.cumsum(self.mass), 0.5)]))

    @property
    def worth_a_closer_look(self) -> tuple[NDArray[np.intp], NDArray[np.intp]]:
        """Shapes and scatters with a mass worth counting; the scatters between these, too."""
        mass = self.joint.sum(axis=1).reshape(len(shapes.library()), -1)
        by_shape, by_scatter = mass.sum(axis=1), mass.sum(axis=0)
        kept = np.flatnonzero(by_shape > _LEAST_SHAPE_MASS * by_shape.max())
        seen = np.flatnonzero(by_scatter > _LEAST_SCATTER_MASS * by_scatter.max()) * 2 + 1
        return kept, np.arange(seen[0] - 1, min(seen[-1] + 1, SCATTER_NODES.size - 1) + 1)


def _rough_look(
    readings: ForceReadings, limit_gf: float, studied: float | None, start: tuple[Floats, Floats]
) -> _RoughLook:
    """Every plausible life by every shape, with half of the scatters and of the starts."""
    coarse = _coarse_lives(readings, limit_gf)
    starts, start_prior = (nodes[::2] for nodes in start)
    scatters, prior = SCATTER_NODES[1::2], scatter_prior(studied)[1::2]
    equal = np.ones(readings.size)
    found = _log_likelihood(readings, limit_gf, coarse, starts, start_prior, scatters, equal)
    weight = np.outer(shapes.prior_weights(), prior).ravel()
    joint = weight[:, None] * np.exp(found - found.max()) * _spacing(coarse)
    whole = prior.sum() * start_prior.sum() * (coarse[-1] - coarse[0])
    return _RoughLook(coarse, joint, float(np.log(joint.sum() / whole) + found.max()))


def _close_look(
    readings: ForceReadings,
    limit_gf: float,
    studied: float | None,
    start: tuple[Floats, Floats],
    rough: _RoughLook,
    fine: Floats,
) -> Floats:
    """The likelihood on fine lives, of the models that are worth it; 0 of all others."""
    kept_shapes, kept_scatters = rough.worth_a_closer_look
    weights = _weights(readings.counts, rough.middle)
    scatters = SCATTER_NODES[kept_scatters]
    found = _log_likelihood(readings, limit_gf, fine, *start, scatters, weights, kept_shapes)
    block = np.exp(found - found.max()).reshape(kept_shapes.size, kept_scatters.size, fine.size)
    block *= _by_study(studied)[kept_scatters, None]
    likelihood = np.zeros((len(shapes.library()), SCATTER_NODES.size, fine.size))
    likelihood[np.ix_(kept_shapes, kept_scatters)] = block / block.max()
    return likelihood.reshape(-1, fine.size)


def known_likelihood(
    readings: ForceReadings, limit_gf: float, studied: float | None = None
) -> EdgeLikelihood:
    """`edge_likelihood`, remembered: a new reading on one edge changes nothing of its sisters."""
    return _remembered(readings.counts.tobytes(), readings.force_gf.tobytes(), limit_gf, studied)


@lru_cache(maxsize=_EDGES_REMEMBERED)
def _remembered(
    counts: bytes, force_gf: bytes, limit_gf: float, studied: float | None
) -> EdgeLikelihood:
    readings = ForceReadings(np.frombuffer(counts), np.frombuffer(force_gf))
    return edge_likelihood(readings, limit_gf, studied)


def lowest_start(readings: ForceReadings, limit_gf: float) -> float:
    """The ln of the least plausible start over the limit."""
    return float(_start_nodes(readings)[0].min() - np.log(limit_gf))


def fall_scatter_weights(studied: float | None = None) -> Floats:
    """The prior of the scatters of the jump process, shape (scatters,)."""
    weights = np.interp(np.log(SCATTERS), np.log(SCATTER_NODES), scatter_prior(studied))
    return np.asarray(weights / weights.sum())


def _falls(
    readings: ForceReadings, limit_gf: float, by_shapes: float, studied: float | None
) -> tuple[tuple[JumpLife, float], ...]:
    """What the jump process says, as an estimate takes it and as an interval does, each with its
    share beside the shapes by the evidence of both, `by_shapes` that of the shapes; empty where
    there is too little to go by.
    """
    lowest = lowest_start(readings, limit_gf)
    if readings.size < FEWEST_FOR_FALLS or lowest >= -STEP:
        return ()
    log_ratio = np.log(readings.force_gf / limit_gf)
    found = jump_life(readings.counts, log_ratio, lowest, fall_scatter_weights(studied))
    return tuple(
        (fall, float(scipy.special.expit(odds + fall.log_evidence - by_shapes)))
        for fall, odds in ((found.usual, FALL_ODDS), (found.conservative, WARY_ODDS))
    )


def _on_lives(fall: tuple[JumpLife, float], log_life: Floats) -> FallMass:
    known, share = fall
    mass = known.mass(log_life)
    return FallMass(np.asarray(mass / mass.sum()), share)


def _spacing(nodes: Floats) -> Floats:
    return np.asarray(np.gradient(nodes))


def _coarse_lives(readings: ForceReadings, limit_gf: float) -> Floats:
    """Nodes over every plausible life, dense around the place where readings pass from below to
    above the limit.
    """
    counts = readings.counts
    low = np.log(_LOWEST_LIFE * float(counts[counts > 0].min()))
    high = np.log(_HIGHEST_LIFE * float(counts.max()))
    below = int(np.count_nonzero(readings.force_gf <= limit_gf))
    guess = np.log(
        max(float(np.sort(counts)[min(below, counts.size - 1)]), float(counts[counts > 0].min()))
    )
    dense = np.linspace(guess - 0.6, guess + 0.5, _COARSE_LIVES)
    outside = np.linspace(low, high, _COARSE_LIVES // 2)
    return np.concatenate(
        [outside[outside < dense[0] - 0.03], dense, outside[outside > dense[-1] + 0.03]]
    )


def _fine_lives(coarse: Floats, mass: Floats) -> Floats:
    """Nodes spread half evenly over the window that holds the mass, half in proportion to the
    mass.
    """
    cumulative = np.cumsum(mass)
    first = max(int(np.searchsorted(cumulative, 2e-4)) - 1, 0)
    last = min(int(np.searchsorted(cumulative, 1 - 2e-4)) + 1, coarse.size - 1)
    nodes = coarse[first : last + 1]
    even = (nodes - nodes[0]) / (nodes[-1] - nodes[0])
    by_mass = np.concatenate(
        [[0.0], np.cumsum(0.5 * (mass[first:last] + mass[first + 1 : last + 1]))]
    )
    place = 0.5 * even + 0.5 * by_mass / by_mass[-1]
    return np.asarray(np.interp(np.linspace(0.0, 1.0, _FINE_LIVES), place, nodes))


def _weights(counts: Floats, centre: float) -> Floats:
    """Readings far from the crossing count a little less, so that a misfitting stretch there cannot
    drive the life.

    Together they count for at most so many: no shape here is exactly the edge's, and beyond that
    number more readings make a wrong shape surer of itself rather than righter.
    """
    distance = 1.0 - counts / centre
    rate = np.where(distance > 0, EARLY_DOWN_WEIGHT, -LATE_DOWN_WEIGHT)
    weights = np.exp(-rate * distance)
    return np.asarray(weights * min(1.0, MOST_EFFECTIVE_READINGS / weights.sum()))


def _start_nodes(readings: ForceReadings) -> tuple[Floats, Floats]:
    """Nodes for ln start force and their prior, from the readings at the lowest count.

    Flat around what was read: twice the scatter of a careless hand to either side, less where
    several readings agree; far below it where the fresh edge was not read. A worked example: three
    readings of 150 gf before the first cut let the start lie between 150 e^−0.14 = 131 and 172 gf;
    one reading of 200 gf at cut 5 lets it lie between 74 and 225 gf.
    """
    first = float(readings.counts.min())
    at_first = np.log(readings.force_gf[readings.counts == first])
    centre, count = float(np.median(at_first)), at_first.size
    if first == 0:
        reach = 0.24 / np.sqrt(min(count, 4))
        nodes = np.linspace(centre - reach, centre + reach, _START_NODES)
        return nodes, np.full(_START_NODES, 1.0 / _START_NODES)
    nodes = np.linspace(centre - 1.0, centre + 0.12, _START_NODES + 4)
    return nodes, np.full(nodes.size, 1.0 / nodes.size)


def _log_likelihood(
    readings: ForceReadings,
    limit_gf: float,
    log_life: Floats,
    starts: Floats,
    start_prior: Floats,
    scatters: Floats,
    weights: Floats,
    kept_shapes: NDArray[np.intp] | None = None,
) -> Floats:
    """ln likelihood, shape (shapes * scatters, lives); single precision inside, which is ample for
    a grid.
    """
    ratio = (np.exp(starts) / limit_gf).astype(np.float32)
    observed = np.log(readings.force_gf / limit_gf).astype(np.float32)
    sums: Floats32 | None = None
    for first in range(0, readings.size, _READINGS_AT_ONCE):
        part = slice(first, first + _READINGS_AT_ONCE)
        u = readings.counts[None, part] / np.exp(log_life)[:, None]
        share = shapes.rises(u, kept_shapes).astype(np.float32)
        part_sums = _misfits(
            share, ratio, observed[part], scatters, weights[part].astype(np.float32)
        )
        sums = part_sums if sums is None else sums + part_sums
    assert sums is not None, "a run has at least one reading here"
    half = np.float32(0.5 * (DEGREES_OF_FREEDOM + 1.0))
    width = (weights.sum() * np.log(scatters)).astype(np.float32)
    each = -half * sums - width[:, None, None, None] + np.log(start_prior).astype(np.float32)
    top = each.max(axis=-1, keepdims=True)
    total = top[..., 0] + np.log(np.exp(each - top).sum(axis=-1))
    return np.asarray(np.moveaxis(total, 0, 1).reshape(-1, log_life.size).astype(np.float64))


def _misfits(
    share: Floats32, ratio: Floats32, observed: Floats32, scatters: Floats, weight: Floats32
) -> Floats32:
    """Weighted sums of ln(1 + z² / freedom) over some readings, shape (scatters, shapes, lives,
    starts).
    """
    curve = share[:, :, None, :] + ratio[None, None, :, None] * (
        np.float32(1.0) - share[:, :, None, :]
    )
    np.maximum(curve, np.float32(1e-4), out=curve)
    np.log(curve, out=curve)
    curve -= observed
    np.square(curve, out=curve)
    work = np.empty_like(curve)
    layers = []
    for scatter in scatters:
        np.multiply(curve, np.float32(1.0 / (DEGREES_OF_FREEDOM * scatter**2)), out=work)
        work += np.float32(1.0)
        np.log(work, out=work)
        layers.append(work @ weight)
    return np.stack(layers)
