"""The shelf: blades with their edges and measurements, recipes, abrasives and grades."""

from typing import Any

from sqlalchemy import REAL, ForeignKey, Integer, Text, UniqueConstraint
from sqlalchemy.orm import Mapped, mapped_column

from kessik.store.tables.base import STRICT, Base, JsonText, YesNo


class BladeRow(Base):
    """A physical specimen."""

    __tablename__ = "blade"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    code: Mapped[str] = mapped_column(Text)
    mark: Mapped[int] = mapped_column(Integer)
    claimed_grade: Mapped[str | None] = mapped_column(Text)
    usual_hardness_low_hrc: Mapped[float | None] = mapped_column(REAL)
    usual_hardness_high_hrc: Mapped[float | None] = mapped_column(REAL)
    owner: Mapped[str] = mapped_column(Text, default="")
    price: Mapped[str] = mapped_column(Text, default="")
    loan_from: Mapped[str] = mapped_column(Text, default="")
    lent_to: Mapped[str] = mapped_column(Text, default="", server_default="")
    loan_due: Mapped[str] = mapped_column(Text, default="")
    loan_returned: Mapped[str] = mapped_column(Text, default="")
    heat_treatment: Mapped[dict[str, Any]] = mapped_column(JsonText, default=dict)
    origin: Mapped[str] = mapped_column(Text, default="")
    archived_utc: Mapped[str | None] = mapped_column(Text)
    note: Mapped[str] = mapped_column(Text, default="")
    other: Mapped[dict[str, Any]] = mapped_column(JsonText, default=dict)
    arriving: Mapped[str | None] = mapped_column(Text)


class EdgeRow(Base):
    """One sharpening of one blade, numbered since new."""

    __tablename__ = "edge"
    __table_args__ = (UniqueConstraint("blade_id", "number"), STRICT)

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    blade_id: Mapped[str] = mapped_column(ForeignKey("blade.id"), index=True)
    number: Mapped[int] = mapped_column(Integer)
    number_is_least: Mapped[bool] = mapped_column(YesNo, default=False)
    arm: Mapped[str] = mapped_column(Text, default="")
    made_on: Mapped[str] = mapped_column(Text, default="")
    regime: Mapped[str] = mapped_column(Text, default="")
    recipe_id: Mapped[str | None] = mapped_column(Text)
    steps: Mapped[list[dict[str, Any]]] = mapped_column(JsonText, default=list)
    minutes: Mapped[float | None] = mapped_column(REAL)
    trouble: Mapped[str] = mapped_column(Text, default="")
    burr_check: Mapped[str] = mapped_column(Text, default="")
    lamp_check: Mapped[str] = mapped_column(Text, default="")
    steel_removed_mm: Mapped[float | None] = mapped_column(REAL)
    factory: Mapped[bool] = mapped_column(YesNo, default=False)
    damage: Mapped[list[dict[str, Any]]] = mapped_column(JsonText, default=list)
    zones: Mapped[list[dict[str, Any]]] = mapped_column(JsonText, default=list)
    zones_overlap: Mapped[bool] = mapped_column(YesNo, default=False)
    overrule: Mapped[bool | None] = mapped_column(YesNo)
    overrule_reason: Mapped[str] = mapped_column(Text, default="")
    note: Mapped[str] = mapped_column(Text, default="")
    other: Mapped[dict[str, Any]] = mapped_column(JsonText, default=dict)


class MeasurementRow(Base):
    """One value of one quantity of a blade or of one of its edges; kept for good, struck out at
    most.
    """

    __tablename__ = "measurement"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    blade_id: Mapped[str] = mapped_column(ForeignKey("blade.id"), index=True)
    edge_id: Mapped[str | None] = mapped_column(ForeignKey("edge.id"), index=True)
    quantity: Mapped[str] = mapped_column(Text)
    value: Mapped[float | None] = mapped_column(REAL)
    words: Mapped[str] = mapped_column(Text)
    standing: Mapped[str] = mapped_column(Text)
    made_on: Mapped[str] = mapped_column(Text)
    instrument: Mapped[str] = mapped_column(Text)
    note: Mapped[str] = mapped_column(Text)
    details: Mapped[dict[str, Any]] = mapped_column(JsonText)
    recorded_utc: Mapped[str] = mapped_column(Text)
    struck: Mapped[str] = mapped_column(Text)


class RecipeRow(Base):
    """A named regime."""

    __tablename__ = "recipe"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    name: Mapped[str] = mapped_column(Text, unique=True)
    steps: Mapped[list[dict[str, Any]]] = mapped_column(JsonText)
    note: Mapped[str] = mapped_column(Text)


class AbrasiveRow(Base):
    """An abrasive of the tester's own."""

    __tablename__ = "abrasive"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    name: Mapped[str] = mapped_column(Text)
    kind: Mapped[str] = mapped_column(Text)
    size_um: Mapped[float | None] = mapped_column(REAL)
    grit: Mapped[str] = mapped_column(Text)
    standing: Mapped[str] = mapped_column(Text)
    note: Mapped[str] = mapped_column(Text)


class GradeRow(Base):
    """A steel designation: what it is made of and how it is usually hardened."""

    __tablename__ = "grade"
    __table_args__ = STRICT

    name: Mapped[str] = mapped_column(Text, primary_key=True)
    usual_low_hrc: Mapped[float | None] = mapped_column(REAL)
    usual_high_hrc: Mapped[float | None] = mapped_column(REAL)
    standing: Mapped[str] = mapped_column(Text)
    source: Mapped[str] = mapped_column(Text)
    also: Mapped[list[str]] = mapped_column(JsonText, default=list)
    standard: Mapped[str] = mapped_column(Text, default="")
    route: Mapped[str] = mapped_column(Text, default="")
    ranges: Mapped[list[dict[str, Any]]] = mapped_column(JsonText, default=list)
    equivalents: Mapped[list[dict[str, Any]]] = mapped_column(JsonText, default=list)
