"""What is taken into a bench log, the same for a hand, an instrument and a file."""

from collections.abc import Mapping

from kessik.core.errors import NotAllowedNowError, OutOfRangeError, UnknownError
from kessik.core.limits import LIMITS
from kessik.core.protocols.events import (
    AFTER_STROP,
    COUNT_AT,
    DOSE_CHECKS,
    KNOWN_STAGES,
    Accept,
    BenchEvent,
    Correction,
    Cut,
    NotUnderstood,
    Outcome,
    Reading,
    Strike,
    check_count_at,
    check_shows,
    corrected,
    corrected_count,
)
from kessik.core.protocols.methods import Method
from kessik.core.protocols.run_state import RunState
from kessik.core.protocols.series import WRITTEN

ENDS = frozenset({"stop", "abandon"})
TAKEN_BACK_ONLY = frozenset({"strike", "correction"}) | ENDS
"""What is put back as it was, or reopened; never made into something else."""
CORRECTABLE = frozenset({"cut", "reading", "outcome", "note", "spoiled", "accept", "strop"})
ENDING_MOVES = frozenset({"stop", "pause", "resume", "takeover", "accept"})
_AT_A_COUNT = frozenset({"reading", "outcome", "spoiled", "note"})
_OF_A_RUN_UNDER_WAY = frozenset({"cut", "reading", "outcome", "spoiled"})


def admit(
    event: BenchEvent,
    state: RunState,
    method: Method,
    known: Mapping[str, BenchEvent],
    stop_position: int | None,
    edge_length_mm: float | None = None,
) -> None:
    """Refuse an event that cannot be true of the run now; raises a KessikError naming the field.

    Events of a device that had not yet seen the stop are taken: what was cut was cut.
    """
    check_count_at(event.count_at)
    _admit_after_end(event, state, stop_position)
    match event.payload:
        case Cut(amount=amount):
            _admit_amount(amount, method)
        case Reading(stage=stage) | Outcome(stage=stage):
            _admit_stage(stage, method)
            _admit_check(event.payload, method)
            _admit_place(event.payload, method, edge_length_mm)
        case Accept(targets=targets):
            _admit_acceptance(targets, event.device, state, known)
        case Strike(target=target):
            _target(target, known, strikes=True)
        case Correction(target=target, becomes=becomes):
            back = becomes is None
            aimed = _target(target, known, strikes=back, takes_back=back)
            if becomes is not None and not isinstance(aimed.payload, NotUnderstood):
                changed = corrected(aimed.payload, becomes)
                if isinstance(changed, Cut):
                    _admit_amount(changed.amount, method)
                if isinstance(changed, Reading | Outcome):
                    _admit_check(changed, method)
                    _admit_place(changed, method, edge_length_mm)
                _admit_count(corrected_count(becomes), aimed, state)


def _admit_amount(amount: float, method: Method) -> None:
    """One entry counts so many pieces of the method, no more."""
    limit = LIMITS["cuts_at_once"]
    if amount > limit.most * method.piece:
        message = (
            f"{amount:g} {method.count_unit} at once: up to {limit.most * method.piece:g} can be"
            " counted"
        )
        raise OutOfRangeError(message, field="amount", value=amount)


def _admit_stage(stage: str | None, method: Method) -> None:
    known = dict.fromkeys([*(each.name for each in method.stages), *KNOWN_STAGES])
    if stage is not None and stage not in known:
        raise OutOfRangeError(f"a stage is one of {', '.join(known)}", field="stage", value=stage)


def _admit_check(payload: Reading | Outcome, method: Method) -> None:
    """A check of the tester's own is one that the method defines, and says what it can say."""
    if payload.check not in (WRITTEN, *DOSE_CHECKS):
        check_shows(payload, method.row(payload.check))


def _admit_place(said: Reading | Outcome, method: Method, edge_length_mm: float | None) -> None:
    """A method with stations is read at a place, and no place lies beyond the edge."""
    place = said.position_mm
    if place is None:
        if method.stations_mm and said.stage != AFTER_STROP and said.check != WRITTEN:
            stations = ", ".join(f"{station:g}" for station in method.stations_mm)
            message = f"say where on the edge: this method checks at {stations} mm from the heel"
            raise OutOfRangeError(message, field="position_mm")
        return
    if edge_length_mm is not None and place > edge_length_mm:
        message = f"{place:g} mm lies beyond the edge, which is {edge_length_mm:g} mm long"
        raise OutOfRangeError(message, field="position_mm", value=place)


def _admit_count(count: float | None, aimed: BenchEvent, state: RunState) -> None:
    """A check belongs to a count that the run reached; the count itself follows from its cuts."""
    if count is None:
        return
    if aimed.kind not in _AT_A_COUNT:
        raise NotAllowedNowError(
            f"the count of a {aimed.kind} event follows from the cuts before it", field=COUNT_AT
        )
    if count > state.count:
        message = f"{count:g} lies beyond the {state.count:g} that were cut"
        raise OutOfRangeError(message, field=COUNT_AT, value=count)


def _admit_acceptance(
    targets: tuple[str, ...], device: str, state: RunState, known: Mapping[str, BenchEvent]
) -> None:
    if state.holder not in (None, device):
        raise NotAllowedNowError(
            "another device holds the count; take it over to accept cuts", field="device"
        )
    for each in targets:
        if each not in known or known[each].kind != "cut":
            raise UnknownError("a cut to accept is not in this run", field="targets")


def _target(
    target: str,
    known: Mapping[str, BenchEvent],
    *,
    strikes: bool,
    takes_back: bool = False,
) -> BenchEvent:
    """The event a correction points at; one that nobody understands can only be struck out or taken
    back, and a strike, a correction or an end only taken back.
    """
    found = known.get(target)
    if found is None:
        raise UnknownError("the event this points at is not in this run", field="target")
    if strikes and isinstance(found.payload, NotUnderstood):
        return found
    if takes_back and found.kind in TAKEN_BACK_ONLY:
        return found
    if isinstance(found.payload, NotUnderstood):
        raise NotAllowedNowError("this event is not understood; it can be excluded", field="target")
    if found.kind not in CORRECTABLE:
        raise NotAllowedNowError(f"a {found.kind} event cannot be changed", field="target")
    return found


def _admit_after_end(event: BenchEvent, state: RunState, stop_position: int | None) -> None:
    if event.kind == "strop" and state.status != "stopped":
        raise NotAllowedNowError("stropping back is tested once the run has stopped", field="run")
    if isinstance(event.payload, Reading | Outcome) and event.payload.stage == AFTER_STROP:
        if state.status != "stopped" or not state.strops:
            message = "say how many strokes on the strop went before this"
            raise NotAllowedNowError(message, field="run")
        return
    unaware = stop_position is not None and event.last_seen_position < stop_position
    refused = ENDING_MOVES if unaware else ENDING_MOVES | _OF_A_RUN_UNDER_WAY
    if state.has_ended and event.kind in refused:
        raise NotAllowedNowError(
            f"this run is {state.status}; start another run to go on", field="run"
        )
