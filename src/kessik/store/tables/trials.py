"""Trials, blades and edges."""

from typing import Any

from sqlalchemy import REAL, ForeignKey, Integer, Text, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from kessik.store.tables.base import STRICT, Base, JsonText


class TrialRow(Base):
    """One question put to several blades under one method."""

    __tablename__ = "trial"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    name: Mapped[str] = mapped_column(Text)
    question: Mapped[str] = mapped_column(Text, default="")
    factor: Mapped[str] = mapped_column(Text)
    hardness_reading: Mapped[str] = mapped_column(Text)
    tolerances: Mapped[dict[str, float]] = mapped_column(JsonText)
    keen_gf: Mapped[float] = mapped_column(REAL)
    dull_gf: Mapped[float] = mapped_column(REAL)
    schedule: Mapped[str] = mapped_column(Text)
    check_every: Mapped[int] = mapped_column(Integer)
    edges_per_blade: Mapped[int] = mapped_column(Integer, default=2)
    medium: Mapped[str] = mapped_column(Text, default="")
    rope_diameter_mm: Mapped[float | None] = mapped_column(REAL)
    created_utc: Mapped[str] = mapped_column(Text)
    created_offset_minutes: Mapped[int] = mapped_column(Integer)
    source: Mapped[str] = mapped_column(Text, default="bench")


class BladeRow(Base):
    """A physical specimen."""

    __tablename__ = "blade"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    code: Mapped[str] = mapped_column(Text)
    claimed_grade: Mapped[str | None] = mapped_column(Text)
    hardness_hrc: Mapped[float | None] = mapped_column(REAL)
    hardness_standing: Mapped[str] = mapped_column(Text, default="measured_here")
    usual_hardness_low_hrc: Mapped[float | None] = mapped_column(REAL)
    usual_hardness_high_hrc: Mapped[float | None] = mapped_column(REAL)
    edge_length_mm: Mapped[float | None] = mapped_column(REAL)
    note: Mapped[str] = mapped_column(Text, default="")
    other: Mapped[dict[str, Any]] = mapped_column(JsonText, default=dict)


class TrialBladeRow(Base):
    """A blade's place in a trial; the place decides its mark."""

    __tablename__ = "trial_blade"
    __table_args__ = (UniqueConstraint("trial_id", "place"), STRICT)

    trial_id: Mapped[str] = mapped_column(ForeignKey("trial.id"), primary_key=True)
    blade_id: Mapped[str] = mapped_column(ForeignKey("blade.id"), primary_key=True)
    place: Mapped[int] = mapped_column(Integer)


class EdgeRow(Base):
    """One sharpening of one blade, numbered since new."""

    __tablename__ = "edge"
    __table_args__ = (UniqueConstraint("blade_id", "number"), STRICT)

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    blade_id: Mapped[str] = mapped_column(ForeignKey("blade.id"), index=True)
    number: Mapped[int] = mapped_column(Integer)
    side_angle_deg: Mapped[float | None] = mapped_column(REAL)
    micro_bevel_side_deg: Mapped[float | None] = mapped_column(REAL)
    thickness_behind_edge_mm: Mapped[float | None] = mapped_column(REAL)
    note: Mapped[str] = mapped_column(Text, default="")
    other: Mapped[dict[str, Any]] = mapped_column(JsonText, default=dict)
