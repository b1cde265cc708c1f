"""The order of cutting: every block holds each blade once, and place inside a block is balanced
over the blades.
"""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
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
            f"ABBA alternates two blades, and this trial has {len(blades)}; use the Latin square",
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


def order_in_rounds(
    bodies: Mapping[str, Sequence[str]],
    rounds: int,
    kind: OrderKind,
    permutation: Permutation,
    thirds: bool = False,
) -> list[Place]:
    """The runs of a plan in rounds: `bodies` are the arms of each blade. A blade keeps one regime
    until all of its rounds are over, because what they hide in the steel is the question; then it
    takes the next. Blades are balanced over places as in `order_of`.
    """
    most = max((len(arms) for arms in bodies.values()), default=0)
    if len(bodies) == 1:
        kind = "shuffle"  # there is nothing to balance
    places = order_of(list(bodies), rounds * most, kind, permutation, thirds)
    drawn = {blade: [arms[i] for i in permutation(len(arms))] for blade, arms in bodies.items()}
    found = []
    for place in places:
        turn, round_before = divmod(place.edge - 1, rounds)
        if turn < len(drawn[place.blade]):
            arm = drawn[place.blade][turn]
            found.append(replace(place, blade=arm, edge=round_before + 1))
    return found


def _latin_rows(first: Sequence[str], permutation: Permutation) -> list[list[str]]:
    """A cyclic square with its rows in a drawn order."""
    count = len(first)
    shifts = [0, *(1 + int(i) for i in permutation(count - 1))] if count > 1 else [0]
    return [[first[(at + shift) % count] for at in range(count)] for shift in shifts]
