"""Something that waits for the tester, and its place in the day."""

from dataclasses import dataclass
from typing import Literal

DueKind = Literal["loan", "hardness", "work", "stock", "shots", "batch", "assay", "soak", "backup"]


@dataclass(frozen=True)
class Due:
    """Something that waits, in words; `on` is the day it is due, empty where there is none."""

    kind: DueKind
    says: str
    blade_id: str = ""
    trial_id: str = ""
    mark: int | None = None
    on: str = ""
    overdue: bool = False
    soak_id: str = ""


def when(days: int) -> str:
    """How far off a day is, in words."""
    if days < 0:
        return f"{-days} {'day' if days == -1 else 'days'} overdue"
    return "today" if days == 0 else "tomorrow" if days == 1 else f"in {days} days"
