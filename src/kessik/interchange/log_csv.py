"""`*.log.csv`: the bench log of a run as a table to read, one row an event."""

import json
from collections.abc import Sequence

from kessik.core.protocols.events import BenchEvent
from kessik.interchange.csv_tables import write_table

HEADER = ("position", "time", "device", "kind", "count", "said", "changed_by")


def write_log(events: Sequence[BenchEvent]) -> str:
    """The log in its order; an event that a later one corrected or struck out names that one's position."""
    changed = {str(e.payload["target"]): e.position for e in events if e.kind in ("strike", "correction")}
    rows = [
        {
            "position": event.position,
            "time": event.client_time,
            "device": event.device,
            "kind": event.kind,
            "count": event.count_at,
            "said": json.dumps(dict(event.payload), ensure_ascii=False) if event.payload else None,
            "changed_by": changed.get(event.id),
        }
        for event in events
    ]
    return write_table(HEADER, rows)
