"""Soaks worked out by hand: hours, duties, severity, places and ties, levels, what wiped off."""

from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.corrosion.answer import soak_answer
from kessik.core.corrosion.duties import duties, next_duties
from kessik.core.corrosion.exposures import exposure_h
from kessik.core.corrosion.fairness import Specimen, fairness
from kessik.core.corrosion.methods import BY_KEY, METHODS, Intervention, check_method
from kessik.core.corrosion.places import shared_places
from kessik.core.corrosion.soaks import (
    Look,
    check_soak,
    checked_look,
    own_methods,
)
from kessik.core.errors import OutOfRangeError
from kessik.core.heat_treatment import HeatTreatment
from kessik.core.words.soaks import soak_reasons
from tests.helpers.soaks import AT, act, answered, both, coupon, look, soak_of

PAPER = [*both("A", 1.2, 0.9), *both("B", 1.0, 1.4), *both("D", 22, 31)]
"""A record on paper: A and B within what their own sides differ by, D twenty times worse."""


def test_blades_closer_than_their_sides_share_a_place():
    soak = soak_of(coupon("A"), coupon("B"), coupon("D", "baseline"))
    answer, headline, reasons = answered(soak, PAPER)
    assert headline == "Least rust first: A and B together, then D."
    assert answer.ranking.places == (("A", "B"), ("D",))
    assert answer.validity.severity == "enough"
    assert any("The baseline, D, rusted" in reason for reason in reasons)


def test_a_baseline_that_did_not_rust_forbids_a_ranking():
    soak = soak_of(coupon("A"), coupon("D", "baseline"))
    _, headline, _ = answered(soak, [*both("A", 0.05, 0.04), *both("D", 0.2, 0.3)])
    assert headline.startswith("Not severe enough to tell: the baseline, D, rusted")
    assert headline.endswith("Nothing is ranked.")


def test_one_side_each_is_an_anecdote_and_no_baseline_is_said():
    soak = soak_of(coupon("A"), coupon("B"))
    _, _, reasons = answered(soak, [look("A", "left", 1.0), look("B", "left", 20.0)])
    assert any("proves little" in reason for reason in reasons)
    assert any("baseline" in reason for reason in reasons)


def test_what_wiped_off_is_superficial_and_rust_of_hardware_does_not_count():
    soak = soak_of(coupon("A"), coupon("D", "baseline"))
    looks = [
        *both("A", 6.0, 6.0, "as_found"),
        *both("A", 1.0, 1.0),
        look("A", "left", 40.0, region="hardware"),
        *both("D", 30, 30),
    ]
    answer, _, reasons = answered(soak, looks)
    course = next(c for c in answer.courses if c.coupon_id == "A")
    assert course.superficial.middle == pytest.approx(5.0)
    assert (course.superficial.low, course.superficial.high) == (
        pytest.approx(5.4 - 1.1), pytest.approx(6.6 - 0.9),
    )  # fmt: skip
    assert next(s for s in answer.ranking.standings if s.coupon_id == "A").area.middle == 1.0
    assert "A rusted at its hardware, too: not counted for the steel." in reasons


def test_first_rust_lies_between_two_looks():
    soak = soak_of(coupon("A"), method="damp_wrap")
    looks = [
        look("A", "left", 0.0, "as_found", 12, bounds=(0, 0.01)),
        look("A", "left", 0.6, "as_found", 24),
    ]
    answer, _, _ = answered(soak, looks)
    assert (answer.courses[0].first.after_h, answer.courses[0].first.by_h) == (12, 24)


def test_oil_on_one_side_of_each_blade_is_compared_inside_the_blade():
    pairs = [("A", "left", 0.02, "right", 0.5), ("B", "right", 0.3, "left", 5.0)]
    coupons, looks = [], []
    for blade, oiled, low, dry, high in pairs:
        for side, oil, area in ((oiled, "oil", low), (dry, "", high)):
            made = coupon(f"{blade} {side}", oil=oil, side=side, blade_id=blade)
            coupons.append(made)
            looks.append(look(made.id, side, area, "as_found"))
    soak = soak_of(*coupons, factor="oil")
    answer, headline, _ = answered(soak, looks, steels={c.id: c.blade_id for c in coupons})
    assert headline == "Oiled with oil rusted less than dry, told apart on both pairs."
    assert {h.variable: h.status for h in answer.held}["side"] == "matched"
    assert {h.variable: h.status for h in answer.held}["steel"] == "matched"


def test_a_finish_that_differs_besides_the_steel_is_named():
    soak = soak_of(coupon("A"), coupon("B", flat_finish="blasted"), coupon("D", "baseline"))
    _, _, reasons = answered(soak, PAPER)
    assert any(
        r.startswith("Flat finish differs, too (satin: A and D; blasted: B)") for r in reasons
    )
    held = fairness(replace(soak, let_go=("flat_finish",)), [Specimen(c) for c in soak.coupons])
    assert next(h.status for h in held if h.variable == "flat_finish") == "let_go"


def test_acid_paste_is_ranked_by_discolouration_and_never_with_rust():
    soak = soak_of(coupon("A"), coupon("B"), method="acid_paste")
    looks = [
        Look("1", "A", "left", "rinsed", AT, 10, discolouration="tint"),
        Look("2", "B", "left", "rinsed", AT, 10, discolouration="none"),
        Look("3", "B", "right", "rinsed", AT, 10, discolouration="haze"),
    ]
    _, headline, _ = answered(soak, looks)
    assert headline.startswith("By discolouration, the least first: B a haze; A tinted.")


@given(st.lists(st.floats(0, 200), min_size=0, max_size=8), st.floats(0, 300), st.floats(0, 300))
def test_exposure_never_runs_backwards_nor_faster_than_the_clock(times, one, other):
    acts = [act("dried" if i % 2 == 0 else "resumed", t) for i, t in enumerate(sorted(times))]
    early, late = sorted((one, other))
    gained = exposure_h(late, acts) - exposure_h(early, acts)
    assert -1e-9 <= gained <= late - early + 1e-9


def test_a_pause_moves_what_is_due_and_a_late_look_says_so():
    soak = soak_of(coupon("A"), method="damp_wrap")
    acts = [act("dried", 10), act("resumed", 16), act("dampened", 30.5)]
    looks = [look("A", "left", 0.1, "as_found", 18), look("A", "left", 0.2, "as_found", 35)]
    found = {(d.what, d.due_h): d for d in duties(soak, acts, looks)}
    assert found["look", 12.0].clock_due_h == 18
    assert not found["look", 12.0].is_late
    assert found["look", 24.0].is_late
    waiting = next_duties(list(found.values()), 36)
    assert [(d.due_h, d.missing, d.places) for d in waiting if d.what == "look"] == [(24, 3, 4)]
    later = next_duties(list(found.values()), 60)
    assert [d.due_h for d in later if d.what == "look"] == [48], (
        "a round ends where the next is due"
    )


def test_prolonging_adds_a_look_at_the_new_end():
    soak = soak_of(coupon("A"))
    found = duties(soak, [act("prolonged", 13, amount=38)], [])
    assert [d.due_h for d in found] == [14, 38]


def test_blades_that_swap_from_one_medium_to_the_next_are_named():
    soak = soak_of(coupon("A"), coupon("D", "baseline"))
    one, _, _ = answered(soak, [*both("A", 1, 1), *both("D", 30, 30)])
    other, _, _ = answered(soak, [*both("A", 30, 30), *both("D", 1, 1)])
    tables = [
        (name, {s.coupon_id: s for s in a.ranking.standings})
        for name, a in (("brine", one), ("paste", other))
    ]
    kept = shared_places(tables)
    assert kept.pairs == 1
    assert (kept.swaps[0].better_in, kept.swaps[0].worse_in) == ("brine", "paste")


def test_every_method_of_ours_holds_its_own_rules():
    for method in METHODS:
        check_method(method)
    assert Intervention("sprayed", 12, 72).hours(144) == (84, 96, 108, 120, 132, 144)


@pytest.mark.parametrize(
    "make",
    [
        lambda: checked_look(look("A", "left", 1.0, hours=-1), []),
        lambda: checked_look(look("A", "left", 1.0), [replace(look("A", "left", 2.0), id="x")]),
        lambda: checked_look(look("A", "left", 5.0, bounds=(6, 7)), []),
        lambda: checked_look(look("A", "left", 101.0, bounds=(0, 101)), []),
        lambda: check_soak(soak_of(coupon("A"), coupon("a", id="2"))),
        lambda: check_soak(replace(soak_of(), question=" ")),
        lambda: check_method(replace(BY_KEY["salt_pack"], look_h=(40.0,))),
        lambda: check_method(replace(BY_KEY["salt_pack"], salt_percent=40.0)),
    ],
)
def test_what_cannot_be_is_refused_at_its_field(make):
    with pytest.raises(OutOfRangeError) as refused:
        make()
    assert refused.value.field


def test_hardening_that_costs_stainlessness_is_warned_of_once_for_all_it_is_true_of():
    hot = HeatTreatment(austenitising_c=1060, tempers_c=(520,))
    cool = HeatTreatment(austenitising_c=1060, sub_zero_c=-80, tempers_c=(180,))
    soak = soak_of(coupon("A"), coupon("B"), coupon("D", "baseline"))
    specimens = [
        Specimen(replace(c, blade_id=c.id), "1.4112", treatment, 17.5)
        for c, treatment in zip(soak.coupons, (hot, cool, hot), strict=True)
    ]
    answer = soak_answer(soak, specimens, (), PAPER, 14.0)
    reasons = soak_reasons(soak, answer, {c.id: c.name for c in soak.coupons})
    assert "A and D: tempered at 520 °C: secondary hardening costs stainlessness." in reasons
    assert sum("the hot temper costs stainlessness" in reason for reason in reasons) == 1
    assert sum("sub-zero" in reason or "below zero" in reason for reason in reasons) == 1


def test_a_method_that_was_changed_is_offered_again_once():
    changed = replace(BY_KEY["wiped"], hours=72.0)
    named = replace(changed, name="Wiped at the shed")
    made = [soak_of(), *(replace(soak_of(), method=m) for m in (changed, changed, named))]
    assert [m.name for m in own_methods(made)] == [
        "Brine wiped on, as in Brine",
        "Wiped at the shed",
    ]
