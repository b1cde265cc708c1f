"""What was not as the method has it: brine of another strength, interventions missed, dry hours."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from kessik.core.corrosion.duties import duties
from kessik.core.corrosion.exposures import ended_clock_h, pauses
from kessik.core.corrosion.methods import TendKind
from kessik.core.corrosion.soaks import Act, Soak

_SALT_SHARE = 0.1
"""How far a measured strength may lie from the planned one, as a share of it; common practice, no
source."""


@dataclass(frozen=True)
class BrineOff:
    """Salt that was measured, per cent, beside what the method has."""

    measured_percent: float
    planned_percent: float


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


CareFinding = BrineOff | TendingMissed | DryHours


def care_findings(soak: Soak, acts: Sequence[Act], clock_h: float) -> tuple[CareFinding, ...]:
    """All that was not as the method has it, up to a clock hour."""
    if soak.started is None:
        return ()
    return (*_brine(soak, acts), *_tended(soak, acts, clock_h), *_dry(acts, clock_h))


def _brine(soak: Soak, acts: Sequence[Act]) -> Iterator[BrineOff]:
    planned = soak.method.salt_percent
    if not planned:
        return
    seen: set[float] = set()
    for act in acts:
        measured = None if act.struck else act.salt_percent
        if measured is None or abs(measured - planned) <= _SALT_SHARE * planned:
            continue
        if measured not in seen:
            seen.add(measured)
            yield BrineOff(measured, planned)


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
