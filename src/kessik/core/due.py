"""Something that waits for the tester, and its place in the day."""

from dataclasses import dataclass
from typing import Literal

from kessik.core.corrosion.duties import Deed
from kessik.core.facts import Provenance
from kessik.core.planning.calendar import WorkKind
from kessik.core.shelf.care import CareKind

DueKind = Literal[
    "loan", "care", "hardness", "work", "stock", "shots", "batch", "assay", "soak", "backup"
]


@dataclass(frozen=True)
class LoanToReturn:
    """A blade that goes back to its lender in so many days, fewer than none where it is late."""

    code: str
    lender: str
    days: int


@dataclass(frozen=True)
class LoanToComeBack:
    """A blade that somebody else has, and that comes back in so many days."""

    code: str
    borrower: str
    days: int


@dataclass(frozen=True)
class CareToRepeat:
    """Care of blades that is due again in so many days, with what was used the last time."""

    codes: tuple[str, ...]
    kind: CareKind
    used: str
    days: int


@dataclass(frozen=True)
class HardnessNotMeasured:
    """A blade in a trial whose hardness nobody measured, and how it is known, if at all."""

    code: str
    standing: Provenance | None


@dataclass(frozen=True)
class MoreHardnessNotMeasured:
    """So many more blades whose hardness nobody measured."""

    blades: int


@dataclass(frozen=True)
class PlannedWork:
    """A piece of a plan's work on its day; while the trial is blind, its blades by their codes."""

    on: str
    kind: WorkKind
    blades: tuple[str, ...]
    trial: str
    block: int


@dataclass(frozen=True)
class WorkAhead:
    """A piece of a plan's work that is due in so many days."""

    work: PlannedWork
    days: int


@dataclass(frozen=True)
class LotLow:
    """A lot in use of which little is left, in its unit."""

    name: str
    left: float
    unit: str


@dataclass(frozen=True)
class ShotsToUse:
    """Shots that nobody has used yet, by the codes of their blades."""

    by_code: tuple[tuple[str, int], ...]


@dataclass(frozen=True)
class BatchAway:
    """A batch of blades that was sent and is not back."""

    name: str
    sent_on: str


@dataclass(frozen=True)
class ClaimExcluded:
    """A blade on loan that is not the grade it is sold as."""

    code: str
    grade: str


@dataclass(frozen=True)
class SoakDeed:
    """What is to be done at a soak, and in how many hours; fewer than none where it is late. Of a
    round that was begun, `missing` of `places` are still to see; `medium` is that of a new phase.
    """

    soak: str
    deed: Deed
    left_h: float
    missing: int = 0
    places: int = 0
    medium: str = ""


@dataclass(frozen=True)
class BackupFailed:
    """The last backup was not made, and why."""

    why: str


@dataclass(frozen=True)
class SecondCopyFailed:
    """The second disk has not got the last backup, why, and since what day (ISO)."""

    why: str
    since: str


@dataclass(frozen=True)
class RestoreInterrupted:
    """What a restore that was interrupted left, in words of the store."""

    found: str


Waiting = (
    LoanToReturn
    | LoanToComeBack
    | CareToRepeat
    | HardnessNotMeasured
    | MoreHardnessNotMeasured
    | WorkAhead
    | LotLow
    | ShotsToUse
    | BatchAway
    | ClaimExcluded
    | SoakDeed
    | BackupFailed
    | SecondCopyFailed
    | RestoreInterrupted
)


@dataclass(frozen=True)
class Due:
    """Something that waits; `on` is the day it is due, empty where there is none."""

    kind: DueKind
    what: Waiting
    blade_id: str = ""
    trial_id: str = ""
    mark: int | None = None
    on: str = ""
    overdue: bool = False
    soak_id: str = ""
    lot_id: str = ""
    batch_id: str = ""
