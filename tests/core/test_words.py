"""Words and digits: every per cent with its base, every number with the digits it can bear."""

import pytest

from kessik.core.comparison.matching import FACTORS, MatchingRule
from kessik.core.comparison.ratios import Interval, Ratio
from kessik.core.comparison.verdict import Comparison, edges_to_settle, scope_of
from kessik.core.sharpness.life import BeforeFirstCheck, Bracketed, Crossed, NotReached
from kessik.core.units import format_to_uncertainty
from kessik.core.words.lives import life_words
from kessik.core.words.pairs import pair_words, size_cells, tag_words


def comparison(ratio, low, high, verdict="longer"):
    return Comparison("A", "B", "dull", ratio, low, high, verdict, "the steel", (), (), None)


def test_a_per_cent_slip_cannot_happen():
    # 1200 against 1500 is +25 % one way and -20 % the other (arithmetic).
    assert (
        pair_words(comparison(1.25, 1.12, 1.39))
        == "B outlasts A by 25 %, 12 to 39 %; A falls short of B by 20 %."
    )
    assert pair_words(comparison(0.80, 0.72, 0.89, "shorter")).startswith(
        "A outlasts B by 25 %, 12 to 39 %"
    )


@pytest.mark.parametrize(
    ("verdict", "words"),
    [
        ("too_close", "too close to matter: B lasts 1 % longer than A, 5 % shorter to 8 % longer"),
        ("not_enough_evidence", "cannot be told apart yet: B lasts 1 % longer than A, 5 % shorter"),
        ("confounded", "cannot be compared fairly: B lasts 1 % longer than A, 5 % shorter"),
    ],
)
def test_the_other_verdicts_carry_their_interval(verdict, words):
    assert words in pair_words(comparison(1.01, 0.95, 1.08, verdict))


def test_an_open_end_is_said_and_never_closed():
    at_least = comparison(None, 1.12, None)
    assert pair_words(at_least) == "B outlasts A by at least 12 %; how far is not known."
    assert tag_words(at_least) == "B lasts longer"
    turned = comparison(None, None, 0.8, "shorter")
    assert pair_words(turned) == "A outlasts B by at least 25 %; how far is not known."
    assert tag_words(turned) == "A lasts longer"
    unsure = pair_words(comparison(None, 0.93, None, "not_enough_evidence"))
    assert "B is at most 7 % shorter than A, and may last longer by any amount" in unsure


@pytest.mark.parametrize(
    ("value", "low", "high", "shown"),
    [
        (12.43, 11.3, 13.6, "12"),
        (12.43, 12.0, 12.9, "12.4"),
        (1.234, 1.2, 1.3, "1.23"),
        (412.6, 412.2, 413.0, "413"),
    ],
)
def test_numbers_show_what_their_interval_supports(value, low, high, shown):
    assert format_to_uncertainty(value, low, high) == shown


@pytest.mark.parametrize(
    ("found", "words"),
    [
        (Crossed(12.4, 11.3, 13.6), "12 cuts, 11 to 14"),
        (Bracketed(48, 60), "between 48 and 60 cuts"),
        (
            NotReached(36),
            "still good at 36 cuts; the end is not known",
        ),
        (
            NotReached(36, Crossed(50, 41, 70)),
            "not reached by 36 cuts; carried on, about 50 (41 to 70)",
        ),
        (BeforeFirstCheck(0), "was beyond the limit at its start"),
        (
            BeforeFirstCheck(4),
            "lost by the first check at 4 cuts; since when is not known",
        ),
    ],
)
def test_every_status_of_a_life_in_words(found, words):
    assert life_words(found, "cuts") == words


@pytest.mark.parametrize("factor", FACTORS)
def test_an_answer_speaks_of_its_factor_once_nothing_is_open(factor):
    rule = MatchingRule(factor)
    said = scope_of(rule, pending=False, confounded=False)
    assert said != "these blades"
    assert scope_of(rule, pending=True, confounded=False) == "these blades"
    assert scope_of(rule, pending=False, confounded=True) == "these blades"


def settle(ratio, log_sd, edges=1):
    interval = Interval(ratio, 0.5, 2.0)
    return edges_to_settle(Ratio("A", "B", interval, interval, log_sd), edges, 2)


def test_too_close_takes_about_ten_edges_a_blade_at_ordinary_spread():
    # Handbook figure: spread 4 %, estimation error 12 % a life; one edge each is there, about nine
    # more are wanted.
    log_sd = (2 * (0.04**2 + 0.12**2)) ** 0.5
    assert settle(1.0, log_sd) == 9


def test_a_large_difference_settles_soon_and_a_borderline_one_hardly_ever():
    assert settle(1.5, 0.25) <= 2
    assert settle(1.09, 0.18) > 10
    assert settle(1.0, 0.05) < settle(1.0, 0.18)


def test_a_bound_that_rounds_to_nothing_has_no_sign():
    assert size_cells(comparison(1.1, 0.998, 1.24)) == ("+10 %", "0 to +24 %")
    assert size_cells(comparison(1.1, 0.9, 1.3)) == ("+10 %", "−10 to +30 %")
