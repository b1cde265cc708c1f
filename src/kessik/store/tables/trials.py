"""Trials and which blades are in them."""

from typing import Any

from sqlalchemy import REAL, ForeignKey, Integer, Text, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from kessik.store.tables.base import STRICT, Base, JsonText, YesNo


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
    effects: Mapped[dict[str, float]] = mapped_column(JsonText)
    let_go: Mapped[list[str]] = mapped_column(JsonText)
    scale_edge_length: Mapped[bool] = mapped_column(YesNo)
    settled_rule: Mapped[dict[str, Any]] = mapped_column(JsonText)
    method_id: Mapped[str | None] = mapped_column(ForeignKey("method.id"))
    edges_per_blade: Mapped[int] = mapped_column(Integer, default=2)
    medium: Mapped[str] = mapped_column(Text, default="")
    rope_diameter_mm: Mapped[float | None] = mapped_column(REAL)
    created_utc: Mapped[str] = mapped_column(Text)
    created_offset_minutes: Mapped[int] = mapped_column(Integer)
    plan: Mapped[dict[str, Any]] = mapped_column(JsonText)
    source: Mapped[str] = mapped_column(Text, default="bench")
    blind_seed: Mapped[int | None] = mapped_column(Integer)
    unblinded_utc: Mapped[str | None] = mapped_column(Text)
    cautions_seen_utc: Mapped[str | None] = mapped_column(Text)
    arriving: Mapped[str | None] = mapped_column(Text)


class MethodRow(Base):
    """A method as it was at one time; never rewritten."""

    __tablename__ = "method"
    __table_args__ = (UniqueConstraint("line_id", "number"), STRICT)

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    line_id: Mapped[str] = mapped_column(Text, index=True)
    number: Mapped[int] = mapped_column(Integer)
    body: Mapped[dict[str, Any]] = mapped_column(JsonText)
    made_utc: Mapped[str] = mapped_column(Text)


class TrialBladeRow(Base):
    """A blade's place in a trial, whether it is there as a reference, and which arms it carries."""

    __tablename__ = "trial_blade"
    __table_args__ = (UniqueConstraint("trial_id", "place"), STRICT)

    trial_id: Mapped[str] = mapped_column(ForeignKey("trial.id"), primary_key=True)
    blade_id: Mapped[str] = mapped_column(ForeignKey("blade.id"), primary_key=True, index=True)
    place: Mapped[int] = mapped_column(Integer)
    role: Mapped[str] = mapped_column(Text, default="")
    arms: Mapped[list[str]] = mapped_column(JsonText, default=list)
