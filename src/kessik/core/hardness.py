"""Hardness: Rockwell C readings summed up with what spoils them, and conversion to Vickers."""

import math
import statistics
from bisect import bisect_left
from collections.abc import Sequence
from dataclasses import dataclass

from kessik.core.errors import OutOfRangeError
from kessik.core.facts import QUANTITIES, check_value

# ASTM E140, non-austenitic steels; values recalled from memory.
HRC_HV: tuple[tuple[float, float], ...] = (
    (20, 238), (25, 266), (30, 302), (35, 345), (40, 392), (45, 446), (50, 513),
    (55, 595), (58, 653), (60, 697), (62, 746), (64, 800), (66, 865), (68, 940),
)  # fmt: skip  # a table is read by its rows

FEWEST_READINGS = 3
_TIP_RADIUS_MM = 0.2


@dataclass(frozen=True)
class HardnessSummary:
    """Mean after correction by the day's test block, range and standard deviation of the readings
    used, warnings.
    """

    mean_hrc: float
    low_hrc: float
    high_hrc: float
    sd_hrc: float | None
    correction_hrc: float
    used: tuple[float, ...]
    dropped: tuple[float, ...]
    warnings: tuple[str, ...]


def summarise(
    readings_hrc: Sequence[float],
    *,
    after_change: bool = False,
    block_nominal_hrc: float | None = None,
    block_readings_hrc: Sequence[float] = (),
    stock_mm: float | None = None,
    tapered: bool = False,
    spacing_mm: float | None = None,
    from_edge_mm: float | None = None,
) -> HardnessSummary:
    """Sum up Rockwell C readings.

    `after_change`: the anvil or indenter was changed before, so the first two are dropped. The
    block corrects by nominal minus the mean read on it. Spacing is centre to centre, `from_edge_mm`
    centre to edge (mm). Rules after [1] and [2]. Raises OutOfRangeError
    without readings or with one that cannot be.

    References
    ----------
    [1] ASTM E18, Rockwell hardness of metallic materials; from memory.
    [2] ISO 6508-1, Rockwell hardness test; from memory.
    """
    for reading in (*readings_hrc, *block_readings_hrc):
        check_value(QUANTITIES["hardness_hrc"], reading)
    kept = list(readings_hrc[2:] if after_change else readings_hrc)
    if not kept:
        need = (
            "three readings after the two that are dropped"
            if after_change
            else "one reading at least"
        )
        raise OutOfRangeError(f"give {need}", field="readings")
    correction = 0.0
    warnings = []
    if block_nominal_hrc is not None and block_readings_hrc:
        correction = block_nominal_hrc - math.fsum(block_readings_hrc) / len(block_readings_hrc)
        if abs(correction) > 1.0:
            warnings.append(
                f"the tester reads {abs(correction):.1f} HRC {'low' if correction > 0 else 'high'}"
                " on its block; correct it before trusting small differences"
            )
    else:
        warnings.append("no test block was read that day: the readings are not corrected")
    mean = math.fsum(kept) / len(kept) + correction
    if len(kept) < FEWEST_READINGS:
        warnings.append(f"{len(kept)} of the {FEWEST_READINGS} readings that make a hardness")
    sd = statistics.stdev(kept) if len(kept) > 1 else None
    if sd is not None and max(kept) - min(kept) > 2.0:
        warnings.append(
            f"the readings lie {max(kept) - min(kept):.1f} HRC apart: look at the support and the"
            " surface"
        )
    warnings.extend(_place_warnings(mean, stock_mm, tapered, spacing_mm, from_edge_mm))
    dropped = tuple(readings_hrc[:2]) if after_change else ()
    return HardnessSummary(
        mean,
        min(kept) + correction,
        max(kept) + correction,
        sd,
        correction,
        tuple(kept),
        dropped,
        tuple(warnings),
    )


def _place_warnings(
    mean_hrc: float,
    stock_mm: float | None,
    tapered: bool,
    spacing_mm: float | None,
    from_edge_mm: float | None,
) -> list[str]:
    warnings = []
    least = 10.0 * indent_depth_mm(mean_hrc)
    if stock_mm is not None and stock_mm < least:
        warnings.append(
            f"{stock_mm:g} mm is thinner than ten indent depths ({least:.1f} mm): the anvil is"
            " read too"
        )
    if tapered:
        warnings.append("read on a tapered flank: such readings come out low")
    diameter = indent_diameter_mm(mean_hrc)
    if spacing_mm is not None and spacing_mm < 3.0 * diameter:
        warnings.append(
            f"indents {spacing_mm:g} mm apart disturb each other; keep {3 * diameter:.1f} mm"
        )
    if from_edge_mm is not None and from_edge_mm < 2.5 * diameter:
        warnings.append(
            f"an indent {from_edge_mm:g} mm from an edge reads low; keep {2.5 * diameter:.1f} mm"
        )
    return warnings


def indent_depth_mm(hrc: float) -> float:
    """Lasting depth of a Rockwell C indent, mm: 0.002 × (100 − HRC), the definition of the scale
    [1].

    References
    ----------
    [1] ISO 6508-1, Rockwell hardness test; from memory.
    """
    return 0.002 * (100.0 - hrc)


def indent_diameter_mm(hrc: float) -> float:
    """Diameter of a Rockwell C indent, mm, from its lasting depth: a 120° cone with a tip of 0.2 mm
    radius.
    """
    depth = indent_depth_mm(hrc)
    tangent = _TIP_RADIUS_MM * (1.0 - math.sin(math.radians(60.0)))
    if depth <= tangent:
        return 2.0 * math.sqrt(2.0 * _TIP_RADIUS_MM * depth - depth**2)
    return 2.0 * (
        _TIP_RADIUS_MM * math.cos(math.radians(60.0))
        + (depth - tangent) * math.tan(math.radians(60.0))
    )


def hv_from_hrc(hrc: float) -> float:
    """Vickers from Rockwell C for non-austenitic steels: linear between entries of
    the table [1].

    OutOfRangeError outside the table.

    References
    ----------
    [1] ASTM E140, hardness conversion tables; from memory.
    """
    return _between(hrc, HRC_HV, "hardness", "HRC", "hrc")


def hrc_from_hv(hv: float) -> float:
    """Rockwell C from Vickers, the same table the other way; OutOfRangeError outside it."""
    return _between(hv, [(b, a) for a, b in HRC_HV], "hardness", "HV", "hv")


def _between(
    value: float, table: Sequence[tuple[float, float]], what: str, unit: str, field: str
) -> float:
    keys = [key for key, _ in table]
    if not keys[0] <= value <= keys[-1]:
        raise OutOfRangeError(
            f"{what} of {value:g} {unit} lies outside the table, which runs from {keys[0]:g} to"
            f" {keys[-1]:g} {unit}",
            field=field,
            value=value,
        )
    at = max(bisect_left(keys, value), 1)
    (x0, y0), (x1, y1) = table[at - 1], table[at]
    return y0 + (y1 - y0) * (value - x0) / (x1 - x0)
