"""Heads of a sheet: what each column is by its own words, and the unit and standing they end in."""

import re
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

from kessik.core.facts import Provenance
from kessik.core.protocols.methods import Method
from kessik.core.trials.paper.columns import (
    CHECK_EVERY,
    LENGTH,
    MINUTES,
    ROUND,
    STROKES,
    TOTAL,
    ZONE,
    paper_columns,
)

Rows = Sequence[Sequence[str]]
LEFT_OUT, AS_NOTE, BLADE_COLUMN = "left_out", "as_note", "blade_column"
COUNT, READING, CHECK = "count", "reading", "check"
LAST_PASS, FIRST_FAIL = "last_pass", "first_fail"
STOPPED, STAGE = "stopped_at", "stage"
STEEL, HARDNESS, ANGLE = "steel", "hardness_hrc", "angle_deg"
FACTS = (STEEL, HARDNESS, ANGLE)
_MOST_HEAD_ROWS = 3

_HEADS: Mapping[str, tuple[str, ...]] = {
    "blade": ("blade", "knife", "knife code", "code", "specimen", "sample", "name", "arm"),
    STEEL: ("steel", "grade", "alloy", "material", "designation"),
    HARDNESS: ("hardness", "hrc", "rockwell"),
    ANGLE: ("angle", "side angle", "edge angle", "dps", "included"),
    LENGTH: ("edge used", "edge length used", "length used", "edge length", "used"),
    "edge": ("edge", "edge no", "edge number", "sharpening", "sharpening no"),
    ROUND: ("round", "round no", "cycle"),
    ZONE: ("zone", "stretch", "part of the edge"),
    STROKES: ("strokes", "passes", "strokes a side", "strokes per side", "passes needed"),
    MINUTES: ("minutes", "sharpening time", "minutes sharpening", "time to sharpen"),
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
    STOPPED: ("stopped", "stopped at", "stop", "stop at"),
    STAGE: ("stage", "which stage", "stage lost", "stage of the stop"),
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
_UNITS: Mapping[str, tuple[str, ...]] = {
    "ft": ("ft", "feet", "foot"),
    "m": ("m", "metre", "metres", "meter", "meters"),
    "mm": ("mm",),
    "in": ("in", "inch", "inches"),
    "gf": ("gf", "g", "grams", "gram"),
    "N": ("n", "newton", "newtons"),
    "": ("°", "deg", "degrees", "hrc", "min", "cuts", "mins"),
}  # fmt: skip  # a table is read by its rows
_STANDINGS: Mapping[Provenance, tuple[str, ...]] = {
    "guessed": ("guess", "guessed", "est", "estimate", "estimated", "approx", "about"),
    "claimed": ("claim", "claimed", "spec", "nominal", "advertised", "stated"),
    "standard": ("standard", "published"),
    "measured_here": ("measured", "tested"),
}  # fmt: skip  # a table is read by its rows
_BOTH_SIDES = re.compile(r"\bincl\w*|\btotal (?=.*\bangle)|\bboth\b")
_UNIT_OF = {word: unit for unit, words in _UNITS.items() for word in words}
_STANDING_OF = {word: standing for standing, words in _STANDINGS.items() for word in words}


@dataclass(frozen=True)
class Head:
    """The words of one head: its name, the unit and the standing it ends in (empty where it names
    none), and whether an angle of it is that of both sides.
    """

    name: str
    unit: str = ""
    standing: Provenance | None = None
    both_sides: bool = False


def head_of(text: str) -> Head:
    """What one head says by itself: `Fine edge ft`, `HRC guess`, `Angle (incl.)`."""
    plain = re.sub(r"[()\[\],:]", " ", text.casefold())
    words = [word.strip(" .#") for word in plain.split()]
    words = [word for word in words if word]
    unit: str | None = None
    standing: Provenance | None = None
    while len(words) > 1 and (words[-1] in _UNIT_OF or words[-1] in _STANDING_OF):
        word = words.pop()
        unit = _UNIT_OF.get(word, unit)
        standing = _STANDING_OF.get(word, standing)
    name = " ".join(words)
    return Head(name, unit or "", standing, bool(_BOTH_SIDES.search(plain)))


def role_of(head: Head, known: Collection[str]) -> str:
    """What a column is by its own head; a note where nothing fits, left out without a head."""
    plain = _BOTH_SIDES.sub("", head.name).strip() or head.name
    if not plain.strip("° "):
        return LEFT_OUT
    for whole in (True, False):
        for role, words in _HEADS.items():
            if role not in known:
                continue
            if plain in words or head.name in words if whole else _has_word(head.name, words):
                return role
    return AS_NOTE


def _has_word(plain: str, words: Sequence[str]) -> bool:
    """Whether a head holds one of the words; a short one as its last."""
    long = [word for word in words if len(word) > 3]
    if any(re.search(rf"\b{re.escape(word)}\b", plain) for word in long):
        return True
    return any(len(word) == 3 and plain.endswith(f" {word}") for word in words)


def roles_for(method: Method) -> list[tuple[str, str]]:
    """Every role a column can have under a method, with its name."""
    own = [(c.key, c.label) for c in paper_columns(method) if c.key not in ("blade", "note")]
    stages = [
        (STOPPED, "stopped at, of the stage named"),
        (STAGE, "which stage the stop is of"),
        (LAST_PASS, "last pass"),
        (FIRST_FAIL, "first fail"),
    ]
    return [
        ("blade", "knife, blade or arm"),
        (STEEL, "steel"),
        (HARDNESS, "hardness, HRC"),
        (ANGLE, "edge angle, °"),
        *own,
        *(stages if method.stages else []),
        (COUNT, "count of a check"),
        (READING, "reading, or pass and fail"),
        (CHECK, "which check"),
        (BLADE_COLUMN, "readings of the blade in the head"),
        ("note", "note"),
        (AS_NOTE, "saved as a note, with its head"),
        (LEFT_OUT, "left out"),
    ]


def heads_of(rows: Rows, head_rows: int, seen_rows: int = 12) -> list[str]:
    """The head of every column, over all of its rows; one that is merged over several columns
    stands over each of them.
    """
    width = max((len(row) for row in rows[: head_rows + seen_rows]), default=0)
    spread = [_spread(rows, number, head_rows, width) for number in range(head_rows)]
    return [" ".join(part for row in spread if (part := row[place])) for place in range(width)]


def _spread(rows: Rows, number: int, head_rows: int, width: int) -> list[str]:
    """A row of heads; above others, an empty cell takes the head to its left."""
    cells = [_cell(rows[number], place) if number < len(rows) else "" for place in range(width)]
    if number + 1 >= head_rows:
        return cells
    for place in range(1, width):
        has_own = any(_cell(rows[below], place) for below in range(number + 1, head_rows))
        is_unit = all(
            not _cell(rows[below], place) or _cell(rows[below], place).casefold() in _UNIT_OF
            for below in range(number + 1, head_rows)
        )
        if not cells[place] and has_own and not is_unit:
            cells[place] = cells[place - 1]
    return cells


def head_rows_of(rows: Rows) -> int:
    """The rows before the first one that holds numbers where a later one does, at most three."""
    for place, row in enumerate(rows[: _MOST_HEAD_ROWS + 1]):
        filled = [cell for cell in row if cell.strip()]
        if place and sum(map(is_number, filled)) >= max(1, len(filled) // 4):
            return place
    return 1


def is_number(text: str) -> bool:
    return re.fullmatch(r"[<>]?\s*\d[\d.,]*\s*\+?", text.strip()) is not None


def _cell(row: Sequence[str], place: int) -> str:
    return row[place].strip() if place < len(row) else ""
