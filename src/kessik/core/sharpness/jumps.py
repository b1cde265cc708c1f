"""Edges that rest under the limit and then fall off: a monotone jump process beside the shapes.

The level of an edge, x = ln(force / limit), only ever rises: by many small steps of wear, slower or
faster early than late, and by one rare fall. It is followed as a hidden Markov chain over a grid of
levels, forward and backward over all readings, for a handful of settings of its pace and several
scatters of the readings.
"""

from bisect import bisect
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.lib.stride_tricks import sliding_window_view
from numpy.typing import NDArray

Floats = NDArray[np.float64]

STEP = 0.04
_TOP, _LEAST_DEPTH = 0.84, 0.2
FREEDOM = 4.0
SCATTERS = np.array([0.03, 0.045, 0.065, 0.095])
_PACE = 0.7
_FALL_DECAY, _SHORTEST_FALL = 0.1, 2
_SETTINGS = np.array(
    [
        (0.05, 0.05, 0.1, 0.4, 0.3),
        (2.0, 0.02, 0.4, 0.3, 0.3),
        (1.8, 0.02, 0.4, 0.3, 0.6),
        (1.6, 0.02, 0.4, 0.3, 0.85),
        (2.0, 0.2, 0.1, 0.3, 0.3),
        (2.0, 0.2, 0.75, 0.3, 0.3),
        (1.5, 0.5, 0.1, 0.3, 0.3),
        (0.3, 0.3, 0.1, 0.3, 0.3),
        (0.3, 0.3, 0.75, 0.3, 0.3),
        (0.8, 0.8, 0.1, 0.3, 0.3),
        (0.8, 0.8, 0.75, 0.3, 0.3),
        (1.6, 1.6, 0.1, 0.3, 0.3),
        (1.6, 1.6, 0.75, 0.3, 0.3),
    ]
)
"""Drift early and late (in ln force over the run), clumping of the steps, rate of a fall, and the
share of the run after which it is late.
"""
_USUAL = _SETTINGS[:, 4] == 0.3
"""An edge may come to rest at any time. Those that rest only towards the end of what was seen tell
how long a life may be, not how long it is: nothing but its end speaks for them.
"""
_EARLY_SHARES = tuple(np.unique(_SETTINGS[:, 4]).tolist())
_WORTH_KEEPING = 0.02
_WORTH_SPLITTING, _PIECES, _NOTICED_LATE = 0.005, 4, 2
_GROWTH, _REACH = 1.25, 16.0


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
    wary: JumpLife


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
    chain = _Chain.over(counts, log_ratio, lowest_start)
    switches = np.array(_EARLY_SHARES) * chain.last
    times = np.unique(np.concatenate([[0.0], switches, counts]))
    states, log_scale = chain.forward(times)
    every_member = np.exp(log_scale - log_scale.max()) * scatter_weights
    usual_ones = every_member * _USUAL[:, None]
    log_evidence = [
        float(np.log(members.sum() / many) + log_scale.max())
        for members, many in ((usual_ones, _USUAL.sum()), (every_member, _USUAL.size))
    ]
    weights = np.stack([usual_ones / usual_ones.sum(), every_member / every_member.sum()])
    finer = [
        np.linspace(times[i], times[i + 1], _PIECES + 1)[1:-1]
        for i in _gaps_to_split(chain, states, weights[1])
    ]
    every = np.unique(np.concatenate([times, *finer]))
    both = weights.max(axis=0)
    kept = _Members(_worth_keeping(both.sum(axis=1)), _worth_keeping(both.sum(axis=0)))
    seen = _Seen(times, [state[kept.place] for state in states], kept, weights[:, *kept.place])
    alive = chain.alive(every, seen)
    if alive[-1].max() > _WORTH_SPLITTING:
        steps = int(np.ceil(np.log(_REACH) / np.log(_GROWTH)))
        ahead = times[-1] * _GROWTH ** np.arange(1, steps + 1)
        alive = np.concatenate([alive, chain.ahead(ahead, seen)])
        every = np.concatenate([every, ahead])
    lost = 1.0 - np.minimum.accumulate(alive, axis=0)
    return Falls(*(JumpLife(every, lost[:, way], log_evidence[way]) for way in (0, 1)))


def _gaps_to_split(chain: "_Chain", states: Sequence[Floats], weights: Floats) -> range:
    """The gaps in which the life may end: where what was seen up to then has it fall, and a little
    before, because it is noticed late.
    """
    under = int(np.count_nonzero(chain.levels < 0))
    known = [float((weights * state[:, :, :under].sum(axis=2)).sum()) for state in states]
    falls = np.flatnonzero(-np.diff(np.minimum.accumulate(known)) > _WORTH_SPLITTING)
    if not falls.size:
        return range(0)
    return range(max(int(falls[0]) - _NOTICED_LATE, 0), int(falls[-1]) + 1)


def _worth_keeping(weights: Floats) -> NDArray[np.intp]:
    return np.flatnonzero(weights > _WORTH_KEEPING * weights.max())


@dataclass(frozen=True)
class _Members:
    """The settings and the scatters that are followed, by their place."""

    settings: NDArray[np.intp]
    scatters: NDArray[np.intp]

    @property
    def place(self) -> tuple[NDArray[np.intp], NDArray[np.intp]]:
        return self.settings[:, None], self.scatters[None, :]


class _Seen:
    """What was seen up to each of `times`, of the members that are followed on, and how likely
    each is: `weights` of shape (ways, settings, scatters).
    """

    def __init__(
        self, times: Floats, states: Sequence[Floats], members: _Members, weights: Floats
    ) -> None:
        self.members = members
        self.weights = weights / weights.sum(axis=(1, 2), keepdims=True)
        self.last_time, self.last_state = float(times[-1]), states[-1]
        self.state_at = dict(zip(times.tolist(), states, strict=True))


@dataclass(frozen=True)
class _Chain:
    """The levels, what the readings say at each count, and the last count."""

    levels: Floats
    seen: dict[float, Floats]
    start: Floats
    last: float

    @classmethod
    def over(cls, counts: Floats, log_ratio: Floats, lowest_start: float) -> "_Chain":
        depth = max(-lowest_start, _LEAST_DEPTH)
        below = int(np.ceil(depth / STEP))
        levels = np.asarray(STEP * (np.arange(-below, round(_TOP / STEP) + 1) + 0.5), float)
        observed = np.minimum(log_ratio, levels[-1])
        z = (observed[:, None, None] - levels) / SCATTERS[:, None]
        logs = -0.5 * (FREEDOM + 1.0) * np.log1p(z**2 / FREEDOM) - np.log(SCATTERS)[:, None]
        seen: dict[float, Floats] = {}
        for count, row in zip(counts.tolist(), logs, strict=True):
            seen[count] = row if count not in seen else seen[count] + row
        start = np.where((levels < 0) & (levels >= lowest_start - STEP), 1.0, 0.0)
        return cls(levels, seen, np.asarray(start / start.sum()), float(counts.max()))

    def forward(self, times: Floats) -> tuple[list[Floats], Floats]:
        """The state at each time given what was seen up to it, each of shape (settings, scatters,
        levels), and the log of how likely all of it was, shape (settings, scatters).
        """
        shape = (len(_SETTINGS), SCATTERS.size, self.levels.size)
        moves = self._moves(times, np.arange(len(_SETTINGS)))
        states, log_scale = [], np.zeros(shape[:2])
        state: Floats = np.broadcast_to(self.start, shape)
        for index, time in enumerate(times.tolist()):
            if index:
                state = state @ moves[index - 1]
            likely = self.seen.get(time)
            if likely is not None:
                top = likely.max(axis=1)
                state = state * np.exp(likely - top[:, None])
                total = np.maximum(state.sum(axis=2), 1e-300)
                state, log_scale = state / total[:, :, None], log_scale + np.log(total) + top
            states.append(state)
        return states, log_scale

    def alive(self, times: Floats, seen: _Seen) -> Floats:
        """The chance to be below the limit at each time, given all that was seen, shape (times,
        ways).
        """
        moves = self._moves(times, seen.members.settings)
        states = [seen.state_at[times[0]]]
        for time, move in zip(times[1:].tolist(), moves, strict=True):
            known = seen.state_at.get(time)
            states.append(states[-1] @ move if known is None else known)
        alive = np.empty((times.size, len(seen.weights)))
        behind: Floats = np.ones_like(states[0])
        under = int(np.count_nonzero(self.levels < 0))
        for index in range(times.size - 1, -1, -1):
            both = states[index] * behind
            share = both[:, :, :under].sum(axis=2) / both.sum(axis=2)
            alive[index] = (seen.weights * share).sum(axis=(1, 2))
            if not index:
                continue
            likely = self.seen.get(times[index])
            if likely is not None:
                own = likely[seen.members.scatters]
                behind = behind * np.exp(own - own.max(axis=1)[:, None])
            behind = behind @ np.swapaxes(moves[index - 1], 1, 2)
            behind = behind / np.maximum(behind.max(axis=2, keepdims=True), 1e-300)
        return alive

    def ahead(self, later: Floats, seen: _Seen) -> Floats:
        """The chance to be below the limit at times after the last reading, shape (times, ways)."""
        state, under = seen.last_state, int(np.count_nonzero(self.levels < 0))
        alive = []
        times = np.concatenate([[seen.last_time], later])
        for move in self._moves(times, seen.members.settings):
            state = state @ move
            share = state[:, :, :under].sum(axis=2)
            alive.append((seen.weights * share).sum(axis=(1, 2)))
        return np.array(alive)

    def _moves(self, times: Floats, settings: NDArray[np.intp]) -> list[Floats]:
        """How levels move over each gap, shape (settings, levels, levels); like gaps share one."""
        known: dict[tuple[float, int], Floats] = {}
        moves: list[Floats] = []
        for start, end in zip(times[:-1].tolist(), times[1:].tolist(), strict=True):
            phase = bisect(_EARLY_SHARES, 0.5 * (start + end) / self.last)
            key = (round((end - start) / self.last, 9), phase)
            if key not in known:
                known[key] = _move(*key, self.levels.size)[settings]
            moves.append(known[key])
        return moves


@lru_cache(maxsize=128)
def _move(gap: float, phase: int, size: int) -> Floats:
    """How levels move over a gap, told as a share of the run, shape (settings, levels, levels);
    `phase` counts the early shares that are over.
    """
    is_late = _SETTINGS[:, 4] < (*_EARLY_SHARES, np.inf)[phase]
    drift = np.where(is_late, _SETTINGS[:, 1], _SETTINGS[:, 0])
    clump, fall = _SETTINGS[:, 2], _SETTINGS[:, 3]
    steps = _PACE * drift * (1.0 - clump) / (clump * STEP) * gap
    k = np.arange(1, size)
    growth = clump[:, None] * (steps[:, None] + k - 1) / k
    rises = np.concatenate([np.ones((clump.size, 1)), np.cumprod(growth, axis=1)], axis=1)
    rises *= ((1.0 - clump) ** steps)[:, None]
    falls = rises @ _fall_matrix(size)
    rises = rises + (-np.expm1(-fall * gap))[:, None] * (falls - rises)
    padded = np.concatenate([np.zeros((clump.size, size - 1)), rises], axis=1)
    move = sliding_window_view(padded, size, axis=1)[:, ::-1, :].copy()
    over = 1.0 - np.cumsum(rises, axis=1)
    move[:, :-1, -1] = np.maximum(over[:, size - 2 :: -1], 0.0)
    move[:, -1, -1] = 1.0
    return np.asarray(move)


@lru_cache(maxsize=64)
def _fall_matrix(size: int) -> Floats:
    """A fall on top of small steps: so many levels at once, small falls likelier than large."""
    k = np.arange(size)
    chance = np.where(k >= _SHORTEST_FALL, np.exp(-_FALL_DECAY * k), 0.0)
    chance /= np.exp(-_FALL_DECAY * _SHORTEST_FALL) / -np.expm1(-_FALL_DECAY)
    place = k[None, :] - k[:, None]
    return np.asarray(np.where(place >= 0, chance[np.maximum(place, 0)], 0.0))
