"""Loans of blades between testers, as each of them sees them."""

from dataclasses import dataclass
from typing import Literal, Protocol

from kessik.core.errors import OutOfRangeError


@dataclass(frozen=True)
class Loan:
    """A blade that is to be given back, or to come back, on a day; `other` is who has it else."""

    to: Literal["give_back", "get_back"]
    other: str
    due: str


class Lent(Protocol):
    """What a blade says of a loan."""

    @property
    def loan_from(self) -> str: ...
    @property
    def lent_to(self) -> str: ...
    @property
    def loan_due(self) -> str: ...
    @property
    def loan_returned(self) -> str: ...


def check_loan(blade: Lent) -> None:
    """Refuse a blade that is borrowed and lent at once."""
    if blade.loan_from.strip() and blade.lent_to.strip():
        raise OutOfRangeError(
            "a blade on loan from somebody cannot be lent on here: clear one of the two",
            field="lent_to",
        )


def is_away(blade: Lent) -> bool:
    """Whether a blade is not in hand: borrowed and given back, or lent and not back."""
    if blade.lent_to:
        return not blade.loan_returned
    return bool(blade.loan_from and blade.loan_returned)


def loan_seen(blade: Lent, here: str, sent_by: str = "") -> Loan | None:
    """The loan of a blade as the tester `here` sees it; None where it is over, has no day, or is
    between others. `sent_by` names whose package the blade came in.
    """
    if not blade.loan_due or blade.loan_returned:
        return None
    if sent_by and not (blade.loan_from or blade.lent_to):
        return None
    keeper = sent_by or here
    lender, borrower = (keeper, blade.lent_to) if blade.lent_to else (blade.loan_from, keeper)
    if _is_one(borrower, here):
        return Loan("give_back", lender, blade.loan_due)
    return Loan("get_back", borrower, blade.loan_due) if _is_one(lender, here) else None


def _is_one(name: str, other: str) -> bool:
    return name.strip().casefold() == other.strip().casefold()
