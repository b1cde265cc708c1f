"""Adaptive checks: sparse while far from a limit, dense near the predicted crossing, ended by two
checks beyond.
"""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from kessik.core.planning.reasons import (
    CrossingExpected,
    EarlyCheck,
    FreshEdge,
    PlannedReason,
    TwoBeyond,
)
from kessik.core.protocols.methods import START_READINGS
from kessik.core.protocols.series import Check
from kessik.core.protocols.stop_rules import CHECKS_BEYOND_TO_END, checks_beyond
from kessik.core.sharpness.joint import life_masses, quantiles
from kessik.core.sharpness.posterior import EdgeLikelihood, ForceReadings, edge_likelihood

LEAST_STEP_OF_LIFE = 0.10
NEXT_QUANTILE = 0.05
BAND = (0.10, 0.90)
READINGS_IN_BAND = 2
FIRST_READINGS = START_READINGS
EARLIER_LIMIT_QUANTILE = 0.3
SHORT_LIFE = 7.0
LONGEST_TRUSTED = 4.0
LONGEST_STEP = 2.0


@dataclass(frozen=True)
class NextCheck:
    """Where to check next, how many readings to take there, and why; `stop` once the end rule is
    met.
    """

    next_count: float | None
    readings: int
    stop: bool
    why: PlannedReason
    band: tuple[float, float] | None = None
    stage: str | None = None


def next_check(
    checks: Sequence[Check],
    limits_gf: Sequence[tuple[str, float]],
    count: float | None = None,
    first_readings: int = FIRST_READINGS,
    studied: float | None = None,
) -> NextCheck:
    """Where to check next after the force checks so far; limits as (stage, gf) in the order they
    are met.

    `count` is how far the run has been cut (default: the last check). After each check the crossing
    of the next limit is predicted, and the next check goes to its 5 % quantile, at least a tenth of
    the predicted life ahead. `studied` is the scatter of one reading by a gauge study, s.d. of ln.
    """
    if not checks:
        return NextCheck(0.0, first_readings, False, FreshEdge())
    last = max(check.count for check in checks)
    here = max(last, count or 0.0)
    end_stage, end_gf = limits_gf[-1]
    if checks_beyond(checks, end_gf) >= CHECKS_BEYOND_TO_END:
        return NextCheck(None, 0, True, TwoBeyond(end_stage, end_gf), None, end_stage)
    if last == 0:
        first = max(1.0, here)
        return NextCheck(first, 1, False, EarlyCheck(), None, limits_gf[0][0])
    ordered = sorted(checks, key=lambda check: check.count)
    readings = ForceReadings(
        np.array([check.count for check in ordered], dtype=float),
        np.array([check.force_gf for check in ordered], dtype=float),
    )
    for stage, limit_gf in limits_gf:
        final = stage == end_stage
        edge = edge_likelihood(readings, limit_gf, studied, falls=False)
        low, aim, middle, high = _crossing(edge, NEXT_QUANTILE if final else EARLIER_LIMIT_QUANTILE)
        if final or middle > last:
            break
    step = max(1.0, LEAST_STEP_OF_LIFE * min(middle, LONGEST_TRUSTED * last))
    target = float(np.ceil(max(aim, last + step) - 1e-9))
    target = max(min(target, np.floor(last + max(1.0, LONGEST_STEP * last))), here)
    twice = final and low <= target <= high and middle >= SHORT_LIFE
    why = CrossingExpected(stage, limit_gf, low, high)
    return NextCheck(target, READINGS_IN_BAND if twice else 1, False, why, (low, high), stage)


def _crossing(edge: EdgeLikelihood, aim: float) -> tuple[float, float, float, float]:
    """Lower end of the band, the quantile to aim at, the median and the upper end of the band of a
    crossing.
    """
    (known,) = life_masses([edge])
    shares = (BAND[0], aim, 0.5, BAND[1])
    low, target, middle, high = quantiles(edge.log_life, known.mass, shares)
    return float(low), float(target), float(middle), float(high)
