"""Shots of an X-ray fluorescence analyser: what each says of each element, and what cannot be."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Literal

from kessik.core.composition.elements import element
from kessik.core.errors import OutOfRangeError
from kessik.core.limits import LIMITS
from kessik.core.records import Day, Within

Surface = Literal["", "bare", "coated"]
Normalised = Literal["yes", "no", "unknown"]
PlusMinusIs = Literal["one_sigma", "two_sigma"]
"""What a file states as ±: one or two standard deviations."""
SURFACES: tuple[Surface, ...] = ("", "bare", "coated")
NORMALISED: tuple[Normalised, ...] = ("yes", "no", "unknown")
LEAST_SUM_PERCENT, MOST_SUM_PERCENT = 60.0, 105.0
"""What the elements of a shot may come to where iron is among them; common practice, no source."""


@dataclass(frozen=True)
class ElementReading:
    """What one shot says of one element, mass per cent; below the limit of detection `percent` is
    that limit.
    """

    element: str
    percent: float
    plus_minus_percent: float | None
    detected: bool = True


@dataclass(frozen=True)
class Shot:
    """One measurement at one place. `struck` says why it is left out, empty where it counts."""

    id: str
    blade_id: str
    name: str
    readings: Annotated[tuple[ElementReading, ...], Within("elements")]
    surface: Surface = ""
    normalised: Normalised = "unknown"
    on: Day = ""
    analyser: str = ""
    operator: str = ""
    batch_id: str = ""
    struck: str = ""

    @property
    def counts(self) -> bool:
        """Whether it speaks of the steel: not struck out, and not shot on a coating."""
        return not self.struck and self.surface != "coated"

    def reading_of(self, symbol: str) -> ElementReading | None:
        return next((found for found in self.readings if found.element == symbol), None)


def in_one_sigma(shot: Shot, given: PlusMinusIs) -> Shot:
    """The shot with its ± as one standard deviation, as everything reckons with."""
    if given == "one_sigma":
        return shot
    readings = tuple(
        reading
        if reading.plus_minus_percent is None
        else replace(reading, plus_minus_percent=reading.plus_minus_percent / 2)
        for reading in shot.readings
    )
    return replace(shot, readings=readings)


def reading_faults(readings: Sequence[ElementReading]) -> list[tuple[int, str, str]]:
    """All that is wrong with the readings of one shot: the place, the field and the message."""
    faults: list[tuple[int, str, str]] = []
    if not readings:
        return [(0, "readings", "a shot needs a reading of at least one element")]
    seen: set[str] = set()
    for place, reading in enumerate(readings):
        faults.extend((place, *fault) for fault in _own_faults(reading))
        symbol = reading.element.strip().capitalize()
        if symbol in seen:
            faults.append((place, "element", f"{symbol} is listed twice in this shot"))
        seen.add(symbol)
    faults.extend(_sum_faults(readings))
    return faults


def _own_faults(reading: ElementReading) -> Iterable[tuple[str, str]]:
    try:
        element(reading.element)
    except OutOfRangeError as error:
        yield "element", error.message
    limit = LIMITS["percent"]
    if not limit.holds(reading.percent):
        yield "percent", limit.says(f"{reading.percent:g}")
    if reading.plus_minus_percent is None:
        if reading.detected:
            yield "plus_minus", "give the ± of the analyser; without it nothing can be excluded"
    elif not limit.holds(reading.plus_minus_percent):
        yield "plus_minus", LIMITS["percent"].says(f"{reading.plus_minus_percent:g}")
    elif reading.detected and reading.plus_minus_percent == 0:
        yield "plus_minus", "a ± of 0 is not possible: every analyser has an error"


def _sum_faults(readings: Sequence[ElementReading]) -> Iterable[tuple[int, str, str]]:
    whole = sum(max(reading.percent, 0.0) for reading in readings if reading.detected)
    with_iron = any(reading.element.strip().capitalize() == "Fe" for reading in readings)
    last = len(readings) - 1
    if whole > MOST_SUM_PERCENT:
        yield (
            last,
            "percent",
            f"the elements add up to {whole:.1f} %, more than {MOST_SUM_PERCENT:g} %",
        )
    if with_iron and whole < LEAST_SUM_PERCENT:
        yield (
            last,
            "percent",
            f"with iron the elements add up to {whole:.1f} %; on steel they add up to at least"
            f" {LEAST_SUM_PERCENT:g} %",
        )


def check_readings(readings: Sequence[ElementReading]) -> tuple[ElementReading, ...]:
    """The readings with their symbols as they are written; OutOfRangeError naming the first field
    at fault, with all of them in its message.
    """
    faults = reading_faults(readings)
    if faults:
        place, field, _ = faults[0]
        where = "readings" if field == "readings" else f"readings.{place}.{field}"
        raise OutOfRangeError("; ".join(said for _, _, said in faults), field=where)
    return tuple(replace(found, element=element(found.element).symbol) for found in readings)
