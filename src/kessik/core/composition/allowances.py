"""Product-analysis allowances: how far a piece may lie outside the range that its melt was held
to.
"""

from collections.abc import Mapping
from dataclasses import replace

from kessik.core.composition.elements import visibility
from kessik.core.composition.grades import Range

# Up to the limit in mass per cent, so much is allowed beyond it. After the product-analysis tables
# of ASTM A484 and EN 10088; from memory, rounded.
_STEPS: Mapping[str, tuple[tuple[float, float], ...]] = {
    "C": ((0.25, 0.01), (0.55, 0.02), (1.0, 0.03), (100.0, 0.04)),
    "Si": ((0.6, 0.03), (1.0, 0.05), (100.0, 0.10)),
    "Mn": ((0.9, 0.03), (2.0, 0.04), (100.0, 0.10)),
    "P": ((100.0, 0.005),),
    "S": ((0.06, 0.005), (100.0, 0.02)),
    "Cr": ((1.0, 0.03), (5.0, 0.07), (10.0, 0.10), (15.0, 0.15), (100.0, 0.20)),
    "Mo": ((0.6, 0.03), (2.0, 0.05), (7.0, 0.10), (100.0, 0.15)),
    "V": ((0.25, 0.02), (1.0, 0.03), (2.5, 0.05), (100.0, 0.10)),
    "W": ((1.0, 0.04), (4.0, 0.08), (8.0, 0.10), (100.0, 0.20)),
    "Ni": ((1.0, 0.03), (5.0, 0.07), (10.0, 0.10), (100.0, 0.15)),
    "Co": ((1.0, 0.03), (5.0, 0.07), (100.0, 0.15)),
    "Cu": ((1.0, 0.03), (100.0, 0.10)),
    "Nb": ((1.0, 0.05), (100.0, 0.10)),
    "Ti": ((1.0, 0.05), (100.0, 0.10)),
    "Al": ((0.2, 0.02), (100.0, 0.10)),
    "N": ((0.2, 0.01), (100.0, 0.03)),
}
_OTHERS = ((1.0, 0.03), (100.0, 0.10))

_RESIDUAL = 0.3
_RESIDUALS = {"Ni": 0.5, "Cu": 0.5}
"""What a steel may hold of an element its grade does not list, mass per cent; common practice, no
source."""


_LEAST_WIDTHS = {
    "C": 0.08, "Si": 0.2, "Mn": 0.2, "P": 0.01, "S": 0.01, "Cr": 0.25, "Mo": 0.12, "V": 0.06,
    "W": 0.12, "Ni": 0.2, "Co": 0.2, "Cu": 0.15, "Nb": 0.08, "N": 0.04,
}  # fmt: skip
_LEAST_WIDTH, _LEAST_WIDTH_SHARE = 0.08, 0.06
"""How far melts of one grade spread at least, mass per cent or as a share of the content, however
narrow a range is written: common practice, no source."""


_NOMINAL_SHARE = 0.08
"""How far melts lie from a nominal content, as a share of it: ranges in standards reach from 8 %
(chromium of 12: 11 to 13) to 20 % of their middle; common practice, no source."""


def least_width_percent(symbol: str, high_percent: float) -> float:
    """How wide the melts of a grade spread at least, mass per cent: a narrow range wins nothing."""
    return max(_LEAST_WIDTHS.get(symbol, _LEAST_WIDTH), _LEAST_WIDTH_SHARE * high_percent)


def as_melted(found: Range) -> Range:
    """What melts usually hold where a grade states one figure; any other range as it is."""
    if not found.is_nominal or found.high_percent is None:
        return found
    stated = found.high_percent
    half = max(0.5 * least_width_percent(found.element, stated), _NOMINAL_SHARE * stated)
    return replace(found, low_percent=max(stated - half, 0.0), high_percent=stated + half)


def allowance_percent(symbol: str, limit_percent: float) -> float:
    """What a piece may lie beyond a limit of its grade, mass per cent."""
    steps = _STEPS.get(symbol, _OTHERS)
    return next(allowed for upto, allowed in steps if limit_percent <= upto)


def residual_limit_percent(symbol: str) -> float:
    """What is let pass of an element that a grade does not list, mass per cent."""
    return _RESIDUALS.get(symbol, _RESIDUAL)


def widened(found: Range | None, symbol: str) -> tuple[float, float]:
    """The range with its allowances, mass per cent; an open high end is infinite. Carbon and its
    like, where a grade does not list them, may be anything.
    """
    if found is None:
        is_seen = visibility(symbol) != "not_seen"
        return 0.0, residual_limit_percent(symbol) if is_seen else float("inf")
    low, high = found.low_percent, found.high_percent
    least = 0.0 if low is None else max(low - allowance_percent(symbol, low), 0.0)
    most = float("inf") if high is None else high + allowance_percent(symbol, high)
    return least, most
