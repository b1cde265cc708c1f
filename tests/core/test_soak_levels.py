"""What the factor of a soak did: every level in the order, from coupons alike in all else."""

import pytest

from kessik.core.corrosion.levels import level_order
from tests.helpers.soaks import answered, both, coupon, look, soak_of

COATINGS = {"": 30, "black oxide": 12, "phosphate": 11, "hard film": 0.5, "lacquer": 3, "wax": 2.8}
"""Rusted area of a strip under each coating, per cent, as sketched on paper."""


def strips(oiled=0.25):
    coupons, looks = [], []
    for coating, area in COATINGS.items():
        for oil in ("", "camellia oil"):
            name = f"{coating or 'bare'} {'oiled' if oil else 'dry'}"
            role = "baseline" if name == "bare dry" else ""
            coupons.append(coupon(name, role, coating=coating, oil=oil))
            seen = area * (oiled if oil else 1)
            looks += both(name, 0.95 * seen, 1.05 * seen)
    return coupons, looks


def test_six_coatings_with_and_without_oil_are_all_in_the_order():
    coupons, looks = strips()
    soak = soak_of(*coupons, factor="coating")
    answer, headline, _ = answered(soak, looks, steels={c.id: "1.2842" for c in coupons})
    assert headline == (
        "Least rust first: hard film, then wax and lacquer together, then phosphate and black oxide"
        " together, then uncoated, by two coupons of each."
    )
    assert answer.levels.blocks == 2 * 15, "fifteen pairs of coatings, dry and oiled"
    assert not answer.levels.unlinked


def test_oil_is_judged_inside_each_coating():
    coupons, looks = strips()
    soak = soak_of(*coupons, factor="oil")
    answer, headline, _ = answered(soak, looks, steels={c.id: "1.2842" for c in coupons})
    assert headline.startswith("Oiled with camellia oil rusted less than dry, told apart on ")
    dry, oiled = answer.levels.entries[1], answer.levels.entries[0]
    # ln 4 of area is 3 log10(4) = 1.81 rating points
    assert oiled.points - dry.points == pytest.approx(1.81, abs=0.15)


def test_a_coating_on_a_steel_of_its_own_is_said_to_stand_beside_no_other():
    coupons, looks = strips()
    alone = coupon("nickel strip", coating="nickel", oil="", flat_finish="mirror")
    soak = soak_of(*coupons, alone, factor="coating")
    steels = {c.id: "1.2842" for c in coupons} | {alone.id: "1.4301"}
    answer, headline, _ = answered(soak, [*looks, *both(alone.id, 0.1, 0.1)], steels=steels)
    assert answer.levels.unlinked == ("nickel",)
    assert headline.endswith("Not compared, as nothing else alike was exposed beside: nickel.")


MAKERS = {
    "1.4116": {"M1": 0.4, "M2": 0.9, "M3": 0.6},
    "1.4034": {"M4": 3.0, "M5": 5.0},
    "1.2842": {"M6": 40.0, "M7": 30.0},
}


def test_a_steel_over_makers_gets_one_answer_with_its_blades_as_the_spread():
    coupons = [
        coupon(name, "baseline" if name == "M6" else "", blade_id=name)
        for blades in MAKERS.values()
        for name in blades
    ]
    steels = {name: steel for steel, blades in MAKERS.items() for name in blades}
    looks = [x for b in MAKERS.values() for n, area in b.items() for x in both(n, area, area)]
    answer, headline, reasons = answered(soak_of(*coupons), looks, steels=steels)
    assert headline == (
        "Least rust first: 1.4116, then 1.4034, then 1.2842, over up to 3 blades of each."
    )
    best = answer.levels.entries[0]
    assert (best.least.middle, best.most.middle) == (pytest.approx(0.4), pytest.approx(0.9))
    held = {h.variable: h.status for h in answer.held}
    assert held["heat_treatment"] == "pending", "nobody said how the makers hardened them"
    assert "Heat treatment is not known of all: it may differ." in reasons


def test_steels_of_one_blade_each_are_ranked_as_blades():
    soak = soak_of(coupon("A"), coupon("D", "baseline"))
    answer, headline, _ = answered(soak, [*both("A", 1, 1), *both("D", 30, 30)])
    assert answer.levels is None
    assert headline == "Least rust first: A, then D."
    assert level_order("oil", [], {}) is None


def test_one_way_here_and_the_other_there_is_no_answer():
    coupons, looks = [], []
    for blade, oiled, dry in (("A", 0.2, 20), ("B", 20, 0.2)):
        for side, oil, area in (("left", "oil", oiled), ("right", "", dry)):
            made = coupon(f"{blade} {side}", oil=oil, side=side, blade_id=blade)
            coupons.append(made)
            looks.append(look(made.id, side, area))
    soak = soak_of(*coupons, factor="oil")
    _, headline, _ = answered(soak, looks, steels={c.id: c.blade_id for c in coupons})
    assert headline.endswith("one way here and the other there.")
