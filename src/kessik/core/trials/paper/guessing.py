"""What a sheet most likely is: a guess that the tester sees and changes, column by column."""

import re
from collections import Counter
from collections.abc import Sequence

from kessik.core.protocols.methods import Method
from kessik.core.trials.paper.columns import CUT, TOTAL
from kessik.core.trials.paper.heads import (
    ANGLE,
    AS_NOTE,
    BLADE_COLUMN,
    CHECK,
    COUNT,
    HARDNESS,
    LEFT_OUT,
    READING,
    Head,
    Rows,
    head_of,
    head_rows_of,
    heads_of,
    is_number,
    role_of,
    roles_for,
)
from kessik.core.trials.paper.sheets import Shape, SheetReading, is_count, is_force
from kessik.core.units import MM_PER_LENGTH

_SEEN_ROWS = 12


def guess(rows: Rows, method: Method) -> SheetReading:
    """What a sheet most likely is, from the head of each column and its first rows."""
    head_rows = head_rows_of(rows)
    texts = heads_of(rows, head_rows)
    heads = [head_of(text) for text in texts]
    body = rows[head_rows : head_rows + _SEEN_ROWS]
    known = {role for role, _ in roles_for(method)}
    roles = [role_of(head, known) for head in heads]
    shape = _shape(roles, texts, body)
    if shape == "wide":
        roles = _wide_roles(roles, texts, body)
    end = "dull" if "dull" in known else method.end_stage or AS_NOTE
    roles = _without_doubles(roles, shape, end)
    count_unit = _shared_unit(heads, roles, method)
    force_unit = _force_unit(heads, roles, shape)
    units = tuple(
        head.unit if _has_other_unit(head, role, method, count_unit, force_unit) else ""
        for head, role in zip(heads, roles, strict=True)
    )
    by_role = dict(zip(reversed(roles), reversed(heads), strict=True))
    angle, hardness = by_role.get(ANGLE, Head("")), by_role.get(HARDNESS, Head(""))
    return SheetReading(
        shape=shape,
        head_rows=head_rows,
        roles=tuple(roles),
        count_unit=count_unit,
        force_unit="N" if force_unit == "N" else "gf",
        decimal_comma=_has_decimal_commas(body, roles),
        angle_is="included" if angle.both_sides else "side",
        units=units if any(units) else (),
        hardness_standing=hardness.standing or "measured_elsewhere",
        angle_standing=angle.standing or "measured_elsewhere",
    )


def guess_school(rows: Rows) -> str:
    """The school whose words the heads use."""
    heads = " | ".join(heads_of(rows, head_rows_of(rows))).casefold()
    if re.search(r"\bround\b", heads):
        return "resharpening_cycles"
    if "fine" in heads and ("working" in heads or "total" in heads):
        return "two_stage_board"
    if re.search(r"glint|deformation", heads):
        return "push_cut_board"
    if re.search(r"last pass|first fail|rough", heads):
        return "paper_stop_rope"
    if re.search(r"\bstart\b|\bbefore\b", heads) and re.search(r"\bend\b|\bafter\b", heads):
        return "fixed_dose"
    return "force_limit_rope"


def doubled_heads(rows: Rows, reading: SheetReading) -> list[str]:
    """Heads that stand over several columns, of which the first alone is read."""
    heads = [head.strip() for head in heads_of(rows, reading.head_rows)]
    found = Counter(head.casefold() for head in heads if head)
    return list(dict.fromkeys(head for head in heads if found[head.casefold()] > 1))


def _shared_unit(heads: Sequence[Head], roles: Sequence[str], method: Method) -> str:
    """The unit that the heads of counts name first, where lengths are counted."""
    if method.count_unit not in MM_PER_LENGTH:
        return method.count_unit
    named = (
        head.unit
        for head, role in zip(heads, roles, strict=True)
        if head.unit in MM_PER_LENGTH and is_count(role, method)
    )
    return next(named, method.count_unit)


def _force_unit(heads: Sequence[Head], roles: Sequence[str], shape: Shape) -> str:
    told = zip(heads, roles, strict=True)
    named = (
        head.unit
        for head, role in told
        if is_force(role) or (shape == "wide" and role == BLADE_COLUMN)
    )
    return next((unit for unit in named if unit in ("gf", "N")), "gf")


def _has_other_unit(
    head: Head, role: str, method: Method, count_unit: str, force_unit: str
) -> bool:
    """Whether a column names a unit of its own that is not the sheet's."""
    if is_count(role, method):
        both_known = head.unit in MM_PER_LENGTH and method.count_unit in MM_PER_LENGTH
        return both_known and head.unit != count_unit
    return is_force(role) and head.unit in ("gf", "N") and head.unit != force_unit


def _shape(roles: Sequence[str], heads: Sequence[str], body: Rows) -> Shape:
    if "blade" in roles:
        has_look = READING in roles and (COUNT in roles or "dull" in roles or CUT in roles)
        return "check" if has_look else "run"
    numbers = [
        place
        for place in range(len(heads))
        if any(is_number(_at(row, place)) for row in body) and heads[place]
    ]
    return "wide" if len(numbers) >= 2 else "run"


def _wide_roles(roles: Sequence[str], heads: Sequence[str], body: Rows) -> list[str]:
    """The first column of numbers is the count, the others are blades."""
    found, has_count = [], False
    for place, role in enumerate(roles):
        values = [_at(row, place) for row in body if _at(row, place)]
        looks = bool(values) and bool(heads[place])
        if looks and not has_count and all(map(is_number, values)):
            found.append(COUNT)
            has_count = True
        else:
            found.append(BLADE_COLUMN if looks and role in (AS_NOTE, LEFT_OUT) else role)
    return [LEFT_OUT if role not in (COUNT, BLADE_COLUMN) else role for role in found]


def _without_doubles(roles: Sequence[str], shape: Shape, end: str) -> list[str]:
    """Every role once, the first column that asks for it; others are kept as notes. A bare count of
    a run is how far it went to its `end`.
    """
    found: list[str] = []
    for role in roles:
        fitting = role
        if shape == "check" and role in ("dull", CUT, "working", TOTAL) and COUNT not in roles:
            fitting = COUNT
        if shape == "run" and role in (COUNT, READING, CHECK):
            fitting = end if role == COUNT else AS_NOTE
        repeats = fitting in found and fitting not in (AS_NOTE, LEFT_OUT, BLADE_COLUMN)
        found.append(AS_NOTE if repeats else fitting)
    return found


def _has_decimal_commas(body: Rows, roles: Sequence[str]) -> bool:
    """Designations of steels hold points of their own, and say nothing of the decimal sign."""
    cells = [
        cell.strip()
        for row in body
        for cell, role in zip(row, roles, strict=False)
        if role not in ("steel", "note", AS_NOTE, LEFT_OUT)
    ]
    if any(re.fullmatch(r"\d{1,3}(\.\d{3})+,\d+", cell) for cell in cells):
        return True
    return any(re.fullmatch(r"\d+,\d{1,2}", cell) for cell in cells) and not any(
        re.fullmatch(r"\d+\.\d+", cell) for cell in cells
    )


def _at(row: Sequence[str], place: int) -> str:
    return row[place].strip() if place < len(row) else ""
