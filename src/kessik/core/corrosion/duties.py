"""What is due in a soak: rounds of inspection and interventions, and what was late."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from kessik.core.corrosion.exposures import (
    clock_of_exposure,
    exposure_h,
    planned_look_hours,
    whole_hours,
)
from kessik.core.corrosion.methods import TendKind
from kessik.core.corrosion.phases import spans_of
from kessik.core.corrosion.rounds import Round, is_late, places_at, rounds_of
from kessik.core.corrosion.soaks import Act, Look, Soak

_CHANGE_SHARE = 0.05
"""How far from its hour a change of medium is still as planned, as a share of the phase before it;
common practice, no source."""
Deed = Literal["look", "end", "next_phase"] | TendKind


@dataclass(frozen=True)
class DueStep:
    """A round of inspection or an intervention that is due at an hour of the soak.

    `begun_h` is when it truly was begun, by the clock since the start, and `done_h` the same once
    nothing of it is left: of `places` to see in a round, `missing` are still to be seen. `medium`
    is what a phase is begun with.
    """

    what: Deed
    due_h: float
    clock_due_h: float
    done_h: float | None = None
    is_late: bool = False
    begun_h: float | None = None
    places: int = 0
    missing: int = 0
    medium: str = ""


def duties(soak: Soak, acts: Sequence[Act], looks: Sequence[Look]) -> list[DueStep]:
    """Everything that was or is due, in order; each done act serves the nearest duty, each round
    its planned hour.
    """
    found = _round_steps(soak, acts, rounds_of(soak, acts, looks))
    whole = whole_hours(soak, acts)
    for tending in soak.method.tending:
        done = sorted(
            exposure_h(a.clock_h, acts) for a in acts if a.kind == tending.kind and not a.struck
        )
        found += _served(tending.kind, list(tending.hours(whole)), done, acts)
    found += _phase_steps(soak, acts)
    return sorted(found, key=lambda duty: (duty.due_h, duty.what != "look"))


def _phase_steps(soak: Soak, acts: Sequence[Act]) -> list[DueStep]:
    """The changes of medium: each phase but the first is begun."""
    found = []
    for span, later in pairwise(spans_of(soak, acts)):
        due = span.phase.until_h
        done = clock_of_exposure(span.to_h, acts) if span.is_told else None
        found.append(
            DueStep(
                "next_phase",
                due,
                clock_of_exposure(due, acts),
                done,
                span.is_told and abs(span.to_h - due) > _CHANGE_SHARE * (due - span.from_h),
                done,
                medium=later.phase.medium,
            )
        )
    return found


def _round_steps(soak: Soak, acts: Sequence[Act], rounds: Sequence[Round]) -> list[DueStep]:
    by_hour = {each.planned_h: each for each in rounds if each.planned_h is not None}
    found = []
    for hour in planned_look_hours(soak, acts):
        clock = clock_of_exposure(hour, acts)
        each = by_hour.get(hour)
        if each is None:
            places = len(places_at(soak, acts, clock, hour))
            found.append(DueStep("look", hour, clock, places=places, missing=places))
        else:
            begun = clock_of_exposure(each.from_h, acts)
            done = None if each.missing else begun
            places, missing = len(each.places), len(each.missing)
            found.append(DueStep("look", hour, clock, done, each.is_late, begun, places, missing))
    return found


def _served(
    what: TendKind, due: Sequence[float], done: Sequence[float], acts: Sequence[Act]
) -> list[DueStep]:
    """Each deed serves the duty whose hour is nearest, and a duty is served by its first deed."""
    served: dict[float, float] = {}
    for hour in done:
        nearest = min(due, key=lambda d: abs(d - hour), default=None)
        if nearest is not None:
            served.setdefault(nearest, hour)
    found = []
    for hour in due:
        at = served.get(hour)
        late = at is not None and is_late(at, hour, due)
        clock = clock_of_exposure(hour, acts)
        done_h = None if at is None else clock_of_exposure(at, acts)
        found.append(DueStep(what, hour, clock, done_h, late, done_h))
    return found


def next_duties(found: Sequence[DueStep], clock_h: float) -> list[DueStep]:
    """Of each thing the first that waits at a clock hour, the nearest first.

    What was skipped before a later deed of its kind is over; so is a round once the next one is
    due, as an inspection serves the last planned hour that has come.
    """
    waiting: dict[str, DueStep] = {}
    for duty in found:
        is_over = duty.what == "look" and duty.clock_due_h <= clock_h
        if duty.begun_h is not None or is_over:
            waiting.pop(duty.what, None)
        if duty.done_h is None:
            waiting.setdefault(duty.what, duty)
    return sorted(waiting.values(), key=lambda duty: duty.clock_due_h)
