"""A stand-in for a camera over a soak: it takes a picture at an hour, as a real one on a timer
does, and writes it into its folder with its own time.
"""

from dataclasses import replace
from datetime import datetime, timedelta
from pathlib import Path

from kessik.instruments.virtual_bench.soaked_blade import SoakedSide, photograph


class SoakCameraStandIn:
    """Sees one side of a blade rust from `begun` (its own clock, no zone) towards `last`, which it
    has after `whole_h` hours.
    """

    def __init__(self, folder: Path, begun: datetime, last: SoakedSide, whole_h: float) -> None:
        self._folder, self._begun, self._last, self._whole_h = folder, begun, last, whole_h

    def take(self, hours: float) -> Path:
        """The picture at an hour, written under another name first."""
        share = min(max(hours / self._whole_h, 0.0), 1.0)
        taken = (self._begun + timedelta(hours=hours)).strftime("%Y:%m:%d %H:%M:%S")
        side = replace(
            self._last,
            bit=share * self._last.bit,
            bloom=share * self._last.bloom,
            stain=share * self._last.stain,
            taken_at=taken,
        )
        name = f"soak-{hours:06.2f}h.jpg"
        partial = self._folder / f"{name}.part"
        partial.write_bytes(photograph(side))
        return partial.rename(self._folder / name)
