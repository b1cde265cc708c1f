"""Instruments, their reference checks, and paired devices."""

from dataclasses import asdict

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from kessik.core.devices import Instrument, PairedDevice, ReferenceCheck
from kessik.core.moments import Moment
from kessik.store.tables import InstrumentRow, PairedDeviceRow, ReferenceCheckRow


def all_instruments(session: Session) -> list[Instrument]:
    """Every instrument by name, the put away ones too."""
    return [
        _instrument(row)
        for row in session.scalars(select(InstrumentRow).order_by(InstrumentRow.name))
    ]


def find_instrument(session: Session, instrument_id: str) -> Instrument | None:
    row = session.get(InstrumentRow, instrument_id)
    return _instrument(row) if row else None


def save_instrument(session: Session, instrument: Instrument) -> None:
    """Insert or update."""
    session.merge(InstrumentRow(**asdict(instrument)))
    session.flush()


def reference_checks(session: Session, instrument_id: str | None = None) -> list[ReferenceCheck]:
    """Reference checks in the order they were made."""
    wanted = select(ReferenceCheckRow).order_by(ReferenceCheckRow.made_utc, ReferenceCheckRow.id)
    if instrument_id is not None:
        wanted = wanted.where(ReferenceCheckRow.instrument_id == instrument_id)
    return [_check(row) for row in session.scalars(wanted)]


def find_reference_check(session: Session, check_id: str) -> ReferenceCheck | None:
    row = session.get(ReferenceCheckRow, check_id)
    return _check(row) if row else None


def add_reference_check(session: Session, check: ReferenceCheck) -> None:
    session.add(
        ReferenceCheckRow(
            id=check.id,
            instrument_id=check.instrument_id,
            readings=list(check.readings),
            reference=check.reference,
            note=check.note,
            made_utc=check.made.utc,
            made_offset_minutes=check.made.offset_minutes,
        )
    )
    session.flush()


def paired_devices(session: Session) -> list[PairedDevice]:
    """Devices let in, in the order they came."""
    rows = session.scalars(select(PairedDeviceRow).order_by(PairedDeviceRow.paired_utc))
    return [PairedDevice(r.id, r.name, r.session_hash, r.paired_utc) for r in rows]


def add_paired_device(session: Session, device: PairedDevice) -> None:
    session.add(PairedDeviceRow(**asdict(device)))
    session.flush()


def forget_paired_device(session: Session, device_id: str) -> None:
    session.execute(delete(PairedDeviceRow).where(PairedDeviceRow.id == device_id))


def _instrument(row: InstrumentRow) -> Instrument:
    return Instrument(
        id=row.id,
        kind=row.kind,  # type: ignore[arg-type]  # checked on entry
        name=row.name,
        address=row.address,
        baud=row.baud,
        unit=row.unit,
        range_low=row.range_low,
        range_high=row.range_high,
        reference=row.reference,
        in_use=row.in_use,
        archived_utc=row.archived_utc,
    )


def _check(row: ReferenceCheckRow) -> ReferenceCheck:
    made = Moment(row.made_utc, row.made_offset_minutes)
    return ReferenceCheck(
        row.id, row.instrument_id, tuple(row.readings), row.reference, row.note, made
    )
