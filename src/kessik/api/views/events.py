"""Bench events over the wire: a union by kind, made of the core's classes, one body a kind."""

from kessik.api.schemas.events import EventOut
from kessik.core.protocols.events import (
    BenchEvent,
    NotUnderstood,
    plain_fields,
)


def event_out(event: BenchEvent) -> EventOut:
    """An event as the log holds it; why it cannot be read, where nobody understands it."""
    unread = event.payload if isinstance(event.payload, NotUnderstood) else None
    return EventOut.showing(
        event,
        payload={} if isinstance(event.payload, NotUnderstood) else plain_fields(event.payload),
        not_understood=unread.why if unread else "",
    )
