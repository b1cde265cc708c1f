"""Runs and the bench log."""

from typing import Any

from sqlalchemy import REAL, ForeignKey, Integer, Text, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from kessik.store.tables.base import STRICT, Base, JsonText, YesNo


class RunRow(Base):
    """One edge (or zone) cut under one method until a stop."""

    __tablename__ = "run"
    __table_args__ = (UniqueConstraint("trial_id", "edge_id", "number"), STRICT)

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    trial_id: Mapped[str] = mapped_column(ForeignKey("trial.id"), index=True)
    edge_id: Mapped[str] = mapped_column(ForeignKey("edge.id"), index=True)
    number: Mapped[int] = mapped_column(Integer)
    practice: Mapped[bool] = mapped_column(YesNo, default=False)
    practice_seed: Mapped[int | None] = mapped_column(Integer)
    count_unit: Mapped[str] = mapped_column(Text, default="cuts")
    zone_from_mm: Mapped[float | None] = mapped_column(REAL)
    zone_to_mm: Mapped[float | None] = mapped_column(REAL)
    edge_length_used_mm: Mapped[float | None] = mapped_column(REAL)
    started_utc: Mapped[str] = mapped_column(Text)
    started_offset_minutes: Mapped[int] = mapped_column(Integer)
    method_id: Mapped[str | None] = mapped_column(ForeignKey("method.id"), index=True)
    block: Mapped[int | None] = mapped_column(Integer)
    check_every: Mapped[float | None] = mapped_column(REAL)
    arm: Mapped[str] = mapped_column(Text, default="")
    round: Mapped[int | None] = mapped_column(Integer)
    operator: Mapped[str] = mapped_column(Text, default="")
    verifies_run_id: Mapped[str | None] = mapped_column(Text)
    lot_change: Mapped[str] = mapped_column(Text, default="")
    bookings: Mapped[list[dict[str, Any]]] = mapped_column(JsonText, default=list)
    after_strop_of: Mapped[str | None] = mapped_column(ForeignKey("run.id"), index=True)
    from_paper: Mapped[str] = mapped_column(Text, default="")
    other: Mapped[dict[str, Any]] = mapped_column(JsonText, default=dict)


class EventRow(Base):
    """One event of the bench log; only ever appended, in the order of `position`."""

    __tablename__ = "event"
    __table_args__ = (
        UniqueConstraint("device", "device_sequence"),
        {"sqlite_autoincrement": True, **STRICT},
    )

    position: Mapped[int] = mapped_column(Integer, primary_key=True, autoincrement=True)
    id: Mapped[str] = mapped_column(Text, unique=True)
    run_id: Mapped[str] = mapped_column(ForeignKey("run.id"), index=True)
    kind: Mapped[str] = mapped_column(Text)
    device: Mapped[str] = mapped_column(Text)
    device_sequence: Mapped[int] = mapped_column(Integer)
    last_seen_position: Mapped[int] = mapped_column(Integer)
    count_at: Mapped[float] = mapped_column(REAL)
    client_time: Mapped[str] = mapped_column(Text)
    server_utc: Mapped[str] = mapped_column(Text)
    payload: Mapped[str] = mapped_column(Text)
    check_sum: Mapped[int | None] = mapped_column(Integer)
