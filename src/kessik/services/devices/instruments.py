"""Instruments: which there are, where they are plugged in, and how they read on their reference."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from kessik.core.devices import Instrument, InstrumentKind, ReferenceCheck
from kessik.core.errors import NotAllowedNowError, NotHereError, OutOfRangeError, UnknownError
from kessik.core.limits import LIMITS, most
from kessik.core.reference_checks import Drift, drift
from kessik.instruments import folder
from kessik.instruments.addresses import read_address
from kessik.services.clock import local_day, now
from kessik.store.database import Database
from kessik.store.queries import instruments

UNITS: Mapping[InstrumentKind, str] = {
    "force": "gf",
    "rockwell": "HRC",
    "xrf": "%",
    "camera": "",
    "pedal": "",
}
RANGES: Mapping[InstrumentKind, tuple[float, float]] = {
    "force": (LIMITS["force_gf"].least, LIMITS["force_gf"].most), "rockwell": (10.0, 72.0),
}  # fmt: skip  # a table is read by its rows
BY_FOLDER = frozenset({"xrf", "camera"})
MOST_READINGS = most("reference_readings")


@dataclass(frozen=True)
class KnownInstrument:
    """An instrument with its reference checks and what they say of it today."""

    instrument: Instrument
    checks: tuple[ReferenceCheck, ...]
    drift: Drift | None
    checked_today: bool


def known_instruments(db: Database) -> list[KnownInstrument]:
    """Every instrument that is not put away."""
    with db.read() as session:
        kept = [each for each in instruments.all_instruments(session) if each.archived_utc is None]
        checks = instruments.reference_checks(session)
    today = local_day(now())
    found = []
    for instrument in kept:
        own = tuple(check for check in checks if check.instrument_id == instrument.id)
        same = [check.readings for check in own if not own or check.reference == own[-1].reference]
        checked_today = bool(own) and local_day(own[-1].made) == today
        found.append(KnownInstrument(instrument, own, drift(same), checked_today))
    return found


def range_of(instrument: Instrument) -> tuple[float, float]:
    """The range readings may lie in, in the instrument's unit."""
    low, high = RANGES.get(instrument.kind, (0.0, float("inf")))
    return (
        low if instrument.range_low is None else instrument.range_low,
        high if instrument.range_high is None else instrument.range_high,
    )


def save_instrument(db: Database, instrument: Instrument, *, at_home: bool = True) -> Instrument:
    """Keep an instrument; what cannot be is refused at its field.

    Where it is plugged in is said on the machine that serves (`at_home`), never by a device of the
    network.
    """
    if not instrument.name.strip():
        raise OutOfRangeError("give the instrument a name", field="name")
    with db.read() as session:
        known = instruments.all_instruments(session)
    if not at_home and not instrument.address:  # it was not told where, and so says nothing of it
        kept_at = next((each.address for each in known if each.id == instrument.id), "")
        instrument = replace(instrument, address=kept_at)
    _check_place(instrument, known, at_home)
    _check_number(instrument, known)
    low, high = range_of(instrument)
    least, most = RANGES.get(instrument.kind, (0.0, float("inf")))
    if not least <= low < high <= most:
        message = (
            f"it cannot read {low:g} to {high:g}: give a range inside {least:g} to {most:g}"
            f" {UNITS[instrument.kind]}"
        )
        raise OutOfRangeError(message, field="range_high", value=high)
    kept = replace(
        instrument,
        name=instrument.name.strip(),
        address=instrument.address.strip(),
        unit=UNITS[instrument.kind],
    )
    with db.write() as session:
        before = instruments.find_instrument(session, kept.id)
        if before is not None and before.kind != kept.kind:
            raise NotAllowedNowError(
                "the kind of an instrument cannot be changed; connect another one", field="kind"
            )
        instruments.save_instrument(session, kept)
    return kept


def _check_place(instrument: Instrument, known: Sequence[Instrument], at_home: bool) -> None:
    before = next((each for each in known if each.id == instrument.id), None)
    address = instrument.address.strip()
    moved = before is None or (before.kind, before.address) != (instrument.kind, address)
    if moved and not at_home:
        message = "the port of an instrument can be changed only on the computer that runs Kessik"
        raise NotHereError(message, field="address")
    if not address:
        where = (
            "the folder it writes to"
            if instrument.kind in BY_FOLDER
            else "its port, or host:port of its bridge"
        )
        raise OutOfRangeError(f"say where it is connected: {where}", field="address")
    if instrument.kind not in BY_FOLDER:
        read_address(address)
    elif not folder.can_be_watched(address):
        raise OutOfRangeError("this is not a folder that Kessik can read", field="address")


def _check_number(instrument: Instrument, known: Sequence[Instrument]) -> None:
    others = [
        each
        for each in known
        if each.in_use and each.archived_utc is None and each.id != instrument.id
    ]
    if instrument.in_use and len(others) >= most("instruments"):
        message = (
            f"{most('instruments')} instruments are connected; disconnect or archive one first"
        )
        raise OutOfRangeError(message, field="in_use")


def archive(db: Database, instrument_id: str, archived_utc: str | None) -> None:
    """Put an instrument away, or bring it back; its reference checks stay."""
    with db.write() as session:
        found = _find(instruments.find_instrument(session, instrument_id))
        instruments.save_instrument(session, replace(found, archived_utc=archived_utc))


def record_check(db: Database, check: ReferenceCheck) -> None:
    """Record the day's readings on the reference; the same id twice is one check."""
    if not 1 <= len(check.readings) <= MOST_READINGS:
        raise OutOfRangeError(
            f"give 1 to {MOST_READINGS} readings on the reference", field="readings"
        )
    with db.write() as session:
        instrument = _find(instruments.find_instrument(session, check.instrument_id))
        if instrument.archived_utc is not None:
            raise NotAllowedNowError(
                f"{instrument.name} is archived: bring it back before checking it",
                field="instrument",
            )
        low, high = range_of(instrument)
        wrong = next((value for value in check.readings if not low <= value <= high), None)
        if wrong is not None:
            message = (
                f"{instrument.name} cannot show {wrong:g} {instrument.unit}: it reads {low:g} to"
                f" {high:g}"
            )
            raise OutOfRangeError(message, field="readings", value=wrong)
        if instruments.find_reference_check(session, check.id) is None:
            instruments.add_reference_check(
                session, replace(check, reference=check.reference.strip() or instrument.reference)
            )


def _find(instrument: Instrument | None) -> Instrument:
    if instrument is None:
        raise UnknownError("there is no such instrument", field="instrument")
    return instrument
