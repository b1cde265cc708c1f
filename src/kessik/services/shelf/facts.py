"""Facts of blades and edges: taken in, completed from their details, and laid out for matching."""

from collections.abc import Sequence
from dataclasses import replace
from uuid import NAMESPACE_URL, uuid4, uuid5

from kessik.core.facts import STANDINGS, Measurement, Provenance, check, used


def entered(
    owner_id: str, quantity: str, value: float | str, standing: Provenance, on: str
) -> Measurement:
    """The first value of a fact, given when a blade or an edge is added; its id follows from its
    owner.
    """
    made = str(uuid5(NAMESPACE_URL, f"kessik:{owner_id}:{quantity}"))
    return _valued(made, quantity, value, standing, on)


def _valued(
    made: str, quantity: str, value: float | str, standing: Provenance, on: str
) -> Measurement:
    number = value if not isinstance(value, str) else None
    words = value if isinstance(value, str) else ""
    return Measurement(made, quantity, number, words, standing, on[:10], recorded_utc=on)


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
        return [replace(m, struck="said to be not known after all") for m in own]
    made = _valued(str(uuid4()), quantity, value, standing, on)
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
    return [*changes, *(replace(m, struck="restated with another standing") for m in taken_back)]
