"""Why a check is planned where it is."""

from dataclasses import dataclass

from kessik.core.protocols.methods import Method


@dataclass(frozen=True)
class FreshEdge:
    """The edge is read before its first cut."""


@dataclass(frozen=True)
class EarlyCheck:
    """One check soon after the start shows how fast this edge falls."""


@dataclass(frozen=True)
class CrossingExpected:
    """A limit is expected to be crossed between two counts, four times in five."""

    stage: str
    limit_gf: float
    low: float
    high: float


@dataclass(frozen=True)
class TwoBeyond:
    """Two checks in a row are above the last limit: the run is over."""

    stage: str
    limit_gf: float


@dataclass(frozen=True)
class MayBeResting:
    """A reading just above the last limit: the edge may be resting under it."""

    limit_gf: float


@dataclass(frozen=True)
class RuleMet:
    """A stop rule of the method is met."""

    method: Method


@dataclass(frozen=True)
class StageAwaitsCheck:
    """A stage that several checks decide awaits one more of them at the same count."""

    stage: str


@dataclass(frozen=True)
class ToConfirm:
    """One more reading at this count confirms the loss; `limit_gf` where a force limit decides."""

    limit_gf: float | None


@dataclass(frozen=True)
class StageIsLost:
    """A stage is lost, and the next one is decided by another check."""

    stage: str
    check: str


@dataclass(frozen=True)
class SeveralTries:
    """The method asks for so many tries at each check."""

    tries: int


@dataclass(frozen=True)
class BySchedule:
    """The schedule of the method says so."""

    method: Method


@dataclass(frozen=True)
class LastCheck:
    """The last check of the method is made."""


PlannedReason = (
    FreshEdge
    | EarlyCheck
    | CrossingExpected
    | TwoBeyond
    | MayBeResting
    | RuleMet
    | StageAwaitsCheck
    | ToConfirm
    | StageIsLost
    | SeveralTries
    | BySchedule
    | LastCheck
)
