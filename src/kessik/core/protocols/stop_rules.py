"""The stop rules of a force series; the same code runs live and on imported series."""

from collections.abc import Sequence
from itertools import pairwise

import numpy as np

from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import Check, by_count

CHECKS_BEYOND_TO_END = 2


def mean_force_gf(group: Sequence[Check]) -> float:
    """Mean reading of one check in gf, on the log scale."""
    return float(np.exp(np.mean([np.log(check.force_gf) for check in group if check.force_gf is not None])))


def checks_beyond(checks: Sequence[Check], limit_gf: float) -> int:
    """How many checks in a row, up to the last one, have a mean reading above the limit."""
    run = 0
    for _, group in by_count(checks):
        run = run + 1 if mean_force_gf(group) > limit_gf else 0
    return run


def pair_at_one_count(checks: Sequence[Check], limit_gf: float) -> float | None:
    """The first count at which two readings in a row are above the limit."""
    for count, group in by_count(checks):
        above = [check.force_gf is not None and check.force_gf > limit_gf for check in group]
        if any(first and second for first, second in pairwise(above)):
            return count
    return None


def rule_met(checks: Sequence[Check], method: Method) -> bool:
    """Whether the run's stop rule is met by the force checks so far."""
    if method.schedule == "adaptive":
        return checks_beyond(checks, method.dull_gf) >= CHECKS_BEYOND_TO_END
    return pair_at_one_count(checks, method.dull_gf) is not None


def confirmation_wanted(checks: Sequence[Check], method: Method) -> bool:
    """Whether the last reading alone passed the dull limit, so that one more at its count must confirm it."""
    if method.schedule == "adaptive" or not checks or rule_met(checks, method):
        return False
    last = checks[-1].force_gf
    return last is not None and last > method.dull_gf
