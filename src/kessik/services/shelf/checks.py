"""What a blade may be."""

from collections.abc import Iterable
from datetime import date

from kessik.core.errors import OutOfRangeError
from kessik.core.facts import check
from kessik.core.shelf.blades import Blade, check_usual
from kessik.core.shelf.edges import check_edge_facts
from kessik.core.shelf.loans import check_loan


def check_blade(blade: Blade) -> None:
    """Refuse a blade without a code, with facts that cannot be, or with dates that are none."""
    if not blade.code.strip():
        raise OutOfRangeError("give the blade a code", field="code")
    for measurement in blade.measurements:
        check(measurement)
    low, high = blade.usual_hardness_low_hrc, blade.usual_hardness_high_hrc
    check_usual(low, high, "usual_hardness_low_hrc", "usual_hardness_high_hrc")
    check_loan(blade)
    for name in ("loan_due", "loan_returned"):
        _check_date(getattr(blade, name), name)


def check_new_blades(blades: Iterable[Blade]) -> None:
    """Refuse blades that cannot be, with all their edges."""
    for blade in blades:
        check_blade(blade)
        for edge in blade.edges:
            check_edge_facts(edge)


def _check_date(text: str, field: str) -> None:
    if not text:
        return
    try:
        date.fromisoformat(text)
    except ValueError as wrong:
        raise OutOfRangeError(
            f"“{text}” is not a day like 2026-05-04", field=field, value=text
        ) from wrong
