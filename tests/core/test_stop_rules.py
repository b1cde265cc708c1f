"""What ends a run, and what the plain rule would say afterwards."""

import pytest

from kessik.core.errors import OutOfRangeError
from kessik.core.planning.schedule import plan_next
from kessik.core.protocols.methods import force_limit_rope
from kessik.core.protocols.stop_rules import CheckGaps, assess, by_rule, check_gaps
from kessik.core.words.rules import gaps_words
from tests.conftest import series

EVERY_CUT = force_limit_rope(schedule="every", every=1)


def checks(*readings):
    return series(*readings).force_checks()


def rule_met(found, method):
    return assess(found, method, found[-1].count).met


def confirmation_wanted(found, method):
    return assess(found, method, found[-1].count).confirmation_wanted


def test_one_noisy_reading_asks_for_another_and_ends_nothing():
    one = checks((0, 150), (9, 380), (10, 412))
    assert confirmation_wanted(one, EVERY_CUT)
    assert not rule_met(one, EVERY_CUT)
    assert plan_next(one, EVERY_CUT, 10).next_count == 10
    calm = checks((0, 150), (9, 380), (10, 412), (10, 391))
    assert not confirmation_wanted(calm, EVERY_CUT)
    assert plan_next(calm, EVERY_CUT, 10).next_count == 11


def test_two_readings_at_one_count_end_the_run():
    done = checks((0, 150), (10, 412), (10, 405))
    assert rule_met(done, EVERY_CUT)
    assert plan_next(done, EVERY_CUT, 10).stop


def test_the_adaptive_rule_ends_on_two_checks_in_a_row():
    adaptive = force_limit_rope(schedule="adaptive")
    assert not rule_met(checks((0, 150), (10, 412)), adaptive)
    assert not rule_met(checks((0, 150), (10, 412), (11, 390), (12, 402)), adaptive)
    assert rule_met(checks((0, 150), (10, 412), (11, 404)), adaptive)
    assert not rule_met(checks((0, 150), (10, 412), (10, 370), (11, 404)), adaptive), (
        "a check is the mean of its readings"
    )


def test_a_reading_on_the_limit_is_not_beyond_it():
    assert not rule_met(checks((5, 400), (5, 400)), EVERY_CUT)


@pytest.mark.parametrize(
    ("readings", "value", "confirmed"),
    [
        ([(0, 150), (10, 412), (10, 405)], 10, True),
        ([(0, 150), (10, 412), (10, 390), (11, 420), (11, 430)], 11, True),
        ([(0, 150), (10, 412), (11, 405)], 10, True),
        ([(0, 150), (10, 412), (11, 380), (12, 420)], 12, False),
        ([(0, 150), (10, 380)], None, False),
    ],
)
def test_by_rule_is_the_first_confirmed_check(readings, value, confirmed):
    found = by_rule(checks(*readings), 400)
    assert (found.value, found.confirmed) == (value, confirmed)


def test_the_schedule_is_read_off_the_counts():
    assert check_gaps(checks((0, 150), (4, 200), (8, 260))) == CheckGaps(3, 4, 4)
    assert gaps_words(CheckGaps(3, 4, 4)) == "every 4"
    assert gaps_words(CheckGaps(3, 1, 1)) == "every count"
    assert gaps_words(check_gaps(checks((0, 150), (1, 200), (9, 260)))) == "uneven, every 1 to 8"


def test_contradictory_limits_are_refused():
    with pytest.raises(OutOfRangeError, match="must lie below dull") as refused:
        force_limit_rope(keen_gf=420, dull_gf=400)
    assert refused.value.field == "keen_gf"
    with pytest.raises(OutOfRangeError, match="between 1 and 5000"):
        force_limit_rope(dull_gf=0)


def test_a_fixed_schedule_counts_on_from_where_it_stands():
    every_four = force_limit_rope(schedule="every", every=4)
    assert plan_next([], every_four, 0).readings == 2
    assert plan_next(checks((0, 150)), every_four, 0).next_count == 4
    assert plan_next(checks((0, 150), (4, 200)), every_four, 9).next_count == 9, "overdue: now"


def test_a_run_ended_by_the_means_of_its_checks_has_a_count_without_a_confirmed_reading():
    mixed = checks((0, 150), (10, 396), (10, 430), (11, 390), (11, 440))
    found = assess(mixed, force_limit_rope(), 11)
    assert by_rule(mixed, 400).confirmed is False
    assert (found.met, found.lost["dull"]) == (True, 10)
