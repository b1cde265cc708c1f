"""What was put right in a log and put back again: which strikes and corrections are in force.

An undo is one more event, so that what was done and undone stays to be seen.
"""

from collections.abc import Sequence
from typing import TypeGuard

from kessik.core.protocols.events import (
    Abandon,
    BenchEvent,
    Correction,
    Cut,
    Stop,
    Strike,
)

PUTS_RIGHT = ("strike", "correction")


def put_back(events: Sequence[BenchEvent]) -> frozenset[str]:
    """The ids of strikes and corrections that a later correction took back."""
    puts_right = {event.id for event in events if event.kind in PUTS_RIGHT}
    gone: set[str] = set()
    for event in reversed(events):  # what came last is in force, an undo of an undo, too
        said = event.payload
        if isinstance(said, Correction) and said.becomes is None and event.id not in gone:
            gone |= {said.target} & puts_right
    return frozenset(gone)


def in_force(events: Sequence[BenchEvent]) -> Sequence[BenchEvent]:
    """The log without strikes and corrections that were taken back."""
    if not any(isinstance(e.payload, Correction) and e.payload.becomes is None for e in events):
        return events
    gone = put_back(events)
    return [event for event in events if event.id not in gone] if gone else events


def corrected_by(events: Sequence[BenchEvent]) -> dict[str, BenchEvent]:
    """The last strike or correction in force on each event, by the id of that."""
    return {
        event.payload.target: event
        for event in in_force(events)
        if isinstance(event.payload, Strike | Correction)
    }


def corrected_after_stop(events: Sequence[BenchEvent]) -> int:
    """How many events were struck or corrected after the run was first over, and still are."""
    over = next((e.position for e in events if isinstance(e.payload, Stop | Abandon)), None)
    if over is None:
        return 0
    puts_right = {event.id for event in events if event.kind in PUTS_RIGHT}
    changed = (event.payload for event in in_force(events) if event.position > over)
    targets = {said.target for said in changed if _says_another(said)}
    return len(targets - puts_right)


def corrected_elsewhere(events: Sequence[BenchEvent]) -> bool:
    """Whether what was last put right came after a stop, and from a device that had not cut the
    run: the day after, at a desk. Such a run stays ended until it is reopened by hand.
    """
    last = next((n for n in range(len(events) - 1, -1, -1) if events[n].kind in PUTS_RIGHT), None)
    if last is None:
        return False
    before = events[:last]
    cut_by = {event.device for event in before if isinstance(event.payload, Cut)}
    was_over = any(isinstance(event.payload, Stop) for event in before)
    return was_over and events[last].device not in cut_by


def _says_another(said: object) -> TypeGuard[Strike | Correction]:
    """Whether it changes what was found, and not a picture of it alone."""
    if isinstance(said, Correction):
        return said.becomes is None or set(said.becomes) != {"picture"}
    return isinstance(said, Strike)
