"""The columns of the model: arms, an arm at each of its testers, and blocks that are eliminated."""

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray
from scipy.sparse import csr_array

from kessik.core.standings.network import Indices, Network

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Design:
    """The runs that take part, and which columns each has.

    Columns are first arms (one of each firm group is pinned at 0 and has none, −1), then testers of
    arms that more than one tester cut. An arm that one tester cut alone has no such column: its
    tester's part is not seen, and only adds to its doubt.
    """

    network: Network
    runs: Indices
    arm_column: Indices
    cells: tuple[tuple[int, int], ...]
    columns: csr_array
    fixed: int

    @property
    def size(self) -> int:
        """How many columns there are."""
        return self.fixed + len(self.cells)

    @cached_property
    def arm(self) -> Indices:
        """The arm of each run that takes part."""
        return self.network.arm[self.runs]

    @cached_property
    def trial(self) -> Indices:
        """The trial of each run that takes part."""
        return self.network.trial[self.runs]

    @cached_property
    def block(self) -> Indices:
        """The block of each run, numbered among those that take part."""
        return np.unique(self.network.block[self.runs], return_inverse=True)[1].astype(np.intp)

    @cached_property
    def in_blocks(self) -> csr_array:
        """Runs by blocks, 1 where a run was cut in a block."""
        size = self.runs.size
        return csr_array(
            (np.ones(size), (np.arange(size), self.block)),
            shape=(size, int(self.block.max()) + 1 if size else 0),
        )

    @cached_property
    def placed(self) -> NDArray[np.bool_]:
        """Whether an arm has a run that takes part."""
        out = np.zeros(len(self.network.arms), dtype=bool)
        out[self.arm] = True
        return out

    @cached_property
    def alone_with_a_tester(self) -> NDArray[np.bool_]:
        """Whether an arm was cut by one tester only."""
        out = self.placed.copy()
        out[[arm for arm, _tester in self.cells]] = False
        return out


def design_of(network: Network) -> Design:
    """The columns of all runs inside firm groups; the others only say "at least"."""
    runs = np.flatnonzero(network.firm)
    arms = network.arm[runs]
    arm_column = _arm_columns(network, arms)
    fixed = int(arm_column.max(initial=-1)) + 1
    parts = [(np.flatnonzero(arm_column[arms] >= 0), arm_column[arms])]
    cells, cell_of_run = _cells(network, runs)
    cell_column = np.where(cell_of_run >= 0, cell_of_run + fixed, -1)
    parts.append((np.flatnonzero(cell_of_run >= 0), cell_column))
    rows = np.concatenate([where for where, _column in parts])
    cols = np.concatenate([column[where] for where, column in parts])
    shape = (runs.size, fixed + len(cells))
    columns = csr_array((np.ones(rows.size), (rows, cols)), shape=shape)
    return Design(network, runs, arm_column, cells, columns, fixed)


def _arm_columns(network: Network, arms: Indices) -> Indices:
    """A column for each arm with a run, but for the one of its firm group that has most runs."""
    counts = np.bincount(arms, minlength=len(network.arms))
    order = np.argsort(-counts, kind="stable")
    out = np.full(len(network.arms), -1, dtype=np.intp)
    pinned: set[int] = set()
    number = 0
    for arm in order[counts[order] > 0]:
        group = int(network.group_of[arm])
        if group not in pinned:
            pinned.add(group)
            continue
        out[arm] = number
        number += 1
    return out


def _cells(network: Network, runs: Indices) -> tuple[tuple[tuple[int, int], ...], Indices]:
    """Arm and tester of each cell of arms with more than one, and the cell of each run or −1."""
    pairs = list(zip(network.arm[runs].tolist(), network.tester[runs].tolist(), strict=True))
    testers: dict[int, set[int]] = {}
    for arm, tester in pairs:
        testers.setdefault(arm, set()).add(tester)
    shared = dict.fromkeys(pair for pair in pairs if len(testers[pair[0]]) > 1)
    number = {pair: at for at, pair in enumerate(shared)}
    return tuple(shared), np.array([number.get(pair, -1) for pair in pairs], dtype=np.intp)
