"""Batches of blades sent to an analyser, and its shots."""

from typing import Any

from sqlalchemy import ForeignKey, Integer, Text
from sqlalchemy.orm import Mapped, mapped_column

from kessik.store.tables.base import STRICT, Base, JsonText


class BatchRow(Base):
    """Blades that were sent to an analyser together."""

    __tablename__ = "assay_batch"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    name: Mapped[str] = mapped_column(Text)
    owner: Mapped[str] = mapped_column(Text)
    sent_on: Mapped[str] = mapped_column(Text)
    back_on: Mapped[str] = mapped_column(Text)
    analyser: Mapped[str] = mapped_column(Text)
    operator: Mapped[str] = mapped_column(Text)
    note: Mapped[str] = mapped_column(Text)
    reference: Mapped[dict[str, Any] | None] = mapped_column(JsonText)
    created_utc: Mapped[str] = mapped_column(Text)


class BatchBladeRow(Base):
    """That a blade is in a batch, at a place."""

    __tablename__ = "assay_blade"
    __table_args__ = STRICT

    batch_id: Mapped[str] = mapped_column(
        ForeignKey("assay_batch.id", ondelete="CASCADE"), primary_key=True
    )
    blade_id: Mapped[str] = mapped_column(ForeignKey("blade.id"), primary_key=True, index=True)
    place: Mapped[int] = mapped_column(Integer)


class ShotRow(Base):
    """One shot of an analyser; kept for good, struck out at most."""

    __tablename__ = "assay_shot"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    blade_id: Mapped[str] = mapped_column(ForeignKey("blade.id"), index=True)
    batch_id: Mapped[str] = mapped_column(Text)
    name: Mapped[str] = mapped_column(Text)
    readings: Mapped[list[dict[str, Any]]] = mapped_column(JsonText)
    surface: Mapped[str] = mapped_column(Text)
    normalised: Mapped[str] = mapped_column(Text)
    made_on: Mapped[str] = mapped_column(Text)
    analyser: Mapped[str] = mapped_column(Text)
    operator: Mapped[str] = mapped_column(Text)
    struck: Mapped[str] = mapped_column(Text)
    recorded_utc: Mapped[str] = mapped_column(Text)
