"""The order in which a gauge study is read: round by round, each part once by everyone, shuffled,
so that nobody reads a part twice in a row or knows which one comes.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from kessik.core.errors import OutOfRangeError
from kessik.core.limits import check_limit

Permutation = Callable[[int], Sequence[int]]


@dataclass(frozen=True)
class Turn:
    """One reading to take: of a part by its number, by whom, in which round (from 1)."""

    part: str
    operator: str
    round: int


def blind_order(
    parts: int, operators: Sequence[str], repeats: int, permutation: Permutation
) -> list[Turn]:
    """All readings of a study in their order; OutOfRangeError for a study of none, or one in which
    nobody reads anything twice.
    """
    check_limit("gauge_parts", parts, "parts")
    check_limit("gauge_repeats", repeats, "repeats")
    names = [name.strip() for name in operators if name.strip()]
    if not names or len(set(names)) < len(names):
        raise OutOfRangeError("name each operator once", field="operators")
    check_limit("gauge_operators", len(names), "operators")
    order: list[Turn] = []
    for number in range(1, repeats + 1):
        for who in permutation(len(names)):
            last = order[-1].part if order and order[-1].operator == names[who] else ""
            order += [Turn(part, names[who], number) for part in _parts(parts, permutation, last)]
    return order


def _parts(parts: int, permutation: Permutation, last: str) -> list[str]:
    """Parts in a new order that does not begin with the one that was read just before."""
    told = [str(at + 1) for at in permutation(parts)]
    return told if told[0] != last or parts == 1 else [*told[1:], told[0]]
