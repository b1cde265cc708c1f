"""The mussel growers' story so far: a shelf of six blades, raft rope cut to the force limits, an
unfair trial kept on purpose, and one trial of every other school; dated in the days before the demo
is started.
"""

from collections.abc import Sequence
from dataclasses import replace
from uuid import NAMESPACE_URL, uuid5

import numpy as np

from kessik.core.comparison.matching import MatchingRule
from kessik.core.devices import Instrument, ReferenceCheck
from kessik.core.facts import Measurement, entered
from kessik.core.geometry import Zone
from kessik.core.heat_treatment import HeatTreatment
from kessik.core.protocols.schools import BY_SCHOOL
from kessik.core.runs import Run
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Damage, Edge, Recipe
from kessik.core.shelf.facts import completed
from kessik.core.stock import Lot, LotCorrection
from kessik.core.trials.trial import Plan, Trial
from kessik.demo.blades import (
    RAFT_BLADES,
    RECIPE_STEPS,
    STATIONS_MM,
    UNFAIR_BLADES,
    DemoBlade,
    DemoEdge,
)
from kessik.demo.cutting import demo_id, start_and_cut, strop_back
from kessik.demo.days import Days
from kessik.demo.pictures import blade_picture
from kessik.instruments.virtual_bench.true_decay import true_edge
from kessik.services.bench.bench import Bench
from kessik.services.bench.virtual_cutting import TrueBlade
from kessik.services.devices.instruments import record_check, save_instrument
from kessik.services.shelf.blades import add_photo, make_blade
from kessik.services.shelf.sharpenings import save_recipe
from kessik.services.stock.lots import correct, save_lot
from kessik.services.trials.trials import make_trial, take_from_shelf
from kessik.store.database import Database

SEED = 20260
TRIAL_ID = str(uuid5(NAMESPACE_URL, "kessik:demo:raft-rope"))
UNFAIR_TRIAL_ID = str(uuid5(NAMESPACE_URL, "kessik:demo:unfair"))
_ZONES = (Zone(0, 12, "taped"), Zone(12, 76, "cut", "worked"), Zone(76, 96, "control"))
_LENDER = "Corran Forge"
_STROPPED = ("AV-02", 3)
_TESTER_DAYS = (
    (12, (201, 199, 200)),
    (9, (200, 202, 199)),
    (6, (198, 201, 200)),
    (3, (202, 200, 201)),
    (1, (203, 201, 202)),
)


def build_shelf_and_raft_trials(db: Database, days: Days) -> None:
    """What the growers bought, their blades, and the trials that the story is about."""
    bench, lots = Bench(db), lot_ids()
    _lots(db, days)
    _instruments(db, days)
    recipe = save_recipe(
        db, Recipe(demo_id("recipe"), "Bench set, stropped", RECIPE_STEPS, "the co-op's own")
    )
    make_trial(
        db,
        Trial(
            id=UNFAIR_TRIAL_ID,
            name="Unfair on purpose: soft and thick",
            question=(
                "What a careless comparison looks like: AV-04 is 3 HRC softer and twice as thick"
                " behind the edge."
            ),
            created=days.moment(14, 9),
            method=BY_SCHOOL["force_limit_rope"],
            edges_per_blade=1,
            medium="32 mm hemp dropper rope, lot 7",
            rope_diameter_mm=32,
            source="demo",
        ),
    )
    make_trial(
        db,
        Trial(
            id=TRIAL_ID,
            name="Raft rope, before the season",
            question="Which steel keeps its edge longest in wet, gritty dropper rope?",
            created=days.moment(12, 9),
            rule=MatchingRule("steel", "as_usually_hardened"),
            method=BY_SCHOOL["force_limit_rope"],
            edges_per_blade=2,
            plan=Plan(
                medium_lot_id=lots["rope"],
                check_lot_id=lots["line"],
                starts_on=days.date(-1),
                prediction="The forge expects 1.3344 first, then 1.2436 and 1.4112, 1.4034 last.",
            ),
            medium="32 mm hemp dropper rope, lot 7",
            rope_diameter_mm=32,
            source="demo",
        ),
    )
    for blade in sorted((*RAFT_BLADES, *UNFAIR_BLADES), key=lambda b: b.code):
        _blade(db, blade, recipe, days)
    for trial_id, blades in ((TRIAL_ID, RAFT_BLADES), (UNFAIR_TRIAL_ID, UNFAIR_BLADES)):
        for blade in blades:
            take_from_shelf(db, trial_id, demo_id(blade.code), blade.role)
    rng = np.random.default_rng(SEED)
    for trial_id, blades in ((TRIAL_ID, RAFT_BLADES), (UNFAIR_TRIAL_ID, UNFAIR_BLADES)):
        _cut_all(bench, trial_id, blades, days, rng)


def lot_ids() -> dict[str, str]:
    """The ids of what the growers bought, by what it is."""
    return {name: demo_id("lot", name) for name in ("rope", "line", "carton", "paper")}


def _lots(db: Database, days: Days) -> None:
    """What the co-op bought: rope and cartons with their state, test line that runs low, and
    paper.
    """
    rope_state = {"damp": True, "direction": "across the lay", "avoided": "splices"}
    lots = {
        "rope": Lot(
            demo_id("lot", "rope"),
            "rope",
            "Hemp dropper rope, lot 7",
            "m",
            60,
            days.date(40),
            540,
            "kr",
            {
                "fibre": "hemp",
                "lay": "three-strand, right",
                "diameter_mm": 32,
                "strands": 3,
                "grit": "gritty, as from the raft",
            },
            rope_state,
        ),
        "line": Lot(
            demo_id("lot", "line"),
            "test_line",
            "Test line, spool 3",
            "m",
            21,
            days.date(30),
            95,
            "kr",
            {"diameter_mm": 0.25},
        ),
        "carton": Lot(
            demo_id("lot", "carton"),
            "board",
            "Double-wall carton, pallet 2",
            "sheets",
            40,
            days.date(25),
            320,
            "kr",
            {"walls": 2, "flute": "BC", "thickness_mm": 6.8, "m_per_sheet": 12},
            {
                "direction": "across the flutes",
                "avoided": "tape and staples",
                "humidity_percent": 55,
            },
        ),
        "paper": Lot(
            demo_id("lot", "paper"),
            "paper",
            "Office paper, ream 2",
            "sheets",
            100,
            days.date(25),
            60,
            "kr",
            {"weight": 80, "tries_per_sheet": 12},
        ),
    }
    for lot in lots.values():
        save_lot(db, lot)
    loose = LotCorrection(
        demo_id("lot", "loose"),
        lots["line"].id,
        0.6,
        "knotted, thrown away",
        days.moment(6, 12).utc,
    )
    correct(db, loose)


def _instruments(db: Database, days: Days) -> None:
    """The co-op's tester, unplugged, with its checks on the reference edge."""
    tester = Instrument(
        demo_id("tester"),
        "force",
        "Line tester, shed",
        "/dev/ttyUSB0",
        range_high=2000,
        reference="reference blade, plain line",
        in_use=False,
    )
    save_instrument(db, tester)
    for days_ago, readings in _TESTER_DAYS:
        made = days.moment(days_ago, 7.5)
        record_check(
            db,
            ReferenceCheck(
                demo_id("tester", days_ago), tester.id, tuple(map(float, readings)), "", "", made
            ),
        )


def _cut_all(
    bench: Bench, trial_id: str, blades: Sequence[DemoBlade], days: Days, rng: np.random.Generator
) -> None:
    to_cut = [(blade, edge) for blade in blades for edge in blade.edges if edge.life is not None]
    for blade, edge in sorted(to_cut, key=lambda pair: (-pair[1].days_ago, pair[0].code)):
        assert edge.life is not None
        shape = np.random.default_rng([SEED, *blade.code.encode()])
        truth = true_edge(
            blade.kind, edge.life, shape, start_gf=float(148 * np.exp(rng.normal(0, 0.04)))
        )
        start = days.moment(edge.days_ago, 8.5 + 2.2 * blades.index(blade))
        run_id = demo_id(blade.code, edge.number, "run")
        edge_id = demo_id(blade.code, edge.number)
        run = Run(
            run_id,
            trial_id,
            edge_id,
            1,
            start,
            zone_from_mm=12,
            zone_to_mm=76,
            operator="Operator 2",
        )
        start_and_cut(bench, run, TrueBlade(truth), rng, edge.stop_after)
        if (blade.code, edge.number) == _STROPPED:
            strop_back(bench, run_id, TrueBlade(truth), np.random.default_rng([SEED, 7]))


def _blade(db: Database, demo: DemoBlade, recipe: Recipe, days: Days) -> None:
    blade_id = demo_id(demo.code)
    made = days.moment(13, 10)
    own: dict[str, float | str] = {
        "edge_length_mm": 96.0,
        "stock_mm": 3.0,
        "primary_grind_side_deg": 2.2,
        "grind": "flat",
        "coating": "none",
        "profile": "straight",
        "finish": "satin",
        "grip": "oak slabs, 112 mm",
    }
    facts = [
        entered(blade_id, name, value, "measured_here", made.utc) for name, value in own.items()
    ]
    blade = Blade(
        id=blade_id,
        code=demo.code,
        claimed_grade=demo.grade,
        owner=_LENDER,
        price=demo.price,
        loan_from=_LENDER if demo.loan_due_in_days is not None else "",
        loan_due=days.date(-demo.loan_due_in_days) if demo.loan_due_in_days is not None else "",
        heat_treatment=HeatTreatment(
            demo.austenitising_c,
            15.0 if demo.austenitising_c else None,
            "oil" if demo.austenitising_c else "",
            None,
            demo.tempers_c,
        ),
        note=demo.note,
    )
    hardness = _hardness(demo, Blade(blade_id, demo.code, measurements=tuple(facts)), days)
    if demo.claimed_hrc is not None:
        hardness.append(entered(blade_id, "hardness_hrc", demo.claimed_hrc, "claimed", made.utc))
    edges = [_early_edge(blade_id, demo, 1, days), _early_edge(blade_id, demo, 2, days)]
    edges += [_edge(blade_id, demo, edge, recipe, days) for edge in demo.edges]
    make_blade(db, replace(blade, measurements=(*facts, *hardness), edges=tuple(edges)))
    add_photo(
        db, blade_id, blade_picture(SEED + int(demo.code[-2:]), demo.code), "as it came", made
    )


def _hardness(demo: DemoBlade, blade: Blade, days: Days) -> list[Measurement]:
    if not demo.readings_hrc:
        return []
    details = {
        "readings": list(demo.readings_hrc),
        "block_nominal_hrc": 60.0,
        "block_readings": [59.8, 60.1, 60.1],
    }
    raw = Measurement(
        demo_id(demo.code, "hardness"),
        "hardness_hrc",
        on=days.date(11),
        details=details,
        instrument="bench Rockwell tester",
    )
    return [completed(raw, blade, days.moment(11, 15).utc)]


def _early_edge(blade_id: str, demo: DemoBlade, number: int, days: Days) -> Edge:
    """The first two edges were never cut: the maker's own, and one to get down to sound steel."""
    made = demo_id(demo.code, number)
    if number == 1:
        return Edge(made, blade_id, 1, factory=True, note="as it came from the forge")
    return Edge(
        made,
        blade_id,
        2,
        made_on=days.date(13),
        minutes=35.0,
        steel_removed_mm=0.4,
        note="old edge cut off",
    )


def _edge(blade_id: str, demo: DemoBlade, edge: DemoEdge, recipe: Recipe, days: Days) -> Edge:
    made, on = demo_id(demo.code, edge.number), days.moment(edge.days_ago, 7.5)
    measured = [
        entered(made, "side_angle_deg", edge.side_angle_deg, "measured_here", on.utc),
        entered(made, "micro_bevel_side_deg", 0.0, "measured_here", on.utc),
    ]
    if edge.thickness_behind_edge_mm is not None:
        middle = edge.thickness_behind_edge_mm
        stations = [
            {"position_mm": place, "value_mm": round(middle + step, 3)}
            for place, step in zip(STATIONS_MM, (-0.01, 0.0, 0.01), strict=True)
        ]
        raw = Measurement(
            demo_id(made, "thickness"),
            "thickness_behind_edge_mm",
            on=days.date(edge.days_ago),
            instrument="caliper with pointed jaws",
            details={"stations": stations},
        )
        measured.append(completed(raw, Blade(blade_id, demo.code), on.utc))
    steps = recipe.steps
    if "twice" in edge.trouble:
        steps = (*steps[:-1], replace(steps[-1], repeats=2))
    return Edge(
        made,
        blade_id,
        edge.number,
        measurements=tuple(measured),
        made_on=days.date(edge.days_ago),
        regime=recipe.name,
        recipe_id=recipe.id,
        steps=steps,
        minutes=edge.minutes,
        trouble=edge.trouble,
        burr_check="gone",
        lamp_check="nothing glints",
        steel_removed_mm=0.25,
        damage=tuple(Damage(place, kind) for place, kind in edge.seen),
        zones=_ZONES,
    )
