"""Plans: what a trial will cost and can show before its first cut, foretold from its method and the past."""

from collections import OrderedDict
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from itertools import pairwise
from statistics import median

import numpy as np

from kessik.core.comparison.analysis import TrialAnalysis
from kessik.core.errors import OutOfRangeError
from kessik.core.planning.budget import Budget, Pace, budget
from kessik.core.planning.expected import ExpectedRun, expected_run
from kessik.core.planning.order import Place, order_of
from kessik.core.planning.power import (
    Detectable,
    detectable_by_edges,
    edges_needed,
    spread_from_repeats,
)
from kessik.core.protocols.events import BenchEvent
from kessik.core.protocols.methods import Method
from kessik.core.sharpness.life import Crossed
from kessik.services.facts import edge_waits
from kessik.services.trials import get_trial
from kessik.services.verdicts import END_STAGE, Verdict, verdict
from kessik.store.database import Database
from kessik.store.queries import bench_log, shelf, trials
from kessik.store.records import Plan, Trial

USUAL_LIFE = 20.0
MOST_EDGES_SHOWN = 12
_LONGEST_CUT_S = 300.0
_FEWEST_CUTS = 5
_COMPARED = (("every cut", 1), ("every 2nd cut", 2), ("every 4th cut", 4), ("every 10th cut", 10))


@dataclass(frozen=True)
class BladeAhead:
    """What is still to be cut on one blade, and how far it is expected to go."""

    code: str
    mark: int
    expected: ExpectedRun
    learned: bool
    still_to_cut: int
    waits: bool


@dataclass(frozen=True)
class ScheduleAhead:
    """One check schedule for a middling blade of the trial: what it uses and what it reaches."""

    name: str
    chosen: bool
    expected: ExpectedRun


@dataclass(frozen=True)
class TrialPlan:
    """A trial's plan as it stands: order, cost, power, and what cannot be met."""

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
    schedules: tuple[ScheduleAhead, ...]
    shortfalls: tuple[str, ...]


@dataclass(frozen=True)
class Past:
    """What a plan learns from: the trial as it stands, the tester's pace, and lives of repeated edges of any trial."""

    answer: Verdict
    cut_s: float | None
    reading_s: float | None
    log_lives: tuple[tuple[float, ...], ...]
    used_up: frozenset[str]


_learned: OrderedDict[tuple[object, ...], Past] = OrderedDict()
_KEPT = 16


def learn(db: Database, trial_id: str) -> Past:
    """Gather the past, once for every state of the data."""
    key = (str(db.folder), trial_id, db.stamp())
    if key not in _learned:
        answer = verdict(db, trial_id)
        cut_s, reading_s = _own_pace(db, trial_id)
        _learned[key] = Past(answer, cut_s, reading_s, tuple(_repeats(db)), _used_up(db))
        while len(_learned) > _KEPT:
            _learned.popitem(last=False)
    return _learned[key]


def plan_of(db: Database, trial_id: str, changes: Plan | None = None, edges_per_blade: int | None = None) -> TrialPlan:
    """A trial's plan; `changes` and `edges_per_blade` are tried out without being kept."""
    past = learn(db, trial_id)
    answer = past.answer
    trial = answer.trial
    plan = changes or trial.plan
    edges = edges_per_blade or trial.edges_per_blade
    check_plan(plan)
    pace, learned = _pace(past, plan)
    blades = _blades_ahead(past, plan, edges)
    error = float(np.sqrt(np.mean([b.expected.log_sd**2 for b in blades]))) if blades else 0.1
    nodes, weights, repeats = spread_from_repeats(past.log_lives, error)
    cost = budget([b.expected for b in blades for _ in range(b.still_to_cut)], pace)
    by_edges: list[Detectable] = []
    shows, wanted = None, None
    if len(blades) > 1:
        spread = (nodes, weights)
        by_edges = detectable_by_edges(max(MOST_EDGES_SHOWN, edges), error, len(blades), spread)
        shows = by_edges[edges - 1]
        wanted = edges_needed(1 + plan.wanted_percent / 100, error, len(blades), spread)
    return TrialPlan(
        replace(trial, plan=plan, edges_per_blade=edges),
        pace,
        learned,
        repeats,
        tuple(blades),
        tuple(_order(blades, plan, edges)),
        cost,
        shows,
        tuple(by_edges[:MOST_EDGES_SHOWN]),
        wanted,
        tuple(_schedules(trial.method, blades)),
        tuple(_shortfalls(plan, cost, blades, answer, edges)),
    )


def check_plan(plan: Plan) -> None:
    """Refuse figures that cannot be, at their field."""
    plan.pace.check()
    for field, low, high in (
        ("expected_life", 1.0, 5000.0), ("wanted_percent", 1.0, 900.0), ("rope_left_m", 0.0, 1e6),
        ("line_left_m", 0.0, 1e6),
    ):  # fmt: skip
        value = getattr(plan, field)
        if value is not None and not low <= value <= high:
            raise OutOfRangeError(f"{value:g} cannot be here; {low:g} to {high:g} can", field=field, value=value)


def keep_plan(db: Database, trial_id: str, plan: Plan, edges_per_blade: int) -> TrialPlan:
    """Keep a plan with its trial; one that cannot be met is kept too, and says so.

    The written prediction is fixed by the first counted run, so that it is shown unchanged beside the answer.
    """
    check_plan(plan)
    if not 1 <= edges_per_blade <= 100:
        raise OutOfRangeError("plan 1 to 100 edges a blade", field="edges_per_blade", value=edges_per_blade)
    with db.write() as session:
        trial = get_trial(session, trial_id)
        begun = any(not run.practice for run in bench_log.runs_of(session, trial_id))
        if begun and plan.prediction != trial.plan.prediction:
            raise OutOfRangeError(
                "the prediction was written down before the first cut and stays as it is", field="prediction"
            )
        trials.save_trial(session, replace(trial, plan=plan, edges_per_blade=edges_per_blade))
    return plan_of(db, trial_id)


def _used_up(db: Database) -> frozenset[str]:
    """The ids of all edges cut in any trial."""
    with db.read() as session:
        return frozenset(shelf.cut_edges(session))


def _blades_ahead(past: Past, plan: Plan, edges: int) -> list[BladeAhead]:
    answer = past.answer
    lives = _known_lives(answer.analysis)
    ended = [r for r in answer.runs if r.state.status == "stopped" and not r.run.practice]
    found = []
    for blade in answer.blades:
        done = len({r.edge.id for r in ended if r.blade.id == blade.id})
        waits = edge_waits(blade, past.used_up)
        life = lives.get(blade.code, plan.expected_life or USUAL_LIFE)
        expected = expected_run(answer.trial.method, min(max(life, 1.0), 5000.0))
        found.append(BladeAhead(blade.code, blade.mark, expected, blade.code in lives, max(edges - done, 0), waits))
    return found


def _known_lives(analysis: TrialAnalysis) -> dict[str, float]:
    found = {}
    for blade in analysis.blades:
        life = blade.lives.get(END_STAGE)
        if life is not None and isinstance(life.found, Crossed):
            found[blade.blade] = life.found.estimate
    return found


def _pace(past: Past, plan: Plan) -> tuple[Pace, bool]:
    """The plan's pace, with seconds a cut and a reading learned from the tester's own runs where there are any."""
    if past.cut_s is None or plan.own_pace:
        return plan.pace, False
    return replace(plan.pace, cut_s=past.cut_s, reading_s=past.reading_s or plan.pace.reading_s), True


def _own_pace(db: Database, trial_id: str) -> tuple[float | None, float | None]:
    """Median seconds a cut and a reading over this trial's counted runs; None with fewer than five cuts."""
    with db.read() as session:
        runs = [run.id for run in bench_log.runs_of(session, trial_id) if not run.practice]
        logs = bench_log.events_by_run(session, runs)
    cuts, readings = [], []
    for log in logs.values():
        for before, after in pairwise(log):
            seconds = _seconds_between(before, after)
            if seconds is None or not 0 < seconds <= _LONGEST_CUT_S:
                continue
            if after.kind == "cut":
                cuts.append(seconds / max(float(after.payload.get("amount", 1)), 1.0))
            elif after.kind == "reading":
                readings.append(seconds)
    if len(cuts) < _FEWEST_CUTS:
        return None, None
    return round(median(cuts), 1), round(median(readings), 1) if readings else None


def _seconds_between(before: BenchEvent, after: BenchEvent) -> float | None:
    if before.kind in ("break", "pause", "check_planned", "stage") or before.client_time == after.client_time:
        return None
    return (datetime.fromisoformat(after.client_time) - datetime.fromisoformat(before.client_time)).total_seconds()


def _repeats(db: Database) -> list[tuple[float, ...]]:
    """Ln lives of the edges of each blade, in every trial."""
    with db.read() as session:
        ids = [trial.id for trial in trials.all_trials(session)]
    repeats: list[tuple[float, ...]] = []
    for trial_id in ids:
        by_blade: dict[str, list[float]] = {}
        for result in verdict(db, trial_id).analysis.runs:
            life = result.lives.get(END_STAGE)
            if life is not None and isinstance(life.life.found, Crossed) and not result.left_out:
                by_blade.setdefault(result.run.blade, []).append(float(np.log(life.life.found.estimate)))
        repeats.extend(tuple(lives) for lives in by_blade.values())
    return repeats


def _order(blades: Sequence[BladeAhead], plan: Plan, edges: int) -> list[Place]:
    if not blades:
        return []
    rng = np.random.default_rng(plan.seed)
    return order_of([b.code for b in blades], edges, plan.order_kind, lambda n: rng.permutation(n).tolist())


def _schedules(method: Method, blades: Sequence[BladeAhead]) -> list[ScheduleAhead]:
    if not blades:
        return []
    life = float(median([b.expected.life for b in blades]))
    adaptive = replace(method, schedule="adaptive", every=1)
    rows = [ScheduleAhead("when Kessik says", method.schedule == "adaptive", expected_run(adaptive, life))]
    for name, every in _COMPARED:
        fixed = replace(method, schedule="every", every=every)
        rows.append(ScheduleAhead(name, fixed == method, expected_run(fixed, life)))
    return rows


def _shortfalls(plan: Plan, cost: Budget, blades: Sequence[BladeAhead], answer: Verdict, edges: int) -> list[str]:
    """What the plan cannot meet, and by how much; it is kept all the same."""
    said = []
    for left, needed, what in ((plan.rope_left_m, cost.rope_m, "rope"), (plan.line_left_m, cost.line_m, "test line")):
        if left is not None and needed > left:
            said.append(f"{what} runs short by {needed - left:.1f} m: {needed:.1f} m needed, {left:g} m left")
    bare = [b.code for b in blades if b.still_to_cut and not b.waits]
    if bare:
        said.append(f"{', '.join(bare)} {'has' if len(bare) == 1 else 'have'} no edge that waits to be cut")
    keen = answer.trial.method.keen_gf
    for result in answer.analysis.runs:
        if result.start_gf is not None and result.start_gf >= keen:
            said.append(
                f"{result.run.blade} starts at {result.start_gf:.0f} gf, above the keen limit of {keen:g} gf: "
                "nothing can be timed to it"
            )
    longest = max((b.expected.cuts for b in blades), default=0.0)
    if longest > plan.pace.cuts_a_day:
        said.append(
            f"one run of about {longest:.0f} cuts is more than the {plan.pace.cuts_a_day} a day for one hand; "
            "pause it overnight"
        )
    if len(blades) < 2:
        said.append("one blade alone compares with nothing" if blades else "no blade is in the trial yet")
    elif edges < 2:
        said.append("one edge each is an anecdote with a number: re-sharpening alone can make such a difference")
    return said
