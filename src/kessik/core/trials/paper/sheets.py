"""A sheet of results read by its columns: the lines it makes, and the values that change by it."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from typing import Literal

from kessik.core.facts import Provenance
from kessik.core.protocols.methods import Method
from kessik.core.trials.paper.columns import CHECK_EVERY, LENGTH, ROUND, TOTAL, ZONE, paper_columns
from kessik.core.trials.paper.heads import (
    ANGLE,
    AS_NOTE,
    BLADE_COLUMN,
    CHECK,
    COUNT,
    FACTS,
    FIRST_FAIL,
    HARDNESS,
    LAST_PASS,
    LEFT_OUT,
    READING,
    STAGE,
    STEEL,
    STOPPED,
    Rows,
    heads_of,
)
from kessik.core.trials.paper.lines import PaperLine
from kessik.core.units import MM_PER_LENGTH, force_to_gf

ForceUnit = Literal["gf", "N"]
AngleIs = Literal["side", "included"]
SheetStatus = Literal["new", "there", "faulty"]
BladeKnown = Literal["in_trial", "on_shelf", "archived", "new"]
OnThere = Literal["skip", "replace"]
Shape = Literal["run", "check", "wide"]
Change = Literal["unit", "halved", "decimal"]
_NUMBER = re.compile(r"\d[\d.,'\u00a0\u2009 ]*\d|\d")
_PLACED = re.compile(r"\s*(?:@|\bat\b).*$", re.IGNORECASE)
_LENGTHS_MM = (ZONE, LENGTH)


@dataclass(frozen=True)
class SheetReading:
    """How a sheet is read: a row a run, a row a check, or a column a blade (`wide`); the rows its
    heads take, the role of every column, its units and decimal sign. `units` are those of single
    columns, by place, where one is not the sheet's.
    """

    shape: Shape
    head_rows: int
    roles: tuple[str, ...]
    count_unit: str
    force_unit: ForceUnit = "gf"
    decimal_comma: bool = False
    angle_is: AngleIs = "side"
    check_every: str = ""
    units: tuple[str, ...] = ()
    hardness_standing: Provenance = "measured_elsewhere"
    angle_standing: Provenance = "measured_elsewhere"

    def unit_at(self, place: int) -> str:
        """The unit that a column has of its own; empty where it is the sheet's."""
        return self.units[place] if place < len(self.units) else ""


@dataclass(frozen=True)
class SheetBladeFacts:
    """What a row of a sheet says of its blade and edge: empty where it says nothing."""

    steel: str = ""
    hardness_hrc: str = ""
    side_angle_deg: str = ""


@dataclass(frozen=True)
class SheetLine:
    """A run that rows of a sheet tell: the line it makes, the rows of its readings, and what they
    say of its blade.
    """

    row: int
    line: PaperLine
    rows: tuple[int, ...]
    facts: SheetBladeFacts


@dataclass(frozen=True)
class ValueChange:
    """A column whose values become others on reading: why, and its first cell before and after."""

    place: int
    why: Change
    before: str
    after: str


def is_force(role: str) -> bool:
    """Whether a column holds forces."""
    return role.endswith("_gf") or role == READING


def is_count(role: str, method: Method) -> bool:
    """Whether a column holds counts, in the unit of the method."""
    return role in _count_roles(method)


@lru_cache(maxsize=32)
def _count_roles(method: Method) -> frozenset[str]:
    always = (COUNT, CHECK_EVERY, LAST_PASS, FIRST_FAIL, STOPPED, TOTAL)
    own = (c.key for c in paper_columns(method) if c.unit == method.count_unit)
    return frozenset((*always, *own))


Numbered = Sequence[tuple[int, Sequence[str]]]


def lines_of(rows: Rows, reading: SheetReading, method: Method) -> Iterator[SheetLine]:
    """The runs of a sheet; `id` of each is its place in it."""
    body = [(n, row) for n, row in enumerate(rows, 1) if n > reading.head_rows and any(row)]
    sheet = _Sheet(heads_of(rows, reading.head_rows), reading, method)
    if reading.shape == "check":
        yield from _by_check(body, sheet)
    elif reading.shape == "wide":
        yield from _by_column(body, sheet)
    elif STAGE in reading.roles:
        yield from _by_stage(body, sheet)
    else:
        for number, row in body:
            line = PaperLine(str(number), sheet.cells_of(row), rounding=sheet.rounding_of(row))
            yield SheetLine(number, line, (), sheet.facts_of(row))


def changes_of(rows: Rows, reading: SheetReading, method: Method) -> list[ValueChange]:
    """Every column whose values a guess changes, with an example from the sheet."""
    sheet = _Sheet(heads_of(rows, reading.head_rows), reading, method)
    found = []
    for place, role in enumerate(reading.roles):
        cells = [row[place].strip() for row in rows[reading.head_rows :] if place < len(row)]
        told = next((each for cell in cells if (each := sheet.change(place, role, cell))), None)
        found += [told] if told is not None else []
    return found


@dataclass(frozen=True)
class _Sheet:
    """A sheet as its cells are read."""

    heads: Sequence[str]
    reading: SheetReading
    method: Method

    def cell(self, row: Sequence[str], role: str) -> str:
        roles = self.reading.roles
        return _at(row, roles.index(role)) if role in roles else ""

    def value(self, row: Sequence[str], role: str) -> str:
        """A cell with its numbers as Kessik takes them."""
        roles = self.reading.roles
        return self.read(roles.index(role), role, self.cell(row, role)) if role in roles else ""

    def read(self, place: int, role: str, text: str) -> str:
        """A cell of a column in the unit of the method, forces in gf, angles a side."""
        if not text:
            return ""
        factor = self._factor(place, role)
        if is_force(role) or role.startswith("control_"):
            placed = _PLACED.search(text)
            value = text[: placed.start()] if placed else text
            rest = self._plain(placed[0]) if placed else ""
            return self._plain(value, factor) + rest
        if factor != 1.0 or is_count(role, self.method) or role in (*_LENGTHS_MM, *FACTS[1:]):
            return self._plain(text, factor)
        if role in (BLADE_COLUMN, "minutes"):
            return self._plain(text, self._factor(place, READING))
        return text

    def change(self, place: int, role: str, text: str) -> ValueChange | None:
        """What becomes of a cell where its numbers become others; None where they stay."""
        if role in (LEFT_OUT, AS_NOTE, "note", "blade", STEEL):
            return None
        after = self.read(place, role, text)
        if not after or after == text or not _NUMBER.search(text):
            return None
        if self._factor(place, role) != 1.0:
            return ValueChange(place, "halved" if role == ANGLE else "unit", text, after)
        is_decimal = self.reading.decimal_comma and ("," in text or "." in text)
        return ValueChange(place, "decimal", text, after) if is_decimal else None

    def _factor(self, place: int, role: str) -> float:
        own = self.reading.unit_at(place)
        if role == ANGLE:
            return 0.5 if self.reading.angle_is == "included" else 1.0
        if is_force(role) or role == BLADE_COLUMN:
            is_newton = (own or self.reading.force_unit) == "N"
            return force_to_gf(1.0, "N") if is_newton else 1.0
        if role in _LENGTHS_MM:
            return MM_PER_LENGTH.get(own, 1.0)
        if not is_count(role, self.method):
            return 1.0
        from_unit, to_unit = own or self.reading.count_unit, self.method.count_unit
        if from_unit == to_unit or from_unit not in MM_PER_LENGTH or to_unit not in MM_PER_LENGTH:
            return 1.0
        return MM_PER_LENGTH[from_unit] / MM_PER_LENGTH[to_unit]

    def _plain(self, text: str, factor: float = 1.0) -> str:
        """Numbers of a cell with a point, times a factor; what is no number stays as it was."""

        def one(found: re.Match[str]) -> str:
            bare = re.sub(r"['\u00a0\u2009 ]", "", found[0])
            if self.reading.decimal_comma:
                bare = bare.replace(".", "").replace(",", ".")
            elif re.fullmatch(r"\d{1,3}(,\d{3})+(\.\d+)?", bare):
                bare = bare.replace(",", "")
            try:
                return f"{float(bare) * factor:.{10 if factor == 1.0 else 6}g}"
            except ValueError:
                return found[0]

        if re.match(r"\d{4}-\d{2}-\d{2}", text):
            return text
        return _NUMBER.sub(one, text)

    def rounding_of(self, row: Sequence[str]) -> float:
        """Half a last digit of every count that becomes one of another unit, added up."""
        mark = "," if self.reading.decimal_comma else "."
        off = 0.0
        for place, role in enumerate(self.reading.roles):
            factor = self._factor(place, role) if is_count(role, self.method) else 1.0
            found = _NUMBER.search(_at(row, place))
            if factor != 1.0 and found:
                decimals = len(found[0].partition(mark)[2])
                off += 0.5 * factor * 10.0**-decimals
        return off

    def facts_of(self, row: Sequence[str]) -> SheetBladeFacts:
        return SheetBladeFacts(
            self.cell(row, STEEL), self.value(row, HARDNESS), self.value(row, ANGLE)
        )

    def cells_of(self, row: Sequence[str]) -> dict[str, str]:
        """The cells of a line."""
        cells: dict[str, str] = {}
        notes = []
        for place, role in enumerate(self.reading.roles):
            text = _at(row, place)
            if not text or role in (LEFT_OUT, COUNT, READING, CHECK, BLADE_COLUMN, *FACTS):
                continue
            if role == AS_NOTE:
                head = self.heads[place] if place < len(self.heads) else ""
                notes.append(f"{head}: {text}" if head else text)
            else:
                cells[role] = self.read(place, role, text)
        self._give_to_stages(cells)
        if not cells.get(CHECK_EVERY) and self.reading.check_every:
            cells[CHECK_EVERY] = self.reading.check_every
        if notes:
            cells["note"] = "; ".join(part for part in (cells.get("note", ""), *notes) if part)
        return cells

    def _give_to_stages(self, cells: dict[str, str]) -> None:
        """Last pass and first fail are the bracket of the stage that is named, else of the one that
        ends a run; where it stopped is the life of that stage.
        """
        held, gone = cells.pop(LAST_PASS, ""), cells.pop(FIRST_FAIL, "")
        stopped, named = cells.pop(STOPPED, ""), cells.pop(STAGE, "").casefold()
        stages = {stage.name.casefold(): stage.name for stage in self.method.stages}
        last = self.method.stages[-1].name if self.method.stages else ""
        stage = stages.get(named, named) or last
        if not stage or cells.get(stage):
            return
        if held or gone:
            cells[stage] = f"{held}-{gone}" if held and gone else gone or f">{held}"
        elif stopped:
            cells[stage] = stopped


def _by_stage(body: Numbered, sheet: _Sheet) -> Iterator[SheetLine]:
    """Rows of one edge that each tell the stop of one stage are one line."""
    groups: dict[tuple[str, ...], list[tuple[int, Sequence[str]]]] = {}
    for number, row in body:
        key = tuple(sheet.cell(row, role) for role in ("blade", "edge", ROUND, ZONE))
        groups.setdefault(key, []).append((number, row))
    for own in groups.values():
        cells: dict[str, str] = {}
        for _, row in own:
            cells = {**sheet.cells_of(row), **cells}
        number, first = own[0]
        yield SheetLine(number, PaperLine(str(number), cells), (), sheet.facts_of(first))


def _by_check(body: Numbered, sheet: _Sheet) -> Iterator[SheetLine]:
    groups: dict[tuple[str, ...], list[tuple[int, Sequence[str]]]] = {}
    for number, row in body:
        key = (
            sheet.cell(row, "blade"),
            sheet.cell(row, "edge") or "1",
            sheet.cell(row, ROUND),
            sheet.cell(row, ZONE),
        )
        groups.setdefault(key, []).append((number, row))
    for (_, edge, *_rest), own in groups.items():
        first_number, first = own[0]
        looks = [
            " ".join(part for part in (sheet.value(row, COUNT), sheet.value(row, READING),
                     sheet.cell(row, CHECK)) if part)
            for _, row in own
        ]  # fmt: skip  # a look a line
        cells = {**sheet.cells_of(first), "edge": edge}
        line = PaperLine(str(first_number), cells, "\n".join(looks))
        yield SheetLine(first_number, line, tuple(n for n, _ in own), sheet.facts_of(first))


def _by_column(body: Numbered, sheet: _Sheet) -> Iterator[SheetLine]:
    for place, role in enumerate(sheet.reading.roles):
        if role != BLADE_COLUMN:
            continue
        own = [(n, row) for n, row in body if _at(row, place)]
        looks = [
            f"{sheet.value(row, COUNT)} {sheet.read(place, READING, _at(row, place))}"
            for _, row in own
        ]
        head = sheet.heads[place] if place < len(sheet.heads) else ""
        cells = {
            "blade": re.sub(r"\(.*?\)", "", head).strip(),
            CHECK_EVERY: sheet.reading.check_every,
        }
        first = own[0][0] if own else sheet.reading.head_rows
        line = PaperLine(f"c{place}", cells, "\n".join(looks))
        yield SheetLine(first, line, tuple(n for n, _ in own), SheetBladeFacts())


def _at(row: Sequence[str], place: int) -> str:
    return row[place].strip() if place < len(row) else ""
