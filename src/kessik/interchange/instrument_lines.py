"""Lines of instruments as values: an optional sign of stability, a signed number, a unit; or the
stroke of a pedal.
"""

import re
from dataclasses import dataclass
from typing import Literal

from kessik.core.units import MILLINEWTON_PER_GF

LineState = Literal["stable", "moving", "garbled", "down", "up"]
STABLE = frozenset({"ST", "S", "STABLE"})
MOVING = frozenset({"US", "U", "D", "DY", "MOVING"})
# A tester reads mass units where it means force.
_GF_PER_UNIT = {
    "gf": 1.0, "g": 1.0, "kgf": 1000.0, "kg": 1000.0, "n": 1000.0 / MILLINEWTON_PER_GF,
    "mn": 1.0 / MILLINEWTON_PER_GF,
}  # fmt: skip  # a table is read by its rows
_LINE = re.compile(
    r"^(?:(?P<flag>[A-Za-z]{1,6})[\s,;:]+)?(?P<sign>[+-])?\s*(?P<number>\d{1,7}(?:[.,]\d{1,4})?)"
    r"\s*,?\s*(?P<unit>[A-Za-z]{1,3})?$"
)


@dataclass(frozen=True)
class InstrumentLine:
    """What a line says: a value in gf or HRC, whether it still moves, or that it cannot be read."""

    standing: LineState
    value: float | None
    unit: str
    text: str


def read_line(text: str, usual_unit: str) -> InstrumentLine:
    """Read a line; without a unit of its own the instrument's usual one holds, without a flag it is
    stable.
    """
    bare = text.strip()
    if bare.upper() in ("DOWN", "UP"):
        return InstrumentLine("down" if bare.upper() == "DOWN" else "up", None, "", bare)
    found = _LINE.match(bare)
    flag = (found["flag"] or "").upper() if found else ""
    if found is None or (flag and flag not in STABLE | MOVING):
        return InstrumentLine("garbled", None, "", text)
    value = float(found["number"].replace(",", ".")) * (-1 if found["sign"] == "-" else 1)
    unit = found["unit"] or usual_unit
    if unit.upper() == "HRC":
        unit = "HRC"
    elif unit.lower() in _GF_PER_UNIT:
        value, unit = value * _GF_PER_UNIT[unit.lower()], "gf"
    else:
        return InstrumentLine("garbled", None, "", text)
    return InstrumentLine("moving" if flag in MOVING else "stable", value, unit, text)
