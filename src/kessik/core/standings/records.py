"""What standings are made of: one life a row, of any trial, however it was got."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np


@dataclass(frozen=True)
class LifeRecord:
    """One edge's life in one trial, known as an interval; equal bounds where it is exact.

    `lower` is None where it was over before the first check, `upper` where it was still good when
    the run stopped; both in the trial's own unit, for only ratios inside a block count. `log_sd` is
    the error of estimating this life, as s.d. of its ln. `edge` names the sharpening, where it is
    known: what was cut on several zones of one is one life.
    """

    trial: str
    block: str
    arm: str
    tester: str
    lower: float | None
    upper: float | None
    log_sd: float = 0.0
    edge: str = ""

    @property
    def says_something(self) -> bool:
        """Whether the life is bounded on any side."""
        return self.lower is not None or self.upper is not None


def one_an_edge(records: Sequence[LifeRecord]) -> list[LifeRecord]:
    """The records with zones of one edge in one block as one life, the mean of their ln lives."""
    found: dict[tuple[object, ...], list[LifeRecord]] = {}
    for number, record in enumerate(records):
        own = record.edge or number
        key = (record.trial, record.block, record.arm, record.tester, own)
        found.setdefault(key, []).append(record)
    return [zones[0] if len(zones) == 1 else _over_zones(zones) for zones in found.values()]


def _over_zones(zones: Sequence[LifeRecord]) -> LifeRecord:
    return replace(
        zones[0],
        lower=_mean_bound([zone.lower for zone in zones]),
        upper=_mean_bound([zone.upper for zone in zones]),
        log_sd=float(np.sqrt(np.sum([zone.log_sd**2 for zone in zones])) / len(zones)),
    )


def _mean_bound(bounds: Sequence[float | None]) -> float | None:
    """A bound of the mean of ln lives; none where any of them is open on that side."""
    known = [bound for bound in bounds if bound is not None]
    return float(np.exp(np.mean(np.log(known)))) if len(known) == len(bounds) else None
