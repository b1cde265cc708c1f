"""References of earlier trials on the scale of one trial: how far they would have gone there."""

import math
from collections.abc import Mapping
from dataclasses import dataclass

from kessik.core.standings.answer import LifeRatio


@dataclass(frozen=True)
class LifeOnScale:
    """A life with its 95 % interval, in the unit of its trial."""

    estimate: float
    low: float
    high: float


def on_scale_of(own: LifeOnScale, ratio: LifeRatio) -> LifeOnScale | None:
    """A reference's life where an arm lives so long, given the life of the reference over the
    arm's; None where the ratio has an open end. Both intervals enter.
    """
    if ratio.ratio is None or ratio.low is None or ratio.high is None:
        return None
    middle = own.estimate * ratio.ratio
    down = math.hypot(math.log(own.estimate / own.low), math.log(ratio.ratio / ratio.low))
    up = math.hypot(math.log(own.high / own.estimate), math.log(ratio.high / ratio.ratio))
    return LifeOnScale(middle, middle * math.exp(-down), middle * math.exp(up))


def best_known(lives: Mapping[str, LifeOnScale]) -> str:
    """The arm whose life is known best, by the width of its interval."""
    return min(lives, key=lambda arm: math.log(lives[arm].high / lives[arm].low))
