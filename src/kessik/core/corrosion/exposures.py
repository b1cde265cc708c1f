"""Hours of a soak: how long coupons were truly exposed, by the clock and by what paused it."""

from collections.abc import Sequence

from kessik.core.corrosion.soaks import Act, Look, Soak


def pauses(acts: Sequence[Act]) -> list[tuple[float, float | None]]:
    """Stretches of clock hours in which the coupons were dried; the last may be open."""
    found: list[tuple[float, float | None]] = []
    for act in sorted((a for a in acts if not a.struck), key=lambda a: a.clock_h):
        is_open = bool(found) and found[-1][1] is None
        if act.kind == "dried" and not is_open:
            found.append((act.clock_h, None))
        elif act.kind == "resumed" and is_open:
            found[-1] = (found[-1][0], act.clock_h)
    return found


def exposure_h(clock_h: float, acts: Sequence[Act]) -> float:
    """Hours of exposure up to a clock hour: without pauses, and none after the end."""
    end = ended_clock_h(acts)
    until = clock_h if end is None else min(clock_h, end)
    dry = sum(
        max(0.0, min(until, until if stop is None else stop) - start)
        for start, stop in pauses(acts)
        if start < until
    )
    return max(0.0, until - dry)


def clock_of_exposure(hours: float, acts: Sequence[Act]) -> float:
    """The clock hour at which so many hours of exposure are over; pauses that are still open are
    taken to end now.
    """
    clock = hours
    for start, stop in pauses(acts):
        if start < clock and stop is not None:
            clock += stop - start
    return clock


def ended_clock_h(acts: Sequence[Act]) -> float | None:
    """When it was ended, by the clock since the start; None while it goes on."""
    return next((a.clock_h for a in acts if a.kind == "ended" and not a.struck), None)


def whole_hours(soak: Soak, acts: Sequence[Act]) -> float:
    """How long the soak is to be: the method's time, or to what it was prolonged last."""
    longer = [a for a in acts if a.kind == "prolonged" and not a.struck and a.amount]
    last = max(longer, key=lambda a: a.clock_h, default=None)
    return soak.method.hours if last is None or last.amount is None else last.amount


def planned_look_hours(soak: Soak, acts: Sequence[Act]) -> list[float]:
    """The hours of exposure at which looks are planned; the end is one of them."""
    whole = whole_hours(soak, acts)
    planned = [hour for hour in soak.method.look_h if hour <= whole]
    return planned if planned and planned[-1] >= whole else [*planned, whole]


def removed_clock_h(acts: Sequence[Act], coupon_id: str) -> float | None:
    """When a coupon was taken out before the others, by the clock; None where it was not."""
    hours = (
        act.clock_h
        for act in acts
        if act.kind == "removed" and act.coupon_id == coupon_id and not act.struck
    )
    return min(hours, default=None)


def exposure_of(look: Look, acts: Sequence[Act]) -> float:
    """Hours of exposure of a coupon at a look; they stop when it is taken out."""
    removed = removed_clock_h(acts, look.coupon_id)
    return exposure_h(look.clock_h if removed is None else min(look.clock_h, removed), acts)
