"""The count: which cuts of which device count, who holds it, and what later corrections moved."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from kessik.core.protocols.events import (
    Accept,
    BenchEvent,
    Correction,
    Cut,
    Pause,
    Payload,
    Start,
    TakeOver,
)

Changes = Mapping[str, Payload | None]
"""What corrections made of events, by id: their content now, None where they were taken back."""


@dataclass(frozen=True)
class Moved:
    """A count that a later correction moved: where both stand in the log, and by how much."""

    counted_at: int
    moved_at: int
    by: float


@dataclass(frozen=True)
class Counting:
    """The count after a log, the device that holds it, cuts of other devices that wait to be
    accepted, what moved; `one_holds` where only that device counts.
    """

    count: float
    holder: str | None
    proposals: tuple[BenchEvent, ...]
    moved: tuple[Moved, ...]
    one_holds: bool


@dataclass
class _Tally:
    """Cuts as they come to count: with the log position from which each counts, by event id."""

    one_holds: bool
    holder: str | None = None
    waiting: dict[str, BenchEvent] = field(default_factory=dict)
    counted: dict[str, tuple[BenchEvent, int]] = field(default_factory=dict)

    def take(self, event: BenchEvent, changes: Changes) -> None:
        match event.payload:
            case TakeOver():
                self.holder = event.device
            case Pause():
                self.holder = None
            case Cut():
                self.holder = self.holder or event.device
                if self.one_holds and event.device != self.holder:
                    self.waiting[event.id] = event
                else:
                    self.counted[event.id] = (event, event.position)
            case Accept(targets=targets) if not _taken_back(event, changes):
                for target in targets:
                    if target in self.waiting:
                        self.counted[target] = (self.waiting.pop(target), event.position)


def count_cuts(events: Sequence[BenchEvent], changes: Changes) -> Counting:
    """Count a log. Where its start says that one device holds the count, the first to cut holds it
    until another takes it over; cuts of the others count once the holder accepts them, so that two
    thumbs never make two cuts of one. Over a break nobody holds it.

    A cut that was taken back still settles who held the count, so that no correction turns a
    proposal into a cut.
    """
    tally = _Tally(any(isinstance(e.payload, Start) and e.payload.one_holds for e in events))
    for event in events:
        tally.take(event, changes)
    count = sum(_amount_now(cut, changes) for cut, _ in tally.counted.values())
    proposals = tuple(
        replace(cut, payload=Cut(amount=_amount_now(cut, changes)))
        for cut in tally.waiting.values()
        if not _taken_back(cut, changes)
    )
    return Counting(
        count, tally.holder, proposals, tuple(_moves(events, changes, tally)), tally.one_holds
    )


def _moves(events: Sequence[BenchEvent], changes: Changes, tally: _Tally) -> list[Moved]:
    made = {e.payload.target: e.position for e in events if isinstance(e.payload, Correction)}
    found = [
        Moved(counted_at, made[cut.id], _amount_now(cut, changes) - amount_of(cut))
        for cut, counted_at in tally.counted.values()
        if cut.id in changes
    ]
    for event in events:
        if isinstance(event.payload, Accept) and _taken_back(event, changes):
            cuts = [
                tally.waiting[target] for target in event.payload.targets if target in tally.waiting
            ]
            found.append(
                Moved(event.position, made[event.id], -sum(_amount_now(c, changes) for c in cuts))
            )
    return found


def amount_of(cut: BenchEvent) -> float:
    """What a cut counted when it was made."""
    return cut.payload.amount if isinstance(cut.payload, Cut) else 0.0


def _taken_back(event: BenchEvent, changes: Changes) -> bool:
    return event.id in changes and changes[event.id] is None


def _amount_now(cut: BenchEvent, changes: Changes) -> float:
    """What a cut counts after corrections; nothing where it was taken back."""
    now = changes.get(cut.id, cut.payload)
    return now.amount if isinstance(now, Cut) else 0.0
