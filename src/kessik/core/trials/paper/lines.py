"""One line of a paper record as a run: which edge, and its log."""

import re
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from typing import TypeVar

from kessik.core.errors import KessikError, OutOfRangeError
from kessik.core.limits import check_limit
from kessik.core.protocols.checks import PASS_FAIL, CheckKind
from kessik.core.protocols.events import Outcome, Payload, Reading, check_count_at
from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import WRITTEN
from kessik.core.trials.paper.cells import (
    WrittenLife,
    edge_in,
    life_in,
    number_in,
    placed_in,
    whole_in,
    zone_in,
)
from kessik.core.trials.paper.columns import (
    AFTER,
    CHECK_EVERY,
    CONTROL,
    CUT,
    EFFORT,
    END,
    LENGTH,
    MINUTES,
    ROUND,
    START,
    STROKES,
    ZONE,
    PaperColumn,
    result_columns,
)
from kessik.core.trials.paper.lives import check_gap, check_order, lives_of
from kessik.core.trials.paper.readings import READINGS, or_list, outcome_in, tally

_VERIFIES = re.compile(r"(?:edge\s*)?(\d{1,6})(?:\s*/\s*(?:run\s*)?(\d{1,6}))?", re.IGNORECASE)
_T = TypeVar("_T")


@dataclass(frozen=True)
class PaperLine:
    """A line as it was written, by column key; `readings` a tally where there is one, `rounding`
    how far counts that were written in another unit may be off, in the unit of the method.
    """

    id: str
    cells: Mapping[str, str]
    readings: str = ""
    rounding: float = 0.0

    def text(self, key: str) -> str:
        return self.cells.get(key, "").strip()


@dataclass(frozen=True)
class PaperRun:
    """A run that was read: the blade or arm it names, its edge (None for the next one; `is_least`
    where its history is not known), where on it, and what its log says at which count.
    """

    id: str
    blade: str
    edge: int | None
    log: tuple[tuple[float, Payload], ...]
    is_least: bool = False
    check_every: float | None = None
    block: int | None = None
    round: int | None = None
    zone_mm: tuple[float, float] | None = None
    length_mm: float | None = None
    strokes: int | None = None
    minutes: float | None = None
    verifies: tuple[int, int] | None = None
    note: str = ""


@dataclass(frozen=True)
class EntryError:
    """What cannot be in a line: at which column, and what would be right."""

    key: str
    message: str


def read_lines(
    lines: Iterable[PaperLine], method: Method, every: float | None = None
) -> Iterator[tuple[PaperRun | None, list[EntryError]]]:
    """Each line as a run, or every slip in it; `every` is the gap of the checks of those that say
    none of their own.
    """
    columns = result_columns(method)
    for line in lines:
        yield _read(line, method, columns, every)


def needs_gap(line: PaperLine, method: Method) -> bool:
    """Whether a line holds a total without the gap of its checks, which then is asked for."""
    if line.text(CHECK_EVERY):
        return False
    keys = [column.key for column in result_columns(method) if column.kind == "life"]
    return any(_is_bare(line.text(key), key) for key in keys)


def _is_bare(text: str, key: str) -> bool:
    try:
        life = life_in(text, key)
    except KessikError:
        return False
    return life is not None and life.held is None


@dataclass
class _Cells:
    """The cells of a line as they are read, with the slips in them."""

    line: PaperLine
    slips: list[EntryError] = field(default_factory=list)

    def read(self, how: Callable[[str, str], _T], key: str) -> _T | None:
        try:
            return how(self.line.text(key), key)
        except KessikError as wrong:
            self.slips.append(EntryError(key, wrong.message))
            return None

    def within(self, limit: str, key: str) -> float | None:
        """A number that holds to the table of limits."""

        def how(text: str, key: str) -> float | None:
            found = number_in(text, key)
            if found is not None:
                check_limit(limit, found, key)
            return found

        return self.read(how, key)


def _read(
    line: PaperLine, method: Method, columns: Sequence[PaperColumn], every: float | None
) -> tuple[PaperRun | None, list[EntryError]]:
    cells = _Cells(line)
    blade, edge = line.text("blade"), cells.read(edge_in, "edge")
    if not blade:
        cells.slips.append(EntryError("blade", "name the blade"))
    own = cells.read(number_in, CHECK_EVERY)
    if own == 0:
        told = "a gap of 0 is none; leave it empty where it is not known"
        cells.slips.append(EntryError(CHECK_EVERY, told))
    gap = own if own is not None else every
    number, is_least = edge or (None, False)
    found = PaperRun(
        line.id,
        blade,
        number,
        _log(cells, method, columns, gap),
        is_least=is_least,
        check_every=gap,
        block=cells.read(whole_in, "block"),
        round=cells.read(whole_in, ROUND),
        zone_mm=cells.read(zone_in, ZONE),
        length_mm=cells.within("position_mm", LENGTH),
        strokes=cells.read(whole_in, STROKES),
        minutes=cells.within("minutes", MINUTES),
        verifies=cells.read(_verified, "verifies"),
        note=line.text("note"),
    )
    return (None, cells.slips) if cells.slips else (found, [])


def _log(
    cells: _Cells, method: Method, columns: Sequence[PaperColumn], every: float | None
) -> tuple[tuple[float, Payload], ...]:
    """What a line says at which count, in order; nothing where a cell of it cannot be."""
    line = cells.line
    results = {column.key: cells.read(_reader(column), column.key) for column in columns}
    looks = None
    if line.readings:
        looks = cells.read(lambda _text, _key: tally(line.readings, method), READINGS)
    if cells.slips:
        return ()
    try:
        log = [*_written(results, line, method, every), *(looks or ())]
        if not log:
            raise OutOfRangeError("this line holds no result yet", field=_first(method))
        for count, _ in log:
            check_count_at(count)
    except KessikError as wrong:
        cells.slips.append(EntryError(wrong.field or _first(method), wrong.message))
        return ()
    return tuple(sorted(log, key=lambda look: look[0]))


def _reader(column: PaperColumn) -> Callable[[str, str], object]:
    readers = {"life": life_in, "number": number_in}
    return readers.get(column.kind, lambda text, _key: text or None)


def _first(method: Method) -> str:
    return next((column.key for column in result_columns(method)), READINGS)


def _verified(text: str, key: str) -> tuple[int, int] | None:
    if not text:
        return None
    found = _VERIFIES.fullmatch(text)
    if found is None:
        raise OutOfRangeError(
            f"“{text[:40]}” names no edge; write 3, or 3/2 for its second run", field=key
        )
    return int(found[1]), int(found[2] or 1)


def _written(
    results: Mapping[str, object], line: PaperLine, method: Method, every: float | None
) -> Iterator[tuple[float, Payload]]:
    """What the cells of a line say, at its counts."""
    written = {k: v for k, v in results.items() if isinstance(v, WrittenLife)}
    lives = lives_of(written, method, every, line.rounding)
    check_order(lives)
    check_gap(lives, every)
    for name, life in lives.items():
        if life.held:
            yield life.held, Outcome(check=WRITTEN, outcome="pass", stage=name)
        if life.gone is not None:
            yield life.gone, Outcome(check=WRITTEN, outcome="fail", stage=name)
    numbers = {k: float(v) for k, v in results.items() if isinstance(v, float)}
    for key, value in numbers.items():
        if key.startswith(EFFORT):
            check_limit("effort", value, key)
            yield float(key.removeprefix(EFFORT)), Reading(value=value, check="effort")
    yield from _start_and_end(numbers, lives, method)
    yield from _after_dose(results, line, method, numbers.get(CUT, method.dose or 0.0))


def _start_and_end(
    numbers: Mapping[str, float], lives: Mapping[str, WrittenLife], method: Method
) -> Iterator[tuple[float, Payload]]:
    for key in (START, END):
        if key in numbers:
            check_limit("force_gf", numbers[key], key)
    if START in numbers:
        yield 0.0, Reading(value=numbers[START], check="force", unit="gf")
    if END in numbers:
        last = max((life.latest for life in lives.values()), default=None)
        at = numbers.get(CUT, last if last is not None else method.dose)
        if not at:
            raise OutOfRangeError("say how much was cut before the end reading", field=CUT)
        yield at, Reading(value=numbers[END], check="force", unit="gf")


def _after_dose(
    results: Mapping[str, object], line: PaperLine, method: Method, at: float
) -> Iterator[tuple[float, Payload]]:
    """What the checks after a dose showed, in the worked zone and beside it."""
    for key, text in results.items():
        if not isinstance(text, str) or not key.startswith((AFTER, CONTROL)):
            continue
        said, place = placed_in(text, key)
        if key.startswith(CONTROL):
            place = _beside(place, line, key)
        kind = key.removeprefix(AFTER).removeprefix(CONTROL)
        tries = method.readings(kind) if key.startswith(AFTER) else 1
        yield from [(at, _shown(method.row(kind), said, place, key))] * tries


def _beside(place: float | None, line: PaperLine, key: str) -> float:
    """The place of a control: it is told from the zone that was cut."""
    zone = zone_in(line.text(ZONE), ZONE)
    if place is None:
        raise OutOfRangeError("say where it was read: pass at 12, in mm from the heel", field=key)
    if zone is None:
        raise OutOfRangeError("say which zone was cut, so that the rest is a control", field=ZONE)
    if zone[0] <= place <= zone[1]:
        raise OutOfRangeError(
            f"{place:g} mm lies in the zone that was cut, {zone[0]:g} to {zone[1]:g} mm", field=key
        )
    return place


def _shown(row: CheckKind, said: str, place: float | None, key: str) -> Payload:
    if not row.is_judged:
        value = number_in(said, key)
        if value is None:
            raise OutOfRangeError("write the reading and its place: 210 at 12", field=key)
        check_limit(row.reads or "own_reading", value, key)
        return Reading(value=value, check=row.key, unit=row.unit or None, position_mm=place)
    outcome = outcome_in(said, row)
    if outcome is None:
        known = [word.key for word in row.outcomes] if row.result == "scale" else PASS_FAIL
        raise OutOfRangeError(f"“{said[:40]}” is not {or_list(known)}", field=key)
    return Outcome(check=row.key, outcome=outcome, position_mm=place)
