"""Upkeep as a result: minutes, strokes, steel and trouble of sharpening, blade by blade.

Minutes of one blade scatter by a quarter or so from time to time; the scatter is pooled over blades
and moderated by that. The first sharpening of a factory edge sets the bevel, and is left out. A
worked example: 11 and 10.5 minutes, pooled scatter 20 %: 10.7 minutes, 8.1 to 14 (t, 7 degrees).

References
----------
[1] G. K. Smyth, Stat. Appl. Genet. Mol. Biol. 3 (2004): variances moderated by a common one.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
from scipy.special import stdtrit

from kessik.core.choice.axes import Figure
from kessik.core.sharpening.strop_back import StropBack
from kessik.core.shelf.edges import Edge

USUAL_SD, USUAL_DF = 0.25, 6.0
"""Scatter of ln minutes from sharpening to sharpening, and how much that counts: common practice,
no source."""


@dataclass(frozen=True)
class BladeUpkeep:
    """What a blade asks for: figures are None where nothing was noted; `steps_again` is the share
    of sharpenings in which a step was done more than once, `trouble` that with trouble noted.
    """

    sharpenings: int
    minutes: Figure | None
    strokes: Figure | None
    steel_mm: Figure | None
    steps_again: float | None
    trouble: float | None
    strop_backs: int = 0
    strop_share: float | None = None


def upkeep_of(
    edges: Mapping[str, Sequence[Edge]], strops: Mapping[str, Sequence[StropBack]]
) -> dict[str, BladeUpkeep]:
    """The upkeep of each blade, by its id."""
    made = {blade: _own_sharpenings(own) for blade, own in edges.items()}
    minutes = _figures({b: [e.minutes for e in own] for b, own in made.items()}, "min")
    strokes = _figures({b: [_strokes(e) for e in own] for b, own in made.items()}, "strokes a side")
    steel = _figures({b: [e.steel_removed_mm for e in own] for b, own in made.items()}, "mm")
    return {
        blade: BladeUpkeep(
            len(own),
            minutes.get(blade),
            strokes.get(blade),
            steel.get(blade),
            _share([any(s.repeats > 1 for s in e.steps) for e in own if e.steps]),
            _share([bool(e.trouble) for e in own if e.minutes or e.steps or e.trouble]),
            len(strops.get(blade, ())),
            _mean([test.share for test in strops.get(blade, ()) if test.share is not None]),
        )
        for blade, own in made.items()
    }


def _own_sharpenings(edges: Sequence[Edge]) -> list[Edge]:
    """Sharpenings of the tester's own, but for the one that set the bevel of a factory edge."""
    ordered = sorted(edges, key=lambda edge: edge.number)
    own = [edge for edge in ordered if not edge.factory]
    return own[1:] if any(edge.factory for edge in ordered) else own


def _strokes(edge: Edge) -> float | None:
    told = [step.strokes_per_side * step.repeats for step in edge.steps if step.strokes_per_side]
    return float(sum(told)) if told else None


def _figures(values: Mapping[str, Sequence[float | None]], unit: str) -> dict[str, Figure]:
    """Geometric means with intervals, the scatter pooled over all blades."""
    logs = {b: np.log([v for v in own if v]) for b, own in values.items() if any(own)}
    squares = sum(float(((own - own.mean()) ** 2).sum()) for own in logs.values())
    df = USUAL_DF + sum(own.size - 1 for own in logs.values())
    sd = math.sqrt((USUAL_DF * USUAL_SD**2 + squares) / df)
    reach = float(stdtrit(df, 0.975)) * sd
    found = {}
    for blade, own in logs.items():
        half = reach / math.sqrt(own.size)
        low, middle, high = np.exp([own.mean() - half, own.mean(), own.mean() + half])
        told = f"{own.size} sharpening{'s' if own.size > 1 else ''}"
        found[blade] = Figure(float(middle), float(low), float(high), unit, told)
    return found


def _share(told: Sequence[bool]) -> float | None:
    return sum(told) / len(told) if told else None


def _mean(values: Sequence[float]) -> float | None:
    return sum(values) / len(values) if values else None


def per(figure: Figure, life: Figure, of: float, unit: str) -> Figure:
    """A figure of one sharpening spread over what its life cuts, for so much of it: errors of both
    add on the scale of ratios.
    """
    value = figure.value / life.value * of
    spread = math.hypot(
        math.log(figure.high / figure.low), math.log(life.high / max(life.low, 1e-9))
    )
    factor = math.exp(spread / 2.0)
    return Figure(value, value / factor, value * factor, unit, figure.rests_on)


@dataclass(frozen=True)
class CostAssumptions:
    """What the cost of cutting rests on: steel that may go until the blade is worn out, and what an
    hour of sharpening costs, in the currency of the price.
    """

    steel_to_lose_mm: float = 6.0
    hour_costs: float = 0.0


def cost_of_cutting(
    price: Figure,
    life: Figure,
    steel_mm: Figure,
    minutes: Figure | None,
    assumed: CostAssumptions,
    of: float,
) -> Figure:
    """Price and sharpening for so much that is cut, over all the sharpenings that the steel allows.

    A worked example: 640, 6 mm to lose at 0.25 mm a sharpening: 24 lives of 24 cuts; 640 / 576 =
    1.11 for each cut, and with 16 min a life at 200 an hour 53 / 24 = 2.2 more.
    """
    lives = assumed.steel_to_lose_mm / steel_mm.value
    of_price = price.value / lives
    of_time = assumed.hour_costs * (minutes.value / 60.0 if minutes else 0.0)
    value = (of_price + of_time) / life.value * of
    doubts = [math.log(life.high / max(life.low, 1e-9))]
    share = of_price / (of_price + of_time or 1.0)
    doubts.append(share * math.log(steel_mm.high / steel_mm.low))
    if minutes:
        doubts.append((1.0 - share) * math.log(minutes.high / minutes.low))
    factor = math.exp(math.sqrt(sum(doubt**2 for doubt in doubts)) / 2.0)
    return Figure(value, value / factor, value * factor, price.unit)
