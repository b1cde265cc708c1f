"""Uses that blades are chosen for."""

from typing import Any

from sqlalchemy import Text
from sqlalchemy.orm import Mapped, mapped_column

from kessik.store.tables.base import STRICT, Base, JsonText


class UseRow(Base):
    """A use by its name, with what matters in it."""

    __tablename__ = "blade_use"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    name: Mapped[str] = mapped_column(Text)
    body: Mapped[dict[str, Any]] = mapped_column(JsonText)
    changed_utc: Mapped[str] = mapped_column(Text)
