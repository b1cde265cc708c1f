"""What was practised, what it taught of the rater, and studies of gauges."""

from typing import Any

from sqlalchemy import REAL, Integer, Text
from sqlalchemy.orm import Mapped, mapped_column

from kessik.store.tables.base import STRICT, Base, JsonText, YesNo


class TrainingRow(Base):
    """Ten rounds with a trainer: its seed, from which they follow, the answers given, and how each
    was judged: right, off by so much, and the true grade of a picture.
    """

    __tablename__ = "training"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    kind: Mapped[str] = mapped_column(Text)
    seed: Mapped[int] = mapped_column(Integer)
    answers: Mapped[list[Any]] = mapped_column(JsonText)
    judged: Mapped[list[Any]] = mapped_column(JsonText)
    made_utc: Mapped[str] = mapped_column(Text)
    made_offset_minutes: Mapped[int] = mapped_column(Integer)


class RaterErrorRow(Base):
    """The rater's error that the tester agreed to take for their soaks; one row at most."""

    __tablename__ = "rater_error"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    points: Mapped[float] = mapped_column(REAL)
    bias_points: Mapped[float] = mapped_column(REAL)
    rounds: Mapped[int] = mapped_column(Integer)
    agreed_utc: Mapped[str] = mapped_column(Text)


class GaugeStudyRow(Base):
    """The readings of a gauge study; `in_use` where plans and lives reckon with its result."""

    __tablename__ = "gauge_study"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    instrument: Mapped[str] = mapped_column(Text)
    measures: Mapped[str] = mapped_column(Text)
    unit: Mapped[str] = mapped_column(Text)
    readings: Mapped[list[Any]] = mapped_column(JsonText)
    made_utc: Mapped[str] = mapped_column(Text)
    made_offset_minutes: Mapped[int] = mapped_column(Integer)
    in_use: Mapped[bool] = mapped_column(YesNo, default=False)
