"""What a choice weighs: figures with their intervals, in their own units, on a scale of ratios."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Literal

from kessik.core.spreads import Z_95

AxisKey = Literal["edge", "rust", "upkeep", "price", "cost", "toughness"]


@dataclass(frozen=True)
class Axis:
    """One thing that matters; `more_is_better` or less, `from_nothing` where 0 is a value like any
    other: then a share of 1 % counts as the step from 0.
    """

    key: AxisKey
    label: str
    more_is_better: bool
    from_nothing: bool = False


AXES = (
    Axis("edge", "edge life", more_is_better=True),
    Axis("rust", "rust", more_is_better=False, from_nothing=True),
    Axis("upkeep", "sharpening time", more_is_better=False),
    Axis("price", "price", more_is_better=False),
    Axis("cost", "cost of cutting", more_is_better=False),
    Axis("toughness", "toughness", more_is_better=True),
)
BY_KEY: Mapping[str, Axis] = {axis.key: axis for axis in AXES}


@dataclass(frozen=True)
class Figure:
    """A value with its 95 % bounds in `unit`; `rests_on` says where it is from."""

    value: float
    low: float
    high: float
    unit: str
    rests_on: str = ""

    def on(self, axis: Axis) -> tuple[float, float]:
        """Where it stands on the axis, better above, and its standard deviation there."""
        above = 1.0 if axis.from_nothing else 0.0
        at = math.log(max(self.value, 0.0) + above or 1e-9)
        low = math.log(max(self.low, 0.0) + above or 1e-9)
        high = math.log(max(self.high, 0.0) + above or 1e-9)
        sd = max(high - low, 0.0) / (2.0 * Z_95)
        return (at if axis.more_is_better else -at), sd


def exact(value: float, unit: str, rests_on: str = "") -> Figure:
    """A value without doubt."""
    return Figure(value, value, value, unit, rests_on)


@dataclass(frozen=True)
class Choosable:
    """A blade or grade that may be chosen: what is known of it by axis, and whether it is at hand.

    A figure that is not known is not there.
    """

    id: str
    name: str
    mark: int = 0
    grade: str = ""
    figures: Mapping[AxisKey, Figure] = field(default_factory=dict)
    in_hand: bool = True


def grades_of(blades: Sequence[Choosable]) -> list[Choosable]:
    """Grades as candidates: of each figure the mean over its blades, wider by how they differ.

    A grade with one blade has that blade's figures; a figure that half of its blades lack is not
    known of the grade.
    """
    by_grade: dict[str, list[Choosable]] = {}
    for blade in blades:
        if blade.grade:
            by_grade.setdefault(blade.grade, []).append(blade)
    return [
        Choosable(
            grade,
            grade,
            own[0].mark,
            grade,
            {axis.key: mean for axis in AXES if (mean := _mean(own, axis)) is not None},
            in_hand=any(blade.in_hand for blade in own),
        )
        for grade, own in sorted(by_grade.items())
    ]


def _mean(blades: Sequence[Choosable], axis: Axis) -> Figure | None:
    told = [blade.figures[axis.key] for blade in blades if axis.key in blade.figures]
    if 2 * len(told) <= len(blades):
        return None
    if len(told) == 1:
        return told[0]
    above = 1.0 if axis.from_nothing else 0.0
    logs = [math.log(figure.value + above or 1e-9) for figure in told]
    middle = sum(logs) / len(logs)
    between = sum((each - middle) ** 2 for each in logs) / (len(logs) - 1)
    own = sum(figure.on(axis)[1] ** 2 for figure in told) / len(told)
    half = Z_95 * math.sqrt(between / len(told) + own / len(told))
    low, value, high = (math.exp(middle + step) - above for step in (-half, 0.0, half))
    return Figure(value, max(low, 0.0), high, told[0].unit, f"{len(told)} blades")
