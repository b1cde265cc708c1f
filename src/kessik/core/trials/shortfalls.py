"""What a plan cannot meet, and by how much; it is kept all the same."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Literal

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


@dataclass(frozen=True)
class NoEdgeReady:
    """Blades with runs ahead and no edge to cut them with."""

    blades: tuple[str, ...]


@dataclass(frozen=True)
class StartsTooDull:
    """A run that started above the limit of a stage, so that nothing can be timed to it."""

    blade: str
    start_gf: float
    stage: str
    limit_gf: float


@dataclass(frozen=True)
class LongRun:
    """One run is more than a day's cuts of one hand."""

    cuts: float
    cuts_a_day: int


@dataclass(frozen=True)
class StockShort:
    """Of a lot, or of what the plan says is left: more is needed than there is, in its unit."""

    what: str
    unit: str
    needed: float
    left: float


@dataclass(frozen=True)
class TooFew:
    """Of what a comparison needs two at least."""

    of: Literal["blades", "edges"]
    there: int


Shortfall = NoEdgeReady | StartsTooDull | LongRun | StockShort | TooFew


def shortfalls(
    plan: Plan,
    cost: Budget,
    needs: Sequence[StockNeed],
    blades: Sequence[BladeAhead],
    state: TrialState,
    edges: int,
) -> Iterator[Shortfall]:
    """Each thing that is missing."""
    yield from _stock(plan, cost, needs)
    bare = tuple(b.code for b in blades if b.still_to_cut and not b.waits)
    if bare:
        yield NoEdgeReady(bare)
    method = state.trial.method
    if method.limits_gf and not state.sealed:
        stage, limit_gf = method.limits_gf[0]
        for r in (r for r in state.runs if r.counts):
            if r.start is not None and r.start[0] >= limit_gf:
                yield StartsTooDull(r.blade.code, r.start[0], stage, limit_gf)
    longest = max((b.expected.cuts / method.piece for b in blades), default=0.0)
    if longest > plan.pace.cuts_a_day and method.cut != "stroke":
        yield LongRun(longest, plan.pace.cuts_a_day)
    if len(blades) < 2:
        yield TooFew("blades", len(blades))
    elif edges < 2:
        yield TooFew("edges", edges)


def _stock(plan: Plan, cost: Budget, needs: Sequence[StockNeed]) -> Iterator[StockShort]:
    used = {need.use for need in needs}
    for need in needs:
        if need.left is not None and need.needed > need.left:
            yield StockShort(need.lot.name, need.lot.unit, need.needed, max(need.left, 0.0))
    for use, left, needed, what in (
        ("medium", plan.rope_left_m, cost.medium_m, "rope"),
        ("check", plan.line_left_m, cost.line_m, "test line"),
    ):
        if use not in used and left is not None and needed > left:
            yield StockShort(what, "m", needed, left)
