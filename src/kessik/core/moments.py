"""Times as they are kept."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Moment:
    """A time in UTC (ISO 8601) with the offset it was made at, in minutes."""

    utc: str
    offset_minutes: int = 0
