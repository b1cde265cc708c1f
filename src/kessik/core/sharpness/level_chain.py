"""The level of an edge as a hidden Markov chain over a grid of levels, followed forward and
backward over all readings, for a handful of settings of its pace and several scatters of the
readings.

A level is x = ln(force / limit). It only ever rises: by many small steps of wear, slower or faster
early than late, and by one rare fall.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.lib.stride_tricks import as_strided
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Places = NDArray[np.intp]

STEP = 0.04
_TOP, _LEAST_DEPTH = 0.84, 0.2
_FREEDOM = 4.0
SCATTERS = np.array([0.03, 0.045, 0.065, 0.095])
_PACE = 0.7
_FALL_DECAY, _SHORTEST_FALL = 0.1, 2
SETTINGS = np.array(
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
EARLY_SHARES = np.unique(SETTINGS[:, 4])
_SCALED_EVERY = 8
"""What is carried along grows small with every reading; so often it is brought back to 1."""
_TINY = 1e-300


@dataclass(frozen=True)
class LevelChain:
    """The levels, what the readings say at each of `counts`, shape (counts, scatters, levels) in
    ln, and the chance to start at each level.
    """

    levels: Floats
    counts: Floats
    seen: Floats
    start: Floats

    @classmethod
    def over(
        cls, counts: Floats, log_ratio: Floats, lowest_start: float, top: float = _TOP
    ) -> "LevelChain":
        """A chain over readings: `counts` and ln(force / limit), shape (readings,), in order;
        levels up to `top`.
        """
        depth = max(-lowest_start, _LEAST_DEPTH)
        below = int(np.ceil(depth / STEP))
        levels = np.asarray(STEP * (np.arange(-below, round(top / STEP) + 1) + 0.5), float)
        observed = np.minimum(log_ratio, levels[-1])
        z = (observed[:, None, None] - levels) / SCATTERS[:, None]
        logs = -0.5 * (_FREEDOM + 1.0) * np.log1p(z**2 / _FREEDOM) - np.log(SCATTERS)[:, None]
        at, place = np.unique(counts, return_inverse=True)
        seen = np.zeros((at.size, *logs.shape[1:]))
        np.add.at(seen, place, logs)
        start = np.where((levels < 0) & (levels >= lowest_start - STEP), 1.0, 0.0)
        return cls(levels, at, seen, np.asarray(start / start.sum()))

    @property
    def last(self) -> float:
        """The last count that was looked at."""
        return float(self.counts[-1])

    @property
    def under(self) -> slice:
        """The levels below the limit."""
        return slice(0, int(np.count_nonzero(self.levels < 0)))

    def forward(self, times: Floats) -> tuple[Floats, Floats]:
        """The state at each time given what was seen up to it, shape (times, settings, scatters,
        levels), and the ln of how likely all of it was, shape (settings, scatters). Every count is
        among the times.
        """
        shape = (SETTINGS.shape[0], SCATTERS.size, self.levels.size)
        moves = self._moves(times, np.arange(shape[0]))
        likely = self._likely(times)
        log_scale = np.broadcast_to(self.seen.max(axis=2).sum(axis=0), shape[:2])
        states = np.empty((times.size, *shape))
        state: Floats = np.broadcast_to(self.start, shape)
        for index in range(times.size):
            if index:
                state = state @ moves[index - 1]
            state = state * likely[index]
            if index % _SCALED_EVERY == 0 or index == times.size - 1:
                total = np.maximum(state.sum(axis=2), _TINY)
                state, log_scale = state / total[:, :, None], log_scale + np.log(total)
            states[index] = state
        states /= np.maximum(states.sum(axis=3, keepdims=True), _TINY)
        return states, log_scale

    def under_limit(
        self, times: Floats, known: dict[float, Floats], settings: Places, scatters: Places
    ) -> Floats:
        """The chance to be below the limit at each time given all that was seen, shape (times,
        settings, scatters), of some settings and scatters; `known` are their states at the times
        that `forward` was asked for.
        """
        states = self.smoothed(times, known, settings, scatters)
        return np.asarray(states[..., self.under].sum(axis=3) / states.sum(axis=3))

    def smoothed(
        self, times: Floats, known: dict[float, Floats], settings: Places, scatters: Places
    ) -> Floats:
        """The state at each time given all that was seen, up to a factor, shape (times, settings,
        scatters, levels).
        """
        moves, likely = self._moves(times, settings), self._likely(times)[:, scatters]
        states = np.empty((times.size, settings.size, scatters.size, self.levels.size))
        for index, time in enumerate(times.tolist()):
            own = known.get(time)
            states[index] = states[index - 1] @ moves[index - 1] if own is None else own
        behind = np.ones_like(states)
        for index in range(times.size - 1, 0, -1):
            back = (behind[index] * likely[index]) @ np.swapaxes(moves[index - 1], 1, 2)
            if index % _SCALED_EVERY == 0:
                back = back / np.maximum(back.max(axis=2, keepdims=True), _TINY)
            behind[index - 1] = back
        states *= behind
        return states

    def under_limit_ahead(self, state: Floats, later: Floats, settings: Places) -> Floats:
        """The same at times after the last reading, from the state at that."""
        found = []
        for move in self._moves(np.concatenate([[self.last], later]), settings):
            state = state @ move
            found.append(state[..., self.under].sum(axis=2))
        return np.stack(found)

    def _likely(self, times: Floats) -> Floats:
        """How likely each level makes what was seen at each time, shape (times, scatters, levels);
        1 where it does best, and where nothing was seen.
        """
        likely = np.ones((times.size, *self.seen.shape[1:]))
        best = self.seen.max(axis=2, keepdims=True)
        likely[np.searchsorted(times, self.counts)] = np.exp(self.seen - best)
        return likely

    def _moves(self, times: Floats, settings: Places) -> list[Floats]:
        """How levels move over each gap, shape (settings, levels, levels); like gaps share one."""
        gaps = np.round(np.diff(times) / self.last, 9)
        phases = np.searchsorted(EARLY_SHARES, 0.5 * (times[1:] + times[:-1]) / self.last)
        _, own, place = np.unique(gaps + 2.0 * phases, return_index=True, return_inverse=True)
        moves = _moved(_rises(gaps[own], phases[own], SETTINGS[settings], self.levels.size))
        return [moves[index] for index in place.tolist()]


def _rises(gaps: Floats, phases: Places, settings: Floats, size: int) -> Floats:
    """The chance to rise by so many levels over gaps, told as shares of the run, shape (gaps,
    settings, levels); `phases` count the early shares that are over.
    """
    early, late, clump, fall, share = settings.T
    is_late = share < np.array([*EARLY_SHARES, np.inf])[phases][:, None]
    gap = gaps[:, None]
    steps = _PACE * np.where(is_late, late, early) * (1.0 - clump) / (clump * STEP) * gap
    k = np.arange(1, size)
    rises = np.ones((*steps.shape, size))
    np.cumprod(clump[:, None] * (steps[:, :, None] + k - 1) / k, axis=2, out=rises[:, :, 1:])
    rises *= ((1.0 - clump) ** steps)[:, :, None]
    falls = rises @ _fall_matrix(size)
    return np.asarray(rises + (-np.expm1(-fall * gap))[:, :, None] * (falls - rises))


def _moved(rises: Floats) -> list[Floats]:
    """The same from each level to each, a matrix of shape (settings, levels, levels) for each gap;
    what goes beyond the last level stays there.
    """
    gaps, settings, size = rises.shape
    padded = np.concatenate([np.zeros((gaps, settings, size - 1)), rises], axis=2)
    gap, setting, level = padded.strides
    shifted = as_strided(
        padded[:, :, size - 1 :],
        (gaps, settings, size, size),
        (gap, setting, -level, level),
    )
    over = np.maximum(1.0 - np.cumsum(rises, axis=2)[:, :, size - 2 :: -1], 0.0)
    moves = [own.copy() for own in shifted]
    for move, beyond in zip(moves, over, strict=True):
        move[:, :-1, -1] = beyond
        move[:, -1, -1] = 1.0
    return moves


@lru_cache(maxsize=64)
def _fall_matrix(size: int) -> Floats:
    """A fall on top of small steps: so many levels at once, small falls likelier than large."""
    k = np.arange(size)
    chance = np.where(k >= _SHORTEST_FALL, np.exp(-_FALL_DECAY * k), 0.0)
    chance /= np.exp(-_FALL_DECAY * _SHORTEST_FALL) / -np.expm1(-_FALL_DECAY)
    place = k[None, :] - k[:, None]
    return np.asarray(np.where(place >= 0, chance[np.maximum(place, 0)], 0.0))
