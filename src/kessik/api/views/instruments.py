"""Instruments over the wire."""

from kessik.api.schemas.instruments import (
    DriftOut,
    InstrumentOut,
    ReferenceCheckOut,
)
from kessik.core.devices import Instrument, ReferenceCheck
from kessik.services.devices.instrument_desk import Status
from kessik.services.devices.instruments import BY_FOLDER, KnownInstrument, range_of


def reference_check_out(check: ReferenceCheck) -> ReferenceCheckOut:
    """A check of an instrument on its reference."""
    return ReferenceCheckOut.showing(check, made_utc=check.made.utc)


def instrument_out(known: KnownInstrument, status: Status, at_home: bool) -> InstrumentOut:
    """Which folders this machine has is told to this machine alone."""
    own: Instrument = known.instrument
    low, high = range_of(own)
    return InstrumentOut.showing(
        own,
        address=own.address if at_home or own.kind not in BY_FOLDER else "",
        range_low=low,
        range_high=min(high, 1e6),
        is_there=status.is_there,
        last_text=status.text,
        checks=[reference_check_out(check) for check in known.checks],
        checked_today=known.checked_today,
        drift=DriftOut.showing(known.drift) if known.drift else None,
    )
