"""Phases of a soak: which medium each side was in, and when it truly changed."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from kessik.core.corrosion.exposures import exposure_h, whole_hours
from kessik.core.corrosion.methods import CouponSide, Phase, Scale
from kessik.core.corrosion.soaks import Act, Coupon, Soak

_AFTER_CHANGE_H = 0.25
"""An inspection so long after a change of medium still shows what was there before it."""


@dataclass(frozen=True)
class Span:
    """A phase from and to its true hours of exposure; `is_told` where its end was recorded."""

    phase: Phase
    from_h: float
    to_h: float
    is_told: bool = False


def spans_of(soak: Soak, acts: Sequence[Act]) -> tuple[Span, ...]:
    """The phases at their true hours: one ends when the next was begun, else when it was planned
    to; the last goes on to the end.
    """
    begun = sorted(
        exposure_h(act.clock_h, acts) for act in acts if act.kind == "next_phase" and not act.struck
    )
    spans: list[Span] = []
    start = 0.0
    for place, phase in enumerate(soak.method.phases):
        is_last = place == len(soak.method.phases) - 1
        is_told = not is_last and place < len(begun)
        end = whole_hours(soak, acts) if is_last else begun[place] if is_told else phase.until_h
        end = max(end, start)
        spans.append(Span(phase, start, end, is_told))
        start = end
    return tuple(spans)


def span_at(spans: Sequence[Span], planned_h: float | None, hour: float) -> Span | None:
    """The phase that a round at an hour of exposure belongs to; None without phases.

    By its own hour where the change of medium was recorded, else by the hour that it was due at: a
    round at 72.4 h for 72 h shows what the first 72 h did.
    """
    for span in spans:
        due = hour if planned_h is None else planned_h
        if (hour - _AFTER_CHANGE_H if span.is_told else due) <= span.to_h:
            return span
    return spans[-1] if spans else None


def sides_in(span: Span | None, coupon: Coupon) -> tuple[CouponSide, ...]:
    """The sides of a coupon that are inspected in a phase, each by itself."""
    own: tuple[CouponSide, ...] = ("left", "right") if coupon.side == "both" else (coupon.side,)
    if span is None or span.phase.side == "both":
        return own
    return tuple(side for side in own if side == span.phase.side)


def scale_for(soak: Soak, acts: Sequence[Act], side: CouponSide, hour: float) -> Scale:
    """What a side is read on at an hour of exposure: as the phase it is in has it."""
    own = [
        span
        for span in spans_of(soak, acts)
        if "both" in (side, span.phase.side) or span.phase.side == side
    ]
    here = span_at(own, None, hour)
    return here.phase.scale if here else soak.method.scale


def soak_in(soak: Soak, span: Span) -> Soak:
    """The soak as it is in one phase: its medium, scale and coupons."""
    phase = span.phase
    method = replace(
        soak.method,
        medium=phase.medium,
        scale=phase.scale,
        salt_percent=phase.salt_percent,
        phases=(),
    )
    coupons = tuple(coupon for coupon in soak.coupons if sides_in(span, coupon))
    return replace(soak, method=method, coupons=coupons)


def are_alike_throughout(spans: Sequence[Span]) -> bool:
    """Whether all phases are read on one scale and on the same sides, so that the last round tells
    of all of them.
    """
    return len({(span.phase.side, span.phase.scale) for span in spans}) <= 1
