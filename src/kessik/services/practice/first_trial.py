"""The practice trial: two virtual blades of unlike lives, one of them sharpened steeper."""

from uuid import NAMESPACE_URL, uuid5

from kessik.core.facts import entered
from kessik.core.moments import Moment
from kessik.core.protocols.schools import BY_SCHOOL
from kessik.core.sharpening.settled import SettledRule
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge
from kessik.core.trials.trial import Plan, Trial
from kessik.services.bench.bench import Bench
from kessik.services.clock import local_day
from kessik.services.shelf.blades import make_blade
from kessik.services.trials.trials import make_trial, take_from_shelf

TRIAL_ID = str(uuid5(NAMESPACE_URL, "kessik:practice"))
_SEED = 2
SIDE_ANGLE_DEG, STEEPER_DEG = 15.0, 18.0
_BLADES = {"P-1": ("1.4112", SIDE_ANGLE_DEG), "P-2": ("1.4034", STEEPER_DEG)}
_ALIKE: dict[str, float | str] = {
    "edge_length_mm": 96.0,
    "stock_mm": 3.0,
    "primary_grind_side_deg": 2.2,
    "hardness_hrc": 59.0,
    "grind": "flat",
    "coating": "none",
    "profile": "straight",
    "finish": "satin",
}
_EDGE_FACTS = {"micro_bevel_side_deg": 0.0, "thickness_behind_edge_mm": 0.38}


def make_practice(bench: Bench, now: Moment) -> str:
    """The id of the practice trial, which is made where it is not there."""
    make_trial(
        bench.db,
        Trial(
            id=TRIAL_ID,
            name="Practice: which of two virtual blades lasts longer?",
            question="Does the edge of P-1 last longer than that of P-2 in rope?",
            created=now,
            method=BY_SCHOOL["force_limit_rope"],
            settled_rule=SettledRule("every_edge"),
            edges_per_blade=2,
            plan=Plan(seed=_SEED),
            medium="32 mm rope, virtual",
            rope_diameter_mm=32,
        ),
    )
    for code, (grade, angle_deg) in _BLADES.items():
        blade_id = blade_id_of(code)
        facts = [entered(blade_id, *fact, "measured_here", now.utc) for fact in _ALIKE.items()]
        edge = sharpened(blade_id, 1, angle_deg, now)
        make_blade(
            bench.db,
            Blade(blade_id, code, claimed_grade=grade, measurements=tuple(facts), edges=(edge,)),
        )
        take_from_shelf(bench.db, TRIAL_ID, blade_id, "")
    return TRIAL_ID


def blade_id_of(code: str) -> str:
    """The id of a practice blade."""
    return str(uuid5(NAMESPACE_URL, f"kessik:practice:{code}"))


def sharpened(blade_id: str, number: int, side_angle_deg: float, now: Moment) -> Edge:
    """The edge of this number as the virtual bench sharpens it."""
    edge_id = str(uuid5(NAMESPACE_URL, f"{blade_id}:{number}"))
    known = {"side_angle_deg": side_angle_deg, **_EDGE_FACTS}
    facts = [entered(edge_id, *fact, "measured_here", now.utc) for fact in known.items()]
    made_on = local_day(now).isoformat()
    return Edge(edge_id, blade_id, number, made_on=made_on, measurements=tuple(facts))
