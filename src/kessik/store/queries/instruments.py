"""Instruments, their reference checks, and paired devices."""

from collections.abc import Sequence

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from kessik.core.devices import Grant, Instrument, PairedDevice, ReferenceCheck
from kessik.core.moments import Moment
from kessik.store.queries.records import record_of, row_values
from kessik.store.tables import InstrumentRow, PairedDeviceRow, ReferenceCheckRow


def all_instruments(session: Session) -> list[Instrument]:
    """Every instrument by name, the put away ones too."""
    return [
        record_of(Instrument, row)
        for row in session.scalars(select(InstrumentRow).order_by(InstrumentRow.name))
    ]


def find_instrument(session: Session, instrument_id: str) -> Instrument | None:
    row = session.get(InstrumentRow, instrument_id)
    return record_of(Instrument, row) if row else None


def save_instrument(session: Session, instrument: Instrument) -> None:
    """Insert or update."""
    session.merge(InstrumentRow(**row_values(InstrumentRow, instrument)))
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
            **row_values(
                ReferenceCheckRow,
                check,
                made_utc=check.made.utc,
                made_offset_minutes=check.made.offset_minutes,
            )
        )
    )
    session.flush()


def paired_devices(session: Session) -> list[PairedDevice]:
    """Devices let in, in the order they came."""
    rows = session.scalars(select(PairedDeviceRow).order_by(PairedDeviceRow.paired_utc))
    return [record_of(PairedDevice, r) for r in rows]


def add_paired_device(session: Session, device: PairedDevice) -> None:
    session.add(PairedDeviceRow(**row_values(PairedDeviceRow, device)))
    session.flush()


def grant(session: Session, device_id: str, grants: Sequence[Grant]) -> bool:
    """Say what a device may do; whether there is such a device."""
    row = session.get(PairedDeviceRow, device_id)
    if row is None:
        return False
    row.grants = list(grants)
    session.flush()
    return True


def delete_paired_device(session: Session, device_id: str) -> None:
    session.execute(delete(PairedDeviceRow).where(PairedDeviceRow.id == device_id))


def _check(row: ReferenceCheckRow) -> ReferenceCheck:
    made = Moment(row.made_utc, row.made_offset_minutes)
    return record_of(ReferenceCheck, row, made=made)
