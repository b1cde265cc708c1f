"""The scales that values are compared on, and in what a tolerance is given there."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from kessik.core.comparison.variables import VariableKind

Floats = NDArray[np.float64]


@dataclass(frozen=True)
class Scale:
    """One scale: `on` puts values there, `limit` a tolerance; `apart` says how far two values lie
    apart, as a tolerance is given; `tolerance_unit` is empty where it is the variable's own.

    `step` is the finest change of a tolerance that a tester would type.
    """

    on: Callable[[Floats], Floats]
    limit: Callable[[float], float]
    apart: Callable[[float, float], float]
    tolerance_unit: str = ""
    step: float = 0.01


ABSOLUTE = Scale(lambda numbers: numbers, lambda tolerance: tolerance, lambda a, b: abs(a - b))
RELATIVE = Scale(
    np.log,
    lambda percent: math.log1p(percent / 100.0),
    lambda a, b: 100.0 * math.expm1(abs(math.log(a / b))),
    "%",
    1.0,
)
RATIO = Scale(np.log, math.log, lambda a, b: max(a / b, b / a), "times", 0.1)
_OTHERS: Mapping[VariableKind, Scale] = {
    "relative": RELATIVE, "start": RELATIVE, "length": RELATIVE, "ratio": RATIO,
}  # fmt: skip  # a table is read by its rows


def scale_of(kind: VariableKind) -> Scale:
    """The scale that variables of a kind are compared on; words and counts have no other."""
    return _OTHERS.get(kind, ABSOLUTE)
