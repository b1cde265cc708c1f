"""Two trials that compare inside something: two finishes on one blade, and two blades in bundles of
twine that wear an edge at very different rates.
"""

from dataclasses import dataclass

import numpy as np

from kessik.core.comparison.matching import MatchingRule
from kessik.core.geometry import Zone
from kessik.core.protocols.methods import Method
from kessik.core.protocols.schools import BY_SCHOOL
from kessik.core.runs import Run
from kessik.core.sharpening.regimes import Step
from kessik.core.sharpening.settled import SettledRule
from kessik.core.shelf.edges import Edge
from kessik.core.trials.trial import Plan, Trial
from kessik.demo.cutting import demo_id, start_and_cut
from kessik.demo.days import Days
from kessik.instruments.virtual_bench.true_decay import true_edge
from kessik.services.bench.bench import Bench
from kessik.services.bench.virtual_cutting import TrueBlade
from kessik.services.shelf.blades import shelved
from kessik.services.shelf.sharpenings import save_edge
from kessik.services.trials.trials import make_trial, take_from_shelf

SEED = 4700
FINISH_TRIAL_ID = demo_id("finish trial")
BUNDLES_TRIAL_ID = demo_id("bundles trial")
_FINISHES = {
    "coarse": (Step("coarse diamond plate", "diamond", 25.0, strokes_per_side=12), 19.0, 190.0),
    "polished": (Step("leather with paste", "diamond", 1.0, strokes_per_side=20), 25.0, 125.0),
}
"""The last step of each finish, cuts its edges last, and the force they begin at."""
_BUNDLES = (0.72, 1.0, 1.35)
"""How far an edge goes in each bundle of twine, beside the middling one."""
_LIVES = (("AV-02", 46.0), ("AV-06", 37.0))


@dataclass(frozen=True)
class _Sharpened:
    """The next edge of a blade, and what it is cut in."""

    code: str
    days_ago: int
    hour: float
    steps: tuple[Step, ...]
    arm: str = ""


def build_arms_and_blocks(bench: Bench, days: Days, lots: dict[str, str]) -> None:
    """Make and cut both trials; edges follow on those the blades already have."""
    _build_finishes(bench, days, lots)
    _build_bundles(bench, days, lots)


def _build_finishes(bench: Bench, days: Days, lots: dict[str, str]) -> None:
    trial = _trial(
        FINISH_TRIAL_ID,
        "Coarse against polished, on one knife",
        "Does a polished edge last longer in dropper rope than one off the coarse plate?",
        "edge_finish",
        BY_SCHOOL["force_limit_rope"],
        days,
        Plan(medium_lot_id=lots["rope"]),
    )
    make_trial(bench.db, trial)
    take_from_shelf(bench.db, trial.id, demo_id("AV-02"), "", tuple(_FINISHES))
    for block in range(trial.edges_per_blade):
        names = list(_FINISHES) if block % 2 == 0 else list(_FINISHES)[::-1]
        for place, name in enumerate(names):
            step, life, start_gf = _FINISHES[name]
            made = _Sharpened("AV-02", 3 - block, 9.0 + 3 * place, (step,), name)
            _cut(bench, trial.id, made, life, start_gf, days)


def _build_bundles(bench: Bench, days: Days, lots: dict[str, str]) -> None:
    trial = _trial(
        BUNDLES_TRIAL_ID,
        "Three bundles of twine",
        "The bundles differ; does AV-02 still outlast AV-06 in each?",
        "steel",
        BY_SCHOOL["paper_stop_rope"],
        days,
        Plan(check_lot_id=lots["paper"]),
    )
    make_trial(bench.db, trial)
    for code, _ in _LIVES:
        take_from_shelf(bench.db, trial.id, demo_id(code), "")
    plate = Step("fine diamond plate", "diamond", 6.0, strokes_per_side=15)
    for block, level in enumerate(_BUNDLES):
        for place, (code, life) in enumerate(_LIVES):
            made = _Sharpened(code, 3 - block, 13.0 + 2 * place, (plate,))
            _cut(bench, trial.id, made, life * level, 150.0, days)


def _trial(
    trial_id: str, name: str, question: str, factor: str, method: Method, days: Days, plan: Plan
) -> Trial:
    return Trial(
        id=trial_id,
        name=name,
        question=question,
        created=days.moment(8, 11),
        rule=MatchingRule(factor),
        method=method,
        settled_rule=SettledRule("every_edge"),
        edges_per_blade=3,
        medium="8 mm twisted hemp" if factor == "steel" else "32 mm hemp dropper rope, lot 7",
        rope_diameter_mm=8 if factor == "steel" else 32,
        plan=plan,
        source="demo",
    )


def _cut(
    bench: Bench, trial_id: str, made: _Sharpened, life: float, start_gf: float, days: Days
) -> None:
    number = max(edge.number for edge in shelved(bench.db, demo_id(made.code)).blade.edges) + 1
    rng = np.random.default_rng([SEED, *made.code.encode(), number])
    start, edge_id = days.moment(made.days_ago, made.hour), demo_id(made.code, number)
    edge = Edge(
        edge_id,
        demo_id(made.code),
        number,
        arm=made.arm,
        made_on=days.date(made.days_ago),
        regime=made.steps[-1].abrasive,
        minutes=12.0,
        steel_removed_mm=0.1,
        steps=made.steps,
        burr_check="gone",
        zones=(Zone(12, 76, "cut", "worked"),),
    )
    facts = {
        "side_angle_deg": 15.0,
        "micro_bevel_side_deg": 0.0,
        "thickness_behind_edge_mm": 0.4,
    }
    save_edge(bench.db, edge, facts, start)
    own = life * float(np.exp(rng.normal(0, 0.03)))
    truth = true_edge(
        "wear_power", own, rng, start_gf=start_gf * float(np.exp(rng.normal(0, 0.03)))
    )
    run = Run(
        demo_id(made.code, number, "run"),
        trial_id,
        edge_id,
        1,
        start,
        zone_from_mm=12,
        zone_to_mm=76,
        operator="Operator 1",
    )
    start_and_cut(bench, run, TrueBlade(truth), rng)
