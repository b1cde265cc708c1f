"""Soaks: what is exposed, what was done to it, and what was seen."""

from typing import Any

from sqlalchemy import ForeignKey, Integer, LargeBinary, Text
from sqlalchemy.orm import Mapped, mapped_column

from kessik.store.tables.base import STRICT, Base, JsonText


class SoakRow(Base):
    """One exposure under one method, which it keeps a copy of."""

    __tablename__ = "soak"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    name: Mapped[str] = mapped_column(Text)
    question: Mapped[str] = mapped_column(Text)
    factor: Mapped[str] = mapped_column(Text)
    method: Mapped[dict[str, Any]] = mapped_column(JsonText)
    salt: Mapped[str] = mapped_column(Text)
    water: Mapped[str] = mapped_column(Text)
    note: Mapped[str] = mapped_column(Text)
    let_go: Mapped[list[str]] = mapped_column(JsonText)
    started_utc: Mapped[str] = mapped_column(Text)
    started_offset: Mapped[int] = mapped_column(Integer)
    created_utc: Mapped[str] = mapped_column(Text)


class CouponRow(Base):
    """One thing exposed."""

    __tablename__ = "soak_coupon"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    soak_id: Mapped[str] = mapped_column(ForeignKey("soak.id"), index=True)
    blade_id: Mapped[str | None] = mapped_column(ForeignKey("blade.id"), index=True)
    place: Mapped[int] = mapped_column(Integer)
    said: Mapped[dict[str, Any]] = mapped_column(JsonText)


class SoakActRow(Base):
    """Something done to a soak; kept for good, struck out at most."""

    __tablename__ = "soak_act"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    soak_id: Mapped[str] = mapped_column(ForeignKey("soak.id"), index=True)
    at_utc: Mapped[str] = mapped_column(Text)
    at_offset: Mapped[int] = mapped_column(Integer)
    said: Mapped[dict[str, Any]] = mapped_column(JsonText)
    struck: Mapped[str] = mapped_column(Text)
    recorded_utc: Mapped[str] = mapped_column(Text)


class LookRow(Base):
    """One look; kept for good, struck out at most. `measuring` is how its area was read off a
    picture, so that anyone can do it again; `strip` a small picture of the blade with its
    rust.
    """

    __tablename__ = "soak_look"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    soak_id: Mapped[str] = mapped_column(ForeignKey("soak.id"), index=True)
    coupon_id: Mapped[str] = mapped_column(ForeignKey("soak_coupon.id"))
    at_utc: Mapped[str] = mapped_column(Text)
    at_offset: Mapped[int] = mapped_column(Integer)
    said: Mapped[dict[str, Any]] = mapped_column(JsonText)
    measuring: Mapped[dict[str, Any] | None] = mapped_column(JsonText)
    strip: Mapped[bytes | None] = mapped_column(LargeBinary)
    struck: Mapped[str] = mapped_column(Text)
    recorded_utc: Mapped[str] = mapped_column(Text)
