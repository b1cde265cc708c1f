"""Cells of a paper record: numbers as people write them, and lives as brackets."""

import math
import re
from dataclasses import dataclass

from kessik.core.errors import OutOfRangeError

_NUMBER = r"\d+(?:[.,]\d+)?"
_BRACKET = re.compile(rf"({_NUMBER})\s*(?:-|–|\.\.|to)\s*({_NUMBER})")
_OPEN = re.compile(rf">\s*({_NUMBER})|({_NUMBER})\s*\+")
_LEAST = re.compile(r"(?:≥|>=|at least)\s*(\d+)|(\d+)\s*\+", re.IGNORECASE)
_PLACE = re.compile(rf"(.*?)\s*(?:@|\bat\b)\s*({_NUMBER})\s*(?:mm)?", re.IGNORECASE)
_DAY = re.compile(r"\d{4}-\d{2}-\d{2}")
_LONGEST = 40


@dataclass(frozen=True)
class WrittenLife:
    """A life as it was written: still there at `held`, gone at `gone`; None where not said."""

    held: float | None
    gone: float | None

    @property
    def latest(self) -> float:
        """The last count that was looked at."""
        return self.gone if self.gone is not None else self.held or 0.0

    def after(self, start: "WrittenLife") -> "WrittenLife":
        """The same as a length that begins where another ends; as wide as both."""
        first = start.held if start.held is not None else start.gone or 0.0
        held = None if self.held is None else first + self.held
        gone = None if self.gone is None else (start.gone or first) + self.gone
        return WrittenLife(held, gone)


def number_in(text: str, key: str) -> float | None:
    """A number with a point or a comma; None of an empty cell, OutOfRangeError of letters."""
    plain = text.strip().replace("\u2009", "").replace("\u00a0", "")
    if not plain:
        return None
    if _DAY.match(plain):
        raise OutOfRangeError(
            f"this cell holds a date, {plain[:10]}: a sheet makes one of 3-5; write it as text",
            field=key,
        )
    try:
        found = float(plain.replace(",", "."))
    except ValueError:
        found = math.nan
    if not math.isfinite(found):
        raise OutOfRangeError(f"“{_short(text)}” is not a number", field=key)
    if found < 0:
        raise OutOfRangeError(f"{found:g} is below 0", field=key, value=found)
    return found


def whole_in(text: str, key: str) -> int | None:
    """A whole number from 1 on; None of an empty cell."""
    found = number_in(text, key)
    if found is None:
        return None
    if found != int(found) or found < 1:
        raise OutOfRangeError(f"“{_short(text)}” is not a whole number from 1 on", field=key)
    return int(found)


def edge_in(text: str, key: str) -> tuple[int, bool] | None:
    """The number of an edge, and whether it is only known to be that at least: `3`, `3+`."""
    least = _LEAST.fullmatch(text.strip())
    if least:
        return whole_in(least[1] or least[2], key) or 1, True
    number = whole_in(text, key)
    return None if number is None else (number, False)


def zone_in(text: str, key: str) -> tuple[float, float] | None:
    """A stretch of edge in mm from the heel: `0-48`; None of an empty cell."""
    plain = text.strip().removesuffix("mm").strip()
    if not plain:
        return None
    ends = _BRACKET.fullmatch(plain)
    if ends is None:
        raise OutOfRangeError(
            f"“{_short(text)}” is not a zone; write it as 0-48, in mm from the heel", field=key
        )
    start, end = (number_in(part, key) or 0.0 for part in ends.groups())
    if start >= end:
        raise OutOfRangeError(
            f"the zone runs from {start:g} to {end:g} mm; count from the heel, the smaller first",
            field=key,
        )
    return start, end


def placed_in(text: str, key: str) -> tuple[str, float | None]:
    """What a cell says and at which place of the edge, mm from the heel: `pass at 12`."""
    placed = _PLACE.fullmatch(text.strip())
    return (placed[1], number_in(placed[2], key)) if placed else (text.strip(), None)


def life_in(text: str, key: str) -> WrittenLife | None:
    """A life: `60` gone at, `48-60` between, `>60` still there; None of an empty cell."""
    plain = text.strip()
    if not plain:
        return None
    bracket, is_open = _BRACKET.fullmatch(plain), _OPEN.fullmatch(plain)
    if bracket:
        held, gone = (number_in(part, key) or 0.0 for part in bracket.groups())
        if held >= gone:
            raise OutOfRangeError(
                f"still there at {held:g} and gone at {gone:g} cannot both be; the last pass comes"
                " first",
                field=key,
            )
        return WrittenLife(held, gone)
    if is_open:
        return WrittenLife(number_in(is_open[1] or is_open[2], key), None)
    found = number_in(plain, key)
    if found == 0:
        raise OutOfRangeError("a life of 0: nothing was cut then", field=key)
    return WrittenLife(None, found)


def _short(text: str) -> str:
    plain = text.strip()
    return plain if len(plain) <= _LONGEST else f"{plain[:_LONGEST]}…"
