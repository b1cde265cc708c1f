"""Instruments, what they read on their reference, and devices let in."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated, Any, Literal

from kessik.core.moments import Moment
from kessik.core.records import Id, Within

InstrumentKind = Literal["force", "rockwell", "xrf", "camera", "pedal"]
Grant = Literal["delete_for_good", "bring_back", "undo_others", "let_in", "backups"]
"""What stays with the computer that serves, unless a device was granted it."""
NewsKind = Literal["there", "lost", "reading", "moving", "refused", "pedal", "picture", "result"]


@dataclass(frozen=True)
class Instrument:
    """A device and where it is plugged in: a serial port, a TCP line (socket://), or a folder it
    writes to.

    Its range is in its unit; readings beyond it are shown and not recorded.
    """

    id: Id
    kind: InstrumentKind
    name: str
    address: str
    baud: Annotated[int, Within("baud")] = 9600
    unit: str = ""
    range_low: Annotated[float, Within("scale_reading")] | None = None
    range_high: Annotated[float, Within("scale_reading")] | None = None
    reference: str = ""
    in_use: bool = True
    archived_utc: str | None = None


@dataclass(frozen=True)
class ReferenceCheck:
    """Readings of an instrument on its reference, in its unit."""

    id: str
    instrument_id: str
    readings: tuple[float, ...]
    reference: str
    note: str
    made: Moment


@dataclass(frozen=True)
class PairedDevice:
    """A device of the local network that may use this bench; of its session only a hash is kept. It
    counts, notes and reads; what else it may do, `grants` say.
    """

    id: str
    name: str
    session_hash: str
    paired_utc: str
    grants: tuple[Grant, ...] = ()


@dataclass(frozen=True)
class WaitingShots:
    """The shots of one result file of an analyser, one row an element; they wait until they are
    used or put aside.
    """

    id: str
    instrument_id: str
    name: str
    read_utc: str
    rows: tuple[Mapping[str, Any], ...]

    @property
    def shots(self) -> dict[str, int]:
        """How many shots of each blade, by the code that the file gives."""
        seen = {(str(row["blade"]), str(row["shot"])) for row in self.rows}
        return {code: sum(1 for blade, _ in seen if blade == code) for code, _ in sorted(seen)}
