"""Copies of the data over the wire."""

from typing import Annotated

from pydantic import Field

from kessik.api.schemas.common import Wire
from kessik.services.upkeep.copies import Copies
from kessik.store.backups import BackupRule


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
    bring_back: str = Field(description="the command that brings the newest back")

    @classmethod
    def of(cls, found: Copies) -> "CopiesOut":
        rule = found.rule
        newest = found.copies[0].path if found.copies else "COPY"
        return cls(
            folder=str(found.folder),
            copies=[
                CopyOut(
                    name=copy.path.name,
                    reason=copy.reason,
                    made_utc=copy.made.isoformat(),
                    size_mb=copy.size / 1e6,
                )
                for copy in found.copies
            ],
            rule=BackupRuleBody(
                daily=rule.daily, weekly=rule.weekly, second_folder=rule.second_folder
            ),
            failed=found.failed,
            bring_back=f"kessik restore {newest} --data {found.folder}",
        )


class HoldsOut(Wire):
    """What a copy holds."""

    trials: int
    runs: int
    events: int
    soaks: int
    last_event: str
    wrong: str
