"""A second edge cut to verify the first: is their difference more than the checks can resolve?"""

import math
from collections.abc import Sequence

from kessik.core.comparison.findings import Verified
from kessik.core.comparison.results import RunResult
from kessik.core.sharpness.life import Bracketed, Crossed, Found

_SURE = 1.959964


def verifications(results: Sequence[RunResult]) -> list[Verified]:
    """Every run that verifies another, held against it at each stage that both have.

    The difference is held against its own standard error: what the checks leave open of each life,
    without the spread from edge to edge, which is what a verification asks about.
    """
    by_key = {result.run.key: result for result in results}
    found = []
    for second in results:
        verifies = second.run.verifies
        first = by_key.get((second.run.blade, *verifies)) if verifies else None
        if first is None:
            continue
        for stage in (s for s in first.lives if s in second.lives):
            one, other = _log_life(first, stage), _log_life(second, stage)
            if one is None or other is None:
                continue
            (a, sd_a), (b, sd_b) = one, other
            found.append(
                Verified(
                    stage,
                    second.run.blade,
                    (first.run.edge, second.run.edge),
                    (math.exp(a), math.exp(b)),
                    second.run.count_unit,
                    100.0 * math.expm1(abs(a - b)),
                    abs(a - b) <= _SURE * math.hypot(sd_a, sd_b),
                )
            )
    return found


def _log_life(result: RunResult, stage: str) -> tuple[float, float] | None:
    """Middle and standard error of a ln life; None where an end is open."""
    found: Found = result.lives[stage].life.found
    match found:
        case Crossed(estimate, low, high):
            return math.log(estimate), (math.log(high) - math.log(low)) / (2 * _SURE)
        case Bracketed(low, high) if low > 0:
            return 0.5 * (math.log(low) + math.log(high)), math.log(high / low) / math.sqrt(12.0)
    return None
