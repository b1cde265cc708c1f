"""All trials as one network of arms and blocks: what is connected, and what is bounded on both
sides.

An arm and a block are linked by every run of the arm in the block. Where a path of runs that are
known from below leads from one to the other, and a path known from above back, their difference is
known on both sides; all that hang together like this are a *firm group*. Runs between firm groups
say "at least" only. Whatever no path connects at all are islands.
"""

from collections.abc import Hashable, Iterable, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from typing import TypeVar

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import coo_array
from scipy.sparse.csgraph import connected_components

from kessik.core.standings.records import LifeRecord

Floats = NDArray[np.float64]
Indices = NDArray[np.intp]
Key = TypeVar("Key", bound=Hashable)
Cell = tuple[int, int]
"""An arm in a trial, by their numbers."""


@dataclass(frozen=True)
class Network:
    """Runs as columns, shape (runs,) each: indices of arm, block, trial and tester; ln lives."""

    arms: tuple[str, ...]
    trials: tuple[str, ...]
    testers: tuple[str, ...]
    arm: Indices
    block: Indices
    trial: Indices
    tester: Indices
    log_lower: Floats
    log_upper: Floats
    log_sd: Floats
    blocks: int

    @property
    def runs(self) -> int:
        """How many runs say anything of a life."""
        return int(self.arm.size)

    @cached_property
    def _nodes(self) -> tuple[Indices, Indices]:
        """By arm and then by block: island and firm group of each."""
        size = len(self.arms) + self.blocks
        block = self.block + len(self.arms)
        below, above = np.isfinite(self.log_lower), np.isfinite(self.log_upper)
        tails = np.concatenate([self.arm[below], block[above]])
        heads = np.concatenate([block[below], self.arm[above]])
        graph = coo_array((np.ones(tails.size), (tails, heads)), shape=(size, size))
        islands = connected_components(graph, connection="weak")[1]
        groups = connected_components(graph, connection="strong")[1]
        return islands.astype(np.intp), groups.astype(np.intp)

    @property
    def island_of(self) -> Indices:
        """The island of each arm."""
        return self._nodes[0][: len(self.arms)]

    @property
    def group_of(self) -> Indices:
        """The firm group of each arm."""
        return self._nodes[1][: len(self.arms)]

    @property
    def group_of_block(self) -> Indices:
        """The firm group of each block."""
        return self._nodes[1][len(self.arms) :]

    @cached_property
    def firm(self) -> NDArray[np.bool_]:
        """Whether a run lies inside a firm group, and so takes part in the fit."""
        return np.asarray(self.group_of[self.arm] == self.group_of_block[self.block])

    def without(self, cells: Sequence[Cell]) -> "Network":
        """The same network without what was cut of these arms in these trials."""
        kept = np.ones(self.runs, dtype=bool)
        for arm, trial in cells:
            kept &= (self.arm != arm) | (self.trial != trial)
        columns = ("arm", "block", "trial", "tester", "log_lower", "log_upper", "log_sd")
        return replace(self, **{name: getattr(self, name)[kept] for name in columns})

    def islands(self) -> list[list[str]]:
        """The arms of each island, the largest first, each in the order of the records."""
        members: dict[int, list[str]] = {}
        for name, island in zip(self.arms, self.island_of, strict=True):
            members.setdefault(int(island), []).append(name)
        return sorted(members.values(), key=len, reverse=True)


def network_of(records: Sequence[LifeRecord]) -> Network:
    """The network of lives; an arm that no life says anything of stands in it without a run."""
    arms = _numbered(record.arm for record in records)
    used = [record for record in records if record.says_something]
    trials = _numbered(record.trial for record in used)
    testers = _numbered(record.tester for record in used)
    blocks = _numbered((record.trial, record.block) for record in used)

    def column(values: Sequence[int]) -> Indices:
        return np.array(values, dtype=np.intp)

    return Network(
        arms=tuple(arms),
        trials=tuple(trials),
        testers=tuple(testers),
        arm=column([arms[r.arm] for r in used]),
        block=column([blocks[r.trial, r.block] for r in used]),
        trial=column([trials[r.trial] for r in used]),
        tester=column([testers[r.tester] for r in used]),
        log_lower=np.array([-np.inf if r.lower is None else np.log(r.lower) for r in used]),
        log_upper=np.array([np.inf if r.upper is None else np.log(r.upper) for r in used]),
        log_sd=np.array([r.log_sd for r in used], dtype=float),
        blocks=len(blocks),
    )


def _numbered(keys: Iterable[Key]) -> dict[Key, int]:
    return {key: number for number, key in enumerate(dict.fromkeys(keys))}
