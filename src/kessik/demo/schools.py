"""One trial of every other school: cartons in the shed, push cuts under the lamp, doses, rounds,
layers, cards.
"""

from dataclasses import dataclass, replace

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
from kessik.services.shelf.sharpenings import save_edge
from kessik.services.trials.trials import make_trial, take_from_shelf

SEED = 4300


@dataclass(frozen=True)
class DemoSchool:
    """A trial: two blades by code with how long their edges truly last, in the method's unit to 400
    gf.
    """

    method: Method
    name: str
    question: str
    medium: str
    days_ago: int
    lives: tuple[tuple[str, float], tuple[str, float]]
    factor: str = "steel"
    rounds: int = 1
    medium_lot: str | None = None
    check_lot: str | None = None
    thickness: tuple[float, float] = (1.0, 1.0)
    loss_a_round: float = 0.0


_DOSE = replace(
    BY_SCHOOL["fixed_dose"],
    stations_mm=(24.0, 48.0, 86.0),
    note="Fifty cuts each, read at two places in the zone and one beside it, which is the control.",
)
DEMO_SCHOOLS = (
    DemoSchool(
        BY_SCHOOL["paper_stop_rope"], "Twine at the sorting table",
        "How long does it slice held paper?",
        "8 mm twisted hemp", 4, (("AV-02", 48), ("AV-06", 41)), check_lot="paper",
    ),
    DemoSchool(
        BY_SCHOOL["two_stage_board"], "Cartons in the shed",
        "Which stays fine, and which stays useful?",
        "double-wall carton", 4, (("AV-02", 120), ("AV-06", 71)), medium_lot="carton",
        check_lot="paper",
    ),
    DemoSchool(
        BY_SCHOOL["push_cut_board"], "Push cuts under the lamp",
        "Where does the apex give way first?",
        "double-wall carton", 3, (("AV-02", 66), ("AV-06", 44)), medium_lot="carton",
    ),
    DemoSchool(
        _DOSE, "Fifty cuts each", "What is left after a morning's fifty cuts?",
        "32 mm hemp dropper rope, lot 7", 3,
        (("AV-02", 74), ("AV-06", 51)), medium_lot="rope", check_lot="line",
    ),
    DemoSchool(
        BY_SCHOOL["mixed_media_dose"], "A day on the raft and in the shed",
        "Rope, cartons and grit by a recipe",
        "rope, board and an abrasive sheet", 2, (("AV-02", 88), ("AV-06", 55)),
    ),
    DemoSchool(
        BY_SCHOOL["geometry_layers"], "Thick against thin",
        "At how many layers does thickness behind the edge show?",
        "double-wall carton", 2, (("AV-03", 90), ("AV-06", 90)), factor="geometry",
        medium_lot="carton",
        thickness=(1.25, 0.8),
    ),
    DemoSchool(
        BY_SCHOOL["resharpening_cycles"], "Does a light touch-up still restore it?",
        "The same fine plate after every round of gritty rope", "gritty dropper rope", 1,
        (("AV-02", 24), ("AV-06", 18)), rounds=5, loss_a_round=0.09,
    ),
    DemoSchool(
        BY_SCHOOL["machine_card"], "Card machine at the college",
        "Sixty strokes through silica card",
        "card, 5 % silica", 1, (("AV-02", 70), ("AV-06", 58)),
    ),
)  # fmt: skip  # a table is read by its rows


def build_schools(bench: Bench, days: Days, lots: dict[str, str]) -> None:
    """Make and cut the trials; edges follow on those the blades already have."""
    numbers = {"AV-02": 5, "AV-03": 4, "AV-06": 4}
    for school in DEMO_SCHOOLS:
        trial_id = demo_id("school", school.method.school)
        make_trial(
            bench.db,
            Trial(
                id=trial_id,
                name=school.name,
                question=school.question,
                created=days.moment(school.days_ago + 6, 10),
                rule=MatchingRule(school.factor),
                method=school.method,
                settled_rule=SettledRule("every_edge"),
                edges_per_blade=school.rounds,
                medium=school.medium,
                rope_diameter_mm=32 if "32 mm" in school.medium else None,
                plan=Plan(
                    medium_lot_id=lots.get(school.medium_lot or ""),
                    check_lot_id=lots.get(school.check_lot or ""),
                ),
                source="demo",
            ),
        )
        for code, _ in school.lives:
            take_from_shelf(bench.db, trial_id, demo_id(code), "")
        for number in range(school.rounds):
            for place, (code, life) in enumerate(school.lives):
                life_now = life * (1.0 - school.loss_a_round * number)
                _cut(
                    bench,
                    school,
                    trial_id,
                    code,
                    numbers[code],
                    place,
                    life_now,
                    days,
                    numbers[code] - number,
                )
                numbers[code] += 1


def _cut(
    bench: Bench,
    school: DemoSchool,
    trial_id: str,
    code: str,
    number: int,
    place: int,
    life: float,
    days: Days,
    first: int,
) -> None:
    rng = np.random.default_rng([SEED, *code.encode(), number])
    start = days.moment(school.days_ago, 8.0 + 2.5 * place + 1.0 * (number % 3))
    edge_id = demo_id(code, number)
    zones = (Zone(12, 76, "cut", "worked"), Zone(76, 96, "control"))
    minutes = 6.0 if school.rounds > 1 else 14.0
    touch_up = Step(
        "fine diamond plate", "diamond", 6.0, strokes_per_side=10 + 3 * (number - first)
    )
    steps = (touch_up,) if school.rounds > 1 else ()
    save_edge(
        bench.db,
        Edge(
            edge_id,
            demo_id(code),
            number,
            made_on=days.date(school.days_ago),
            regime="Bench set, stropped",
            minutes=minutes,
            steel_removed_mm=0.1,
            steps=steps,
            burr_check="gone",
            zones=zones,
        ),
        {"side_angle_deg": 15.0, "micro_bevel_side_deg": 0.0},
        start,
    )
    kind = "levelling" if place else "wear_power"
    truth = true_edge(kind, life, rng, start_gf=float(150 * np.exp(rng.normal(0, 0.04))))
    blade = TrueBlade(truth, thickness=school.thickness[place], bite_mm=7.5 + 0.8 * place)
    run = Run(
        demo_id(code, number, "run"),
        trial_id,
        edge_id,
        1,
        start,
        zone_from_mm=12,
        zone_to_mm=76,
        operator="Operator 1",
    )
    start_and_cut(bench, run, blade, rng)
