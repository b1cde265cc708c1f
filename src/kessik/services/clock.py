"""The time now, as it is stored."""

from datetime import UTC, date, datetime, timedelta

from kessik.core.moments import Moment
from kessik.core.protocols.events import BenchEvent


def now() -> Moment:
    """Now in UTC with the offset of this machine."""
    local = datetime.now(UTC).astimezone()
    offset = local.utcoffset()
    return Moment(
        local.astimezone(UTC).isoformat(timespec="milliseconds"),
        int(offset.total_seconds() // 60) if offset else 0,
    )


def local_day(moment: Moment) -> date:
    """The tester's own day at a moment."""
    return (datetime.fromisoformat(moment.utc) + timedelta(minutes=moment.offset_minutes)).date()


def local_day_of(utc: str) -> date:
    """The day on this machine at a time in UTC."""
    return datetime.fromisoformat(utc).astimezone().date()


def seconds_of(event: BenchEvent) -> float | None:
    """When an event was made, by its device's clock; None where an old log holds no time that can
    be.
    """
    try:
        return datetime.fromisoformat(event.client_time).timestamp()
    except (ValueError, OverflowError):
        return None
