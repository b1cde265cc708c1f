"""Long pieces of work: how far they are, and whether they were cancelled."""

from dataclasses import dataclass, field
from threading import Event

from kessik.core.errors import CancelledError

WAITS, READS, STORES, REMOVES = "waiting", "reading", "storing", "taking back"


@dataclass
class ImportWork:
    """One piece of work; whoever does it tells its steps, whoever watches may cancel it."""

    stage: str = WAITS
    done: int = 0
    of: int = 0
    _cancelled: Event = field(default_factory=Event)

    def begin(self, stage: str, of: int) -> None:
        self.stage, self.done, self.of = stage, 0, of
        self.step(0)

    def step(self, by: int = 1) -> None:
        """So much more is done; CancelledError where the tester has had enough."""
        self.done += by
        if self._cancelled.is_set():
            raise CancelledError("this was cancelled; nothing was saved")

    def cancel(self) -> None:
        self._cancelled.set()
