"""What is noted of a blade or a grade besides its measurements; kept for good, excluded at most."""

from typing import Any

from sqlalchemy import ForeignKey, Text
from sqlalchemy.orm import Mapped, mapped_column

from kessik.store.tables.base import STRICT, Base, JsonText


class ToughnessRow(Base):
    """An energy to break, of a blade or of a grade."""

    __tablename__ = "toughness"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    blade_id: Mapped[str | None] = mapped_column(ForeignKey("blade.id"), index=True)
    grade: Mapped[str] = mapped_column(Text, index=True)
    said: Mapped[dict[str, Any]] = mapped_column(JsonText)
    struck: Mapped[str] = mapped_column(Text)
    recorded_utc: Mapped[str] = mapped_column(Text)


class _OfBlade:
    """What is noted of a blade."""

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    blade_id: Mapped[str] = mapped_column(ForeignKey("blade.id"), index=True)
    said: Mapped[dict[str, Any]] = mapped_column(JsonText)
    struck: Mapped[str] = mapped_column(Text)
    recorded_utc: Mapped[str] = mapped_column(Text)


class FieldExposureRow(_OfBlade, Base):
    """Hours that a blade was wet without a soak."""

    __tablename__ = "field_exposure"
    __table_args__ = STRICT


class CareRow(_OfBlade, Base):
    """What was done to a blade for its care."""

    __tablename__ = "care"
    __table_args__ = STRICT
