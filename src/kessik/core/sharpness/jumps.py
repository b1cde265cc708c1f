"""Edges that rest under the limit and then fall off: a monotone jump process beside the shapes."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from kessik.core.sharpness.level_chain import EARLY_SHARES, SETTINGS, LevelChain, Places

Floats = NDArray[np.float64]

_USUAL = SETTINGS[:, 4] == EARLY_SHARES[0]
"""An edge may come to rest at any time. Those that rest only towards the end of what was seen tell
how long a life may be, not how long it is: nothing but its end speaks for them.
"""
_WORTH_KEEPING = 0.02
_WORTH_SPLITTING, _PIECES, _NOTICED_LATE = 0.005, 4, 2
_GROWTH, _REACH = 1.25, 16.0
_ABOVE_THE_LAST = 0.3
"""So far, in ln force, a course may run above its highest reading."""


@dataclass(frozen=True)
class JumpLife:
    """What the process says of a life: `lost` is the chance that it was over by each of `counts`;
    `log_evidence` with the constants of one reading left out.
    """

    counts: Floats
    lost: Floats
    log_evidence: float

    def mass(self, log_life: Floats) -> Floats:
        """Its mass at nodes of ln life; what lies beyond the last is with the last."""
        middles = 0.5 * (log_life[1:] + log_life[:-1])
        with np.errstate(divide="ignore"):
            known = np.log(self.counts)
        upto = np.concatenate([[0.0], np.interp(middles, known[1:], self.lost[1:]), [1.0]])
        return np.asarray(np.maximum(np.diff(upto), 0.0))


@dataclass(frozen=True)
class Falls:
    """What the process says of a life: as it usually goes, and where it may also come to rest late,
    which an interval has to hold.
    """

    usual: JumpLife
    conservative: JumpLife


def jump_life(
    counts: Floats, log_ratio: Floats, lowest_start: float, scatter_weights: Floats
) -> Falls:
    """Follow an edge through its readings: `counts` and ln(force / limit), shape (readings,), in
    order.

    Starts are equally likely from `lowest_start`, the ln of the least plausible start over the
    limit, up to it; `scatter_weights` are the prior of the scatters.

    References
    ----------
    [1] L. R. Rabiner, A tutorial on hidden Markov models, 1989: forward and backward; from memory.
    """
    chain = LevelChain.over(counts, log_ratio, lowest_start)
    switches = EARLY_SHARES * chain.last
    times = np.unique(np.concatenate([[0.0], switches, counts]))
    states, log_scale = chain.forward(times)
    every_member = np.exp(log_scale - log_scale.max()) * scatter_weights
    usual_ones = every_member * _USUAL[:, None]
    log_evidence = [
        float(np.log(members.sum() / many) + log_scale.max())
        for members, many in ((usual_ones, _USUAL.sum()), (every_member, _USUAL.size))
    ]
    ways = np.stack([usual_ones / usual_ones.sum(), every_member / every_member.sum()])
    every, under = _under_limit(chain, times, states, ways)
    lost = 1.0 - np.minimum.accumulate(under, axis=0)
    return Falls(*(JumpLife(every, lost[:, way], log_evidence[way]) for way in (0, 1)))


@dataclass(frozen=True)
class LevelCourse:
    """How likely each level, ln(force / limit), is at each count: `chance` has shape (counts,
    levels), its rows sum to 1.
    """

    levels: Floats
    chance: Floats


def level_course(
    counts: Floats, log_ratio: Floats, lowest_start: float, scatter_weights: Floats, at: Floats
) -> LevelCourse:
    """The course of an edge through its readings, at counts in rising order up to the last; all as
    for `jump_life`.
    """
    top = max(float(log_ratio.max()) + _ABOVE_THE_LAST, _ABOVE_THE_LAST)
    chain = LevelChain.over(counts, log_ratio, lowest_start, top)
    times = np.unique(np.concatenate([[0.0], EARLY_SHARES * chain.last, counts]))
    states, log_scale = chain.forward(times)
    weights = np.exp(log_scale - log_scale.max()) * scatter_weights
    settings, scatters = _worth_keeping(weights.sum(axis=1)), _worth_keeping(weights.sum(axis=0))
    kept = np.ix_(settings, scatters)
    known = {time: state[kept] for time, state in zip(times.tolist(), states, strict=True)}
    every = np.unique(np.concatenate([times, at]))
    whole = chain.smoothed(every, known, settings, scatters)
    whole /= whole.sum(axis=3, keepdims=True)
    share = weights[kept] / weights[kept].sum()
    chance = np.tensordot(share, whole, axes=((0, 1), (1, 2)))
    return LevelCourse(chain.levels, np.asarray(chance[np.searchsorted(every, at)]))


def _under_limit(
    chain: LevelChain, times: Floats, states: Floats, ways: Floats
) -> tuple[Floats, Floats]:
    """Times, and the chance to be below the limit at each of them, shape (times, ways), of the
    members that have any weight; `ways` are the weights of members, shape (ways, settings,
    scatters).
    """
    finer = [
        np.linspace(times[i], times[i + 1], _PIECES + 1)[1:-1]
        for i in _gaps_to_split(chain, states, ways[-1])
    ]
    every = np.unique(np.concatenate([times, *finer]))
    either = ways.max(axis=0)
    settings = _worth_keeping(either.sum(axis=1))
    scatters = _worth_keeping(either.sum(axis=0))
    kept = np.ix_(settings, scatters)
    weights = np.stack([way[kept] / way[kept].sum() for way in ways])
    known = {time: state[kept] for time, state in zip(times.tolist(), states, strict=True)}
    members = chain.under_limit(every, known, settings, scatters)
    under = np.tensordot(members, weights, axes=((1, 2), (1, 2)))
    if under[-1].max() > _WORTH_SPLITTING:
        steps = int(np.ceil(np.log(_REACH) / np.log(_GROWTH)))
        later = times[-1] * _GROWTH ** np.arange(1, steps + 1)
        members = chain.under_limit_ahead(states[-1][kept], later, settings)
        under = np.concatenate([under, np.tensordot(members, weights, axes=((1, 2), (1, 2)))])
        every = np.concatenate([every, later])
    return every, under


def _gaps_to_split(chain: LevelChain, states: Floats, weights: Floats) -> range:
    """The gaps in which the life may end: where what was seen up to then has it fall, and a little
    before, because it is noticed late.
    """
    members = states[..., chain.under].sum(axis=3)
    known = np.minimum.accumulate((members * weights).sum(axis=(1, 2)))
    falls = np.flatnonzero(-np.diff(known) > _WORTH_SPLITTING)
    if not falls.size:
        return range(0)
    return range(max(int(falls[0]) - _NOTICED_LATE, 0), int(falls[-1]) + 1)


def _worth_keeping(weights: Floats) -> Places:
    return np.flatnonzero(weights > _WORTH_KEEPING * weights.max())
