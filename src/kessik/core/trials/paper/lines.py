"""One line of a paper record as a run: which edge, and its log."""

import re
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import TypeVar

from kessik.core.errors import KessikError, OutOfRangeError
from kessik.core.limits import check_limit
from kessik.core.protocols.events import (
    Outcome,
    Reading,
    Said,
    check_count_at,
)
from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import WRITTEN
from kessik.core.trials.paper.cells import Written, life_in, number_in, whole_in
from kessik.core.trials.paper.columns import (
    CHECK_EVERY,
    CUT,
    EFFORT,
    END,
    START,
    TOTAL,
    PaperColumn,
    adds_up,
    result_columns,
)
from kessik.core.trials.paper.readings import READINGS, tally

_ROUNDING = 1e-6
_VERIFIES = re.compile(r"(?:edge\s*)?(\d{1,6})(?:\s*/\s*(?:run\s*)?(\d{1,6}))?", re.IGNORECASE)
_T = TypeVar("_T")


@dataclass(frozen=True)
class PaperLine:
    """A line as it was written, by column key; `readings` a tally where there is one."""

    id: str
    cells: Mapping[str, str]
    readings: str = ""

    def text(self, key: str) -> str:
        return self.cells.get(key, "").strip()


@dataclass(frozen=True)
class PaperRun:
    """A run that was read: the blade or arm it names, its edge, and what its log says at which
    count.
    """

    id: str
    blade: str
    edge: int
    log: tuple[tuple[float, Said], ...]
    check_every: float | None = None
    block: int | None = None
    verifies: tuple[int, int] | None = None
    note: str = ""


@dataclass(frozen=True)
class Slip:
    """What cannot be in a line: at which column, and what would be right."""

    key: str
    message: str


def read_lines(
    lines: Iterable[PaperLine], method: Method
) -> Iterator[tuple[PaperRun | None, list[Slip]]]:
    """Each line as a run, or every slip in it."""
    columns = result_columns(method)
    for line in lines:
        yield _read(line, method, columns)


def _read(
    line: PaperLine, method: Method, columns: Sequence[PaperColumn]
) -> tuple[PaperRun | None, list[Slip]]:
    slips: list[Slip] = []

    def cell(read: Callable[[str, str], _T], key: str) -> _T | None:
        try:
            return read(line.text(key), key)
        except KessikError as wrong:
            slips.append(Slip(key, wrong.message))
            return None

    blade, edge = line.text("blade"), cell(whole_in, "edge")
    if not blade:
        slips.append(Slip("blade", "name the blade"))
    every, block = cell(number_in, CHECK_EVERY), cell(whole_in, "block")
    if every == 0:
        slips.append(Slip(CHECK_EVERY, "a gap of 0 is none; leave it empty where it is not known"))
    verifies = cell(_verified, "verifies")
    results = {
        column.key: cell(life_in if column.kind == "life" else number_in, column.key)
        for column in columns
    }
    looks = None
    if line.readings:
        looks = cell(lambda _text, _key: tally(line.readings, method), READINGS)
    if slips:
        return None, slips
    try:
        log = [*_written(results, method, every), *(looks or ())]
        if not log:
            raise OutOfRangeError("this line holds no result yet", field=_first(method))
        for count, _ in log:
            check_count_at(count)
    except KessikError as wrong:
        return None, [Slip(wrong.field or _first(method), wrong.message)]
    in_order = tuple(sorted(log, key=lambda look: look[0]))
    found = PaperRun(line.id, blade, edge or 1, in_order, every, block, verifies, line.text("note"))
    return found, []


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
    results: Mapping[str, object], method: Method, every: float | None
) -> Iterator[tuple[float, Said]]:
    """What the cells of a line say, at its counts."""
    written = {k: v for k, v in results.items() if isinstance(v, Written)}
    lives = _lives(written, method, every)
    _check_order(lives)
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


def _start_and_end(
    numbers: Mapping[str, float], lives: Mapping[str, Written], method: Method
) -> Iterator[tuple[float, Said]]:
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


def _lives(
    written: Mapping[str, Written], method: Method, every: float | None
) -> dict[str, Written]:
    """The life at every stage from the first cut on; a length that begins inside a bracket is as
    wide as both.
    """
    if not adds_up(method):
        return dict(written)
    first, second = method.stages[0].name, method.stages[1].name
    total, fine, working = (written.get(key) for key in (TOTAL, first, second))
    found = {first: fine} if fine else {}
    if fine and working:
        if fine.held is not None and working.held is None and working.gone and every:
            working = Written(max(working.gone - every, 0.0), working.gone)
        whole = working.after(fine)
        _check_total(total, whole, (first, fine), (second, working))
        return {**found, second: total or whole}
    if working and not fine and not total:
        raise OutOfRangeError(
            f"{second} is the length after {first} was gone: write {first}, too, or the total",
            field=second,
        )
    if total and fine and total.latest < fine.latest - _ROUNDING:
        raise OutOfRangeError(
            f"the total, {total.latest:g}, is smaller than its part {first}, {fine.latest:g}",
            field=TOTAL,
        )
    if total and working and working.latest > total.latest + _ROUNDING:
        raise OutOfRangeError(
            f"the total, {total.latest:g}, is smaller than its part {second}, {working.latest:g}",
            field=TOTAL,
        )
    if total and working and working.gone and total.gone:
        found[first] = Written(None, total.gone - working.gone)
    return {**found, second: total} if total else found


def _check_total(
    total: Written | None, whole: Written, first: tuple[str, Written], second: tuple[str, Written]
) -> None:
    if total is None or abs(total.latest - whole.latest) <= _ROUNDING * max(whole.latest, 1.0):
        return
    parts = f"{first[0]} {first[1].latest:g} and {second[0]} {second[1].latest:g}"
    raise OutOfRangeError(
        f"{parts} make {whole.latest:g}, and the total says {total.latest:g}: one of the three is"
        " a slip",
        field=TOTAL,
    )


def _check_order(lives: Mapping[str, Written]) -> None:
    """Stages are lost in their order."""
    told: Sequence[tuple[str, Written]] = list(lives.items())
    for (earlier, one), (later, other) in pairwise(told):
        sooner = one.held if one.held is not None else one.gone
        if other.gone is not None and sooner is not None and other.gone < sooner - _ROUNDING:
            raise OutOfRangeError(
                f"{later} is gone at {other.gone:g}, before {earlier} at {sooner:g}: an edge loses"
                f" {earlier} first",
                field=later,
            )
