"""How corrosion went along a soak: areas by stage, first rust, what was superficial."""

from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.corrosion.exposures import exposure_of
from kessik.core.corrosion.methods import STAGES, CouponSide, InspectionStage
from kessik.core.corrosion.rounds import Round
from kessik.core.corrosion.soaks import BY_EYE, Act, Look

RUSTED_PERCENT = 0.02
"""An area from which on a blade is called rusted: less is within what a look can miss."""
RATER_POINTS = 0.7
"""How far one rating by eye lies from another of the same side, as a standard deviation in rating
points: two ratings of one side differ by about a grade; common practice, no source."""
NOTHING_PERCENT = 0.02
"""An upper bound up to which nothing came off."""


@dataclass(frozen=True)
class Bounds:
    """An area in per cent: `best` is None where only its bounds are known."""

    low: float
    high: float
    best: float | None = None

    @property
    def middle(self) -> float:
        return (self.low + self.high) / 2 if self.best is None else self.best


@dataclass(frozen=True)
class Point:
    """What a look found of the steel, at hours of exposure; `round_h` is when its round began,
    `rater_points` how sure a rating by eye is, in rating points.
    """

    hours: float
    round_h: float
    side: CouponSide
    stage: InspectionStage
    area: Bounds
    rater_points: float = 0.0


@dataclass(frozen=True)
class FirstRust:
    """When rust was first seen: after `after_h`, 0 where no look came before, by `by_h`, None where
    it never was.
    """

    after_h: float
    by_h: float | None


def bounds_of(look: Look) -> Bounds | None:
    """The area a look gives; None where it gives none."""
    if look.rust_low is not None and look.rust_high is not None:
        return Bounds(look.rust_low, look.rust_high, look.rust_percent)
    if look.rust_percent is not None:
        return Bounds(look.rust_percent, look.rust_percent, look.rust_percent)
    return None


def points_of(
    looks: Sequence[Look],
    acts: Sequence[Act],
    rounds: Sequence[Round],
    rater_points: float = RATER_POINTS,
) -> list[Point]:
    """The looks of one coupon as areas along the hours; looks at regions of the steel stand in for
    the whole where no whole one was made in their round, the largest of them.
    """
    began = {look_id: each.from_h for each in rounds for look_id in each.look_ids}
    whole: list[Point] = []
    parts: dict[tuple[float, CouponSide, InspectionStage], Point] = {}
    for look in looks:
        area = bounds_of(look)
        if not look.counts or area is None:
            continue
        hours = exposure_of(look, acts)
        sure = rater_points if look.how in BY_EYE else 0.0
        began_h = began.get(look.id, hours)
        point = Point(hours, began_h, look.side, look.stage, area, sure)
        if look.region == "":
            whole.append(point)
            continue
        known = parts.get(_key(point))
        if known is None or known.area.middle < area.middle:
            parts[_key(point)] = point
    found = [*whole, *(part for part in parts.values() if not any(_covers(w, part) for w in whole))]
    return sorted(found, key=lambda p: (p.hours, p.side, STAGES.index(p.stage)))


def _covers(whole: Point, part: Point) -> bool:
    """Whether a look at a whole side speaks of the side that a part of it was seen on."""
    is_of_side = whole.side == part.side or "both" in (whole.side, part.side)
    return is_of_side and (whole.round_h, whole.stage) == (part.round_h, part.stage)


def _key(point: Point) -> tuple[float, CouponSide, InspectionStage]:
    return point.round_h, point.side, point.stage


def first_rust(points: Sequence[Point]) -> FirstRust:
    """Between which looks rust first showed, on any side and in any stage: the last hour of the
    round that was clean, and the first of the one that was not.
    """
    clean_until = 0.0
    for began in sorted({point.round_h for point in points}):
        here = [point for point in points if point.round_h == began]
        rusted = [p.hours for p in here if has_rust(p.area)]
        if rusted:
            return FirstRust(clean_until, min(rusted))
        clean_until = max(point.hours for point in here)
    return FirstRust(clean_until, None)


def has_rust(area: Bounds) -> bool:
    """Whether an area is more than a look can miss."""
    return area.middle > RUSTED_PERCENT and area.high > RUSTED_PERCENT


def superficial(points: Sequence[Point]) -> Bounds | None:
    """As found less after wiping, in the last round that has both; what wiped off was not corrosion
    of the steel.
    """
    sides: dict[tuple[float, CouponSide], dict[InspectionStage, Bounds]] = {}
    for point in points:
        sides.setdefault((point.round_h, point.side), {})[point.stage] = point.area
    both = [(key, each) for key, each in sides.items() if {"as_found", "wiped"} <= each.keys()]
    if not both:
        return None
    last = max(began for (began, _), _ in both)
    gone = [less(each["as_found"], each["wiped"]) for (began, _), each in both if began == last]
    count = len(gone)
    return Bounds(
        sum(g.low for g in gone) / count,
        sum(g.high for g in gone) / count,
        sum(g.middle for g in gone) / count,
    )


def less(whole: Bounds, rest: Bounds) -> Bounds:
    """An area without another one, never below nothing."""
    return Bounds(
        max(0.0, whole.low - rest.high),
        max(0.0, whole.high - rest.low),
        max(0.0, whole.middle - rest.middle),
    )
