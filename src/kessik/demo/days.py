"""Days before the demo's own day."""

from dataclasses import dataclass
from datetime import datetime, timedelta

from kessik.core.moments import Moment


@dataclass(frozen=True)
class Days:
    """Turns days before the demo's own day into moments and dates."""

    today: datetime

    def moment(self, days_ago: int, hour: float) -> Moment:
        offset = self.today.utcoffset() or timedelta()
        midnight = (self.today - timedelta(days=days_ago)).replace(
            hour=0, minute=0, second=0, microsecond=0
        )
        utc = (midnight - offset + timedelta(hours=hour)).replace(
            tzinfo=None
        ).isoformat() + "+00:00"
        return Moment(utc, int(offset.total_seconds() // 60))

    def date(self, days_ago: int) -> str:
        return (self.today - timedelta(days=days_ago)).date().isoformat()
