"""A simulated melt: what a piece of a grade really holds."""

from collections.abc import Mapping
from dataclasses import dataclass

import numpy as np

from kessik.core.composition.grades import Grade, Range

_RESIDUALS = {"Ni": 0.06, "Cu": 0.06, "Mo": 0.03, "Co": 0.01, "V": 0.01, "W": 0.01}
"""What scrap brings in, mass per cent: invented, of the usual size."""


@dataclass(frozen=True)
class Melt:
    """Mass per cent by element; iron is the rest."""

    percent: Mapping[str, float]

    @property
    def iron(self) -> float:
        return 100.0 - sum(self.percent.values())


def melt_of(grade: Grade, rng: np.random.Generator) -> Melt:
    """A melt from anywhere in the ranges of a grade, with the usual residuals."""
    content = {found.element: _inside(found, rng) for found in grade.ranges}
    content.pop("Fe", None)
    for symbol, usual in _RESIDUALS.items():
        content.setdefault(symbol, abs(float(rng.normal(0.0, usual))))
    return Melt(content)


def _inside(found: Range, rng: np.random.Generator) -> float:
    low, high = found.low_percent, found.high_percent
    if high is None:
        return (low or 0.0) * float(rng.uniform(1.0, 1.3))
    least = low if low is not None else 0.1 * high
    return float(rng.uniform(least, high))
