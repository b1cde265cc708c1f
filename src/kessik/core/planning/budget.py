"""What a plan costs: rope, test line, hours and days, for runs that are expected to go so far."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, fields

from kessik.core.limits import check_limit
from kessik.core.planning.expected import ExpectedRun
from kessik.core.protocols.checks import FORCE
from kessik.core.protocols.methods import Method
from kessik.core.units import MM_PER_LENGTH

SECONDS_AN_HOUR = 3600.0
USUAL_CONTACT_MM = 300.0


@dataclass(frozen=True)
class Pace:
    """How much each thing takes: seconds a cut and a reading, minutes a sharpening, mm of rope and
    of test line.

    A cut is one count; where lengths are counted it is one piece of the method's length.
    """

    cut_s: float = 30.0
    reading_s: float = 25.0
    sharpening_min: float = 20.0
    advance_mm: float = 25.0
    offcut_m: float = 0.5
    line_mm: float = 120.0
    cuts_a_day: int = 250

    def check(self) -> None:
        """Refuse a pace that cannot be, at its field."""
        for field in fields(self):
            check_limit(field.name, getattr(self, field.name), field.name)


@dataclass(frozen=True)
class Budget:
    """A plan's cost: runs, counts, readings, metres of medium and of test line, hours, and days at
    the hand's limit.

    `tries` are the looks that take paper or hair, `sharpening_hours` are among the hours.
    """

    runs: int
    cuts: float
    readings: float
    medium_m: float
    line_m: float
    tries: float
    hours: float
    sharpening_hours: float
    days: int


def budget(runs: Sequence[ExpectedRun], method: Method, pace: Pace) -> Budget:
    """Sum up the runs of a plan; a day ends at the limit of cuts for the hand."""
    cuts = math.fsum(run.cuts for run in runs)
    readings = math.fsum(run.readings for run in runs)
    sharpening = len(runs) * pace.sharpening_min / 60.0
    offcuts = len(runs) * pace.offcut_m if method.medium == "rope" else 0.0
    return Budget(
        len(runs),
        cuts,
        readings,
        cuts * metres_per_count(method, pace) + offcuts,
        readings * pace.line_mm / 1000.0 if method.has(FORCE) else 0.0,
        readings if any(row.uses_sheets for row in method.rows) else 0.0,
        math.fsum(seconds(run, method, pace) for run in runs) / SECONDS_AN_HOUR + sharpening,
        sharpening,
        math.ceil(cuts / method.piece / pace.cuts_a_day) if cuts else 0,
    )


def seconds(run: ExpectedRun, method: Method, pace: Pace) -> float:
    """How long a run takes at the bench, in seconds."""
    return run.cuts / method.piece * pace.cut_s + run.readings * pace.reading_s


def metres_per_count(method: Method, pace: Pace) -> float:
    """Medium one count takes, in m: its length where length is counted, the advance of a rope, else
    a board's width.
    """
    if method.count_unit in MM_PER_LENGTH:
        return MM_PER_LENGTH[method.count_unit] / 1000.0
    if method.medium == "rope":
        return pace.advance_mm / 1000.0
    if method.medium in ("board", "mixed"):
        return (method.contact_mm or USUAL_CONTACT_MM) / 1000.0
    return 0.0
