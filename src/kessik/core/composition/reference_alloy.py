"""An analyser before a batch: its shot of a reference alloy held against the certificate."""

import math
from dataclasses import dataclass
from typing import Annotated, Literal

from kessik.core.composition.elements import element, visibility
from kessik.core.composition.fit import CLOSE_Z, EXCLUDED_Z
from kessik.core.composition.means import Calibration
from kessik.core.composition.shots import ElementReading, check_readings
from kessik.core.errors import OutOfRangeError
from kessik.core.limits import LIMITS
from kessik.core.records import Within

_EXPANDED = 2.0
"""A certificate states twice its standard uncertainty; common practice in certificates."""
AlloyState = Literal["agrees", "doubtful", "off", "not_read"]


@dataclass(frozen=True)
class Certified:
    """What a certificate says of one element, mass per cent, with its expanded uncertainty."""

    element: str
    percent: float
    plus_minus_percent: float | None = None


@dataclass(frozen=True)
class ReferenceShot:
    """A reference alloy by its name and certificate, and what the analyser read of it."""

    alloy: str
    certified: Annotated[tuple[Certified, ...], Within("elements")] = ()
    readings: Annotated[tuple[ElementReading, ...], Within("elements")] = ()


@dataclass(frozen=True)
class AlloyFinding:
    """One element of the alloy: what was read beside what is certified, mass per cent, and by how
    many standard uncertainties it is off.
    """

    element: str
    certified_percent: float
    read_percent: float | None
    z: float
    state: AlloyState


def check_reference(shot: ReferenceShot) -> ReferenceShot:
    """The shot with its symbols as they are written; OutOfRangeError for an alloy without a name,
    a certificate without values or uncertainties, or readings that cannot be.
    """
    if not shot.alloy.strip():
        raise OutOfRangeError("name the reference alloy", field="reference.alloy")
    if not shot.certified:
        raise OutOfRangeError("give what its certificate says", field="reference.certified")
    certified = tuple(_checked(each, place) for place, each in enumerate(shot.certified))
    symbols = [each.element for each in certified]
    if len(set(symbols)) < len(symbols):
        raise OutOfRangeError("an element is certified twice", field="reference.certified")
    try:
        readings = check_readings(shot.readings)
    except OutOfRangeError as error:
        raise OutOfRangeError(error.message, field=f"reference.{error.field}") from error
    return ReferenceShot(shot.alloy.strip(), certified, readings)


def _checked(found: Certified, place: int) -> Certified:
    where = f"reference.certified.{place}"
    limit = LIMITS["percent"]
    try:
        symbol = element(found.element).symbol
    except OutOfRangeError as error:
        raise OutOfRangeError(error.message, field=f"{where}.element") from error
    if not limit.holds(found.percent):
        raise OutOfRangeError(limit.says(f"{found.percent:g}"), field=f"{where}.percent")
    if found.plus_minus_percent is None or found.plus_minus_percent <= 0:
        raise OutOfRangeError(
            f"give the ± of {symbol} in the certificate: without it no reading can be held"
            " against it",
            field=f"{where}.plus_minus_percent",
        )
    return Certified(symbol, found.percent, found.plus_minus_percent)


def alloy_findings(
    shot: ReferenceShot, calibration: Calibration | None = None
) -> tuple[AlloyFinding, ...]:
    """Each certified element that the analyser can see, with how it was read.

    The error is that of the shot, of the certificate and of the calibration. A worked example: Cr
    read 12.0 ± 0.1 for 12.5 ± 0.1, with 2 % for the calibration, is off by 1.8 of its errors.
    """
    usual = calibration or Calibration()
    read = {reading.element: reading for reading in shot.readings if reading.detected}
    return tuple(
        _finding(each, read.get(each.element), usual)
        for each in shot.certified
        if visibility(each.element) != "not_seen"
    )


def _finding(
    certified: Certified, reading: ElementReading | None, calibration: Calibration
) -> AlloyFinding:
    symbol, percent = certified.element, certified.percent
    if reading is None:
        return AlloyFinding(symbol, percent, None, 0.0, "not_read")
    error = math.sqrt(
        (reading.plus_minus_percent or 0.0) ** 2
        + ((certified.plus_minus_percent or 0.0) / _EXPANDED) ** 2
        + calibration.floor_percent(symbol, percent) ** 2
    )
    z = (reading.percent - percent) / error
    state: AlloyState = "agrees"
    if abs(z) > EXCLUDED_Z:
        state = "off"
    elif abs(z) > CLOSE_Z:
        state = "doubtful"
    return AlloyFinding(symbol, percent, reading.percent, z, state)
