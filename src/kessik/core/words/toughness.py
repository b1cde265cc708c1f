"""Toughness in words."""

from collections.abc import Sequence

from kessik.core.shelf.toughness import Energy, Toughness
from kessik.core.vocabulary import ORIENTATIONS, STANDINGS, TOUGHNESS_TESTS


def energy_words(found: Energy) -> str:
    """An energy with its interval."""
    return f"{found.joules:.3g} J, {found.low_j:.3g} to {found.high_j:.3g} J"


def joules_words(found: Toughness) -> str:
    """The value with its interval, where it has one."""
    if found.low_j is None or found.high_j is None:
        return f"{found.joules:.3g} J"
    return f"{found.joules:.3g} J ({found.low_j:.3g} to {found.high_j:.3g})"


def got_by_words(found: Toughness) -> str:
    """Under what it was got: nothing else is comparable."""
    turned = ORIENTATIONS[found.orientation] if found.orientation else ""
    hard = "" if found.hardness_hrc is None else f"{found.hardness_hrc:g} HRC"
    parts = [TOUGHNESS_TESTS[found.test], found.specimen, turned, hard]
    return ", ".join(part for part in parts if part)


def known_words(found: Toughness) -> str:
    """Who says so."""
    return ", ".join(part for part in (STANDINGS[found.standing], found.source) if part)


def beside_words(own: Sequence[Toughness], others: Sequence[tuple[str, Toughness]]) -> list[str]:
    """Other values of the same test, specimen and orientation, by what they are of."""
    said = []
    for kind in dict.fromkeys(found.alike for found in own):
        same = [
            f"{name} {joules_words(other)}{_at(other)}"
            for name, other in others
            if other.alike == kind
        ]
        if same:
            like = next(found for found in own if found.alike == kind)
            said.append(f"Beside it, {TOUGHNESS_TESTS[like.test]} on the same specimen:"
                        f" {'; '.join(same)}.")  # fmt: skip
    return said


def _at(found: Toughness) -> str:
    return "" if found.hardness_hrc is None else f" at {found.hardness_hrc:g} HRC"
