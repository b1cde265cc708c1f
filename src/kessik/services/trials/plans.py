"""Plans: what a trial will cost and can show before its first cut, foretold from its method and the
past.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, timedelta
from statistics import median

import numpy as np

from kessik.core.due import PlannedWork
from kessik.core.errors import OutOfRangeError
from kessik.core.limits import LIMITS, check_limit
from kessik.core.planning.budget import Budget, Pace, budget
from kessik.core.planning.calendar import Work, dated_work
from kessik.core.planning.expected import ExpectedRun, expected_run
from kessik.core.planning.one_blade import OneBladeSaves, one_blade_saves
from kessik.core.planning.order import Place
from kessik.core.planning.power import (
    Detectable,
    Floats,
    detectable_by_edges,
    edges_needed,
    spread_from_repeats,
)
from kessik.core.planning.starting_life import starting_life
from kessik.core.protocols.checks import FORCE
from kessik.core.protocols.methods import Confirmation, Method, StopRule
from kessik.core.trials.blinding import Sealing
from kessik.core.trials.edges_that_count import edge_waits
from kessik.core.trials.shortfalls import BladeAhead, Shortfall, shortfalls
from kessik.core.trials.state import TrialState
from kessik.core.trials.stock_needs import StockNeed, needs_of
from kessik.core.trials.trial import Plan, Trial
from kessik.services.reading.ordering import order_for
from kessik.services.reading.trials import blind_codes, get_trial
from kessik.services.stock.lots import check_lots
from kessik.services.trials.past import Past, learn, pace_of
from kessik.store.database import Database
from kessik.store.queries import bench_log, trials

MOST_EDGES_SHOWN = 12
_GAPS = (1.0, 2.0, 4.0, 10.0)


@dataclass(frozen=True)
class Strokes:
    """What the sharpenings ahead ask of one abrasive: strokes a side in all."""

    abrasive: str
    strokes: int


@dataclass(frozen=True)
class DatedWork:
    """A piece of work on its day."""

    on: date
    work: Work


@dataclass(frozen=True)
class ScheduleAhead:
    """One check schedule for a middling blade of the trial: what it uses and what it reaches."""

    method: Method
    chosen: bool
    expected: ExpectedRun


@dataclass(frozen=True)
class TrialPlan:
    """A trial's plan as it stands: order, cost, power, and what cannot be met.

    `belief` is what is believed of the edge-to-edge spread: nodes with their weights.
    """

    trial: Trial
    pace: Pace
    pace_learned: bool
    repeats_learned: int
    blades: tuple[BladeAhead, ...]
    order: tuple[Place, ...]
    cost: Budget
    shows: Detectable | None
    by_edges: tuple[Detectable, ...]
    edges_for_wanted: int | None
    one_blade: OneBladeSaves | None
    schedules: tuple[ScheduleAhead, ...]
    shortfalls: tuple[Shortfall, ...]
    needs: tuple[StockNeed, ...]
    strokes: tuple[Strokes, ...]
    work: tuple[DatedWork, ...]
    codes: Mapping[str, str]
    sealed: Sealing | None
    belief: tuple[Floats, Floats]

    @property
    def edge_spread(self) -> float:
        """The edge-to-edge spread that the plan reckons with: its root mean square, of ln life."""
        nodes, weights = self.belief
        return float(np.sqrt(weights @ nodes**2))


def plan_of(
    db: Database, trial_id: str, changes: Plan | None = None, edges_per_blade: int | None = None
) -> TrialPlan:
    """A trial's plan; `changes` and `edges_per_blade` are tried out without being kept."""
    past = learn(db, trial_id)
    state = past.state
    trial = state.trial
    plan = changes or trial.plan
    edges = edges_per_blade or trial.edges_per_blade
    check_plan(plan)
    pace, learned = _pace(past, plan)
    blades = _blades_ahead(past, plan, edges)
    error = float(np.sqrt(np.mean([b.expected.log_sd**2 for b in blades]))) if blades else 0.1
    nodes, weights, repeats = spread_from_repeats(past.log_lives, error)
    cost = budget([b.expected for b in blades for _ in range(b.still_to_cut)], trial.method, pace)
    needs = needs_of(past.lots, replace(trial, plan=replace(plan, pace=pace)), cost)
    order = order_for(state.blades, plan, edges, trial.method)
    by_edges: list[Detectable] = []
    shows, wanted, saves = None, None, None
    if len(blades) > 1 and _has_ratios(trial.method):
        spread = (nodes, weights)
        by_edges = detectable_by_edges(max(MOST_EDGES_SHOWN, edges), error, len(blades), spread)
        shows = by_edges[edges - 1]
        wanted = edges_needed(1 + plan.wanted_percent / 100, error, len(blades), spread)
        bodies = {arm.own_code for arm in state.blades}
        if len(bodies) == 1:
            saves = one_blade_saves(
                bodies.pop(), plan.wanted_percent, error, len(blades), spread, trial.rule
            )
    return TrialPlan(
        replace(trial, plan=plan, edges_per_blade=edges),
        pace,
        learned,
        repeats,
        tuple(blades),
        tuple(order),
        cost,
        shows,
        tuple(by_edges[:MOST_EDGES_SHOWN]),
        wanted,
        saves,
        tuple(_schedules(trial.method, blades)),
        tuple(shortfalls(plan, cost, needs, blades, state, edges)),
        tuple(needs),
        tuple(_strokes(state, cost)),
        tuple(_work(order, blades, edges, trial.method, pace, plan)),
        _codes(state),
        state.sealed,
        (nodes, weights),
    )


def _strokes(state: TrialState, cost: Budget) -> list[Strokes]:
    """By the steps of the newest edge of the trial that tells them, once for every run still to
    cut.
    """
    told = [edge for blade in state.blades for edge in blade.own_edges if edge.steps]
    if not told or not cost.runs:
        return []
    newest = max(told, key=lambda edge: edge.made_on)
    sums: dict[str, int] = {}
    for step in newest.steps:
        name = f"{step.abrasive}, {step.size_um:g} µm" if step.size_um else step.abrasive
        sums[name] = (
            sums.get(name, 0) + (step.strokes_per_side or 0) * max(step.repeats, 1) * cost.runs
        )
    return [Strokes(name, strokes) for name, strokes in sums.items() if strokes]


def dated_work_of(db: Database, state: TrialState, lives: Mapping[str, float]) -> list[PlannedWork]:
    """The work of a trial whose plan is dated."""
    trial, plan = state.trial, state.trial.plan
    if not plan.starts_on:
        return []
    past = Past(state, lives, *pace_of(db, state), (), frozenset(), (), ())
    blades = _blades_ahead(past, plan, trial.edges_per_blade)
    order = order_for(state.blades, plan, trial.edges_per_blade, trial.method)
    pace, _ = _pace(past, plan)
    codes = _codes(state) if trial.is_blind else {}
    work = _work(order, blades, trial.edges_per_blade, trial.method, pace, plan)
    return [planned(each, trial, codes) for each in work]


def planned(each: DatedWork, trial: Trial, codes: Mapping[str, str]) -> PlannedWork:
    """A piece of work as it is told; `codes` stand for the blades that are covered."""
    work = each.work
    blades = tuple(codes.get(code, code) for code in work.blades)
    return PlannedWork(each.on.isoformat(), work.kind, blades, trial.name, work.block)


def _codes(state: TrialState) -> dict[str, str]:
    """What stands for each blade of a blind trial, by the blade's own code."""
    codes = blind_codes(state.trial, state.blades)
    return {arm.code: codes[arm.arm_id] for arm in state.blades if arm.arm_id in codes}


def _work(
    order: Sequence[Place],
    blades: Sequence[BladeAhead],
    edges: int,
    method: Method,
    pace: Pace,
    plan: Plan,
) -> list[DatedWork]:
    if not plan.starts_on:
        return []
    done = {b.code: edges - b.still_to_cut for b in blades}
    expected = {b.code: b.expected for b in blades}
    start = date.fromisoformat(plan.starts_on)
    if not LIMITS["year"].holds(start.year):
        return []  # an older Kessik took any day
    found = dated_work(order, expected, done, method, pace, plan.hours_a_day)
    return [DatedWork(start + timedelta(days=work.day), work) for work in found]


def check_plan(plan: Plan) -> None:
    """Refuse figures that cannot be, at their field."""
    plan.pace.check()
    for field, limit in (
        ("expected_life", "expected_life"),
        ("wanted_percent", "wanted_percent"),
        ("hours_a_day", "hours_a_day"),
        ("rope_left_m", "stock"),
        ("line_left_m", "stock"),
    ):
        value = getattr(plan, field)
        if value is not None:
            check_limit(limit, value, field)
    _check_start(plan)


def _check_start(plan: Plan) -> None:
    if plan.starts_on:
        try:
            date.fromisoformat(plan.starts_on)
        except ValueError as error:
            raise OutOfRangeError(f"{plan.starts_on!r} is no day", field="starts_on") from error


def keep_plan(db: Database, trial_id: str, plan: Plan, edges_per_blade: int) -> TrialPlan:
    """Keep a plan with its trial; one that cannot be met is kept too, and says so.

    The written prediction is fixed by the first counted run, so that it is shown unchanged beside
    the answer.
    """
    check_plan(plan)
    check_limit("edges_per_blade", edges_per_blade, "edges_per_blade")
    with db.write() as session:
        trial = get_trial(session, trial_id)
        begun = any(not run.practice for run in bench_log.runs_of(session, trial_id))
        if begun and plan.prediction != trial.plan.prediction:
            raise OutOfRangeError(
                "the prediction was recorded before the first cut and cannot be changed",
                field="prediction",
            )
        changed = replace(trial, plan=plan, edges_per_blade=edges_per_blade)
        check_lots(session, changed)
        trials.save_trial(session, changed)
    return plan_of(db, trial_id)


def _blades_ahead(past: Past, plan: Plan, edges: int) -> list[BladeAhead]:
    state = past.state
    ended = [r for r in state.runs if r.state.status == "stopped" and r.run.compares]
    found = []
    for blade in state.blades:
        done = len({r.edge.id for r in ended if r.blade.arm_id == blade.arm_id})
        waits = edge_waits(blade, past.used_up)
        method = state.trial.method
        start = starting_life(
            blade.id, past.lives.get(blade.code), plan.expected_life, method, past.elsewhere
        )
        found.append(
            BladeAhead(
                blade.code,
                blade.mark,
                expected_run(method, start.life),
                start,
                max(edges - done, 0),
                waits,
            )
        )
    return found


def _pace(past: Past, plan: Plan) -> tuple[Pace, bool]:
    """The plan's pace, with seconds a cut and a reading learned from the tester's own runs where
    there are any.
    """
    if past.cut_s is None or plan.own_pace:
        return plan.pace, False
    return (
        replace(plan.pace, cut_s=past.cut_s, reading_s=past.reading_s or plan.pace.reading_s),
        True,
    )


def _schedules(method: Method, blades: Sequence[BladeAhead]) -> list[ScheduleAhead]:
    """Fixed, growing and adaptive checks side by side; pass and fail cannot be foreseen, so they
    have no adaptive.
    """
    if not blades or method.dose is not None:
        return []
    life = float(median([b.expected.life for b in blades]))
    adaptive = method.limit_gf(method.end_stage or "") is not None
    fixed = _confirmed(method, "same_count") if adaptive else method.ends
    own_gap = [method.every] if method.schedule == "every" else []
    gaps = dict.fromkeys([*(gap * method.piece for gap in _GAPS), *own_gap])
    growth = method.growth if method.schedule == "geometric" else 1.5
    first = method.every if method.schedule == "geometric" else max(2.0 * method.piece, 1.0)
    kinds = [
        *(replace(method, ends=fixed, schedule="every", every=gap, at=()) for gap in sorted(gaps)),
        replace(method, ends=fixed, schedule="geometric", every=first, growth=growth, at=()),
    ]
    if adaptive:
        ends = _confirmed(method, "next_check")
        kinds.insert(0, replace(method, ends=ends, schedule="adaptive"))
    return [
        ScheduleAhead(kind, _same_checks(kind, method), expected_run(kind, life)) for kind in kinds
    ]


def _has_ratios(method: Method) -> bool:
    """Whether a method ends with something whose ratio makes sense; effort on a scale of 0 to 10
    does not.
    """
    return bool(method.stages) or any(row.key in (FORCE, "depth") for row in method.rows)


def _confirmed(method: Method, confirm: Confirmation) -> tuple[StopRule, ...]:
    """The same stop rules, confirmed as a schedule needs it."""
    return tuple(
        replace(rule, confirm=confirm) if rule.kind == "limit" and rule.confirm != "none" else rule
        for rule in method.ends
    )


def _same_checks(one: Method, other: Method) -> bool:
    if one.schedule != other.schedule or one.schedule == "adaptive":
        return one.schedule == other.schedule
    return one.every == other.every and (one.schedule != "geometric" or one.growth == other.growth)
