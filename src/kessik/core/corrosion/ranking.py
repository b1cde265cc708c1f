"""Who rusted less: an order with shared places, only as fine as the soak could tell apart.

Areas are compared on the scale behind ISO 10289, three points a factor of ten; what two sides of
one coupon differ by on it says how fine the method is.
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from kessik.core.corrosion.course import RUSTED_PERCENT, Bounds, Point
from kessik.core.corrosion.ratings import rating_points

_PRIOR_POINTS, _PRIOR_WEIGHT = 0.6, 2.0
"""How far sides of one coupon usually lie apart, as a standard deviation in rating points, and how
many pairs of sides that is worth; common practice, no source."""
_APART = 2.0
_CLEAN_POINTS = rating_points(RUSTED_PERCENT)


@dataclass(frozen=True)
class RankEntry:
    """Where a coupon stands: points with their own standard error, the area they stand for, on how
    many sides.
    """

    coupon_id: str
    points: float
    error: float
    area: Bounds
    sides: int

    @property
    def is_clean(self) -> bool:
        return self.area.middle <= RUSTED_PERCENT


@dataclass(frozen=True)
class Ranking:
    """Coupons from the least rust to the most, in groups that share a place; `ties` are the longest
    runs of neighbours that cannot be told apart, where groups alone would say too much.
    """

    standings: tuple[RankEntry, ...]
    places: tuple[tuple[str, ...], ...]
    ties: tuple[tuple[str, ...], ...]
    side_spread: float
    has_repeats: bool


def rank(finals: Mapping[str, Sequence[Point]]) -> Ranking:
    """Rank coupons by the last looks at their sides; coupons without an area are left out."""
    spread, has_repeats = _side_spread(finals.values())
    standings = sorted(
        (_standing(coupon, points, spread) for coupon, points in finals.items() if points),
        key=lambda s: -s.points,
    )
    ties = _ties(standings)
    return Ranking(tuple(standings), _places(standings), ties, spread, has_repeats)


def are_apart(one: RankEntry, other: RankEntry) -> bool:
    """Whether the soak could tell two coupons apart."""
    if one.is_clean and other.is_clean:
        return False
    return abs(one.points - other.points) > _APART * math.hypot(one.error, other.error)


def _points(area: Bounds) -> tuple[float, float]:
    """Points of an area, and what its own interval is worth as a standard deviation."""
    best = min(rating_points(area.middle), _CLEAN_POINTS)
    width = min(rating_points(area.low), _CLEAN_POINTS) - rating_points(max(area.high, area.low))
    return best, max(width, 0.0) / 4


def _side_spread(groups: Iterable[Sequence[Point]]) -> tuple[float, bool]:
    squares, count = _PRIOR_WEIGHT * _PRIOR_POINTS**2, _PRIOR_WEIGHT
    repeats = 0
    for points in groups:
        rusted = [_points(p.area)[0] for p in points if p.area.middle > RUSTED_PERCENT]
        if len(rusted) > 1:
            squares += float(np.var(rusted, ddof=1)) * (len(rusted) - 1)
            count += len(rusted) - 1
            repeats += 1
    return math.sqrt(squares / count), repeats > 0


def _standing(coupon_id: str, points: Sequence[Point], spread: float) -> RankEntry:
    each = [_points(point.area) for point in points]
    sides = len(points)
    own = math.sqrt(sum(error**2 for _, error in each)) / sides
    area = mean_area([point.area for point in points])
    best = float(np.mean([value for value, _ in each]))
    return RankEntry(coupon_id, best, math.hypot(spread / math.sqrt(sides), own), area, sides)


def mean_area(areas: Sequence[Bounds]) -> Bounds:
    """The mean of areas of one size, bounds with bounds."""
    return Bounds(
        float(np.mean([area.low for area in areas])),
        float(np.mean([area.high for area in areas])),
        float(np.mean([area.middle for area in areas])),
    )


def _ties(standings: Sequence[RankEntry]) -> tuple[tuple[str, ...], ...]:
    """The longest runs in which nobody is apart from anybody."""
    runs: list[tuple[int, int]] = []
    for start in range(len(standings)):
        end = start
        while end + 1 < len(standings) and not any(
            are_apart(standings[i], standings[end + 1]) for i in range(start, end + 1)
        ):
            end += 1
        if end > start and not any(a <= start and end <= b for a, b in runs):
            runs.append((start, end))
    return tuple(tuple(s.coupon_id for s in standings[a : b + 1]) for a, b in runs)


def _places(standings: Sequence[RankEntry]) -> tuple[tuple[str, ...], ...]:
    """Groups between which everybody is apart from everybody."""
    groups: list[list[RankEntry]] = []
    for place, standing in enumerate(standings):
        above = standings[:place]
        if not groups or all(are_apart(standing, other) for other in above):
            groups.append([])
        groups[-1].append(standing)
    merged = _until_apart(groups)
    return tuple(tuple(s.coupon_id for s in group) for group in merged)


def _until_apart(groups: list[list[RankEntry]]) -> list[list[RankEntry]]:
    """Join groups that a later member ties with an earlier one."""
    done: list[list[RankEntry]] = []
    for group in groups:
        while done and any(not are_apart(a, b) for a in done[-1] for b in group):
            group = done.pop() + group
        done.append(group)
    return done
