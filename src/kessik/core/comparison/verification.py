"""A second edge cut to verify the first: do the two differ by more than repeats of an edge do?"""

import math
from collections.abc import Callable, Sequence

from kessik.core.comparison.findings import Verified
from kessik.core.comparison.levels import log_life_of
from kessik.core.comparison.results import RunResult
from kessik.core.spreads import Z_95


def verifications(
    results: Sequence[RunResult], edge_scatter: Callable[[str, str], float]
) -> list[Verified]:
    """Every run that verifies another, held against it at each stage that both have.

    Two repeats of one blade differ by what the checks leave open of each life and by the scatter
    from edge to edge, which `edge_scatter` gives for a blade and a stage as s.d. of ln life. They
    agree within the repeatability limit of both together [1].

    References
    ----------
    [1] ISO 5725-2, repeatability limit; from memory.
    """
    by_key = {result.run.key: result for result in results}
    found = []
    for second in results:
        verifies = second.run.verifies
        first = by_key.get((second.run.blade, *verifies)) if verifies else None
        if first is None:
            continue
        for stage in (s for s in first.lives if s in second.lives):
            scatter = edge_scatter(second.run.blade, stage)
            told = _held_against(first, second, stage, scatter)
            found += [told] if told is not None else []
    return found


def _held_against(
    first: RunResult, second: RunResult, stage: str, scatter: float
) -> Verified | None:
    """None where a life of the two has an open end."""
    one = log_life_of(first.lives[stage].life.found)
    other = log_life_of(second.lives[stage].life.found)
    if one is None or other is None:
        return None
    (a, sd_a), (b, sd_b) = one, other
    limit = Z_95 * math.hypot(sd_a, sd_b, scatter, scatter)
    return Verified(
        stage,
        second.run.blade,
        (first.run.edge, second.run.edge),
        (math.exp(a), math.exp(b)),
        second.run.count_unit,
        100.0 * math.expm1(abs(a - b)),
        100.0 * math.expm1(limit),
    )
