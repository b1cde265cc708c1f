"""Pivot, lock and handle after a soak, in words."""

from collections.abc import Mapping, Sequence

from kessik.core.corrosion.action import PARTS, PartChange
from kessik.core.words.matching import and_words
from kessik.core.words.sentences import as_sentence


def part_words(change: PartChange) -> str:
    """One part of one knife, before and after."""
    if not change.before:
        return f"{change.after} (before: not noted)"
    if change.before.casefold() == change.after.casefold():
        return f"{change.after}, unchanged"
    return f"{change.before}, then {change.after}"


def parts_words(changes: Sequence[PartChange], names: Mapping[str, str]) -> list[str]:
    """Part by part, who got worse, where two knives or more can be compared."""
    said = []
    for part in PARTS:
        own = [c for c in changes if c.part == part and c.steps is not None]
        if len(own) > 1:
            said.append(f"{as_sentence(part)}: {_compared(own, names)}.")
    return said


def _compared(own: Sequence[PartChange], names: Mapping[str, str]) -> str:
    as_before = [names[c.coupon_id] for c in own if (c.steps or 0) <= 0]
    worse = sorted((c for c in own if (c.steps or 0) > 0), key=lambda c: c.steps or 0)
    told = []
    if as_before:
        told.append(f"{and_words(as_before)} as before")
    told += [f"{names[c.coupon_id]} went from {c.before} to {c.after}" for c in worse]
    return "; ".join(told)
