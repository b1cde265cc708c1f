"""Edge geometry: angles, bevels, thickness behind the edge at stations and as the blade is ground
back, and zones.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from kessik.core.errors import OutOfRangeError

_LEAST = 1e-6  # smaller figures are slips, and their quotients overflow


def included_angle_deg(side_angle_deg: float, other_side_angle_deg: float | None = None) -> float:
    """Included angle in degrees: both sides together; twice the side angle of a symmetric edge.

    Raises OutOfRangeError unless each side is above 0 and below 90 degrees.
    """
    sides = (
        side_angle_deg,
        side_angle_deg if other_side_angle_deg is None else other_side_angle_deg,
    )
    for side in sides:
        _check_angle(side, "side_angle_deg")
    return sum(sides)


def _check_angle(side_deg: float, field: str) -> None:
    if not _LEAST < side_deg < 90.0:
        raise OutOfRangeError(
            f"angle per side is {side_deg:g}°; it must lie between 0° and 90°",
            field=field,
            value=side_deg,
        )


def _check_length(value_mm: float, what: str, field: str) -> None:
    if not _LEAST < value_mm < math.inf:
        raise OutOfRangeError(
            f"{what} is {value_mm:g} mm; it must be above 0", field=field, value=value_mm
        )


@dataclass(frozen=True)
class Bevel:
    """A symmetric wedge: its base is the thickness, its sides the bevel faces; lengths in mm."""

    thickness_mm: float
    side_angle_deg: float
    face_width_mm: float
    height_mm: float


def bevel(
    *,
    thickness_mm: float | None = None,
    side_angle_deg: float | None = None,
    face_width_mm: float | None = None,
) -> Bevel:
    """The wedge from any two of thickness t, angle per side θ and face width w: w = t / (2 sin θ),
    h = t / (2 tan θ).

    Raises OutOfRangeError unless exactly two are given, each is possible, and the face is wider
    than half t.

    References
    ----------
    [1] Plane trigonometry, as in any textbook.
    """
    given = [value is not None for value in (thickness_mm, side_angle_deg, face_width_mm)]
    if sum(given) != 2:
        raise OutOfRangeError(
            "give two of thickness, angle per side and bevel width; the third follows",
            field="bevel",
        )
    if thickness_mm is not None:
        _check_length(thickness_mm, "thickness", "thickness_mm")
    if face_width_mm is not None:
        _check_length(face_width_mm, "bevel width", "face_width_mm")
    if side_angle_deg is not None:
        _check_angle(side_angle_deg, "side_angle_deg")
        sine = math.sin(math.radians(side_angle_deg))
        if thickness_mm is None:
            assert face_width_mm is not None
            thickness_mm = 2.0 * face_width_mm * sine
        return _wedge(thickness_mm, side_angle_deg)
    assert thickness_mm is not None
    assert face_width_mm is not None
    if thickness_mm >= 2.0 * face_width_mm:
        raise OutOfRangeError(
            f"a bevel {face_width_mm:g} mm wide cannot close a thickness of {thickness_mm:g} mm; "
            f"it must be wider than {thickness_mm / 2:g} mm",
            field="face_width_mm",
            value=face_width_mm,
        )
    return _wedge(thickness_mm, math.degrees(math.asin(thickness_mm / (2.0 * face_width_mm))))


def _wedge(thickness_mm: float, side_angle_deg: float) -> Bevel:
    half, angle = thickness_mm / 2.0, math.radians(side_angle_deg)
    return Bevel(thickness_mm, side_angle_deg, half / math.sin(angle), half / math.tan(angle))


def with_micro_bevel(
    whole: Bevel, micro_side_angle_deg: float, micro_face_width_mm: float
) -> tuple[Bevel, Bevel]:
    """The edge bevel and the micro-bevel that share one thickness: the wedge at the apex and what
    is left behind it.

    The first Bevel holds the thickness that the edge bevel spans beyond the micro-bevel. Raises
    OutOfRangeError where the micro-bevel is not steeper, or would take up the whole thickness.
    """
    if micro_side_angle_deg <= whole.side_angle_deg:
        raise OutOfRangeError(
            f"a micro-bevel is steeper than the edge bevel: more than {whole.side_angle_deg:.1f}°"
            " per side",
            field="micro_side_angle_deg",
            value=micro_side_angle_deg,
        )
    micro = bevel(side_angle_deg=micro_side_angle_deg, face_width_mm=micro_face_width_mm)
    if micro.thickness_mm >= whole.thickness_mm:
        most = bevel(
            side_angle_deg=micro_side_angle_deg, thickness_mm=whole.thickness_mm
        ).face_width_mm
        raise OutOfRangeError(
            f"a micro-bevel {micro_face_width_mm:g} mm wide takes up the whole thickness; it must"
            f" stay under {most:.3g} mm",
            field="micro_face_width_mm",
            value=micro_face_width_mm,
        )
    return _wedge(whole.thickness_mm - micro.thickness_mm, whole.side_angle_deg), micro


def equivalent_side_angle_deg(thickness_mm: float, height_mm: float) -> float:
    """Angle per side of the straight wedge through the apex that is as thick as a convex edge at a
    stated height.
    """
    _check_length(thickness_mm, "thickness", "thickness_mm")
    _check_length(height_mm, "height", "height_mm")
    return math.degrees(math.atan2(thickness_mm / 2.0, height_mm))


def thickness_growth_mm(height_lost_mm: float, primary_grind_side_deg: float) -> float:
    """How much thicker it gets behind the edge as height is ground off: dt = 2 × height lost ×
    tan(primary grind).
    """
    if height_lost_mm < 0:
        raise OutOfRangeError(
            f"steel removed is {height_lost_mm:g} mm; it cannot be negative",
            field="steel_removed_mm",
            value=height_lost_mm,
        )
    return 2.0 * height_lost_mm * math.tan(math.radians(primary_grind_side_deg))


@dataclass(frozen=True)
class Stations:
    """Caliper stations along an edge: mean, lowest, highest, and whether they differ by more than
    is allowed.
    """

    mean_mm: float
    low_mm: float
    high_mm: float
    uneven: bool

    @property
    def range_mm(self) -> float:
        return self.high_mm - self.low_mm


def summarise_stations(thickness_mm: Sequence[float], tolerance_mm: float) -> Stations:
    """Sum up thickness at stations (mm); raises OutOfRangeError without any."""
    if not thickness_mm:
        raise OutOfRangeError(
            "give the thickness at one station at least", field="thickness_behind_edge_mm"
        )
    low, high = min(thickness_mm), max(thickness_mm)
    return Stations(
        math.fsum(thickness_mm) / len(thickness_mm), low, high, high - low > tolerance_mm + 1e-9
    )


ZoneUse = Literal["cut", "control", "taped"]


@dataclass(frozen=True)
class Zone:
    """A stretch of an edge in mm from the heel, and what it is for."""

    from_mm: float
    to_mm: float
    use: ZoneUse = "cut"
    name: str = ""

    def overlaps(self, other: "Zone") -> bool:
        return min(self.to_mm, other.to_mm) - max(self.from_mm, other.from_mm) > 1e-9


def check_zones(
    zones: Sequence[Zone], edge_length_mm: float | None, *, overlap_insisted: bool = False
) -> None:
    """Refuse zones that run backwards, lie beyond the edge, or overlap where the tester does not
    insist.
    """
    for zone in zones:
        if not 0.0 <= zone.from_mm < zone.to_mm:
            raise OutOfRangeError(
                f"a zone runs from {zone.from_mm:g} to {zone.to_mm:g} mm; count from the heel, the"
                " smaller first",
                field="zones",
            )
        if edge_length_mm is not None and zone.to_mm > edge_length_mm + 1e-9:
            raise OutOfRangeError(
                f"a zone ends at {zone.to_mm:g} mm, and the edge at {edge_length_mm:g} mm",
                field="zones",
            )
    if overlap_insisted:
        return
    ordered = sorted(zones, key=lambda zone: zone.from_mm)
    for left, right in pairwise(ordered):
        if left.overlaps(right):
            raise OutOfRangeError(
                f"the zones {left.from_mm:g} to {left.to_mm:g} mm and {right.from_mm:g} to"
                f" {right.to_mm:g} mm overlap; move them apart, or let them overlap",
                field="zones",
            )
