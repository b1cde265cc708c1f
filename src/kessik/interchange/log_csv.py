"""`*.log.csv`: the bench log of a run as a table to read, one row an event."""

import json
from collections.abc import Sequence

from kessik.core.limits import most
from kessik.core.protocols.events import BenchEvent, Correction, NotUnderstood, Strike, plain_fields
from kessik.interchange.csv_tables import write_table

HEADER = ("position", "time", "device", "kind", "count", "said", "changed_by")


def write_log(events: Sequence[BenchEvent]) -> str:
    """The log in its order; an event that a later one corrected or struck out names that one's
    position.
    """
    changed = {
        e.payload.target: e.position for e in events if isinstance(e.payload, Strike | Correction)
    }
    rows = [
        {
            "position": event.position,
            "time": event.client_time,
            "device": event.device,
            "kind": event.kind,
            "count": event.count_at,
            "said": _said(event),
            "changed_by": changed.get(event.id),
        }
        for event in events
    ]
    return write_table(HEADER, rows)


def _said(event: BenchEvent) -> str | None:
    if isinstance(event.payload, NotUnderstood):
        return f"not understood: {event.payload.why}; {event.payload.raw[: most('cell')]}"
    fields = plain_fields(event.payload)
    return json.dumps(fields, ensure_ascii=False) if fields else None
