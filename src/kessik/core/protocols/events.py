"""The bench log: everything at the bench is an event, one frozen class a kind, appended and never
rewritten.

The classes say what an event may hold; reading, refusing, the contract of the API and the types of
the screen follow.
"""

import math
from collections.abc import Mapping
from dataclasses import MISSING, dataclass, fields
from typing import Annotated, Any, Literal, NoReturn, get_args, get_type_hints

from kessik.core.errors import KessikError, OutOfRangeError
from kessik.core.limits import LIMITS, check_limit
from kessik.core.protocols.checks import CHECKS, DAMAGE, JUDGED, PASS_FAIL, CheckKind
from kessik.core.protocols.entries import (
    ChangedFields,
    Choice,
    Entry,
    Extra,
    Flag,
    Ids,
    Number,
    Pair,
    Schema,
    Text,
)
from kessik.core.protocols.series import WRITTEN, outcome_of
from kessik.core.units import force_to_gf

EventKind = Literal[
    "start", "cut", "reading", "outcome", "note", "pause", "resume", "check_planned", "stage",
    "strike", "correction", "stop", "abandon", "spoiled", "takeover", "accept", "strop",
]  # fmt: skip  # words of a list, several a line
KIND_TYPES: Mapping[str, Any] = {kind: Literal[kind] for kind in get_args(EventKind)}
"""Each kind as a type of its own, for what is told apart by it."""
SERVER_KINDS = frozenset({"start", "check_planned", "stage"})
AFTER_STROP = "strop"
SPOILED_BY = ("", "tape", "staple", "seam", "board", "clamp")
COUNT_AT = "count_at"
"""The count of an entry, as a correction names it."""
DOSE_CHECKS = ("dose_start", "dose_end")
_READ_CHECKS = (*(key for key in CHECKS if key not in JUDGED), *DOSE_CHECKS)
_JUDGED_CHECKS = (*(key for key in CHECKS if key in JUDGED), WRITTEN)
KNOWN_STAGES = ("keen", "dull", "fine", "working", "deformation", AFTER_STROP)

_Word = Annotated[str | None, Text()]
_Check = Annotated[str, Text(needed="name the check")]
_Place = Annotated[float | None, Number("position_mm")]
_Target = Annotated[str, Text(needed="name the event this points at")]


@dataclass(frozen=True, kw_only=True)
class _ImportedFields:
    """What a row of a file said besides; `time` and `note` as they stood there."""

    stage: _Word = None
    position_mm: _Place = None
    note: Annotated[str | None, Text("text")] = None
    time: _Word = None
    extra: Annotated[Mapping[str, str] | None, Extra()] = None


@dataclass(frozen=True, kw_only=True)
class Start:
    """The run began; `one_holds` where only the device that holds the count counts."""

    one_holds: Annotated[bool, Flag()] = False


@dataclass(frozen=True, kw_only=True)
class Cut:
    """So much more was cut, in the unit of the method."""

    amount: Annotated[float, Number("amount")]


@dataclass(frozen=True, kw_only=True)
class Reading(_ImportedFields):
    """One number of one check: a force in gf, a depth in mm, an effort, a rank, or a number of the
    tester's own in its unit.

    `entered` and `written_as` keep what a file said before it was converted; `line` what an
    instrument sent. Only a mark of a file that a dose began or ended may come without a value.
    """

    value: Annotated[float | None, Number()] = None
    check: _Check = "force"
    unit: _Word = None
    source: _Word = None
    instrument: _Word = None
    line: _Word = None
    written_as: Annotated[str | None, Choice(DOSE_CHECKS, "a reading was written as one of")] = None
    entered: Annotated[tuple[float | None, str | None] | None, Pair(Number(), Text())] = None

    def __post_init__(self) -> None:
        if self.check in _JUDGED_CHECKS:
            _refuse_check("what was read is one of", _READ_CHECKS)
        if self.value is None and self.check not in DOSE_CHECKS:
            raise OutOfRangeError(f"a {self.check} check needs its reading here", field="value")
        known = CHECKS.get("force" if self.check in DOSE_CHECKS else self.check)
        if self.value is not None:
            check_limit(known.reads if known else "own_reading", self.value, "value")
        if known and self.unit and self.unit != known.unit:
            raise OutOfRangeError(
                f"a {self.check} is not read in {self.unit}", field="unit", value=self.unit
            )
        if self.entered is not None and not self._worded_by(*self.entered):
            raise OutOfRangeError("the file's own wording says another value", field="entered")

    def _worded_by(self, entered: float | None, unit: str | None) -> bool:
        """Whether a file's value and unit are this reading, up to rounding."""
        if entered is None or self.value is None:
            return entered is self.value
        if self.check == "force" or self.check in DOSE_CHECKS:
            entered = force_to_gf(entered, unit or "gf")
        return math.isclose(entered, self.value, rel_tol=1e-6, abs_tol=1e-9)


@dataclass(frozen=True, kw_only=True)
class Outcome(_ImportedFields):
    """What a check showed: pass, fail or doubt, of the apex under the lamp what was seen there, of
    a scale of the tester's own the grade.
    """

    check: _Check
    outcome: Annotated[str, Text(needed="say what the check showed")]
    picture: _Word = None
    entered: _Word = None

    def __post_init__(self) -> None:
        if self.check == WRITTEN and not self.stage:
            raise OutOfRangeError("a written result says of which stage it is", field="stage")
        if self.check in _READ_CHECKS:
            _refuse_check("what is judged is one of", _JUDGED_CHECKS)
        known = CHECKS.get(self.check)
        can_be = (*DAMAGE, *PASS_FAIL) if known and known.result == "damage" else PASS_FAIL
        if (known or self.check == WRITTEN) and self.outcome not in can_be:
            raise OutOfRangeError(
                f"an outcome is {', '.join(can_be[:-1])} or {can_be[-1]}",
                field="outcome",
                value=self.outcome,
            )
        if self.entered is not None:
            worded = outcome_of(self.check, self.entered)
            if worded is None or worded != outcome_of(self.check, self.outcome):
                raise OutOfRangeError("the file's own wording says otherwise", field="entered")


@dataclass(frozen=True, kw_only=True)
class Note:
    """A remark of the tester."""

    text: Annotated[str, Text("text", needed="the note is empty")]


@dataclass(frozen=True, kw_only=True)
class Pause:
    """A break began."""


@dataclass(frozen=True, kw_only=True)
class Resume:
    """The break is over."""


@dataclass(frozen=True, kw_only=True)
class CheckPlanned:
    """What the tester was told to check next: at which count, how often, and why."""

    next_count: Annotated[float, Number("count")]
    readings: Annotated[float, Number("readings_at_once")]
    why: Annotated[str, Text("text")] = ""
    stage: _Word = None
    band: Annotated[tuple[float, float] | None, Pair(Number("count"), Number("count"))] = None
    check: _Check = "force"


@dataclass(frozen=True, kw_only=True)
class StageLost:
    """A stage was declared lost at a count; without one, not lost after all."""

    stage: Annotated[str, Text(needed="name the stage")]
    count: Annotated[float | None, Number("count")] = None


@dataclass(frozen=True, kw_only=True)
class Strike:
    """An event is struck out with a reason: it stays to be seen and takes part in nothing."""

    target: _Target
    reason: Annotated[
        str, Text("text", needed="give a reason to exclude a reading: it stays in the record")
    ]


@dataclass(frozen=True, kw_only=True)
class Correction:
    """Fields of an earlier event become something else; without `becomes` it is taken back."""

    target: _Target
    becomes: Annotated[Mapping[str, object] | None, ChangedFields()] = None


@dataclass(frozen=True, kw_only=True)
class Stop(_ImportedFields):
    """The run is over: by its rule, the tester, or with the rows of its file."""

    by: _Word = "tester"
    reason: Annotated[str, Text("text")] = ""


@dataclass(frozen=True, kw_only=True)
class Abandon:
    """The run is given up and takes part in nothing."""

    reason: Annotated[
        str, Text("text", needed="give a reason to abandon a run: it stays in the record")
    ]


@dataclass(frozen=True, kw_only=True)
class Spoiled:
    """The last cut struck what it should not have; it counts all the same."""

    cause: Annotated[str, Choice(SPOILED_BY, "a cut is spoiled by one of")] = ""


@dataclass(frozen=True, kw_only=True)
class TakeOver:
    """This device holds the count from here on."""


@dataclass(frozen=True, kw_only=True)
class Accept:
    """Cuts of other devices that count after all."""

    targets: Annotated[tuple[str, ...], Ids("name the cuts to accept")]


@dataclass(frozen=True, kw_only=True)
class Strop(_ImportedFields):
    """The ended edge was stropped; readings of it have the stage `strop`."""

    strokes: Annotated[float, Number("strokes")]


@dataclass(frozen=True)
class NotUnderstood:
    """An event of the log that cannot be read: shown as such, in no sum, and can be excluded."""

    kind: str
    raw: str
    why: str


Payload = (
    Start | Cut | Reading | Outcome | Note | Pause | Resume | CheckPlanned | StageLost
    | Strike | Correction | Stop | Abandon | Spoiled | TakeOver | Accept | Strop
)  # fmt: skip  # words of a list, several a line
CLASSES: Mapping[str, type[Payload]] = {
    "start": Start, "cut": Cut, "reading": Reading, "outcome": Outcome, "note": Note,
    "pause": Pause,
    "resume": Resume, "check_planned": CheckPlanned, "stage": StageLost, "strike": Strike,
    "correction": Correction, "stop": Stop, "abandon": Abandon, "spoiled": Spoiled,
    "takeover": TakeOver, "accept": Accept, "strop": Strop,
}  # fmt: skip  # words of a list, several a line
EVENT_KINDS: tuple[str, ...] = get_args(EventKind)
SENT_KINDS = tuple(kind for kind in EVENT_KINDS if kind not in SERVER_KINDS)
_KINDS = {made: kind for kind, made in CLASSES.items()}


@dataclass(frozen=True)
class BenchEvent:
    """One event. `count_at` is the count shown when it was made; `last_seen_position` the log its
    device had seen.
    """

    id: str
    payload: Payload | NotUnderstood
    device: str
    device_sequence: int
    last_seen_position: int
    count_at: float
    client_time: str
    position: int = 0

    @property
    def kind(self) -> str:
        return (
            self.payload.kind
            if isinstance(self.payload, NotUnderstood)
            else _KINDS[type(self.payload)]
        )


def read_payload(kind: str, payload: Mapping[str, Any], *, strict: bool = True) -> Payload:
    """An event's content as its class; OutOfRangeError names the field and says what would be
    right.

    Strictly, a field that the class does not know is refused; an old log may hold such fields,
    which say nothing.
    """
    made = CLASSES.get(kind)
    if made is None:
        raise OutOfRangeError(
            f"there is no event of the kind {kind[:40]!r}", field="kind", value=kind[:40]
        )
    known = entries_of(made)
    if strict:
        for name in payload:
            if name not in known:
                message = f"{kind}: it holds no {name[:40]!r}; it holds {_listed(known)}"
                raise OutOfRangeError(message, field=name[:40].strip() or "payload")
    values: dict[str, Any] = {}
    for name, (entry, needed) in known.items():
        value = payload.get(name)
        if value is not None and (value != "" or needed):
            values[name] = entry.read(name, value)
        elif needed:
            entry.read(name, None)
    return made(**values)


def check_shows(payload: Reading | Outcome, row: CheckKind) -> None:
    """Refuse what a check of the tester's own cannot show; OutOfRangeError names the field. The
    others are held to their rows when the event is made.
    """
    if not row.is_own:
        return
    if isinstance(payload, Reading):
        if row.is_judged:
            raise OutOfRangeError(f"“{row.name}” is no number", field="check")
        if payload.unit and payload.unit != row.unit:
            message = f"“{row.name}” is read in {row.unit or 'no unit'}, not in {payload.unit}"
            raise OutOfRangeError(message, field="unit", value=payload.unit)
        return
    words = [word.key for word in row.outcomes]
    if payload.outcome not in words:
        message = f"“{row.name}” shows " + (f"one of {', '.join(words)}" if words else "a number")
        raise OutOfRangeError(message, field="outcome", value=payload.outcome)


def read_logged(kind: str, payload: object, raw: str) -> Payload | NotUnderstood:
    """The content of an event of the log, or why it cannot be read."""
    if not isinstance(payload, Mapping):
        return NotUnderstood(kind, raw, "it holds no fields")
    try:
        return read_payload(kind, payload, strict=False)
    except KessikError as wrong:
        return NotUnderstood(kind, raw, wrong.message)


def corrected(said: Payload, becomes: Mapping[str, object]) -> Payload:
    """An event's content with some fields changed; OutOfRangeError where the result cannot be.

    A file's own wording of a value goes with the value that it worded. The count is the event's and
    not its content's: `corrected_count` reads it.
    """
    changed = {name: value for name, value in becomes.items() if name != COUNT_AT}
    if not changed:
        return said
    fresh = dict(plain_fields(said))
    if {"value", "unit", "outcome", "check"} & set(changed):
        fresh.pop("entered", None)
    return read_payload(_KINDS[type(said)], {**fresh, **changed})


def corrected_count(becomes: Mapping[str, object]) -> float | None:
    """The count that an entry belongs to after a correction, where it names one."""
    if becomes.get(COUNT_AT) is None:
        return None
    count = Number("count").read(COUNT_AT, becomes[COUNT_AT])
    check_count_at(count)
    return float(count)


def plain_fields(said: Payload) -> dict[str, Any]:
    """What an event says as plain values by name, empty fields left out: as it is stored and
    sent.
    """
    found = {}
    for name in entries_of(type(said)):
        value = getattr(said, name)
        if value is not None and value != "":
            found[name] = list(value) if isinstance(value, tuple) else value
    return found


def check_count_at(count: float) -> None:
    """The count an event was made at can be: nothing cut, or the least that can be cut."""
    check_limit("count", count, "count_at")
    least = LIMITS["amount"].least
    if 0 < count < least:
        raise OutOfRangeError(f"a count is 0, or {least:g} at least", field="count_at", value=count)


def entries_of(made: type[Payload]) -> Mapping[str, tuple[Entry, bool]]:
    """The fields of an event class: how each is read, and whether it must be there."""
    return _ENTRIES[made]


def _entries(made: type[Payload]) -> Mapping[str, tuple[Entry, bool]]:
    hints = get_type_hints(made, include_extras=True)
    return {
        field.name: (hints[field.name].__metadata__[0], field.default is MISSING)
        for field in fields(made)
    }


_ENTRIES = {made: _entries(made) for made in CLASSES.values()}


def schema_of(made: type[Payload]) -> Schema:
    """The JSON Schema of what an event of this class holds."""
    known = entries_of(made)
    needed = [name for name, (_, is_needed) in known.items() if is_needed]
    open_to = {name: entry.schema() for name, (entry, _) in known.items()}
    for name, (_, is_needed) in known.items():
        if not is_needed:
            open_to[name] = {"anyOf": [open_to[name], {"type": "null"}]}
    found: Schema = {"type": "object", "properties": open_to, "additionalProperties": False}
    return {**found, "required": needed} if needed else found


def _refuse_check(words: str, known: tuple[str, ...]) -> NoReturn:
    raise OutOfRangeError(f"{words} {', '.join(known)}", field="check")


def _listed(known: Mapping[str, object]) -> str:
    return ", ".join(known) if known else "nothing"
