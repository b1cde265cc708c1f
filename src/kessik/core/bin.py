"""What is kept of things that were changed, put away or taken away."""

from dataclasses import dataclass
from typing import Any, Literal

BIN_DAYS = 30
"""How long what was taken away can be brought back."""
Corrected = Literal["trial", "run"]
Archived = Literal["trial", "method"]
Deletable = Literal["trial", "run", "blade", "lot", "method", "soak"]
"""What can be taken away by itself, with all that hangs on it."""
Held = Literal[
    "event", "run", "edge", "measurement", "place", "soak", "coupon", "look", "staying_blade",
    "run_of_lot",
]  # fmt: skip  # names, several a line
"""What goes with a thing that is deleted, or loses it."""
Binned = Deletable | Literal["results"]
"""What lies in the bin: `results` came in together, and went together when that was undone."""


@dataclass(frozen=True)
class Trace:
    """One change of a trial or of one of its runs: what it was, what it is since, and why; `by` the
    device that made it, empty for the computer that serves.
    """

    id: str
    kind: Corrected
    owner_id: str
    trial_id: str
    what: str
    was: Any
    becomes: Any
    reason: str
    made_utc: str
    by: str = ""


@dataclass(frozen=True)
class InBin:
    """Something that was deleted, with what went with it, in words; `by` the device that did."""

    id: str
    kind: Binned
    owner_id: str
    name: str
    holds: tuple[str, ...]
    reason: str
    binned_utc: str
    by: str = ""
