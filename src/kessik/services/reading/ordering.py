"""The order in which a trial is cut, drawn from its plan's seed; the same every time."""

from collections.abc import Sequence

import numpy as np

from kessik.core.planning.order import Place, order_in_rounds, order_of
from kessik.core.protocols.methods import Method
from kessik.core.shelf.blades import Blade
from kessik.core.trials.trial import Plan


def order_for(arms: Sequence[Blade], plan: Plan, edges: int, method: Method) -> list[Place]:
    """The runs of a plan in their order; OutOfRangeError for ABBA of other than two."""
    if not arms:
        return []
    rng = np.random.default_rng(plan.seed)

    def permutation(count: int) -> list[int]:
        return [int(each) for each in rng.permutation(count)]

    if not method.cycles:
        codes = [arm.code for arm in arms]
        return order_of(codes, edges, plan.order_kind, permutation, plan.balance_zones)
    bodies: dict[str, list[str]] = {}
    for arm in arms:
        bodies.setdefault(arm.own_code, []).append(arm.code)
    return order_in_rounds(bodies, edges, plan.order_kind, permutation, plan.balance_zones)


def order_kept(arms: Sequence[Blade], plan: Plan, edges: int, method: Method) -> tuple[Place, ...]:
    """The order of a plan that was kept; empty where none was, or where it fits no longer."""
    if plan == Plan() or (plan.order_kind == "abba" and len(arms) != 2):
        return ()
    return tuple(order_for(arms, plan, edges, method))
