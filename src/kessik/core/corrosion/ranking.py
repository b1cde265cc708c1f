"""Who rusted less: an order with shared places, only as fine as the soak could tell apart.

Areas are compared on the scale behind ISO 10289, three points a factor of ten; what two sides of
one coupon differ by on it says how fine the method is.
"""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from kessik.core.corrosion.course import RUSTED_PERCENT, Bounds, Point, has_rust
from kessik.core.corrosion.methods import CouponSide
from kessik.core.corrosion.ordering import shared_places, tied_runs
from kessik.core.corrosion.ratings import POINTS_A_DECADE, rating_points

PRIOR_POINTS, PRIOR_WEIGHT = 0.6, 2.0
"""How far sides of one coupon usually lie apart, as a standard deviation in rating points, and how
many pairs of sides that is worth; common practice, no source."""
APART = 2.0
_LEAST_ERROR_POINTS = 0.1
"""No look is surer than this beside another."""
_CLEAN_POINTS = rating_points(RUSTED_PERCENT)
_SIDES_APART_POINTS = APART * math.sqrt(2.0) * PRIOR_POINTS
"""Sides further apart than sides usually lie are shown each by itself: no mean of them holds
either."""


@dataclass(frozen=True)
class RankEntry:
    """Where a coupon stands: points with their own standard error, the area they stand for, on how
    many sides; `unlike_sides` has the area of each where they lie too far apart for a mean.
    """

    coupon_id: str
    points: float
    error: float
    area: Bounds
    sides: int
    unlike_sides: tuple[tuple[CouponSide, Bounds], ...] = ()

    @property
    def is_clean(self) -> bool:
        return not any(has_rust(a) for a in (self.area, *(a for _, a in self.unlike_sides)))


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

    @property
    def apart_factor(self) -> float:
        """How many times as much rust one of two middling coupons had to show to be told apart."""
        errors = [standing.error for standing in self.standings]
        points = APART * math.sqrt(2.0) * float(np.median(errors)) if errors else 0.0
        return float(10.0 ** (points / POINTS_A_DECADE))


def rank(finals: Mapping[str, Sequence[Point]]) -> Ranking:
    """Rank coupons by like looks at their sides; coupons without an area are left out."""
    spread, has_repeats = _side_spread(finals.values())
    standings = sorted(
        (_standing(coupon, points, spread) for coupon, points in finals.items() if points),
        key=lambda s: -s.points,
    )
    places = shared_places(standings, are_apart)
    return Ranking(
        tuple(standings),
        tuple(tuple(s.coupon_id for s in group) for group in places),
        tuple(tuple(s.coupon_id for s in run) for run in tied_runs(standings, are_apart)),
        spread,
        has_repeats,
    )


def are_apart(one: RankEntry, other: RankEntry) -> bool:
    """Whether the soak could tell two coupons apart."""
    if one.is_clean and other.is_clean:
        return False
    return abs(one.points - other.points) > APART * math.hypot(one.error, other.error)


def _points(point: Point) -> tuple[float, float]:
    """Points of an area, and what its own interval is worth as a standard deviation."""
    area = point.area
    best = min(rating_points(area.middle), _CLEAN_POINTS)
    width = min(rating_points(area.low), _CLEAN_POINTS) - rating_points(max(area.high, area.low))
    own = max(width, 0.0) / 4
    return best, max(own, point.rater_points)


def _by_side(points: Sequence[Point]) -> dict[CouponSide, list[Point]]:
    sides: dict[CouponSide, list[Point]] = {}
    for point in points:
        sides.setdefault(point.side, []).append(point)
    return sides


def _side_points(looks: Sequence[Point]) -> tuple[float, float]:
    """Points of one side and their error; looks at it again in one round average out, the surer of
    them by more.
    """
    values, errors = np.array([_points(look) for look in looks]).T
    weights = 1.0 / np.maximum(errors, _LEAST_ERROR_POINTS) ** 2
    weights /= weights.sum()
    return float(weights @ values), float(np.sqrt(weights**2 @ errors**2))


def _side_spread(groups: Iterable[Sequence[Point]]) -> tuple[float, bool]:
    squares, count = PRIOR_WEIGHT * PRIOR_POINTS**2, PRIOR_WEIGHT
    repeats = 0
    for points in groups:
        sides = [side for side in _by_side(points).values() if any(has_rust(p.area) for p in side)]
        rusted = [_side_points(side)[0] for side in sides]
        if len(rusted) > 1:
            squares += float(np.var(rusted, ddof=1)) * (len(rusted) - 1)
            count += len(rusted) - 1
            repeats += 1
    return math.sqrt(squares / count), repeats > 0


def _standing(coupon_id: str, points: Sequence[Point], spread: float) -> RankEntry:
    sides = _by_side(points)
    areas = {side: mean_area([p.area for p in looks]) for side, looks in sides.items()}
    each = [_side_points(looks) for looks in sides.values()]
    own = math.sqrt(sum(error**2 for _, error in each)) / len(each)
    values = [value for value, _ in each]
    return RankEntry(
        coupon_id,
        float(np.mean(values)),
        math.hypot(spread / math.sqrt(len(each)), own),
        mean_area(list(areas.values())),
        len(each),
        tuple(areas.items()) if max(values) - min(values) > _SIDES_APART_POINTS else (),
    )


def mean_area(areas: Sequence[Bounds]) -> Bounds:
    """The mean of areas of one size, bounds with bounds."""
    return Bounds(
        float(np.mean([area.low for area in areas])),
        float(np.mean([area.high for area in areas])),
        float(np.mean([area.middle for area in areas])),
    )
