"""What a soak says besides rust: moving parts, scratches, the air, earlier soaks, grading again."""

from dataclasses import replace

import pytest

from kessik.core.corrosion.action import part_changes
from kessik.core.corrosion.among import among, steels_in
from kessik.core.corrosion.blind import blind_pass, place_of
from kessik.core.corrosion.climate import climate_of
from kessik.core.corrosion.fairness import Specimen
from kessik.core.corrosion.rounds import rounds_of
from kessik.core.corrosion.soaks import checked_look
from kessik.core.errors import NotAllowedNowError, OutOfRangeError
from kessik.core.words.among import among_words
from kessik.core.words.climate import climate_words
from kessik.core.words.moving_parts import part_words, parts_words
from kessik.core.words.wear import coating_words
from tests.helpers.soaks import act, answered, both, coupon, look, soak_of

NAMES = {"A": "AV-01", "B": "AV-02", "D": "AV-04"}


def test_a_pivot_is_compared_before_and_after_and_what_was_not_noted_before_is_said():
    looks = [
        look("A", "left", 0, hours=0.1, pivot="free", lock="firm"),
        look("B", "left", 0, hours=0.2, pivot="free"),
        look("A", "left", 1, hours=14, pivot="stiff", lock="firm"),
        look("B", "left", 1, hours=14.2, pivot="Free"),
        look("D", "left", 1, hours=14.1, pivot="gritty", handle="like new"),
    ]
    changes = part_changes(looks, [])
    said = {(c.coupon_id, c.part): part_words(c) for c in changes}
    assert said["A", "pivot"] == "free, then stiff"
    assert said["A", "lock"] == "firm, unchanged"
    assert said["D", "pivot"] == "gritty (before: not noted)"
    assert parts_words(changes, NAMES) == ["Pivot: AV-02 as before; AV-01 went from free to stiff."]


def test_scratches_are_ordered_by_what_made_them_and_kept_apart_from_rust():
    """By hand: board 1 and 2 (1.5) beside 4; in sand both are 3."""
    strips = [
        coupon("film 1", coating="hard film"), coupon("film 2", coating="hard film"),
        coupon("bare", "baseline", coating=""),
    ]  # fmt: skip
    acts = [
        act("worn", 0, coupon_id="film 1", amount=200, said="cuts in board", scratch_grade=1),
        act("worn", 0.1, coupon_id="film 2", amount=200, said="cuts in board", scratch_grade=2),
        act("worn", 0.2, coupon_id="bare", amount=200, said="cuts in board", scratch_grade=4),
        act("worn", 0.3, coupon_id="film 1", said="sand", scratch_grade=3),
        act("worn", 0.4, coupon_id="bare", said="sand", scratch_grade=3),
    ]
    soak = soak_of(*strips, factor="coating")
    looks = [*both("film 1", 3, 3), *both("film 2", 3, 3), *both("bare", 1.2, 1.2)]
    answer, _, _ = answered(soak, looks, acts)
    assert coating_words(soak, answer) == [
        "After cuts in board, scratched least first: hard film (1.5), then uncoated (4).",
        "After sand: hard film (3) and uncoated (3) are scratched alike.",
        "No blade is best in both: hard film was scratched least, uncoated rusted least.",
    ]


def test_the_air_is_told_along_the_hours_and_a_cabinet_that_was_too_cold_is_a_reason():
    acts = [
        act("measured", 2, temperature_c=30.5, humidity_percent=96.0),
        act("measured", 24, temperature_c=35.4), act("measured", 48, ph=7.6),
    ]  # fmt: skip
    assert climate_words(climate_of(acts)) == "30.5 to 35.4 °C, 96 % relative humidity (2 readings)"
    soak = soak_of(coupon("A"), coupon("D", "baseline"), method="salt_spray")
    _, _, reasons = answered(soak, [*both("A", 0, 0, hours=96), *both("D", 9, 9, hours=96)], acts)
    assert (
        "The temperature was 30.5 °C at 2 h; a salt spray asks for 33 to 37 °C (ISO 9227,"
        " unconfirmed)." in reasons
    )
    assert any(reason.startswith("The pH was 7.6 at 48 h") for reason in reasons)


def _steels(soak_id, areas, **said):
    """A soak of coupons named by their steels."""
    strips = [coupon(f"{soak_id}{steel}", steel=steel) for steel in areas]
    soak = replace(soak_of(*strips, **said), id=soak_id, name=f"soak {soak_id}")
    looks = [one for steel, area in areas.items() for one in both(f"{soak_id}{steel}", area, area)]
    steels = {strip.id: strip.steel for strip in strips}
    answer, *_ = answered(soak, looks, steels=steels)
    return steels_in(soak, answer, [Specimen(c, c.steel) for c in strips])


def test_earlier_soaks_place_a_new_steel_between_two_that_it_was_never_soaked_with():
    """By hand, three points a decade: 1.4116 3 points before 1.2842 here and 4 there; 1.2363 one
    decade after 1.4116 there, so between the two that it meets only through them.
    """
    here = _steels("new", {"1.4116": 0.1, "X": 1.5, "1.2842": 10.0})
    earlier = _steels("old", {"1.4116": 0.1, "1.2363": 0.02, "1.2436": 40.0, "1.2842": 10.0})
    found = among(here, [earlier])
    placed = {each.steel: each for each in found.placed}
    assert (placed["X"].less, placed["X"].more) == ("1.2363", "1.2436")
    assert found.through == ("1.2842", "1.4116")
    said = among_words(found)
    assert said[0] == "1.4116, X and 1.2842 lie between 1.2363 (less rust) and 1.2436 (more)."
    assert said[-1] == "Placed through 1.2842 and 1.4116, which were in soak old as well."


def test_nothing_is_placed_without_a_shared_steel_or_without_a_new_one():
    here = _steels("new", {"A": 0.1, "B": 5})
    assert among(here, [_steels("far", {"C": 0.1, "D": 5})]) is None
    assert among(here, [_steels("same", {"A": 0.1, "B": 5})]) is None
    assert among(here, []) is None


def test_a_pass_without_names_shuffles_every_side_once_and_counts_what_is_done():
    soak = soak_of(coupon("A"), coupon("B"), coupon("D", "baseline"))
    looks = [*both("A", 0.1, 0.2), *both("B", 1, 2), *both("D", 9, 12)]
    (last,) = rounds_of(soak, [], looks)
    order = [place.look.id for place in blind_pass("pass-1", last, looks, 14)]
    assert sorted(order) == sorted(look.id for look in looks)
    assert order == [p.look.id for p in blind_pass("pass-1", last, looks, 14)], (
        "the same after reload"
    )
    assert (
        len({tuple(p.look.id for p in blind_pass(f"p{n}", last, looks, 14)) for n in range(9)}) > 5
    )
    first = place_of(blind_pass("pass-1", last, looks, 14), 1).look
    again = replace(first, id="again", blind="pass-1", how="grade")
    kept = checked_look(again, looks)
    (whole,) = rounds_of(soak, [], [*looks, kept])
    assert blind_pass("pass-1", whole, [*looks, kept], 14)[0].is_done
    with pytest.raises(OutOfRangeError):
        checked_look(replace(again, id="third"), [*looks, kept])
    with pytest.raises(OutOfRangeError):
        place_of(blind_pass("pass-1", last, looks, 14), 7)
    with pytest.raises(NotAllowedNowError, match="pictures"):
        blind_pass("pass-1", last, looks, 60)
    (lone,) = rounds_of(soak, [], looks[:1])
    with pytest.raises(NotAllowedNowError):
        blind_pass("pass-1", lone, looks[:1], 14)


def test_a_rating_by_eye_beside_a_measured_area_moves_it_little():
    soak = soak_of(coupon("A"), coupon("D", "baseline"))
    looks = [*both("A", 1.0, 1.0), *both("D", 9, 9)]
    alone, *_ = answered(soak, looks)
    eye = look("A", "left", 4.0, bounds=(2.5, 5.0), how="grade", blind="p", seen_by="Ida")
    beside, *_ = answered(soak, [*looks, replace(eye, id="eye")])
    move = abs(beside.ranking.standings[0].points - alone.ranking.standings[0].points)
    assert 0 < move < 0.15
