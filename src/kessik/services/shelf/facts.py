"""Facts of blades and edges: taken in, completed from their details, and laid out for matching."""

from collections.abc import Sequence
from dataclasses import replace
from uuid import uuid4

from kessik.core.facts import STANDINGS, Measurement, Provenance, check, used, valued


def stated_again(
    known: Sequence[Measurement],
    quantity: str,
    value: float | str | None,
    standing: Provenance,
    on: str,
) -> list[Measurement]:
    """What a new statement of a fact changes: nothing if it is known just so, else one more
    measurement.

    None says that the fact is not known after all: every value of it is struck, and stays visible.
    """
    if value is None:
        own = [m for m in known if m.quantity == quantity and not m.struck]
        return [replace(m, struck="marked as not known") for m in own]
    made = valued(str(uuid4()), quantity, value, standing, on)
    check(made)
    now = used(known, quantity)
    if now is not None and (now.value, now.words, now.standing) == (
        made.value,
        made.words,
        made.standing,
    ):
        return []
    return [made]


def restated(
    known: Sequence[Measurement],
    quantity: str,
    value: float | str | None,
    standing: Provenance,
    on: str,
) -> list[Measurement]:
    """The same, where the tester takes back what was said before: values of a better standing are
    struck.
    """
    changes = stated_again(known, quantity, value, standing, on)
    if value is None or not changes:
        return changes
    better = STANDINGS[: STANDINGS.index(standing)]
    taken_back = [
        m for m in known if m.quantity == quantity and not m.struck and m.standing in better
    ]
    return [
        *changes,
        *(replace(m, struck="entered again with another standing") for m in taken_back),
    ]
