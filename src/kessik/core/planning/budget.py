"""What a plan costs: rope, test line, hours and days, for runs that are expected to go so far."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.errors import OutOfRangeError
from kessik.core.planning.expected import ExpectedRun

SECONDS_AN_HOUR = 3600.0


@dataclass(frozen=True)
class Pace:
    """How much each thing takes: seconds a cut and a reading, minutes a sharpening, mm of rope and of test line."""

    cut_s: float = 30.0
    reading_s: float = 25.0
    sharpening_min: float = 20.0
    advance_mm: float = 25.0
    offcut_m: float = 0.5
    line_mm: float = 120.0
    cuts_a_day: int = 250

    def check(self) -> None:
        """Refuse a pace that cannot be, at its field."""
        for field, low, high in (
            ("cut_s", 0.5, 3600.0), ("reading_s", 0.5, 3600.0), ("sharpening_min", 0.0, 600.0),
            ("advance_mm", 0.1, 5000.0), ("offcut_m", 0.0, 50.0), ("line_mm", 1.0, 5000.0), ("cuts_a_day", 1.0, 5000.0),
        ):  # fmt: skip
            value = getattr(self, field)
            if not low <= value <= high:
                raise OutOfRangeError(f"{value:g} cannot be here; {low:g} to {high:g} can", field=field, value=value)


@dataclass(frozen=True)
class Budget:
    """A plan's cost: runs, cuts, readings, metres of rope and of test line, hours, and days at the hand's limit."""

    runs: int
    cuts: float
    readings: float
    rope_m: float
    line_m: float
    hours: float
    days: int


def budget(runs: Sequence[ExpectedRun], pace: Pace) -> Budget:
    """Sum up the runs of a plan; a day ends at the limit of cuts for the hand."""
    cuts = math.fsum(run.cuts for run in runs)
    readings = math.fsum(run.readings for run in runs)
    seconds = cuts * pace.cut_s + readings * pace.reading_s
    hours = seconds / SECONDS_AN_HOUR + len(runs) * pace.sharpening_min / 60.0
    return Budget(
        len(runs),
        cuts,
        readings,
        cuts * pace.advance_mm / 1000.0 + len(runs) * pace.offcut_m,
        readings * pace.line_mm / 1000.0,
        hours,
        math.ceil(cuts / pace.cuts_a_day) if cuts else 0,
    )
