"""What is noted of a blade or a grade besides its measurements."""

from typing import Any

from sqlalchemy import ForeignKey, Text
from sqlalchemy.orm import Mapped, mapped_column

from kessik.store.tables.base import STRICT, Base, JsonText


class ToughnessRow(Base):
    """An energy to break, of a blade or of a grade; kept for good, struck out at most."""

    __tablename__ = "toughness"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    blade_id: Mapped[str | None] = mapped_column(ForeignKey("blade.id"), index=True)
    grade: Mapped[str] = mapped_column(Text, index=True)
    said: Mapped[dict[str, Any]] = mapped_column(JsonText)
    struck: Mapped[str] = mapped_column(Text)
    recorded_utc: Mapped[str] = mapped_column(Text)


class FieldExposureRow(Base):
    """Hours that a blade was wet without a soak; kept for good, struck out at most."""

    __tablename__ = "field_exposure"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    blade_id: Mapped[str] = mapped_column(ForeignKey("blade.id"), index=True)
    said: Mapped[dict[str, Any]] = mapped_column(JsonText)
    struck: Mapped[str] = mapped_column(Text)
    recorded_utc: Mapped[str] = mapped_column(Text)
