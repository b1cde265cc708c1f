"""Pictures with what shows them, and the result files of analysers."""

from typing import Any

from sqlalchemy import ForeignKey, Integer, Text
from sqlalchemy.orm import Mapped, mapped_column

from kessik.store.tables.base import STRICT, Base, JsonText


class PictureRow(Base):
    """A picture; the file lies in the data folder under its hash."""

    __tablename__ = "picture"
    __table_args__ = STRICT

    hash: Mapped[str] = mapped_column(Text, primary_key=True)
    media_type: Mapped[str] = mapped_column(Text)
    width_px: Mapped[int] = mapped_column(Integer)
    height_px: Mapped[int] = mapped_column(Integer)
    taken_at: Mapped[str] = mapped_column(Text)
    added_utc: Mapped[str] = mapped_column(Text)


class PictureUseRow(Base):
    """That something shows a picture: a blade, or a look in the bench log."""

    __tablename__ = "picture_use"
    __table_args__ = STRICT

    shown_by: Mapped[str] = mapped_column(Text, primary_key=True)
    owner_id: Mapped[str] = mapped_column(Text, primary_key=True)
    hash: Mapped[str] = mapped_column(ForeignKey("picture.hash"), primary_key=True)
    caption: Mapped[str] = mapped_column(Text)
    added_utc: Mapped[str] = mapped_column(Text)


class ShotFileRow(Base):
    """Shots of one result file, as they were read; they wait until they are used."""

    __tablename__ = "shot_file"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    instrument_id: Mapped[str] = mapped_column(Text)
    name: Mapped[str] = mapped_column(Text)
    read_utc: Mapped[str] = mapped_column(Text)
    rows: Mapped[list[dict[str, Any]]] = mapped_column(JsonText)
