"""Hours that a blade was wet without a soak: on the stone, in the rain, in a kitchen."""

from dataclasses import dataclass
from typing import Annotated, Literal

from kessik.core.errors import OutOfRangeError
from kessik.core.limits import check_limit
from kessik.core.records import Day, Id, LongText, Within

FieldSeen = Literal["", "none", "flash", "spots", "rust"]


@dataclass(frozen=True)
class FieldExposure:
    """So many hours in something wet, with what was seen after it."""

    id: str
    blade_id: Id
    hours: Annotated[float, Within("soak_hours")]
    medium: str
    seen: FieldSeen = ""
    on: Day = ""
    note: LongText = ""
    struck: str = ""


def check_exposure(found: FieldExposure) -> None:
    """Refuse an exposure of no time, or to nothing."""
    check_limit("soak_hours", found.hours, "hours")
    if not found.medium.strip():
        raise OutOfRangeError("say what it was wet with: wet stone, rain, a dish sponge",
                              field="medium")  # fmt: skip
