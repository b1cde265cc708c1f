"""What a check schedule will do for a blade that lasts about so long: readings it uses, and the
interval it reaches.

Foretold from `schedule_table`, which `make bench` makes by simulation on the virtual bench.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from kessik.core.errors import OutOfRangeError
from kessik.core.limits import LIMITS
from kessik.core.planning.adaptive import FIRST_READINGS
from kessik.core.planning.schedule import next_count
from kessik.core.planning.schedule_table import ADAPTIVE, FIXED, SHARE_OF_SCATTER
from kessik.core.protocols.checks import FORCE
from kessik.core.protocols.methods import Method
from kessik.core.spreads import READING_SCATTER, flat_sd

SHORTEST_LIFE, LONGEST_LIFE = LIMITS["expected_life"].least, LIMITS["expected_life"].most
LEAST_ERROR = 0.01
MOST_CHECKS = 5000


@dataclass(frozen=True)
class ExpectedRun:
    """One run ahead: cuts until its stop, readings on the way, and the error of the estimated ln
    life.

    Two of three such estimates, or more, fall between `low` and `high`.
    """

    life: float
    cuts: float
    readings: float
    log_sd: float

    @property
    def low(self) -> float:
        return self.life * math.exp(-self.log_sd)

    @property
    def high(self) -> float:
        return self.life * math.exp(self.log_sd)


def expected_run(method: Method, life: float) -> ExpectedRun:
    """What to expect of one run, an expectation and no promise; OutOfRangeError for a life under 1
    or over 5000.

    A fixed schedule is foretold by its checks to a life, the adaptive one by the life in cuts;
    between the simulated ones along the logarithm, beyond them as at the end. Pass and fail leave a
    bracket as wide as the gap between checks; a dose is cut as it is written, and its error is the
    scatter of the readings after it. Where a study found how readings of this gauge scatter, the
    error of a life follows it in part.
    """
    if not SHORTEST_LIFE <= life <= LONGEST_LIFE:
        raise OutOfRangeError(
            f"a life of {life:g} cuts is out of range: give {SHORTEST_LIFE:g} to {LONGEST_LIFE:g}",
            field="expected_life",
            value=life,
        )
    if method.dose is not None:
        return _of_dose(method, method.dose, life)
    end = next((stage for stage in method.stages if stage.name == method.end_stage), None)
    if end is not None and end.limit_gf is None:
        return _judged(method, life)
    adaptive = method.schedule == "adaptive"
    gap = _gap_at(method, life)
    rows, at = (ADAPTIVE, life) if adaptive else (FIXED, life / gap)
    error, readings, over = (_between(rows, at, column) for column in (1, 2, 3))
    if not adaptive and at > rows[-1][0]:
        readings *= at / rows[-1][0]
    if method.schedule == "geometric":
        readings = len(_counts_to(method, life * over)) + FIRST_READINGS
    each = method.readings(FORCE)
    # part of the error is the scatter of single readings
    error *= 1.0 - SHARE_OF_SCATTER + SHARE_OF_SCATTER * method.force_scatter / READING_SCATTER
    error /= math.sqrt(1.0 + 0.5 * (each - 1))
    return ExpectedRun(life, max(life * over, 1.0), max(readings, 3.0) * each, error)


def _judged(method: Method, life: float) -> ExpectedRun:
    counts = _counts_to(method, life)
    gap = _gap_at(method, life)
    tries = math.fsum(method.readings(stage.check) for stage in method.stages) / len(method.stages)
    error = max(flat_sd(gap / life), LEAST_ERROR)
    return ExpectedRun(
        life, max(counts[-1], 1.0), (len(counts) + 1 + len(method.stages)) * tries, error
    )


def _of_dose(method: Method, dose: float, life: float) -> ExpectedRun:
    counts = _counts_to(method, dose)
    each = [method.readings(spec.kind) for spec in method.checks]
    before = sum(n for n, spec in zip(each, method.checks, strict=True) if spec.kind == FORCE)
    summed = len(counts) if any(spec.kind == "depth" for spec in method.checks) else 1
    error = max(method.force_scatter / math.sqrt(max(each) * summed), LEAST_ERROR)
    return ExpectedRun(life, dose, before + len(counts) * math.fsum(each), error)


def _counts_to(method: Method, last: float) -> list[float]:
    """The counts a fixed schedule checks at, up to the first at or beyond `last`; thousands at
    most.
    """
    counts: list[float] = []
    at = next_count(method, 0.0)
    while at is not None and len(counts) < MOST_CHECKS:
        counts.append(at)
        if at >= last:
            break
        at = next_count(method, at)
    return counts or [last]


def _gap_at(method: Method, life: float) -> float:
    """The gap between checks near a life."""
    if method.schedule == "geometric":
        return max(life * (method.growth - 1.0) / method.growth, method.every)
    if method.schedule == "at":
        below = [at for at in (0.0, *method.at) if at < life]
        above = [at for at in method.at if at >= life]
        return max((above[0] if above else life) - below[-1], 1.0)
    return method.every


def _between(rows: Sequence[tuple[float, float, float, float]], at: float, column: int) -> float:
    places = np.log([row[0] for row in rows])
    return float(np.exp(np.interp(math.log(at), places, np.log([row[column] for row in rows]))))
