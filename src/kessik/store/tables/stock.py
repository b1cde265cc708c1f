"""Lots and what was used of them beside the runs."""

from typing import Any

from sqlalchemy import REAL, ForeignKey, Text
from sqlalchemy.orm import Mapped, mapped_column

from kessik.store.tables.base import STRICT, Base, JsonText


class LotRow(Base):
    """One delivery of a medium, a check material, an abrasive or a salt."""

    __tablename__ = "lot"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    kind: Mapped[str] = mapped_column(Text)
    name: Mapped[str] = mapped_column(Text)
    unit: Mapped[str] = mapped_column(Text)
    bought_amount: Mapped[float | None] = mapped_column(REAL)
    bought_on: Mapped[str] = mapped_column(Text)
    price: Mapped[float | None] = mapped_column(REAL)
    currency: Mapped[str] = mapped_column(Text)
    details: Mapped[dict[str, Any]] = mapped_column(JsonText)
    state: Mapped[dict[str, Any]] = mapped_column(JsonText)
    note: Mapped[str] = mapped_column(Text)
    archived_utc: Mapped[str | None] = mapped_column(Text)


class LotCorrectionRow(Base):
    """An amount used that no run shows; appended, never rewritten."""

    __tablename__ = "lot_correction"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    lot_id: Mapped[str] = mapped_column(ForeignKey("lot.id"), index=True)
    amount: Mapped[float] = mapped_column(REAL)
    reason: Mapped[str] = mapped_column(Text)
    made_utc: Mapped[str] = mapped_column(Text)
