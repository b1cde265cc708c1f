"""Dated work as an iCalendar file (RFC 5545)."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta


@dataclass(frozen=True)
class CalendarEntry:
    """Something to do on a day, or at a moment."""

    id: str
    on: date | datetime
    summary: str
    description: str = ""


def write_calendar(name: str, entries: Sequence[CalendarEntry], made_utc: str) -> bytes:
    """The calendar's text; work lasts the whole day, so that no clock is promised; what has its
    hour, a quarter of one.
    """
    from icalendar import Calendar, Event  # only a calendar needs it

    calendar = Calendar()
    calendar.add("prodid", "-//Kessik//Plan//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", name)
    for entry in entries:
        event = Event()
        event.add("uid", f"{entry.id}@kessik")
        event.add("dtstamp", datetime.fromisoformat(made_utc))
        event.add("dtstart", entry.on)
        lasts = timedelta(minutes=15) if isinstance(entry.on, datetime) else timedelta(days=1)
        event.add("dtend", entry.on + lasts)
        event.add("summary", entry.summary)
        if entry.description:
            event.add("description", entry.description)
        calendar.add_component(event)
    return bytes(calendar.to_ical())
