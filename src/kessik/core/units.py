"""Exact conversions between the units testers use and the ones Kessik stores."""

from kessik.core.errors import OutOfRangeError

MILLINEWTON_PER_GF = 9.80665
MM_PER_THOU = 0.0254
MM_PER_LENGTH = {"mm": 1.0, "m": 1000.0, "in": 25.4, "ft": 304.8}

_GF_PER_UNIT = {"gf": 1.0, "N": 1000.0 / MILLINEWTON_PER_GF}


def force_to_gf(value: float, unit: str) -> float:
    """Force in gram-force from `gf` or `N`; OutOfRangeError names an unknown unit. 1 gf = 9.80665
    mN exactly.
    """
    if unit not in _GF_PER_UNIT:
        raise OutOfRangeError(
            f"force unit {unit!r} is not known; use gf or N", field="unit", value=unit
        )
    return value * _GF_PER_UNIT[unit]


def thou_to_mm(thou: float) -> float:
    """Thousandths of an inch to mm: 1 thou = 0.0254 mm exactly."""
    return thou * MM_PER_THOU


def mm_to_thou(mm: float) -> float:
    """mm to thousandths of an inch."""
    return mm / MM_PER_THOU


def format_to_uncertainty(value: float, low: float, high: float) -> str:
    """A number with the digits its interval supports."""
    width = max(high - low, 1e-12)
    decimals = 0 if width >= 2 or value >= 100 else 1 if width >= 0.15 else 2
    return f"{value:.{decimals}f}"


def format_interval(low: float, high: float) -> str:
    """Both ends of an interval with the digits that its width supports: `11.3 to 13.6`."""
    return f"{format_to_uncertainty(low, low, high)} to {format_to_uncertainty(high, low, high)}"
