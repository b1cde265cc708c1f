"""The order of cutting: every block holds each blade once, and place inside a block is balanced
over the blades.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Literal

from kessik.core.errors import OutOfRangeError

OrderKind = Literal["latin_square", "abba", "shuffle", "alternate"]
Third = Literal["heel", "middle", "tip"]
THIRDS: tuple[Third, ...] = ("heel", "middle", "tip")


@dataclass(frozen=True)
class Place:
    """One run of the order: its block and place (from 1), the blade, and its how-many-th edge in
    the trial.

    `third` is the part of the edge it is cut with, where zones are balanced.
    """

    block: int
    place: int
    blade: str
    edge: int
    third: Third | None = None


Permutation = Callable[[int], Sequence[int]]


def order_of(
    blades: Sequence[str],
    edges_per_blade: int,
    kind: OrderKind,
    permutation: Permutation,
    thirds: bool = False,
) -> list[Place]:
    """The runs of a plan in their order; `permutation` draws one of so many things, from a seed
    that is kept.

    A Latin square [1] moves every blade through every place once in as many blocks as there are
    blades;
    ABBA turns each second block about (two blades only); a shuffle draws each block anew;
    alternating, the blades of a block take turns within one piece of board, and the one that begins
    moves on. With `thirds` heel, middle and tip are balanced: each blade has each once in any three
    blocks, and a block spreads them over its blades. Raises OutOfRangeError for ABBA of other than
    two blades, and where there is nothing to order.

    References
    ----------
    [1] R. A. Fisher, The Design of Experiments, 1935: Latin squares; from memory.
    """
    if not blades or edges_per_blade < 1:
        raise OutOfRangeError(
            "an order needs a blade and an edge at least", field="edges_per_blade"
        )
    if kind == "abba" and len(blades) != 2:
        raise OutOfRangeError(
            f"ABBA alternates two blades, and this trial has {len(blades)}; take the Latin square",
            field="order_kind",
        )
    first = [blades[i] for i in permutation(len(blades))]
    rows = _latin_rows(first, permutation)
    places: list[Place] = []
    for block in range(edges_per_blade):
        if kind == "abba":
            row = first if block % 2 == 0 else first[::-1]
        elif kind == "shuffle":
            row = [blades[i] for i in permutation(len(blades))]
        else:
            row = rows[block % len(rows)]
        places.extend(
            Place(
                block + 1,
                at + 1,
                blade,
                block + 1,
                THIRDS[(first.index(blade) + block) % 3] if thirds else None,
            )
            for at, blade in enumerate(row)
        )
    return places


def _latin_rows(first: Sequence[str], permutation: Permutation) -> list[list[str]]:
    """A cyclic square with its rows in a drawn order."""
    count = len(first)
    shifts = [0, *(1 + int(i) for i in permutation(count - 1))] if count > 1 else [0]
    return [[first[(at + shift) % count] for at in range(count)] for shift in shifts]
