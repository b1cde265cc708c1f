"""The next check of a live run, under whichever schedule its method names."""

from collections.abc import Sequence

from kessik.core.planning.adaptive import FIRST_READINGS, NextCheck, next_check
from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import Check
from kessik.core.protocols.stop_rules import confirmation_wanted, rule_met


def plan_next(checks: Sequence[Check], method: Method, count: float) -> NextCheck:
    """Where to check next after the force checks so far; `count` is how far the run has been cut."""
    if method.schedule == "adaptive":
        return next_check(checks, method.limits_gf, count)
    if not checks:
        return NextCheck(0.0, FIRST_READINGS, False, "measure the fresh edge before the first cut")
    if rule_met(checks, method):
        return NextCheck(None, 0, True, f"two readings at one count are above {method.dull_gf:g} gf", None, "dull")
    last = max(check.count for check in checks)
    if confirmation_wanted(checks, method):
        return NextCheck(last, 1, False, f"above {method.dull_gf:g} gf: one more reading at this count confirms it")
    due = (last // method.every + 1) * method.every
    return NextCheck(max(due, count), 1, False, f"every {method.every} cuts" if method.every > 1 else "every cut")
