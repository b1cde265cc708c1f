"""Instruments over the wire."""

from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Bounded, Finite, Id, ShortText, Wire
from kessik.core.devices import Instrument, InstrumentKind, NewsKind, ReferenceCheck, WaitingShots
from kessik.core.limits import most
from kessik.services.devices.instrument_desk import InstrumentNews, Status
from kessik.services.devices.instruments import BY_FOLDER, KnownInstrument, range_of


class InstrumentBody(Wire):
    """An instrument and where it is plugged in: a serial port, host:port of a bridge, or a folder
    it writes to.
    """

    id: Id
    kind: InstrumentKind
    name: ShortText
    address: Annotated[str, Field(max_length=500)]
    baud: Annotated[int, Bounded("baud")] = 9600
    range_low: Annotated[Finite, Bounded("scale_reading")] | None = None
    range_high: Annotated[Finite, Bounded("scale_reading")] | None = None
    reference: ShortText = ""
    in_use: bool = True


class ReferenceCheckBody(Wire):
    """The day's readings on the reference, in the instrument's unit."""

    id: Id
    readings: list[Annotated[Finite, Bounded("scale_reading")]] = Field(
        max_length=most("reference_readings")
    )
    reference: ShortText = ""
    note: ShortText = ""


class ReferenceCheckOut(Wire):
    """A reference check as it was recorded."""

    id: str
    readings: list[float]
    reference: str
    note: str
    made_utc: str

    @classmethod
    def of(cls, check: ReferenceCheck) -> "ReferenceCheckOut":
        return cls(
            id=check.id,
            readings=list(check.readings),
            reference=check.reference,
            note=check.note,
            made_utc=check.made.utc,
        )


class DriftOut(Wire):
    """Change of the last reference check against the first ones."""

    change_percent: float
    low: float
    high: float
    warns: bool
    words: str


class InstrumentOut(Wire):
    """An instrument, whether it is there, and what its reference checks say."""

    id: str
    kind: InstrumentKind
    name: str
    address: str
    baud: int
    unit: str
    range_low: float
    range_high: float
    reference: str
    in_use: bool
    is_there: bool
    last_text: str
    checks: list[ReferenceCheckOut]
    checked_today: bool
    drift: DriftOut | None

    @classmethod
    def of(cls, known: KnownInstrument, status: Status, at_home: bool) -> "InstrumentOut":
        """Which folders this machine has is told to this machine alone."""
        own: Instrument = known.instrument
        low, high = range_of(own)
        return cls(
            id=own.id,
            kind=own.kind,
            name=own.name,
            address=own.address if at_home or own.kind not in BY_FOLDER else "",
            baud=own.baud,
            unit=own.unit,
            range_low=low,
            range_high=min(high, 1e6),
            reference=own.reference,
            in_use=own.in_use,
            is_there=status.is_there,
            last_text=status.text,
            checks=[ReferenceCheckOut.of(check) for check in known.checks],
            checked_today=known.checked_today,
            drift=DriftOut.model_validate(known.drift) if known.drift else None,
        )


class InstrumentNewsOut(Wire):
    """What an instrument did just now; a reading carries the id it is recorded under."""

    instrument_id: str
    name: str
    kind: InstrumentKind
    what: NewsKind
    text: str
    value: float | None
    unit: str
    reading_id: str
    picture: str
    run_id: str | None

    @classmethod
    def of(cls, news: InstrumentNews) -> "InstrumentNewsOut":
        return cls.model_validate(news)


class WaitingShotsOut(Wire):
    """The shots of one result file that wait to be used."""

    id: str
    instrument_id: str
    name: str
    read_utc: str
    shots: dict[str, int] = Field(description="how many of each blade, by its code")

    @classmethod
    def of(cls, found: WaitingShots) -> "WaitingShotsOut":
        own = {name: getattr(found, name) for name in cls.model_fields}
        return cls(**own)
