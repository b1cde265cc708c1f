"""A sheet of results read by its columns: what each is guessed to be, and the lines it makes."""

import re
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from kessik.core.protocols.methods import Method
from kessik.core.trials.paper.columns import CHECK_EVERY, TOTAL, PaperColumn, result_columns
from kessik.core.trials.paper.lines import PaperLine

Shape = Literal["run", "check", "wide"]
Rows = Sequence[Sequence[str]]
LEFT_OUT, AS_NOTE, BLADE_COLUMN = "left_out", "as_note", "blade_column"
COUNT, READING, CHECK = "count", "reading", "check"
LAST_PASS, FIRST_FAIL = "last_pass", "first_fail"
FACTS = ("steel", "hardness_hrc", "angle_deg")
_IN_MM = {"mm": 1.0, "m": 1000.0, "in": 25.4, "ft": 304.8}
_NUMBER = re.compile(r"\d[\d.,'\u00a0\u2009 ]*\d|\d")
_SEEN_ROWS = 12

_HEADS: Mapping[str, tuple[str, ...]] = {
    "blade": ("blade", "knife", "knife code", "code", "specimen", "sample", "name", "arm"),
    "steel": ("steel", "grade", "alloy", "material", "designation"),
    "hardness_hrc": ("hardness", "hrc", "rockwell"),
    "angle_deg": ("angle", "side angle", "edge angle", "dps", "included", "°"),
    "edge": ("edge", "edge no", "edge number", "sharpening", "sharpening no"),
    "fine": ("fine", "fine edge", "fine length", "stage 1"),
    "working": ("working", "working edge", "working length", "stage 2", "useful"),
    TOTAL: ("total", "total length", "sum", "all"),
    "keen": ("keen", "to keen", "cuts to keen"),
    "dull": ("dull", "to dull", "cuts to dull", "cuts", "life"),
    "rough": ("rough", "roughness", "first rough"),
    "deformation": ("deformation", "first glint", "glint"),
    "start_gf": ("start", "start reading", "before", "initial", "fresh"),
    "end_gf": ("end", "end reading", "after", "final"),
    "cut": ("cut", "dose", "cuts made"),
    COUNT: ("count", "cuts", "cut no", "feet", "length", "n", "position"),
    READING: ("reading", "force", "gf", "grams", "sharpness", "result", "outcome", "value"),
    CHECK: ("check", "test", "by", "checked by"),
    CHECK_EVERY: ("checked every", "check every", "every", "gap", "interval"),
    LAST_PASS: ("last pass", "last good", "last ok", "still ok"),
    FIRST_FAIL: ("first fail", "first failed", "failed at"),
    "block": ("block", "session", "day no"),
    "verifies": ("verifies", "verification of", "repeat of"),
    "note": ("note", "notes", "remark", "remarks", "comment", "comments"),
}  # fmt: skip  # a table is read by its rows


@dataclass(frozen=True)
class SheetReading:
    """How a sheet is read: a row a run, a row a check, or a column a blade (`wide`); the rows its
    heads take, the role of every column, its units and decimal sign.
    """

    shape: Shape
    head_rows: int
    roles: tuple[str, ...]
    count_unit: str
    force_unit: Literal["gf", "N"] = "gf"
    decimal_comma: bool = False
    angle_is: Literal["side", "included"] = "side"
    check_every: str = ""


@dataclass(frozen=True)
class BladeFacts:
    """What a sheet says of a blade: empty where it says nothing."""

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
    facts: BladeFacts


def roles_for(method: Method) -> list[tuple[str, str]]:
    """Every role a column can have under a method, with its name."""
    results = [(column.key, column.label) for column in result_columns(method)]
    return [
        ("blade", "knife, blade or arm"),
        ("steel", "steel"),
        ("hardness_hrc", "hardness, HRC"),
        ("angle_deg", "edge angle, °"),
        ("edge", "edge number"),
        *results,
        (LAST_PASS, "last pass"),
        (FIRST_FAIL, "first fail"),
        (COUNT, "count of a check"),
        (READING, "reading, or pass and fail"),
        (CHECK, "which check"),
        (BLADE_COLUMN, "readings of the blade in the head"),
        (CHECK_EVERY, "checked every"),
        ("block", "block"),
        ("verifies", "verifies edge"),
        ("note", "note"),
        (AS_NOTE, "kept as a note, with its head"),
        (LEFT_OUT, "left out"),
    ]


def guess(rows: Rows, method: Method) -> SheetReading:
    """What a sheet most likely is, from its heads and first rows."""
    head_rows = _head_rows(rows)
    heads = heads_of(rows, head_rows)
    body = rows[head_rows : head_rows + _SEEN_ROWS]
    known = {role for role, _ in roles_for(method)}
    roles = [_role(head, known) for head in heads]
    shape = _shape(roles, heads, body)
    if shape == "wide":
        roles = _wide_roles(roles, heads, body)
    roles = _without_doubles(roles, shape, known)
    said = " ".join(heads).casefold()
    return SheetReading(
        shape=shape,
        head_rows=head_rows,
        roles=tuple(roles),
        count_unit=_unit_in(said, method),
        force_unit="N" if re.search(r"\bn\b|newton", said) and "gf" not in said else "gf",
        decimal_comma=_has_decimal_commas(body, roles),
        angle_is="included" if re.search(r"incl|total angle", said) else "side",
    )


def guess_school(rows: Rows) -> str:
    """The school whose words the heads use."""
    said = " ".join(heads_of(rows, _head_rows(rows))).casefold()
    if "fine" in said and ("working" in said or "total" in said):
        return "two_stage_board"
    if re.search(r"glint|deformation", said):
        return "push_cut_board"
    if re.search(r"last pass|first fail|rough", said):
        return "paper_stop_rope"
    if re.search(r"\bstart\b|\bbefore\b", said) and re.search(r"\bend\b|\bafter\b", said):
        return "fixed_dose"
    return "force_limit_rope"


def heads_of(rows: Rows, head_rows: int) -> list[str]:
    """The head of every column, over all of its rows."""
    width = max((len(row) for row in rows[: head_rows + _SEEN_ROWS]), default=0)
    return [
        " ".join(part for row in rows[:head_rows] if (part := _at(row, place)))
        for place in range(width)
    ]


def lines_of(rows: Rows, reading: SheetReading, method: Method) -> Iterator[SheetLine]:
    """The runs of a sheet; `id` of each is its place in it."""
    body = [(n, row) for n, row in enumerate(rows, 1) if n > reading.head_rows and any(row)]
    heads = heads_of(rows, reading.head_rows)
    if reading.shape == "run":
        kinds = _kinds(method)
        for number, row in body:
            cells = _cells_of(row, heads, reading, method, kinds)
            yield SheetLine(number, PaperLine(str(number), cells), (), _facts(row, reading))
        return
    tallies = _by_check if reading.shape == "check" else _by_column
    yield from tallies(body, heads, reading, method)


Numbered = Sequence[tuple[int, Sequence[str]]]


def _by_check(
    body: Numbered, heads: Sequence[str], reading: SheetReading, method: Method
) -> Iterator[SheetLine]:
    kinds = _kinds(method)
    groups: dict[tuple[str, str], list[tuple[int, Sequence[str]]]] = {}
    for number, row in body:
        key = (_cell(row, reading, "blade"), _cell(row, reading, "edge") or "1")
        groups.setdefault(key, []).append((number, row))
    for (_, edge), own in groups.items():
        first_number, first = own[0]
        looks = [
            " ".join(
                part
                for part in (
                    _count(_cell(row, reading, COUNT), reading, method),
                    _reading(_cell(row, reading, READING), reading),
                    _cell(row, reading, CHECK),
                )
                if part
            )
            for _, row in own
        ]
        cells = {**_cells_of(first, heads, reading, method, kinds), "edge": edge}
        line = PaperLine(str(first_number), cells, "\n".join(looks))
        yield SheetLine(first_number, line, tuple(n for n, _ in own), _facts(first, reading))


def _by_column(
    body: Numbered, heads: Sequence[str], reading: SheetReading, method: Method
) -> Iterator[SheetLine]:
    for place, role in enumerate(reading.roles):
        if role != BLADE_COLUMN:
            continue
        told = [(n, row) for n, row in body if _at(row, place)]
        looks = [
            f"{_count(_cell(row, reading, COUNT), reading, method)}"
            f" {_reading(_at(row, place), reading)}"
            for _, row in told
        ]
        code = re.sub(r"\(.*?\)", "", heads[place]).strip() if place < len(heads) else ""
        cells = {"blade": code, CHECK_EVERY: reading.check_every}
        first = told[0][0] if told else reading.head_rows
        line = PaperLine(f"c{place}", cells, "\n".join(looks))
        yield SheetLine(first, line, tuple(n for n, _ in told), BladeFacts())


def _kinds(method: Method) -> dict[str, PaperColumn]:
    return {column.key: column for column in result_columns(method)}


def _cells_of(
    row: Sequence[str],
    heads: Sequence[str],
    reading: SheetReading,
    method: Method,
    kinds: Mapping[str, PaperColumn],
) -> dict[str, str]:
    """The cells of a line; lengths in the unit of the method, forces in gf."""
    cells: dict[str, str] = {}
    notes = []
    for place, role in enumerate(reading.roles):
        text = _at(row, place)
        if not text or role in (LEFT_OUT, COUNT, READING, CHECK, BLADE_COLUMN, *FACTS):
            continue
        if role == AS_NOTE:
            head = heads[place] if place < len(heads) else ""
            notes.append(f"{head}: {text}" if head else text)
        elif role in kinds and kinds[role].unit == "gf":
            cells[role] = _reading(text, reading)
        elif role in kinds or role in (CHECK_EVERY, LAST_PASS, FIRST_FAIL):
            is_count = role not in kinds or kinds[role].unit == method.count_unit
            cells[role] = _count(text, reading, method) if is_count else _plain(text, reading)
        else:
            cells[role] = text
    _bracket(cells, method)
    if not cells.get(CHECK_EVERY) and reading.check_every:
        cells[CHECK_EVERY] = reading.check_every
    if notes:
        cells["note"] = "; ".join(part for part in (cells.get("note", ""), *notes) if part)
    return cells


def _bracket(cells: dict[str, str], method: Method) -> None:
    """Last pass and first fail are the bracket of the stage that ends a run."""
    held, gone = cells.pop(LAST_PASS, ""), cells.pop(FIRST_FAIL, "")
    stage = method.stages[-1].name if method.stages else ""
    if stage and not cells.get(stage) and (held or gone):
        cells[stage] = f"{held}-{gone}" if held and gone else gone or f">{held}"


def _facts(row: Sequence[str], reading: SheetReading) -> BladeFacts:
    angle = _plain(_cell(row, reading, "angle_deg"), reading)
    if angle and reading.angle_is == "included":
        angle = _NUMBER.sub(lambda found: f"{float(found[0]) / 2:g}", angle)
    return BladeFacts(
        _cell(row, reading, "steel"),
        _plain(_cell(row, reading, "hardness_hrc"), reading),
        angle,
    )


def _cell(row: Sequence[str], reading: SheetReading, role: str) -> str:
    place = reading.roles.index(role) if role in reading.roles else -1
    return _at(row, place) if place >= 0 else ""


def _at(row: Sequence[str], place: int) -> str:
    return row[place].strip() if place < len(row) else ""


def _plain(text: str, reading: SheetReading, factor: float = 1.0) -> str:
    """Numbers of a cell with a point, times a factor; what is no number stays as it was."""

    def one(found: re.Match[str]) -> str:
        bare = re.sub(r"['\u00a0\u2009 ]", "", found[0])
        if reading.decimal_comma:
            bare = bare.replace(".", "").replace(",", ".")
        elif re.fullmatch(r"\d{1,3}(,\d{3})+(\.\d+)?", bare):
            bare = bare.replace(",", "")
        try:
            return f"{float(bare) * factor:.10g}"
        except ValueError:
            return found[0]

    if re.match(r"\d{4}-\d{2}-\d{2}", text):
        return text
    return _NUMBER.sub(one, text)


def _count(text: str, reading: SheetReading, method: Method) -> str:
    from_unit, to_unit = reading.count_unit, method.count_unit
    if from_unit == to_unit or from_unit not in _IN_MM or to_unit not in _IN_MM:
        return _plain(text, reading)
    return _plain(text, reading, _IN_MM[from_unit] / _IN_MM[to_unit])


_GF_PER_NEWTON = 1000.0 / 9.80665


def _reading(text: str, reading: SheetReading) -> str:
    factor = _GF_PER_NEWTON if reading.force_unit == "N" else 1.0
    return _plain(text, reading, factor)


def _is_number(text: str) -> bool:
    return re.fullmatch(r"[<>]?\s*\d[\d.,]*\s*\+?", text.strip()) is not None


def _head_rows(rows: Rows) -> int:
    """The rows before the first one that holds numbers where a later one does, at most three."""
    for place, row in enumerate(rows[:4]):
        filled = [cell for cell in row if cell.strip()]
        if place and sum(map(_is_number, filled)) >= max(1, len(filled) // 4):
            return place
    return 1


def _role(head: str, known: set[str]) -> str:
    plain = re.sub(r"[\[(].*?[\])]|,.*$", "", head.casefold()).strip(" :.#°")
    if not plain:
        return LEFT_OUT
    for whole in (True, False):
        for role, words in _HEADS.items():
            if role not in known and role not in (COUNT, READING, CHECK):
                continue
            if plain in words if whole else _has_word(plain, words):
                return role
    return AS_NOTE


def _has_word(plain: str, words: Sequence[str]) -> bool:
    return any(len(word) > 3 and re.search(rf"\b{re.escape(word)}\b", plain) for word in words)


def _shape(roles: Sequence[str], heads: Sequence[str], body: Rows) -> Shape:
    if "blade" in roles:
        has_look = READING in roles and (COUNT in roles or "dull" in roles or "cut" in roles)
        return "check" if has_look else "run"
    numbers = [
        place
        for place in range(len(heads))
        if any(_is_number(_at(row, place)) for row in body) and heads[place]
    ]
    return "wide" if len(numbers) >= 2 else "run"


def _wide_roles(roles: Sequence[str], heads: Sequence[str], body: Rows) -> list[str]:
    """The first column of numbers is the count, the others are blades."""
    found, has_count = [], False
    for place, role in enumerate(roles):
        values = [_at(row, place) for row in body if _at(row, place)]
        looks = bool(values) and bool(heads[place])
        if looks and not has_count and all(map(_is_number, values)):
            found.append(COUNT)
            has_count = True
        else:
            found.append(BLADE_COLUMN if looks and role in (AS_NOTE, LEFT_OUT) else role)
    return [LEFT_OUT if role not in (COUNT, BLADE_COLUMN) else role for role in found]


def _without_doubles(roles: Sequence[str], shape: Shape, known: set[str]) -> list[str]:
    """Every role once, the first column that asks for it; others are kept as notes."""
    found: list[str] = []
    for role in roles:
        fitting = role
        if shape == "check" and role in ("dull", "cut", "working", TOTAL) and COUNT not in roles:
            fitting = COUNT
        if shape == "run" and role in (COUNT, READING, CHECK):
            fitting = "dull" if role == COUNT and "dull" in known else AS_NOTE
        repeats = fitting in found and fitting not in (AS_NOTE, LEFT_OUT, BLADE_COLUMN)
        found.append(AS_NOTE if repeats else fitting)
    return found


def _unit_in(said: str, method: Method) -> str:
    for unit, pattern in (
        ("ft", r"\bft\b|\bfeet\b|\bfoot\b"),
        ("in", r"\binch(es)?\b|\bin\b"),
        ("mm", r"\bmm\b"),
        ("m", r"\bm\b|\bmet(re|er)s?\b"),
    ):
        if method.count_unit in _IN_MM and re.search(pattern, said):
            return unit
    return method.count_unit


def _has_decimal_commas(body: Rows, roles: Sequence[str]) -> bool:
    """Designations of steels hold points of their own, and say nothing of the decimal sign."""
    cells = [
        cell
        for row in body
        for cell, role in zip(row, roles, strict=False)
        if role not in ("steel", "note", AS_NOTE, LEFT_OUT)
    ]
    return any(re.fullmatch(r"\d+,\d{1,2}", cell) for cell in cells) and not any(
        re.fullmatch(r"\d+\.\d+", cell) for cell in cells
    )
