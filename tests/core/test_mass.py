"""Mass lost to corrosion, against sums by ISO 8407 and the range of ISO 9227, both from memory."""

from dataclasses import replace

import pytest

from kessik.core.corrosion.mass import cabinet_checks, check_weighing, mass_losses
from kessik.core.corrosion.soaks import check_act
from kessik.core.errors import OutOfRangeError
from kessik.core.words.mass import cabinet_words, gap_words, loss_words, mass_words
from tests.helpers.soaks import act, coupon, soak_of

PLATE = {"mass_before_g": 120.0000, "area_cm2": 200.0, "density_g_cm3": 7.86}


def lost(*acts, method="salt_spray", **said):
    soak = soak_of(coupon("R", "reference", **{**PLATE, **said}), method=method)
    return soak, mass_losses(soak, acts)


def cleaned(mass_g, hours=48.0, kind="cleaned"):
    return act(kind, hours, coupon_id="R", amount=mass_g)


BLANK = act("blank", 48.0, amount=0.05)


def test_a_loss_is_what_cleaning_leaves_less_what_cleaning_takes():
    """By hand: 120 g to 118.59 g is 1,410 mg, less 0.05 x 200 = 10 mg of the cleaning: 1,400 mg;
    over 200 cm2 70 g/m2; 87.6 x 1,400 / (7.86 x 200 x 48) = 1.625 mm a year.
    """
    soak, (found,) = lost(cleaned(119.4, kind="weighed"), BLANK, cleaned(118.59))
    assert found.gain_mg == pytest.approx(-600)
    assert found.loss_mg == pytest.approx(1400)
    assert found.loss_g_m2 == pytest.approx(70)
    assert found.rate_mm_a == pytest.approx(1.6253, abs=1e-4)
    assert (found.hours, found.gaps) == (48, ())
    assert loss_words(found) == ("70", "1.6")
    (cabinet,) = cabinet_checks(soak, [found])
    assert cabinet_words(cabinet, "R") == (
        "R lost 70 g/m² in 48 h, within 50 to 90 (ISO 9227, unconfirmed): the cabinet is as severe"
        " as it should be."
    )
    assert "milder than" in cabinet_words(replace(cabinet, loss_g_m2=31.0), "R")


def test_what_is_missing_is_named_and_nothing_is_made_up():
    _, (bare,) = lost(cleaned(118.6), mass_before_g=None, area_cm2=None, density_g_cm3=None)
    assert (bare.loss_mg, bare.loss_g_m2, bare.rate_mm_a) == (None, None, None)
    assert gap_words(bare).startswith("its mass before is not recorded; without its area")
    _, (dirty,) = lost(cleaned(120.3, kind="weighed"))
    assert (dirty.gain_mg, dirty.loss_mg) == (pytest.approx(300), None)
    assert mass_words(dirty.loss_mg) == "–"
    assert "not weighed cleaned yet" in gap_words(dirty)
    _, (unblanked,) = lost(cleaned(118.6))
    assert "record a blank" in gap_words(unblanked)
    assert lost()[1] == []


def test_exposure_ends_with_the_first_cleaning_and_the_last_one_counts():
    _, (found,) = lost(BLANK, cleaned(118.7, 48), cleaned(118.59, 50))
    assert (found.hours, found.cleanings) == (48, 2)
    assert found.loss_mg == pytest.approx(1400)


def test_a_cabinet_is_checked_only_as_its_standard_is_written():
    soak, found = lost(BLANK, cleaned(118.59, 96))
    assert cabinet_checks(soak, found) == []
    other, found = lost(BLANK, cleaned(118.59), method="brine_overnight")
    assert cabinet_checks(other, found) == []


def test_masses_that_cannot_be_are_refused_at_their_field():
    plate = coupon("R", **PLATE)
    check_weighing(cleaned(120.0005), plate)
    for wrong, check in (
        (cleaned(120.1), lambda found: check_weighing(found, plate)),
        (cleaned(0.0), check_act),
        (cleaned(None), check_act),
        (act("blank", 1.0, amount=-1), check_act),
    ):
        with pytest.raises(OutOfRangeError) as refused:
            check(wrong)
        assert refused.value.field == "amount"
