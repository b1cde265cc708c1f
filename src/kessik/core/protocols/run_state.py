"""What is true of a run: its status, count, checks, plan and the stages it passed."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from kessik.core.protocols.events import BenchEvent, Outcome, Reading
from kessik.core.protocols.series import Check, RunSeries
from kessik.core.protocols.stop_rules import Progress

RunStatus = Literal["fresh", "cutting", "paused", "stopped", "abandoned"]
ENDED: frozenset[RunStatus] = frozenset({"stopped", "abandoned"})


@dataclass(frozen=True)
class LoggedCheck:
    """A check with the event it came from, where that stands in the log, and what it says after
    corrections.
    """

    event_id: str
    check: Check
    payload: Reading | Outcome
    position: int = 0


@dataclass(frozen=True)
class PlannedCheck:
    """The check the tester was told to make next."""

    next_count: float
    readings: int
    why: str
    stage: str | None
    band: tuple[float, float] | None = None
    check: str = "force"


@dataclass(frozen=True)
class StropTest:
    """Strokes on the strop after the stop, since the last stones, and what followed them: readings
    in gf, and tries of a check with their outcome.
    """

    event_id: str
    strokes: float
    readings_gf: tuple[float, ...] = ()
    tries: tuple[tuple[str, str], ...] = ()


@dataclass(frozen=True)
class RunState:
    """What is true of a run now: status, count, checks, the stages passed, and whether its stop
    rule is met. `places_mm` are the stations of the coming readings, where its method names any.

    `taken` readings of the plan are in; `rewritten_at` is the last position at which earlier events
    were changed; `reopened` where its rule had stopped it and what met the rule was taken back.
    `corrections_after_stop` entries were struck or corrected after it was over;
    `corrected_elsewhere` where the last of that came from no bench.
    """

    status: RunStatus
    count: float
    checks: tuple[LoggedCheck, ...]
    stages: Mapping[str, float]
    plan: PlannedCheck | None
    plan_is_current: bool
    progress: Progress
    confirmation_wanted: bool
    check_due: bool
    readings_wanted: int
    stopped_by: str | None
    position: int
    withdrawn: frozenset[str]
    spoiled: tuple[tuple[float, str], ...] = ()
    worked_mm: tuple[float, float] | None = None
    places_mm: tuple[float, ...] = ()
    holder: str | None = None
    proposals: tuple[BenchEvent, ...] = ()
    strops: tuple[StropTest, ...] = ()
    one_holds: bool = False
    taken: int = 0
    not_understood: tuple[BenchEvent, ...] = ()
    rewritten_at: int = 0
    reopened: bool = False
    corrections_after_stop: int = 0
    corrected_elsewhere: bool = False

    @property
    def rule_met(self) -> bool:
        return self.progress.met

    @property
    def has_ended(self) -> bool:
        return self.status in ENDED

    @property
    def force_checks(self) -> list[Check]:
        return [check for check in self.worked_checks if check.force_gf is not None]

    @property
    def worked_checks(self) -> list[Check]:
        """Unstruck checks in the worked zone."""
        return parted(self.checks, self.worked_mm)[0]

    @property
    def asked_at_mm(self) -> float | None:
        """The station the next reading is asked at, where the method names stations."""
        return self.places_mm[0] if self.check_due and self.places_mm else None


def parted(
    checks: Sequence[LoggedCheck], worked_mm: tuple[float, float] | None
) -> tuple[list[Check], list[Check]]:
    """Unstruck checks in the worked zone, and those beside it."""
    if worked_mm is None:
        return [logged.check for logged in checks if not logged.check.struck], []
    run = RunSeries("", 1, 1, (), worked_mm=worked_mm)
    parts: tuple[list[Check], list[Check]] = ([], [])
    for logged in checks:
        if not logged.check.struck:
            parts[run.is_control(logged.check)].append(logged.check)
    return parts
