"""Blades of several testers: which of them may be one, and what the testers said of that."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from kessik.core.shelf.blades import Blade

_NEAR: Mapping[str, float] = {"hardness_hrc": 1.0, "stock_mm": 0.1, "edge_length_mm": 2.0}
"""How near two measurements of one blade lie (common practice, no source)."""
_ENOUGH_ALIKE = 2


@dataclass(frozen=True)
class OwnedBlade:
    """A blade with whose it is: the testers in whose trials it was cut, "" for those made here."""

    blade: Blade
    testers: frozenset[str]
    code: str


@dataclass(frozen=True)
class SameBlade:
    """A tester's word on two blades."""

    one: str
    other: str
    is_same: bool


@dataclass(frozen=True)
class BladeQuestion:
    """Two blades that may be one: what speaks for it and what against."""

    one: OwnedBlade
    other: OwnedBlade
    alike: tuple[str, ...]
    unlike: tuple[str, ...]


def blade_questions(blades: Sequence[OwnedBlade], said: Iterable[SameBlade]) -> list[BladeQuestion]:
    """Pairs of blades of different testers to be asked about: of one code, or alike in what is
    known of them and of one owner. What was said once is not asked again.
    """
    answered = {frozenset((each.one, each.other)) for each in said}
    found = []
    for at, one in enumerate(blades):
        for other in blades[at + 1 :]:
            if frozenset((one.blade.id, other.blade.id)) in answered:
                continue
            if one.testers & other.testers:
                continue
            question = _question(one, other)
            if question is not None:
                found.append(question)
    return found


def _question(one: OwnedBlade, other: OwnedBlade) -> BladeQuestion | None:
    alike, unlike = _compared(one.blade, other.blade)
    if one.code.casefold() == other.code.casefold():
        return BladeQuestion(one, other, ("code", *alike), unlike)
    owner = one.blade.owner.casefold()
    is_one_owner = bool(owner) and owner == other.blade.owner.casefold()
    if is_one_owner and not unlike and len(alike) >= _ENOUGH_ALIKE:
        return BladeQuestion(one, other, ("owner", *alike), ())
    return None


def _compared(one: Blade, other: Blade) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """The facts that both have: those that agree, and those that do not."""
    alike: list[str] = []
    unlike: list[str] = []
    if one.claimed_grade and other.claimed_grade:
        (alike if one.claimed_grade == other.claimed_grade else unlike).append("grade")
    for quantity, near in _NEAR.items():
        a, b = one.used(quantity), other.used(quantity)
        if a is None or b is None or a.value is None or b.value is None:
            continue
        (alike if abs(a.value - b.value) <= near else unlike).append(quantity)
    return tuple(alike), tuple(unlike)


def one_for_all(said: Iterable[SameBlade], first: Sequence[str]) -> dict[str, str]:
    """For each blade that is the same as another the one that stands for both; of several the
    earliest in `first`.
    """
    leader: dict[str, str] = {}

    def head(blade: str) -> str:
        while leader.get(blade, blade) != blade:
            blade = leader[blade]
        return blade

    place = {blade: at for at, blade in enumerate(first)}
    for each in said:
        if each.is_same:
            both = (head(each.one), head(each.other))
            earlier, later = sorted(both, key=lambda blade: place.get(blade, len(place)))
            leader[later] = earlier
    return {blade: head(blade) for blade in leader if head(blade) != blade}
