"""A run as its method would have it, on an edge that answers every check: which checks are made,
until the stop rule is met. No log is kept; the rules are those of the bench.
"""

import math
from collections.abc import Callable

from kessik.core.planning.schedule import plan_next
from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import Check
from kessik.core.protocols.stop_rules import assess

Look = Callable[[str, float], Check]
"""The check of a kind at a count."""
MOST_CHECKS = 400


def rehearse(method: Method, look: Look) -> tuple[Check, ...]:
    """The checks of one run; it is left unfinished after 400 of them."""
    checks: list[Check] = []
    count = 0.0
    while len(checks) < MOST_CHECKS:
        progress = assess(checks, method, count)
        planned = plan_next(checks, method, count, progress)
        if planned.stop or planned.next_count is None:
            break
        pieces = math.ceil((planned.next_count - count) / method.piece - 1e-9)
        count += max(pieces, 0) * method.piece
        checks.extend(look(progress.asked, count) for _ in range(planned.readings))
    return tuple(checks)
