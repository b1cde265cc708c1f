"""Copies of the data over the wire."""

from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Wire
from kessik.api.schemas.records import Answer
from kessik.store.backups import BackupRule
from kessik.store.contents import Holds


class BackupRuleBody(Wire):
    """How many copies are kept, and where else."""

    daily: int
    weekly: int
    second_folder: Annotated[str, Field(max_length=500)] = ""

    def to_core(self) -> BackupRule:
        return BackupRule(self.daily, self.weekly, self.second_folder.strip())


class CopyOut(Wire):
    """One copy of the data."""

    name: str
    reason: str
    made_utc: str
    size_mb: float


class CopiesOut(Wire):
    """The copies of a data folder."""

    folder: str
    copies: list[CopyOut]
    rule: BackupRuleBody
    failed: str
    second_failed: str = Field(description="why the second disk has not got the newest")
    bring_back: str = Field(description="the command that brings the newest back")


class HoldsOut(Answer[Holds]):
    """What a copy holds."""
