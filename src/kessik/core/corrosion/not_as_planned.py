"""What was not as the method has it: brine of another strength, interventions missed, dry hours, a
change of medium at another hour.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from kessik.core.corrosion.duties import duties
from kessik.core.corrosion.exposures import ended_clock_h, exposure_h, pauses
from kessik.core.corrosion.methods import TendKind
from kessik.core.corrosion.phases import span_at, spans_of
from kessik.core.corrosion.soaks import Act, Soak

_SALT_SHARE = 0.1
"""How far a measured strength may lie from the planned one, as a share of it; common practice, no
source."""


@dataclass(frozen=True)
class BrineOff:
    """Salt that was measured, per cent, beside what the method has, of a phase with its medium."""

    measured_percent: float
    planned_percent: float
    medium: str = ""


@dataclass(frozen=True)
class TendingMissed:
    """How often an intervention was due so far, and of how many of these nothing is recorded."""

    kind: TendKind
    missed: int
    due: int


@dataclass(frozen=True)
class DryHours:
    """Hours in which the coupons were dried, and which are no exposure."""

    hours: float


@dataclass(frozen=True)
class PhaseOff:
    """A medium that was changed at another hour than planned."""

    medium: str
    planned_h: float
    changed_h: float


NotAsPlanned = BrineOff | TendingMissed | DryHours | PhaseOff


def not_as_planned(soak: Soak, acts: Sequence[Act], clock_h: float) -> tuple[NotAsPlanned, ...]:
    """All that was not as the method has it, up to a clock hour."""
    if soak.started is None:
        return ()
    return (
        *_brine(soak, acts),
        *_changed(soak, acts),
        *_tended(soak, acts, clock_h),
        *_dry(acts, clock_h),
    )


def _brine(soak: Soak, acts: Sequence[Act]) -> Iterator[BrineOff]:
    spans = spans_of(soak, acts)
    found: dict[BrineOff, None] = {}
    for act in acts:
        measured = None if act.struck else act.salt_percent
        span = span_at(spans, None, exposure_h(act.clock_h, acts))
        planned = span.phase.salt_percent if span else soak.method.salt_percent
        if not planned or measured is None or abs(measured - planned) <= _SALT_SHARE * planned:
            continue
        found[BrineOff(measured, planned, span.phase.medium if span else "")] = None
    yield from found


def _changed(soak: Soak, acts: Sequence[Act]) -> Iterator[PhaseOff]:
    for step in duties(soak, acts, ()):
        if step.what == "next_phase" and step.is_late and step.done_h is not None:
            yield PhaseOff(step.medium, step.due_h, exposure_h(step.done_h, acts))


def _tended(soak: Soak, acts: Sequence[Act], clock_h: float) -> Iterator[TendingMissed]:
    end = ended_clock_h(acts)
    until = clock_h if end is None else min(clock_h, end)
    due = [step for step in duties(soak, acts, ()) if step.clock_due_h < until]
    for tending in soak.method.tending:
        own = [step for step in due if step.what == tending.kind]
        missed = sum(step.done_h is None for step in own)
        if missed:
            yield TendingMissed(tending.kind, missed, len(own))


def _dry(acts: Sequence[Act], clock_h: float) -> Iterator[DryHours]:
    hours = sum((clock_h if stop is None else stop) - start for start, stop in pauses(acts))
    if hours > 0:
        yield DryHours(hours)
