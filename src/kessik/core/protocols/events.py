"""The bench log: everything at the bench is an event, appended and never rewritten."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, Literal, get_args

from kessik.core.errors import OutOfRangeError
from kessik.core.protocols.methods import CHECK_KINDS, LEAST_FORCE_GF, MOST_FORCE_GF

EventKind = Literal[
    "start", "cut", "reading", "outcome", "note", "pause", "resume", "check_planned", "stage", "strike", "correction",
    "stop", "abandon", "spoiled", "takeover", "accept", "strop",
]  # fmt: skip
EVENT_KINDS: tuple[str, ...] = get_args(EventKind)
SERVER_KINDS = frozenset({"check_planned", "stage"})
MOST_CUTS_AT_ONCE = 1000.0
MOST_STROKES = 1000.0
AFTER_STROP = "strop"
SPOILED_BY = ("", "tape", "staple", "seam", "board", "clamp")
INSPECTED = ("clean", "glint", "roll", "chip", "burr")
_MOST_VALUE = {"effort": 10.0, "rank": 100.0, "depth": 1000.0}


@dataclass(frozen=True)
class BenchEvent:
    """One event. `count_at` is the count shown when it was made; `last_seen_position` the log its device had seen.

    Payloads: cut {amount}, reading {check, value, unit, position_mm}, outcome {check, outcome, stage, position_mm},
    note {text}, check_planned {next_count, readings, why, stage, check}, stage {stage, count}, strike {target, reason},
    correction {target, becomes} (`becomes` None takes the event back), stop {by, reason}, abandon {reason},
    spoiled {cause}: the last cut struck what it should not have; it counts all the same. start {one_holds}: only the
    device that holds the count counts; takeover {}: its device holds it from here; accept {targets}: cuts of other
    devices that count after all; strop {strokes}: the ended edge was stropped; readings of that have the stage strop.
    """

    id: str
    kind: EventKind
    device: str
    device_sequence: int
    last_seen_position: int
    count_at: float
    client_time: str
    payload: Mapping[str, Any]
    position: int = 0


def check_payload(kind: str, payload: Mapping[str, Any]) -> None:
    """Refuse what cannot be: OutOfRangeError names the field and says what would be right."""
    if kind == "cut":
        amount = _number(payload, "amount")
        if not 0 < amount <= MOST_CUTS_AT_ONCE:
            raise OutOfRangeError(
                f"{amount:g} cuts at once: between 1 and 1000 can be counted", field="amount", value=amount
            )
    elif kind == "reading":
        value = _number(payload, "value")
        _check_place(payload)
        check = payload.get("check", "force")
        if check == "force":
            check_force_gf(value)
        elif check in _MOST_VALUE and not 0 <= value <= _MOST_VALUE[check]:
            most = _MOST_VALUE[check]
            raise OutOfRangeError(f"{check} goes from 0 to {most:g}, and is {value:g}", field="value", value=value)
    elif kind == "outcome":
        _check_place(payload)
        known = INSPECTED if payload.get("check") == "inspect" else ("pass", "fail", "doubt")
        if payload.get("outcome") not in (*known, "pass", "fail", "doubt"):
            said = "an outcome is pass, fail or doubt"
            if payload.get("check") == "inspect":
                said = f"an inspection sees one of {', '.join(INSPECTED)}"
            raise OutOfRangeError(said, field="outcome", value=payload.get("outcome"))
        if payload.get("check", "paper") not in CHECK_KINDS:
            raise OutOfRangeError(f"{payload['check']!r} is no check", field="check", value=payload["check"])
    elif kind == "spoiled":
        if payload.get("cause", "") not in SPOILED_BY:
            causes = ", ".join(SPOILED_BY[1:])
            raise OutOfRangeError(f"a cut is spoiled by one of {causes}", field="cause", value=payload["cause"])
    elif kind == "accept":
        targets = payload.get("targets")
        if not isinstance(targets, list) or not targets or not all(isinstance(each, str) for each in targets):
            raise OutOfRangeError("name the cuts to accept", field="targets")
    elif kind == "strop":
        strokes = _number(payload, "strokes")
        if not 1 <= strokes <= MOST_STROKES:
            raise OutOfRangeError(
                f"{strokes:g} strokes: 1 to {MOST_STROKES:g} can be counted", field="strokes", value=strokes
            )
    elif kind in ("strike", "abandon"):
        if not str(payload.get("reason") or "").strip():
            verb = "strike out a reading" if kind == "strike" else "abandon a run"
            raise OutOfRangeError(f"give a reason to {verb}: it stays in the record", field="reason")
    elif kind == "note" and not str(payload.get("text") or "").strip():
        raise OutOfRangeError("the note is empty", field="text")
    if kind in ("strike", "correction") and not isinstance(payload.get("target"), str):
        raise OutOfRangeError("name the event this points at", field="target")


def check_force_gf(value: float) -> None:
    """A force reading in gf must be possible on such a tester."""
    if not LEAST_FORCE_GF <= value <= MOST_FORCE_GF:
        raise OutOfRangeError(f"a reading of {value:g} gf cannot be; 1 to 5000 gf can", field="value", value=value)


def _check_place(payload: Mapping[str, Any]) -> None:
    if payload.get("position_mm") is not None and not 0 <= _number(payload, "position_mm") <= 2000:
        raise OutOfRangeError("a place lies 0 to 2000 mm from the heel", field="position_mm")


def _number(payload: Mapping[str, Any], field: str) -> float:
    value = payload.get(field)
    if isinstance(value, bool) or not isinstance(value, int | float) or value != value:
        raise OutOfRangeError(f"{field} must be a number, and is {value!r}", field=field, value=value)
    return float(value)
