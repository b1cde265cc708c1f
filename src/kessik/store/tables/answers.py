"""Answers kept, of a trial and of all trials; and the revision of every trial, which triggers raise
with all it rests on.
"""

from sqlalchemy import ForeignKey, Integer, Text
from sqlalchemy.orm import Mapped, mapped_column

from kessik.store.tables.base import STRICT, Base, YesNo


class RevisionRow(Base):
    """How often what a trial's answer rests on has changed."""

    __tablename__ = "revision"
    __table_args__ = STRICT

    trial_id: Mapped[str] = mapped_column(
        ForeignKey("trial.id", ondelete="CASCADE"), primary_key=True
    )
    number: Mapped[int] = mapped_column(Integer)


class AnswerRow(Base):
    """A trial's answer as it was at a revision: what others learn of it, and its pages as JSON."""

    __tablename__ = "answer"
    __table_args__ = STRICT

    trial_id: Mapped[str] = mapped_column(
        ForeignKey("trial.id", ondelete="CASCADE"), primary_key=True
    )
    revision: Mapped[int] = mapped_column(Integer)
    version: Mapped[str] = mapped_column(Text)
    sealed: Mapped[bool] = mapped_column(YesNo)
    under_way: Mapped[bool] = mapped_column(YesNo)
    summary: Mapped[str] = mapped_column(Text)
    today: Mapped[str] = mapped_column(Text)
    verdict: Mapped[str] = mapped_column(Text)
    failed: Mapped[str] = mapped_column(Text)


class BoardRow(Base):
    """The last answer to a question about all trials: what it rested on, when it was asked last,
    and the answer as JSON; empty until it was worked out.
    """

    __tablename__ = "board"
    __table_args__ = STRICT

    question: Mapped[str] = mapped_column(Text, primary_key=True)
    rests_on: Mapped[str] = mapped_column(Text)
    asked_utc: Mapped[str] = mapped_column(Text)
    answer: Mapped[str] = mapped_column(Text)
    failed: Mapped[str] = mapped_column(Text)
