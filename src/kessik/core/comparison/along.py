"""What the course of a run is drawn along besides its count: length cut, and exposure."""

from dataclasses import dataclass
from typing import Literal

from kessik.core.media import exposure_mm2_per_mm, rope_area_mm2
from kessik.core.units import MM_PER_LENGTH

AlongKind = Literal["length", "exposure"]
_MM_PER_M = 1000.0


@dataclass(frozen=True)
class Along:
    """One more axis of a run: how much of its unit one count is."""

    kind: AlongKind
    unit: str
    per_count: float


def along(
    count_unit: str, edge_length_used_mm: float | None, rope_diameter_mm: float | None
) -> tuple[Along, ...]:
    """The axes of a run: metres where its counts are lengths; what each millimetre of its edge
    severed, mm² of rope or mm of another medium, where the length of edge in use is known.
    """
    found = []
    length_mm = MM_PER_LENGTH.get(count_unit)
    if length_mm is not None:
        found.append(Along("length", "m", length_mm / _MM_PER_M))
    if edge_length_used_mm is None:
        return tuple(found)
    if length_mm is not None:
        found.append(Along("exposure", "mm cut per mm of edge", length_mm / edge_length_used_mm))
    elif count_unit == "cuts" and rope_diameter_mm is not None:
        area = rope_area_mm2(rope_diameter_mm)
        found.append(
            Along("exposure", "mm² per mm of edge", exposure_mm2_per_mm(area, edge_length_used_mm))
        )
    return tuple(found)
