"""Media: area severed, exposure of the edge, and putting edges of unlike length on equal
footing.
"""

import math

from kessik.core.errors import OutOfRangeError

_LEAST = 1e-6  # smaller figures are slips, and their quotients overflow


def _positive(value: float, field: str, what: str) -> float:
    if not value > _LEAST:
        raise OutOfRangeError(f"{what} is {value:g}; it must be above 0", field=field, value=value)
    return value


def rope_area_mm2(diameter_mm: float, strands: int = 1) -> float:
    """Area severed by one cut through a rope, mm²: strands × pi d² / 4; d in mm of the whole rope,
    or of a strand.
    """
    _positive(strands, "strands", "number of strands")
    return strands * math.pi * _positive(diameter_mm, "diameter_mm", "rope diameter") ** 2 / 4.0


def board_area_mm2(cut_length_mm: float, thickness_mm: float) -> float:
    """Area severed by one cut through board, mm²: cut length × calipered thickness, the air in the
    flutes included.

    So only boards of one construction compare.
    """
    _positive(cut_length_mm, "cut_length_mm", "cut length")
    return cut_length_mm * _positive(thickness_mm, "thickness_mm", "board thickness")


def exposure_mm2_per_mm(area_mm2: float, edge_length_used_mm: float) -> float:
    """Exposure of the edge by one cut: area severed per millimetre of edge used, mm²/mm.

    Compares runs in one medium, cut and lot; across media it orders cost only.
    """
    _positive(area_mm2, "area_mm2", "area severed")
    return area_mm2 / _positive(edge_length_used_mm, "edge_length_used_mm", "edge length used")


def cuts_at_reference_length(
    cuts: float, edge_length_used_mm: float, reference_length_mm: float
) -> float:
    """Cuts that would have cost each millimetre of a reference length as much: n L_ref / L, lengths
    in mm.

    References
    ----------
    [1] Common practice, no source: each millimetre of edge is worn by its share of the cut.
    """
    _positive(edge_length_used_mm, "edge_length_used_mm", "edge length used")
    return (
        cuts
        * _positive(reference_length_mm, "reference_length_mm", "reference edge length")
        / edge_length_used_mm
    )
