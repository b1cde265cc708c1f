"""Instruments, what they read on their reference, and devices let in."""

from sqlalchemy import REAL, ForeignKey, Integer, Text
from sqlalchemy.orm import Mapped, mapped_column

from kessik.store.tables.base import STRICT, Base, JsonText, YesNo


class InstrumentRow(Base):
    """One device that readings, pictures or taps come from, and where it is plugged in."""

    __tablename__ = "instrument"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    kind: Mapped[str] = mapped_column(Text)
    name: Mapped[str] = mapped_column(Text)
    address: Mapped[str] = mapped_column(Text)
    baud: Mapped[int] = mapped_column(Integer)
    unit: Mapped[str] = mapped_column(Text)
    range_low: Mapped[float | None] = mapped_column(REAL)
    range_high: Mapped[float | None] = mapped_column(REAL)
    reference: Mapped[str] = mapped_column(Text)
    in_use: Mapped[bool] = mapped_column(YesNo)
    archived_utc: Mapped[str | None] = mapped_column(Text)


class ReferenceCheckRow(Base):
    """Readings of an instrument on its reference on one day; appended, never rewritten."""

    __tablename__ = "reference_check"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    instrument_id: Mapped[str] = mapped_column(ForeignKey("instrument.id"), index=True)
    readings: Mapped[list[float]] = mapped_column(JsonText)
    reference: Mapped[str] = mapped_column(Text)
    note: Mapped[str] = mapped_column(Text)
    made_utc: Mapped[str] = mapped_column(Text)
    made_offset_minutes: Mapped[int] = mapped_column(Integer)


class PairedDeviceRow(Base):
    """A device of the local network that may use this bench; only the hash of its session is
    kept.
    """

    __tablename__ = "paired_device"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    name: Mapped[str] = mapped_column(Text)
    session_hash: Mapped[str] = mapped_column(Text, unique=True)
    paired_utc: Mapped[str] = mapped_column(Text)
    grants: Mapped[list[str]] = mapped_column(JsonText)
