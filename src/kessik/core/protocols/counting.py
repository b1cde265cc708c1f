"""The count: which cuts of which device count, who holds it, and what later corrections moved."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from kessik.core.protocols.events import BenchEvent

Changes = Mapping[str, Mapping[str, Any] | None]


@dataclass(frozen=True)
class Moved:
    """A count that a later correction moved: where both stand in the log, and by how much."""

    counted_at: int
    moved_at: int
    by: float


@dataclass(frozen=True)
class Counting:
    """The count after a log, the device that holds it, cuts of other devices that wait to be accepted, what moved;
    `one_holds` where only that device counts."""

    count: float
    holder: str | None
    proposals: tuple[BenchEvent, ...]
    moved: tuple[Moved, ...]
    one_holds: bool


@dataclass
class _Tally:
    """Cuts as they come to count: amounts by event id, with the log position from which each counts."""

    holder: str | None = None
    waiting: dict[str, BenchEvent] = field(default_factory=dict)
    counted: dict[str, tuple[BenchEvent, int]] = field(default_factory=dict)


def count_cuts(events: Sequence[BenchEvent], changes: Changes) -> Counting:
    """Count a log. Where its start says that one device holds the count, the first to cut holds it until another takes
    it over; cuts of the others count once the holder accepts them, so that two thumbs never make two cuts of one. Over
    a break nobody holds it.

    A cut that was taken back still settles who held the count, so that no correction turns a proposal into a cut.
    """
    one_holds = any(event.kind == "start" and event.payload.get("one_holds") for event in events)
    tally = _Tally()
    for event in events:
        if event.kind == "takeover":
            tally.holder = event.device
        elif event.kind == "pause":
            tally.holder = None
        elif event.kind == "cut":
            tally.holder = tally.holder or event.device
            if one_holds and event.device != tally.holder:
                tally.waiting[event.id] = event
            else:
                tally.counted[event.id] = (event, event.position)
        elif event.kind == "accept" and not _taken_back(event, changes):
            for target in event.payload["targets"]:
                if target in tally.waiting:
                    tally.counted[target] = (tally.waiting.pop(target), event.position)
    count = sum(_amount_now(cut, changes) for cut, _ in tally.counted.values())
    proposals = tuple(
        replace(cut, payload={"amount": _amount_now(cut, changes)})
        for cut in tally.waiting.values()
        if not _taken_back(cut, changes)
    )
    return Counting(count, tally.holder, proposals, tuple(_moves(events, changes, tally)), one_holds)


def _moves(events: Sequence[BenchEvent], changes: Changes, tally: _Tally) -> list[Moved]:
    made = {str(e.payload["target"]): e.position for e in events if e.kind == "correction"}
    found = [
        Moved(counted_at, made[cut.id], _amount_now(cut, changes) - float(cut.payload["amount"]))
        for cut, counted_at in tally.counted.values()
        if cut.id in changes
    ]
    for event in events:
        if event.kind == "accept" and _taken_back(event, changes):
            cuts = [tally.waiting[target] for target in event.payload["targets"] if target in tally.waiting]
            found.append(Moved(event.position, made[event.id], -sum(_amount_now(cut, changes) for cut in cuts)))
    return found


def _taken_back(event: BenchEvent, changes: Changes) -> bool:
    return event.id in changes and changes[event.id] is None


def _amount_now(cut: BenchEvent, changes: Changes) -> float:
    """What a cut counts after corrections; nothing where it was taken back."""
    if _taken_back(cut, changes):
        return 0.0
    return float((changes.get(cut.id) or {}).get("amount", cut.payload["amount"]))
