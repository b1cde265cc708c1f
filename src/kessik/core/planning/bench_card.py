"""The bench card: what the screen needs to go on alone while the server is away."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

from kessik.core.planning.schedule import next_count
from kessik.core.protocols.methods import Method
from kessik.core.protocols.run_state import RunState

_AHEAD, _FEWEST_FORCES = 60, 2


@dataclass(frozen=True)
class RecipeStep:
    """One step of a recipe: its medium, the counts it begins and ends at, and what is counted."""

    medium: str
    begins_at: float
    ends_at: float
    unit: str


@dataclass(frozen=True)
class BenchCard:
    """Counts to check at from here, readings each, and what asks for one more reading at the same
    count.

    Only the next check is the plan's own; the later ones are a fixed schedule to fall back on.
    `recipe` holds the steps of a dose of several media, `worn_share` how far the edge is worn, for
    drawing: of its dose, of its stages, or of the way to the last force limit.
    """

    checks_at: tuple[float, ...]
    readings: int
    confirm_above_gf: float | None
    confirm_on_fail: bool
    recipe: tuple[RecipeStep, ...] = ()
    worn_share: float = 0.0


def bench_card(method: Method, state: RunState) -> BenchCard:
    """The card for a run as it stands; an adaptive plan falls back on its last gap, and wider ones
    as it goes on.
    """
    asked = state.progress.asked
    confirming = next(
        (r for r in method.ends if r.kind == "limit" and r.confirm == "same_count"), None
    )
    stage = next((s for s in method.stages if confirming and s.name == confirming.stage), None)
    ahead = [state.plan.next_count] if state.plan is not None else []
    own = [check.count for check in state.worked_checks if check.kind == asked]
    last = max(own, default=0.0)
    gap = max((ahead[0] - last) if ahead else 0.0, method.piece)
    while len(ahead) < _AHEAD:
        at = ahead[-1] if ahead else last
        due = (
            at + max(gap, _widened(at)) if method.schedule == "adaptive" else next_count(method, at)
        )
        if due is None:
            break
        ahead.append(due)
    return BenchCard(
        checks_at=tuple(ahead),
        readings=method.readings(asked),
        confirm_above_gf=stage.limit_gf if stage is not None else None,
        confirm_on_fail=stage is not None and stage.limit_gf is None and stage.check == asked,
        recipe=tuple(_recipe(method)),
        worn_share=_worn_share(method, state),
    )


def _worn_share(method: Method, state: RunState) -> float:
    if method.dose is not None:
        return min(1.0, state.count / method.dose)
    if not method.limits_gf:
        return len(state.stages) / max(len(method.stages), 1)
    forces = [check.force_gf for check in state.force_checks if check.force_gf is not None]
    if len(forces) < _FEWEST_FORCES:
        return 0.0
    _, limit_gf = method.limits_gf[-1]
    worn = (max(forces[-_FEWEST_FORCES:]) - forces[0]) / max(limit_gf - forces[0], 1.0)
    return min(1.0, max(0.0, worn))


def _recipe(method: Method) -> Iterator[RecipeStep]:
    done = 0.0
    for part in method.recipe:
        yield RecipeStep(part.medium, done, done + part.amount, part.unit or method.count_unit)
        done += part.amount


def _widened(at: float) -> float:
    """A quarter of the way so far, so that the scarce test line is not used up while nobody
    plans.
    """
    return float(math.ceil(at / 4))
