"""A loan is seen by both: by whoever lent the blade and by whoever has it."""

import pytest

from kessik.core.errors import OutOfRangeError
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.loans import Loan, check_loan, is_away, loan_seen
from kessik.core.words.shelf import loan_words

DUE = "2026-06-01"


def blade(**said):
    return Blade("b", "AV-01", **{"loan_due": DUE, **said})


@pytest.mark.parametrize(
    ("said", "here", "sent_by", "seen"),
    [
        # on the shelf of whoever wrote it down
        ({"loan_from": "Rhea"}, "Ada", "", Loan("give_back", "Rhea", DUE)),
        ({"lent_to": "Ada"}, "Rhea", "", Loan("get_back", "Ada", DUE)),
        ({}, "", "", Loan("give_back", "", DUE)),
        # in a package of the other one
        ({"lent_to": "Ada"}, "ada ", "Rhea", Loan("give_back", "Rhea", DUE)),
        ({"loan_from": "Rhea"}, "Rhea", "Ada", Loan("get_back", "Ada", DUE)),
        # between others, over, without a day
        ({"loan_from": "Museum"}, "Rhea", "Ada", None),
        ({"lent_to": "Ada"}, "", "Rhea", None),
        ({}, "Rhea", "Ada", None),
        ({"loan_from": "Rhea", "loan_returned": "2026-05-30"}, "Ada", "", None),
        ({"loan_from": "Rhea", "loan_due": ""}, "Ada", "", None),
    ],
)
def test_a_loan_as_each_sees_it(said, here, sent_by, seen):
    assert loan_seen(blade(**said), here, sent_by) == seen


def test_a_borrowed_blade_is_not_lent_on():
    with pytest.raises(OutOfRangeError, match="clear one of the two"):
        check_loan(blade(loan_from="Rhea", lent_to="Ada"))
    assert loan_words(blade(lent_to="Ada")) == "lent to Ada, due back 2026-06-01"


@pytest.mark.parametrize(
    ("said", "away"),
    [({}, False), ({"loan_from": "Rhea"}, False), ({"lent_to": "Ada"}, True),
     ({"loan_from": "Rhea", "loan_returned": DUE}, True),
     ({"lent_to": "Ada", "loan_returned": DUE}, False)],
)  # fmt: skip
def test_what_is_lent_or_given_back_is_not_in_hand(said, away):
    assert is_away(blade(**said)) is away
