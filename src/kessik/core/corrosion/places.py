"""Several soaks side by side: does a blade keep its place from one medium to the next?"""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations

from kessik.core.corrosion.ranking import RankEntry, are_apart


@dataclass(frozen=True)
class Swap:
    """Two blades that stand one way in a soak and the other way in another, told apart in both."""

    one: str
    other: str
    better_in: str
    worse_in: str


@dataclass(frozen=True)
class SharedPlaces:
    """How many pairs of blades were told apart in two soaks or more, and those that swapped."""

    pairs: int
    swaps: tuple[Swap, ...]


def shared_places(soaks: Sequence[tuple[str, dict[str, RankEntry]]]) -> SharedPlaces:
    """Compare every two soaks by every two blades that both have; soaks come as pairs of a name and
    the standings of blades by their names.
    """
    pairs: set[tuple[str, str]] = set()
    swaps = []
    for (first, here), (second, there) in combinations(soaks, 2):
        for one, other in combinations(sorted(here.keys() & there.keys()), 2):
            if not (are_apart(here[one], here[other]) and are_apart(there[one], there[other])):
                continue
            pairs.add((one, other))
            ahead_here = here[one].points > here[other].points
            if ahead_here != (there[one].points > there[other].points):
                where = (first, second) if ahead_here else (second, first)
                swaps.append(Swap(one, other, *where))
    return SharedPlaces(len(pairs), tuple(swaps))
