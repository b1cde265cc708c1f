"""Rounds of inspection: what was seen together, for which planned hour, and what is still to see.

A round belongs to the planned hour before it, whatever minute each coupon and side was seen.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

from kessik.core.corrosion.exposures import (
    exposure_h,
    exposure_of,
    planned_look_hours,
    removed_clock_h,
)
from kessik.core.corrosion.methods import CouponSide, InspectionStage
from kessik.core.corrosion.phases import Span, sides_in, span_at, spans_of
from kessik.core.corrosion.soaks import Act, Coupon, Look, Soak

LIKE_SHARE, LIKE_LEAST_H = 0.15, 0.75
"""Hours of exposure that are alike: within this share of them, or this long; common practice, no
source."""
_EARLY_SHARE, _EARLY_LEAST_H = 0.05, 0.5
"""How far before its hour a round may begin, as a share of the gap before it, or this long."""


_LATE_SHARE, _LATE_LEAST_H = 0.25, 0.25


@dataclass(frozen=True)
class SideToSee:
    """One thing to see in a round: a side of a coupon, in a stage."""

    coupon_id: str
    side: CouponSide
    stage: InspectionStage


@dataclass(frozen=True)
class Round:
    """Looks that belong together, from the first to the last hour of exposure; `planned_h` is the
    hour they were due at, None where none was. Of `places` to see, `missing` were not.
    """

    planned_h: float | None
    from_h: float
    to_h: float
    look_ids: frozenset[str]
    places: tuple[SideToSee, ...] = ()
    missing: tuple[SideToSee, ...] = ()
    is_late: bool = False

    @property
    def seen(self) -> tuple[SideToSee, ...]:
        """What was to be seen and was."""
        return tuple(place for place in self.places if place not in self.missing)

    def holds_hour(self, hour: float) -> bool:
        """Whether a look at this hour of exposure still belongs to the round."""
        return hour - self.from_h <= like_h(self.from_h)


def like_h(hours: float) -> float:
    """How far hours of exposure may lie apart and be alike."""
    return max(LIKE_SHARE * hours, LIKE_LEAST_H)


def are_alike(one_h: float, other_h: float) -> bool:
    """Whether two hours of exposure are alike."""
    return abs(one_h - other_h) <= like_h(min(one_h, other_h))


def places_at(
    soak: Soak, acts: Sequence[Act], clock_h: float, planned_h: float | None = None
) -> tuple[SideToSee, ...]:
    """All that is to be seen in a round at a clock hour, due at a planned one, stage by stage: the
    sides that its phase is about; a coupon that was taken out is not.
    """
    there = [coupon for coupon in soak.coupons if _is_in(coupon, acts, clock_h)]
    here = span_at(spans_of(soak, acts), planned_h, exposure_h(clock_h, acts))
    return tuple(
        SideToSee(coupon.id, side, stage)
        for stage in soak.method.stages
        for coupon in there
        for side in sides_in(here, coupon)
    )


def _is_in(coupon: Coupon, acts: Sequence[Act], clock_h: float) -> bool:
    removed_h = removed_clock_h(acts, coupon.id)
    return removed_h is None or clock_h <= removed_h


def rounds_of(soak: Soak, acts: Sequence[Act], looks: Sequence[Look]) -> tuple[Round, ...]:
    """The looks of a soak as rounds, in order.

    A round begins up to a little before its planned hour and lasts as long as hours are alike; what
    comes later, before the next planned hour, is a round of its own that nobody asked for.
    """
    planned = planned_look_hours(soak, acts)
    timed = sorted(
        ((exposure_of(look, acts), look) for look in looks if not look.struck),
        key=lambda pair: (pair[0], pair[1].id),
    )
    found: list[tuple[Round, list[Look]]] = []
    served: set[float] = set()
    for hour, look in timed:
        due = due_at(planned, hour)
        last = found[-1] if found else None
        if last is None or not last[0].holds_hour(hour) or due_at(planned, last[0].from_h) != due:
            is_asked = due is not None and due not in served
            served |= {due} if due is not None else set()
            late = is_asked and due is not None and is_late(hour, due, planned)
            begun = Round(due if is_asked else None, hour, hour, frozenset(), is_late=late)
            found.append((begun, [look]))
        else:
            last[1].append(look)
            found[-1] = (replace(last[0], to_h=hour), last[1])
    return tuple(_counted(soak, acts, found_round, own) for found_round, own in found)


def due_at(planned: Sequence[float], hour: float) -> float | None:
    """The planned hour that a look at an hour of exposure serves: the last one that has come, or is
    about to; None before the first. An inspection before counts for no later hour.
    """
    served = None
    before = 0.0
    for due in planned:
        if hour < due - max(_EARLY_SHARE * (due - before), _EARLY_LEAST_H):
            break
        served, before = due, due
    return served


def is_late(at: float, due: float, planned: Sequence[float]) -> bool:
    """Whether something done at an hour was not done at its planned one, by a quarter of the gap
    before it.
    """
    before = max((hour for hour in planned if hour < due), default=0.0)
    return abs(at - due) > max(_LATE_SHARE * (due - before), _LATE_LEAST_H)


def round_at(rounds: Sequence[Round], planned: Sequence[float], hour: float) -> Round | None:
    """The round that a look made now would join; None where it would begin one."""
    last = rounds[-1] if rounds else None
    if last is None or not last.holds_hour(hour):
        return None
    return last if due_at(planned, last.from_h) == due_at(planned, hour) else None


def still_to_see(
    soak: Soak, acts: Sequence[Act], rounds: Sequence[Round], looks: Sequence[Look], clock_h: float
) -> tuple[SideToSee, ...]:
    """What is to be seen at a clock hour, in the round that goes on or in the one that would begin
    now.
    """
    planned, hour = planned_look_hours(soak, acts), exposure_h(clock_h, acts)
    here = round_at(rounds, planned, hour)
    every = places_at(soak, acts, clock_h, here.planned_h if here else due_at(planned, hour))
    if here is None:
        return every
    seen = {place for look in looks if look.id in here.look_ids for place in _shows(look)}
    return tuple(place for place in every if place not in seen)


def rounds_in(
    spans: Sequence[Span], span: Span, rounds: Sequence[Round]
) -> tuple[Round, ...]:  # fmt: skip
    """The rounds that belong to a phase."""
    return tuple(r for r in rounds if span_at(spans, r.planned_h, r.from_h) == span)


def _counted(soak: Soak, acts: Sequence[Act], found: Round, looks: Sequence[Look]) -> Round:
    ids = frozenset(look.id for look in looks)
    if found.planned_h is None:
        return replace(found, look_ids=ids)
    places = places_at(soak, acts, min(look.clock_h for look in looks), found.planned_h)
    seen = {place for look in looks for place in _shows(look)}
    missing = tuple(place for place in places if place not in seen)
    return replace(found, look_ids=ids, places=places, missing=missing)


def _shows(look: Look) -> Iterator[SideToSee]:
    """The places that a look sees: one of both sides sees each of them, too."""
    sides: tuple[CouponSide, ...] = ("left", "right", "both") if look.side == "both" else (
        look.side, "both",
    )  # fmt: skip
    for side in sides:
        yield SideToSee(look.coupon_id, side, look.stage)
