"""Hours of a soak: how long coupons were truly exposed, what is due and what was late."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from kessik.core.corrosion.methods import TendKind
from kessik.core.corrosion.soaks import Act, Look, Soak

_LATE_SHARE = 0.25


Deed = Literal["look", "end"] | TendKind


@dataclass(frozen=True)
class DueStep:
    """A look or an intervention that is due at an hour of the soak; `done_h` is when it truly was
    done, by the clock since the start.
    """

    what: Deed
    due_h: float
    clock_due_h: float
    done_h: float | None = None
    is_late: bool = False


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


def duties(soak: Soak, acts: Sequence[Act], looks: Sequence[Look]) -> list[DueStep]:
    """Everything that was or is due, in order; each done look or act serves the nearest duty."""
    whole = whole_hours(soak, acts)
    look_h = [h for h in soak.method.look_h if h <= whole]
    if not look_h or look_h[-1] < whole:
        look_h.append(whole)
    seen = sorted({exposure_h(each.clock_h, acts) for each in looks if not each.struck})
    found = _served("look", look_h, seen, acts)
    for tending in soak.method.tending:
        done = sorted(
            exposure_h(a.clock_h, acts) for a in acts if a.kind == tending.kind and not a.struck
        )
        found += _served(tending.kind, list(tending.hours(whole)), done, acts)
    return sorted(found, key=lambda duty: (duty.due_h, duty.what != "look"))


def _served(
    what: Literal["look"] | TendKind, due: Sequence[float], done: Sequence[float],
    acts: Sequence[Act],
) -> list[DueStep]:  # fmt: skip
    """Each deed serves the duty whose hour is nearest, and a duty is served by its first deed."""
    served: dict[float, float] = {}
    for hour in done:
        nearest = min(due, key=lambda d: abs(d - hour), default=None)
        if nearest is not None:
            served.setdefault(nearest, hour)
    found = []
    for place, hour in enumerate(due):
        gap = hour - (due[place - 1] if place else 0.0)
        at = served.get(hour)
        late = at is not None and abs(at - hour) > max(_LATE_SHARE * gap, 0.25)
        clock = clock_of_exposure(hour, acts)
        found.append(
            DueStep(what, hour, clock, None if at is None else clock_of_exposure(at, acts), late)
        )
    return found


def next_duties(found: Sequence[DueStep]) -> list[DueStep]:
    """Of each thing the first that waits, the nearest first; what was skipped before a later deed
    of its kind is over.
    """
    waiting: dict[str, DueStep] = {}
    for duty in found:
        if duty.done_h is not None:
            waiting.pop(duty.what, None)
        else:
            waiting.setdefault(duty.what, duty)
    return sorted(waiting.values(), key=lambda duty: duty.clock_due_h)
