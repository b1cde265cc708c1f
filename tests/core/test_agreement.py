"""Two raters, or one twice: how far they agree, and what it changes."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from statsmodels.stats.inter_rater import cohens_kappa

from kessik.core.corrosion.agreement import rated_twice, weighted_kappa
from kessik.core.corrosion.ratings import area_of
from kessik.core.corrosion.rounds import rounds_of
from kessik.core.corrosion.soaks import checked_look
from kessik.core.errors import OutOfRangeError
from tests.helpers.soaks import answered, coupon, look, soak_of

GRADES = st.lists(st.tuples(st.integers(0, 10), st.integers(0, 10)), min_size=2, max_size=40)


@given(GRADES)
def test_weighted_kappa_is_that_of_a_reference_library(pairs):
    # statsmodels 0.15, cohens_kappa with quadratic weights
    first, second = (list(each) for each in zip(*pairs, strict=True))
    found = weighted_kappa(first, second)
    if len({*first, *second}) == 1:
        assert found is None
        return
    table = np.zeros((11, 11))
    np.add.at(table, (first, second), 1)
    with np.errstate(all="ignore"):  # its errors of kappa, not its kappa, divide by nothing
        reference = cohens_kappa(table, wt="quadratic").kappa
    assert found == pytest.approx(reference, abs=1e-9)


def graded(name, side, grade, by, hours=14.0):
    low, high = area_of("iso_10289", grade)
    made = look(name, side, None, hours=hours, bounds=(low, high), how="grade", seen_by=by)
    return replace(made, id=f"{made.id}{by}{hours}")


SOAK = soak_of(coupon("A"), coupon("B"), coupon("D", "baseline"))
SHEET = {"A": (8, 8), "B": (7, 7), "D": (2, 1)}
"""What both raters wrote down on paper; Iva gives B's left side one grade less."""


def two_raters():
    first = [graded(n, s, g, "Bo") for n, gs in SHEET.items()
             for s, g in zip(("left", "right"), gs, strict=True)]  # fmt: skip
    again = [
        replace(graded(x.coupon_id, x.side, g, "Iva", 14.2))
        for x, g in zip(first, (8, 8, 6, 7, 2, 1), strict=True)
    ]
    return [*first, *again]


def test_a_second_rater_is_taken_and_their_agreement_is_said():
    looks = two_raters()
    for seen in looks[6:]:
        checked_look(seen, looks[:6])
    with pytest.raises(OutOfRangeError, match="already"):
        checked_look(replace(looks[0], id="again"), looks)
    _, headline, reasons = answered(SOAK, looks)
    # by hand: one of six sides a grade apart
    assert any(r.startswith("Graded by Bo and Iva: 6 sides, 0.2 grades apart") for r in reasons)
    assert headline.startswith("Least rust first:")


def test_raters_that_agree_narrow_the_ties_and_raters_that_do_not_widen_them():
    alike = rated_twice(two_raters(), rounds_of(SOAK, [], two_raters()))
    assert alike.rater_points < 0.7
    apart = [
        *(graded("A", side, 9, "Bo") for side in ("left", "right")),
        *(graded("A", side, 5, "Iva", 14.1) for side in ("left", "right")),
    ]
    found = rated_twice(apart, rounds_of(SOAK, [], apart))
    assert found.rater_points > 1.0
    assert (found.agreements[0].mean_difference, found.agreements[0].mean_size) == (-4, 4)


def test_one_rating_a_side_says_nothing_of_agreement():
    alone = two_raters()[:6]
    assert rated_twice(alone, rounds_of(SOAK, [], alone)).agreements == ()
