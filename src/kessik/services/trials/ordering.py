"""The order in which a trial is cut, drawn from its plan's seed; the same every time."""

from collections.abc import Sequence

import numpy as np

from kessik.core.planning.order import Place, order_of
from kessik.core.trials.trial import Plan


def order_for(codes: Sequence[str], plan: Plan, edges: int) -> list[Place]:
    """The runs of a plan in their order; OutOfRangeError for ABBA of other than two."""
    if not codes:
        return []
    rng = np.random.default_rng(plan.seed)
    return order_of(
        codes,
        edges,
        plan.order_kind,
        lambda n: rng.permutation(n).tolist(),
        plan.balance_zones,
    )


def order_kept(codes: Sequence[str], plan: Plan, edges: int) -> tuple[Place, ...]:
    """The order of a plan that was kept; empty where none was, or where it fits no longer."""
    if plan == Plan() or (plan.order_kind == "abba" and len(codes) != 2):
        return ()
    return tuple(order_for(codes, plan, edges))
