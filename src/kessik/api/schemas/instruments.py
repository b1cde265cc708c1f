"""Instruments over the wire."""

from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Bounded, Finite, Id, ShortText, Wire
from kessik.api.schemas.records import Answer, Body
from kessik.core.devices import Instrument, ReferenceCheck, WaitingShots
from kessik.core.limits import most
from kessik.core.reference_checks import Drift
from kessik.services.devices.instrument_desk import InstrumentNews


class InstrumentBody(Body[Instrument], without="unit archived_utc"):
    """An instrument and where it is plugged in: a serial port, host:port of a bridge, or a folder
    it writes to.
    """

    address: Annotated[str, Field(max_length=500)]


class ReferenceCheckBody(Wire):
    """The day's readings on the reference, in the instrument's unit."""

    id: Id
    readings: list[Annotated[Finite, Bounded("scale_reading")]] = Field(
        max_length=most("reference_readings")
    )
    reference: ShortText = ""
    note: ShortText = ""


class ReferenceCheckOut(Answer[ReferenceCheck], without="instrument_id made"):
    """A reference check as it was recorded."""

    made_utc: str


class DriftOut(Answer[Drift]):
    """Change of the last reference check against the first ones."""


class InstrumentOut(Answer[Instrument], without="archived_utc"):
    """An instrument, whether it is there, and what its reference checks say."""

    range_low: float
    range_high: float
    is_there: bool
    last_text: str
    checks: list[ReferenceCheckOut]
    checked_today: bool
    drift: DriftOut | None


class InstrumentNewsOut(Answer[InstrumentNews]):
    """What an instrument did just now; a reading carries the id it is recorded under."""


class WaitingShotsOut(Answer[WaitingShots], without="rows"):
    """The shots of one result file that wait to be used."""

    shots: dict[str, int] = Field(description="how many of each blade, by its code")
