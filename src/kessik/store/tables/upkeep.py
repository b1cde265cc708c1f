"""What is put right later: traces, the archive, the bin, and how sheets were read."""

from typing import Any

from sqlalchemy import LargeBinary, Text
from sqlalchemy.orm import Mapped, mapped_column

from kessik.store.tables.base import STRICT, Base, JsonText


class ArchivedRow(Base):
    """A trial or a line of methods that was put away."""

    __tablename__ = "archived"
    __table_args__ = STRICT

    kind: Mapped[str] = mapped_column(Text, primary_key=True)
    owner_id: Mapped[str] = mapped_column(Text, primary_key=True)
    archived_utc: Mapped[str] = mapped_column(Text)


class TraceRow(Base):
    """One change of a trial or a run: what it was, what it is, and why; never rewritten."""

    __tablename__ = "trace"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    kind: Mapped[str] = mapped_column(Text)
    owner_id: Mapped[str] = mapped_column(Text, index=True)
    trial_id: Mapped[str] = mapped_column(Text, index=True)
    what: Mapped[str] = mapped_column(Text)
    was: Mapped[Any] = mapped_column(JsonText, nullable=True)
    becomes: Mapped[Any] = mapped_column(JsonText, nullable=True)
    reason: Mapped[str] = mapped_column(Text)
    made_utc: Mapped[str] = mapped_column(Text)
    by_device: Mapped[str] = mapped_column(Text)


class BinRow(Base):
    """Something that was deleted, whole, as the rows that it was."""

    __tablename__ = "bin"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    kind: Mapped[str] = mapped_column(Text)
    owner_id: Mapped[str] = mapped_column(Text)
    name: Mapped[str] = mapped_column(Text)
    holds: Mapped[list[str]] = mapped_column(JsonText)
    reason: Mapped[str] = mapped_column(Text)
    binned_utc: Mapped[str] = mapped_column(Text)
    by_device: Mapped[str] = mapped_column(Text)
    content: Mapped[bytes] = mapped_column(LargeBinary)


class SheetReadingRow(Base):
    """How a sheet of results was read, by a name, for the next sheet of the same heads."""

    __tablename__ = "sheet_reading"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    name: Mapped[str] = mapped_column(Text)
    heads: Mapped[list[str]] = mapped_column(JsonText)
    body: Mapped[dict[str, Any]] = mapped_column(JsonText)
    used_utc: Mapped[str] = mapped_column(Text)
