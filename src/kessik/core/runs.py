"""Runs: one edge, or a zone of it, cut under one method."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from kessik.core.moments import Moment
from kessik.core.stock import Booking


@dataclass(frozen=True)
class Run:
    """One edge (or zone) cut under one method; `block` and `round` as the plan numbers them.

    `arm` where it was cut as another arm than its edge was prepared for; `from_paper` when its
    record was entered, where it was cut and written down before.
    """

    id: str
    trial_id: str
    edge_id: str
    number: int
    started: Moment
    arm: str = ""
    practice: bool = False
    practice_seed: int | None = None
    count_unit: str = "cuts"
    zone_from_mm: float | None = None
    zone_to_mm: float | None = None
    edge_length_used_mm: float | None = None
    method_id: str = ""
    block: int | None = None
    check_every: float | None = None
    round: int | None = None
    operator: str = ""
    verifies_run_id: str | None = None
    lot_change: str = ""
    after_strop_of: str | None = None
    bookings: tuple[Booking, ...] = ()
    from_paper: str = ""
    other: Mapping[str, Any] = field(default_factory=dict)

    @property
    def compares(self) -> bool:
        """Whether it stands in comparisons: not practice, and on a fresh edge, not on one that was
        stropped back.
        """
        return not self.practice and self.after_strop_of is None

    @property
    def worked_mm(self) -> tuple[float, float] | None:
        """The stretch of edge that cuts, where the run has one."""
        if self.zone_from_mm is None or self.zone_to_mm is None:
            return None
        return self.zone_from_mm, self.zone_to_mm
