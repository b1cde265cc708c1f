"""Care of a blade: what was done to it on a day, and when it is due again."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Annotated, Literal

import numpy as np

from kessik.core.errors import OutOfRangeError
from kessik.core.records import Day, Id, LongText, Within

CareKind = Literal["oiled", "dried", "cleaned", "waxed"]
TookOff = Literal["", "nothing", "rust", "patina", "coating", "finish"]


@dataclass(frozen=True)
class CareAct:
    """What was done to a blade on a day, with what, what came off, and after how many days it is
    to be done again.
    """

    id: str
    blade_id: Id
    kind: CareKind
    on: Day
    used: str = ""
    took_off: TookOff = ""
    again_days: Annotated[int, Within("care_days")] | None = None
    note: LongText = ""
    struck: str = ""

    @property
    def due_on(self) -> Day:
        """The day it is due again; empty for never."""
        if self.again_days is None:
            return ""
        return str(np.datetime64(self.on, "D") + self.again_days)


def check_care(act: CareAct) -> None:
    """Refuse care without a day, or a cleaning that does not say with what."""
    if not act.on:
        raise OutOfRangeError("give the day", field="on")
    if act.kind == "cleaned" and not act.used.strip():
        raise OutOfRangeError(
            "say what it was cleaned with: what comes off depends on it", field="used"
        )


def care_to_come(acts: Iterable[CareAct]) -> list[CareAct]:
    """The acts that are to be done again: of each blade and kind the last one counts, and one
    without a term ends what was planned before.
    """
    last: dict[tuple[str, CareKind], CareAct] = {}
    for act in acts:
        key = act.blade_id, act.kind
        if not act.struck and (key not in last or act.on >= last[key].on):
            last[key] = act
    return [act for act in last.values() if act.again_days is not None]
