"""What came with packages of other testers, and what went out as reports."""

from sqlalchemy import ForeignKey, Text
from sqlalchemy.orm import Mapped, mapped_column

from kessik.store.tables.base import STRICT, Base, YesNo


class TesterRow(Base):
    """Whoever's data folder this is, and whoever sent a package."""

    __tablename__ = "tester"
    __table_args__ = STRICT

    id: Mapped[str] = mapped_column(Text, primary_key=True)
    name: Mapped[str] = mapped_column(Text)
    is_here: Mapped[bool] = mapped_column(YesNo)


class KeptElsewhereRow(Base):
    """A trial, blade, soak, lot or batch that came in a package: its tester has it."""

    __tablename__ = "kept_elsewhere"
    __table_args__ = STRICT

    kind: Mapped[str] = mapped_column(Text, primary_key=True)
    owner_id: Mapped[str] = mapped_column(Text, primary_key=True)
    tester_id: Mapped[str] = mapped_column(ForeignKey("tester.id"), index=True)


class TrialOriginRow(Base):
    """That a trial came in a package: whose, when that was made, and a sum over what it held."""

    __tablename__ = "trial_origin"
    __table_args__ = STRICT

    trial_id: Mapped[str] = mapped_column(
        ForeignKey("trial.id", ondelete="CASCADE"), primary_key=True
    )
    tester_id: Mapped[str] = mapped_column(ForeignKey("tester.id"), index=True)
    made_utc: Mapped[str] = mapped_column(Text)
    content: Mapped[str] = mapped_column(Text)


class SameBladeRow(Base):
    """The tester's word on whether two blades of two testers are one."""

    __tablename__ = "same_blade"
    __table_args__ = STRICT

    one_id: Mapped[str] = mapped_column(
        ForeignKey("blade.id", ondelete="CASCADE"), primary_key=True
    )
    other_id: Mapped[str] = mapped_column(
        ForeignKey("blade.id", ondelete="CASCADE"), primary_key=True, index=True
    )
    is_same: Mapped[bool] = mapped_column(YesNo)
    said_utc: Mapped[str] = mapped_column(Text)


class ReportMadeRow(Base):
    """The last report that was made of a trial: a sum over what it said."""

    __tablename__ = "report_made"
    __table_args__ = STRICT

    trial_id: Mapped[str] = mapped_column(
        ForeignKey("trial.id", ondelete="CASCADE"), primary_key=True
    )
    content: Mapped[str] = mapped_column(Text)
    made_utc: Mapped[str] = mapped_column(Text)
