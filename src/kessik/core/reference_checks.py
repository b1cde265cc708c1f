"""Daily checks of an instrument on its reference: whether it still reads as it did."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import scipy

from kessik.core.spreads import Z_95

BASE_CHECKS = 5
LEAST_CHANGE_PERCENT = 3.0
USUAL_DAY_TO_DAY = 0.02
"""Standard deviation of ln of a day's mean, until three days are known: common practice, no
source."""


@dataclass(frozen=True)
class Drift:
    """Change of the last check against the first ones, per cent, with 95 % bounds; `warns` where it
    has moved.
    """

    change_percent: float
    low: float
    high: float
    warns: bool
    words: str


def drift(checks: Sequence[Sequence[float]]) -> Drift | None:
    """Compare the last check with the mean of the first five, on the log scale; None before the
    second.

    The base stays fixed, so that a slow drift cannot drag it along. It warns where the interval,
    from the spread of the base from day to day, excludes no change, and the change is 3 % at least:
    after control charts [1]; the 3 % are common practice, no source.

    References
    ----------
    [1] ISO 7870-2, control charts: Shewhart charts; from memory.
    """
    means = [
        float(np.mean(np.log(readings)))
        for readings in checks
        if len(readings) and min(readings) > 0
    ]
    if len(means) < 2:
        return None
    base = means[: min(BASE_CHECKS, len(means) - 1)]
    spread, level = USUAL_DAY_TO_DAY, Z_95
    if len(base) >= 3:
        spread, level = (
            max(float(np.std(base, ddof=1)), 0.25 * USUAL_DAY_TO_DAY),
            float(scipy.special.stdtrit(len(base) - 1, 0.975)),
        )
    change = means[-1] - float(np.mean(base))
    half = level * spread * math.sqrt(1 + 1 / len(base))
    percent, low, high = (100.0 * math.expm1(x) for x in (change, change - half, change + half))
    warns = (low > 0 or high < 0) and abs(percent) >= LEAST_CHANGE_PERCENT
    said = (
        f"reads {abs(percent):.0f} % {'higher' if percent > 0 else 'lower'} than at first"
        f" ({low:+.0f} to {high:+.0f})"
    )
    words = f"{said}; find out why before trusting it" if warns else "reads as it did at first"
    return Drift(percent, low, high, warns, words)
