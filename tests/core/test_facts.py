"""Facts: the best standing counts, nothing is erased, what cannot be is refused, what is rare is
asked about.
"""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kessik.core.errors import OutOfRangeError
from kessik.core.facts import QUANTITIES, STANDINGS, Measurement, check, history, remark, used


def hrc(name, value, standing="measured_here", on="2026-05-04", **rest):
    return Measurement(name, "hardness_hrc", value, standing=standing, on=on, **rest)


def test_the_best_standing_counts_and_of_equals_the_newest():
    old, newer = hrc("old", 57.0, on="2026-05-01"), hrc("newer", 57.5)
    claimed = hrc("claimed", 61.0, "claimed", on="2026-06-01")
    assert used([claimed, old, newer], "hardness_hrc") == newer
    assert [m.id for m in history([claimed, old, newer], "hardness_hrc")] == [
        "newer",
        "old",
        "claimed",
    ]


def test_a_struck_value_stays_to_be_read_and_counts_no_more():
    struck, claimed = hrc("slip", 75.0, struck="a slip of the pen"), hrc("said", 61.0, "claimed")
    assert used([struck, claimed], "hardness_hrc") == claimed
    assert history([struck, claimed], "hardness_hrc")[-1] == struck
    assert used([struck], "hardness_hrc") is None


@given(st.permutations([hrc(standing, 50.0 + i, standing) for i, standing in enumerate(STANDINGS)]))
def test_the_order_of_coming_in_decides_nothing(measurements):
    assert used(measurements, "hardness_hrc").standing == "measured_here"


@pytest.mark.parametrize(
    ("quantity", "low", "high"),
    [
        ("side_angle_deg", 5, 45),
        ("micro_bevel_side_deg", 5, 45),
        ("thickness_behind_edge_mm", 0.05, 3),
        ("hardness_hrc", 20, 70),
    ],
)
def test_bounds_are_kept_at_their_field(quantity, low, high):
    for inside in (low, high):
        check(Measurement("m", quantity, inside))
    for outside in (low * 0.99, high * 1.01):
        with pytest.raises(OutOfRangeError, match=f"{low:g} to {high:g}") as refused:
            check(Measurement("m", quantity, outside))
        assert refused.value.field == quantity


@pytest.mark.parametrize(
    ("quantity", "value", "asks"),
    [
        ("side_angle_deg", 9.9, "under 10°"),
        ("side_angle_deg", 30.1, "above 30°"),
        ("side_angle_deg", 15, ""),
        ("hardness_hrc", 67.5, "above 67 HRC"),
        ("hardness_hrc", 67, ""),
    ],
)
def test_rare_values_are_asked_about_and_taken(quantity, value, asks):
    check(Measurement("m", quantity, value))
    said = remark(QUANTITIES[quantity], value)
    assert asks in said
    assert said.endswith("is that so?") == bool(asks)


@pytest.mark.parametrize(
    ("measurement", "field"),
    [
        (Measurement("m", "weight_g", 5.0), "quantity"),
        (Measurement("m", "hardness_hrc"), "hardness_hrc"),
        (Measurement("m", "grind", words=" "), "grind"),
    ],
)
def test_a_measurement_of_nothing_is_refused(measurement, field):
    with pytest.raises(OutOfRangeError) as refused:
        check(measurement)
    assert refused.value.field == field
