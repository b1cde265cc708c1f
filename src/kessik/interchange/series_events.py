"""A row of a series file as an event of the bench log, and a check of the log as a row."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import Any

from kessik.core.errors import OutOfRangeError
from kessik.core.limits import LIMITS
from kessik.core.protocols.checks import CHECKS, DAMAGE, PASS_FAIL
from kessik.core.protocols.events import (
    AFTER_STROP,
    DOSE_CHECKS,
    BenchEvent,
    Cut,
    Outcome,
    Payload,
    Reading,
    Start,
    Stop,
    Strike,
    read_payload,
)
from kessik.core.protocols.run_state import LoggedCheck
from kessik.core.protocols.series import WRITTEN
from kessik.core.units import force_to_gf
from kessik.interchange.csv_tables import is_time

FORCE = ("force", *DOSE_CHECKS)
"""A reading before or after a dose is a reading."""
IMPORT = "import"
_OF_FILE = ("stage", "position_mm", "note", "time")
_LEAST, _MOST_AT_ONCE = LIMITS["amount"].least, LIMITS["cuts_at_once"].most


def payload_of_row(values: Mapping[str, Any], extra: Mapping[str, str]) -> Payload:
    """What a row says, as the event that a bench would have logged; OutOfRangeError names the
    column.
    """
    check, value, unit = values["check"], values["value"], values["unit"]
    kept = {name: values[name] for name in _OF_FILE if values[name] is not None}
    if extra:
        kept["extra"] = dict(extra)
    if check == "stop":
        return read_payload("stop", {"by": "tester", **kept})
    if check == "strop":
        return read_payload(
            "strop", {"strokes": _needed(value, "a strop needs its strokes here"), **kept}
        )
    is_own = check not in CHECKS and check not in FORCE and check != WRITTEN
    if _is_judged(check) or (is_own and value is None):
        return read_payload(
            "outcome", {"check": check, "outcome": _outcome(check, values["outcome"]), **kept}
        )
    if value is None:  # a mark that a dose began or ended; any other check needs its reading
        return read_payload("reading", {"check": check, **kept})
    entered = [value, unit]
    if check in FORCE:
        value, unit = force_to_gf(value, unit or "gf"), "gf"
        kept |= {"written_as": check} if check in DOSE_CHECKS else {}
        return read_payload(
            "reading", {"check": "force", "value": value, "unit": unit, "entered": entered, **kept}
        )
    if check in ("effort", "rank"):
        kept |= {"entered": entered} if unit else {}
        return read_payload("reading", {"check": check, "value": value, **kept})
    return read_payload("reading", {"check": check, "value": value, "unit": unit, **kept})


def _is_judged(check: str) -> bool:
    return check == WRITTEN or (check in CHECKS and CHECKS[check].is_judged)


def _written_check(said: Reading | Outcome, kind: str) -> str:
    """A force that a file called the start or end of a dose is called so again; of any other check
    such a word says nothing.
    """
    if isinstance(said, Reading) and said.check == "force":
        return said.written_as or kind
    return kind


def _needed(value: float | None, message: str) -> float:
    if value is None:
        raise OutOfRangeError(message, field="value")
    return value


def _outcome(check: str, outcome: str | None) -> str:
    known = CHECKS.get(check)
    if known and known.result == "damage" and outcome not in (*DAMAGE, *PASS_FAIL):
        raise OutOfRangeError(
            f"an inspection needs one of {', '.join(DAMAGE)} here", field="outcome"
        )
    if outcome is None and known is None and check != WRITTEN:
        raise OutOfRangeError(f"“{check}” needs a value or an outcome", field="value")
    if outcome is None:
        raise OutOfRangeError(f"a {check} check needs pass, fail or doubt here", field="outcome")
    return outcome


@dataclass(frozen=True)
class RunToLog:
    """A run whose rows become a log: ids, its device and the first number of that, and when it was
    started.
    """

    run_id: str
    device: str
    first_sequence: int
    started_utc: str


def counted_up(count: float, to: float) -> Iterator[float]:
    """What was cut from one count to another, in amounts that one event may hold."""
    while to - count >= _LEAST:
        amount = min(to - count, _MOST_AT_ONCE)
        yield amount
        count += amount


def log_of_rows(
    run: RunToLog, rows: Iterable[tuple[Mapping[str, Any], Payload]]
) -> Iterator[BenchEvent]:
    """The events of a run from its rows in order, each with what it says; what was cut in between
    is counted.
    """
    sequence = run.first_sequence
    count, stopped = 0.0, False

    def event(said: Payload, time: str | None = None) -> BenchEvent:
        nonlocal sequence
        found = BenchEvent(
            f"{run.run_id}-{sequence}",
            said,
            run.device,
            sequence,
            0,
            count,
            time or run.started_utc,
        )
        sequence += 1
        return found

    yield event(Start())
    for values, said in rows:
        time = values["time"]
        for amount in counted_up(count, values["count"]):
            yield event(Cut(amount=amount), time)
            count = values["count"] if amount < _MOST_AT_ONCE else count + amount
        of_strop = AFTER_STROP in (values["check"], values["stage"])
        if of_strop and not stopped:
            yield event(Stop(by=IMPORT))
        stopped = stopped or of_strop or isinstance(said, Stop)
        told = event(said, time)
        yield told
        if values["struck"]:
            yield event(Strike(target=told.id, reason=values["note"] or "excluded in the file"))
    if not stopped:
        yield event(Stop(by=IMPORT))


def row_of_check(logged: LoggedCheck) -> dict[str, Any]:
    """A check of the log as the columns of a row that speak of it; unknown columns by their own
    names.
    """
    said, check = logged.payload, logged.check
    value, unit = getattr(said, "value", None), getattr(said, "unit", None)
    outcome = getattr(said, "outcome", None)
    if isinstance(said.entered, tuple):
        value, unit = said.entered
    elif said.entered in (*PASS_FAIL, *DAMAGE):
        outcome = said.entered
    return {
        "count": check.count,
        "check": _written_check(said, check.kind),
        "value": value,
        "unit": unit,
        "outcome": outcome,
        "stage": said.stage,
        "position_mm": said.position_mm,
        "struck": check.struck,
        "time": said.time if said.time and is_time(said.time) else None,
        "note": said.note,
        **(said.extra or {}),
    }
