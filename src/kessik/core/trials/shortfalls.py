"""What a plan cannot meet, and by how much; it is kept all the same."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from kessik.core.planning.budget import Budget
from kessik.core.planning.expected import ExpectedRun
from kessik.core.planning.starting_life import StartingLife
from kessik.core.trials.state import TrialState
from kessik.core.trials.stock_needs import StockNeed
from kessik.core.trials.trial import Plan


@dataclass(frozen=True)
class BladeAhead:
    """What is still to be cut on one blade, and how far it is expected to go."""

    code: str
    mark: int
    expected: ExpectedRun
    starts_with: StartingLife
    still_to_cut: int
    waits: bool


def shortfalls(
    plan: Plan,
    cost: Budget,
    needs: Sequence[StockNeed],
    blades: Sequence[BladeAhead],
    state: TrialState,
    edges: int,
) -> Iterator[str]:
    """One sentence for each thing that is missing."""
    yield from _stock(plan, cost, needs)
    bare = [b.code for b in blades if b.still_to_cut and not b.waits]
    if bare:
        yield (f"{', '.join(bare)} {'has' if len(bare) == 1 else 'have'} no edge ready to cut")
    method = state.trial.method
    if method.limits_gf and not state.sealed:
        stage, limit_gf = method.limits_gf[0]
        for r in (r for r in state.runs if r.counts):
            if r.start is not None and r.start[0] >= limit_gf:
                yield (
                    f"{r.blade.code} starts at {r.start[0]:.0f} gf, above the {stage}"
                    f" limit of {limit_gf:g} gf: nothing can be timed to it"
                )
    longest = max((b.expected.cuts / method.piece for b in blades), default=0.0)
    if longest > plan.pace.cuts_a_day and method.cut != "stroke":
        yield (
            f"one run of about {longest:.0f} cuts is more than the {plan.pace.cuts_a_day} a day for"
            " one hand; pause it overnight"
        )
    if len(blades) < 2:
        yield "a comparison needs a second blade" if blades else "no blade is in the trial yet"
    elif edges < 2:
        yield ("one edge each proves little: re-sharpening alone can make such a difference")


def _stock(plan: Plan, cost: Budget, needs: Sequence[StockNeed]) -> Iterator[str]:
    used = {need.use for need in needs}
    for need in needs:
        if need.left is not None and need.needed > need.left:
            unit = need.lot.unit
            yield (
                f"{need.lot.name} is short by {need.needed - need.left:.1f} {unit}:"
                f" {need.needed:.1f} {unit} needed, {max(need.left, 0.0):.1f} {unit} left"
            )
    for use, left, needed, what in (
        ("medium", plan.rope_left_m, cost.medium_m, "rope"),
        ("check", plan.line_left_m, cost.line_m, "test line"),
    ):
        if use not in used and left is not None and needed > left:
            yield (
                f"{what} is short by {needed - left:.1f} m: {needed:.1f} m needed, {left:g} m left"
            )
