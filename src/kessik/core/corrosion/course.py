"""How corrosion went along a soak: areas by stage, first rust, what was superficial."""

from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.corrosion.methods import InspectionStage
from kessik.core.corrosion.soaks import Act, CouponSide, Look
from kessik.core.corrosion.timing import exposure_h

RUSTED_PERCENT = 0.02
"""An area from which on a blade is called rusted: less is within what a look can miss."""


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
    """What a look found of the steel, at hours of exposure."""

    hours: float
    side: CouponSide
    stage: InspectionStage
    area: Bounds


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


def points_of(looks: Sequence[Look], acts: Sequence[Act]) -> list[Point]:
    """The looks of one coupon as areas along the hours; looks at regions of the steel stand in for
    the whole where no whole one was made, the largest of them.
    """
    whole: dict[tuple[float, CouponSide, InspectionStage], Bounds] = {}
    parts: dict[tuple[float, CouponSide, InspectionStage], Bounds] = {}
    for look in looks:
        area = bounds_of(look)
        if not look.counts or area is None:
            continue
        key = (round(exposure_h(look.clock_h, acts), 2), look.side, look.stage)
        if look.region == "":
            whole[key] = area
        elif key not in parts or parts[key].middle < area.middle:
            parts[key] = area
    return [
        Point(hours, side, stage, area)
        for (hours, side, stage), area in sorted({**parts, **whole}.items())
    ]


def first_rust(points: Sequence[Point]) -> FirstRust:
    """Between which looks rust first showed, on any side and in any stage."""
    clean_until = 0.0
    for hour in sorted({point.hours for point in points}):
        here = [point.area for point in points if point.hours == hour]
        if any(area.middle > RUSTED_PERCENT and area.high > RUSTED_PERCENT for area in here):
            return FirstRust(clean_until, hour)
        clean_until = hour
    return FirstRust(clean_until, None)


def final_points(points: Sequence[Point], stage: InspectionStage) -> list[Point]:
    """The last look at each side in a stage."""
    last: dict[CouponSide, Point] = {}
    for point in points:
        if point.stage == stage:
            last[point.side] = point
    return list(last.values())


def superficial(points: Sequence[Point]) -> Bounds | None:
    """As found less after wiping, at the last look that has both; what wiped off was not corrosion
    of the steel.
    """
    sides: dict[tuple[float, CouponSide], dict[InspectionStage, Bounds]] = {}
    for point in points:
        sides.setdefault((point.hours, point.side), {})[point.stage] = point.area
    both = [(key, each) for key, each in sides.items() if {"as_found", "wiped"} <= each.keys()]
    if not both:
        return None
    last = max(hours for (hours, _), _ in both)
    gone = [_less(each["as_found"], each["wiped"]) for (hours, _), each in both if hours == last]
    count = len(gone)
    return Bounds(
        sum(g.low for g in gone) / count,
        sum(g.high for g in gone) / count,
        sum(g.middle for g in gone) / count,
    )


def _less(whole: Bounds, rest: Bounds) -> Bounds:
    return Bounds(
        max(0.0, whole.low - rest.high),
        max(0.0, whole.high - rest.low),
        max(0.0, whole.middle - rest.middle),
    )
