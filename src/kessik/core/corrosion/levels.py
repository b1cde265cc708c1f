"""What the factor of a soak did: its levels, side by side on coupons alike in all else."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations
from typing import Literal

from kessik.core.corrosion.fairness import Specimen, value_of
from kessik.core.corrosion.ranking import RankEntry

_LEVELS_IN = ("flat_finish", "coating", "oil", "polished_before", "exposed_before")
Told = Literal["less", "more", "alike", "mixed"]


@dataclass(frozen=True)
class LevelPair:
    """Two levels of the factor over pairs of coupons that differ in it alone: how the first rusted
    beside the second, and on how many of the pairs that could be told.
    """

    first: str
    second: str
    told: Told
    pairs: int
    apart: int


def level_pairs(
    factor: str, specimens: Sequence[Specimen], standings: Mapping[str, RankEntry]
) -> tuple[LevelPair, ...]:
    """Every two levels that are found on coupons of one blade, or of one kind, each beside the
    other; none where every coupon is its own level, as where steels are compared.
    """
    if factor == "steel":
        return ()
    groups: dict[tuple[str, ...], dict[str, RankEntry]] = {}
    levels: dict[str, None] = {}
    for each in specimens:
        standing = standings.get(each.coupon.id)
        if standing is None:
            continue
        level = value_of(factor, each)
        levels.setdefault(level)
        alike = [v for v in _LEVELS_IN if v != factor]
        key = (each.coupon.blade_id or each.steel, *(value_of(v, each) for v in alike))
        groups.setdefault(key, {})[level] = standing
    found = []
    for first, second in combinations(levels, 2):
        both = [(g[first], g[second]) for g in groups.values() if first in g and second in g]
        if both:
            found.append(_pair(first, second, both))
    return tuple(found)


def _pair(first: str, second: str, both: Sequence[tuple[RankEntry, RankEntry]]) -> LevelPair:
    steps = [a.points - b.points for a, b in both]
    errors = [math.hypot(a.error, b.error) for a, b in both]
    apart = sum(abs(step) > 2 * error for step, error in zip(steps, errors, strict=True))
    mean = sum(steps) / len(steps)
    error = math.sqrt(sum(e**2 for e in errors)) / len(steps)
    ways = {step > 0 for step, e in zip(steps, errors, strict=True) if abs(step) > 2 * e}
    told: Told = "alike"
    if len(ways) > 1:
        told = "mixed"
    elif abs(mean) > 2 * error:
        told = "less" if mean > 0 else "more"
    return LevelPair(first, second, told, len(both), apart)
