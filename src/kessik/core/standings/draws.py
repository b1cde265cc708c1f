"""A season as it could have been, many times over: positions of arms and what links say of them."""

from collections.abc import Callable, Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property

import numpy as np
import scipy
from numpy.typing import NDArray

from kessik.core.standings.fit import Fit
from kessik.core.standings.network import Indices

Floats = NDArray[np.float64]
Normals = Callable[[tuple[int, ...]], Floats]
"""A source of independent standard normal numbers of a shape; seeds come in from outside."""

DRAWS = 4000


@dataclass(frozen=True)
class Season:
    """Draws of a fit's columns and of the arms, shape (draws, columns) and (draws, arms).

    Both are beside the pinned arm of their firm group. `inflation` makes normal draws those of a t,
    and `normals` gives the noise of whatever else is drawn.
    """

    fit: Fit
    columns: Floats
    arms: Floats
    inflation: Floats
    normals: Normals

    def edge_noise(self, runs: Indices) -> Floats:
        """What edges of runs of the network add, shape (draws, runs)."""
        network, variances = self.fit.design.network, self.fit.variances
        sd = np.hypot(variances.edge_sd[network.trial[runs]], network.log_sd[runs])
        return self.normals((self.inflation.size, runs.size)) * sd * self.inflation[:, None]

    @cached_property
    def _at_testers(self) -> dict[tuple[int, int], Floats]:
        return {}

    def arm_at_tester(self, arm: int, tester: int) -> Floats:
        """An arm as one tester cuts it, shape (draws,)."""
        key = (arm, tester)
        if key not in self._at_testers:
            self._at_testers[key] = self._drawn_at_tester(arm, tester)
        return self._at_testers[key]

    def _drawn_at_tester(self, arm: int, tester: int) -> Floats:
        design = self.fit.design
        if key_at := [at for at, cell in enumerate(design.cells) if cell == (arm, tester)]:
            return np.asarray(self.arms[:, arm] + self.columns[:, design.fixed + key_at[0]])
        column = design.arm_column[arm]
        seen_here = design.placed[arm] and np.any(
            design.network.tester[design.runs[design.arm == arm]] == tester
        )
        if seen_here:  # its only tester: arm and tester are fitted as one
            return self.columns[:, column] if column >= 0 else np.zeros(self.inflation.size)
        unseen = (
            self.fit.variances.tester_sd * self.inflation * self.normals((self.inflation.size,))
        )
        return np.asarray(self.arms[:, arm] + unseen)

    @cached_property
    def _block_levels(self) -> dict[int, Floats]:
        return {}

    def block_level(self, block: int) -> Floats:
        """What a block of the network adds to every life, shape (draws,); 0 without a firm run."""
        if block not in self._block_levels:
            self._block_levels[block] = self._drawn_level(block)
        return self._block_levels[block]

    def _drawn_level(self, block: int) -> Floats:
        fit, design = self.fit, self.fit.design
        here = np.flatnonzero(design.network.block[design.runs] == block)
        if not here.size:
            return np.zeros(self.inflation.size)
        number = design.block[here[0]]
        by_columns = float((design.columns[[here[0]], :] @ fit.effects)[0])
        level = fit.fitted[here[0]] - by_columns
        noise = self.inflation * self.normals((self.inflation.size,))
        return np.asarray(
            level
            - (self.columns - fit.effects) @ fit.block_means[number]
            + noise / np.sqrt(fit.weights[here].sum())
        )


def season_of(fit: Fit, df: float, normals: Normals, draws: int = DRAWS) -> Season:
    """Draws of what is estimated, as far as it may be off by."""
    uniform = scipy.special.ndtr(normals((draws,)))
    inflation = np.sqrt(df / np.maximum(scipy.special.chdtri(df, uniform), 1e-9))
    size, design = fit.design.size, fit.design
    root = np.linalg.cholesky(fit.covariance) if size else np.empty((0, 0))
    columns = fit.effects + (normals((draws, size)) @ root.T) * inflation[:, None]
    padded = np.pad(columns, ((0, 0), (0, 1)))
    padded[:, -1] = 0.0
    own = padded[:, design.arm_column]
    own[:, design.arm_column < 0] = 0.0
    alone = fit.variances.tester_sd * design.alone_with_a_tester
    unseen = normals(own.shape) * inflation[:, None] * alone
    return Season(fit, columns, own - unseen, inflation, normals)


def least_steps(season: Season) -> dict[int, dict[int, Floats]]:
    """From firm group to firm group, by how much the one at least lies above the other.

    A draw is the least step that lets every run between the two be as open as it was; its share
    below a step is how likely that is [1].

    References
    ----------
    [1] D. R. Cox, D. V. Hinkley, Theoretical Statistics, 7.2: intervals from one-sided tests.
    """
    network = season.fit.design.network
    runs = np.flatnonzero(~network.firm)
    noise = season.edge_noise(runs)
    out: dict[int, dict[int, Floats]] = {}
    for at, run in enumerate(runs):
        arm, block = int(network.arm[run]), int(network.block[run])
        mean = season.arm_at_tester(arm, int(network.tester[run])) + season.block_level(block)
        upper, lower = int(network.group_of[arm]), int(network.group_of_block[block])
        if np.isfinite(network.log_lower[run]):
            step = network.log_lower[run] - noise[:, at] - mean
        else:
            step = mean + noise[:, at] - network.log_upper[run]
            upper, lower = lower, upper
        known = out.setdefault(upper, {})
        known[lower] = np.maximum(known[lower], step) if lower in known else step
    return out


def paths_from(
    group: int, steps: Mapping[int, Mapping[int, Floats]]
) -> Iterator[tuple[int, Floats]]:
    """Every group below one, with by how much it lies below at least, over the best path."""
    best: dict[int, Floats] = {}
    for at in _in_order(group, steps):
        so_far = best.get(at)
        for below, step in steps.get(at, {}).items():
            reached = step if so_far is None else so_far + step
            best[below] = np.maximum(best[below], reached) if below in best else reached
        if so_far is not None:
            yield at, so_far


def _in_order(group: int, steps: Mapping[int, Mapping[int, Floats]]) -> list[int]:
    """All groups below one, each behind everything above it; firm groups make no circle."""
    order: list[int] = []
    seen: set[int] = set()
    waiting: list[tuple[int, bool]] = [(group, False)]
    while waiting:
        at, is_done = waiting.pop()
        if is_done:
            order.append(at)
        elif at not in seen:
            seen.add(at)
            waiting.append((at, True))
            waiting.extend((below, False) for below in steps.get(at, {}))
    return order[::-1]
