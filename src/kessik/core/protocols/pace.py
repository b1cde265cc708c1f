"""Pace at the bench: cuts a minute, time without a break, and when the hand has had enough."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

# Common practice, no source: hands differ, and the tester's own comes first.
BREAK_S = 240.0
LONG_STRETCH_MIN = 45.0
MANY_CUTS = 150.0
SLOWED = 1.4
_GAPS = 12


@dataclass(frozen=True)
class Pace:
    """Cuts a minute over the last cuts, minutes and cuts since the last break, and a hint; None
    before two cuts.
    """

    per_minute: float | None
    minutes_without_break: float
    cuts_without_break: float
    hint: str = ""


def pace(cuts: Sequence[tuple[float, float]], breaks_s: Sequence[float] = ()) -> Pace:
    """Pace from (time s, amount) of cuts in their order; a pause, or four minutes without a cut, is
    a break.

    The hand is called tired after 45 minutes or 150 cuts without one, or where the last dozen cuts
    come 40 % slower than the first dozen of the stretch: common practice, no source.
    """
    stretch = _since_break(cuts, breaks_s)
    if len(stretch) < 2:
        return Pace(None, 0.0, sum(amount for _, amount in stretch))
    times = np.array([at for at, _ in stretch])
    gaps = np.diff(times) / np.array([amount for _, amount in stretch[1:]])
    minutes, amount = (times[-1] - times[0]) / 60.0, sum(amount for _, amount in stretch)
    now_s = float(np.median(gaps[-_GAPS:]))
    return Pace(60.0 / now_s if now_s > 0 else None, minutes, amount, _hint(gaps, minutes, amount))


def _since_break(
    cuts: Sequence[tuple[float, float]], breaks_s: Sequence[float]
) -> list[tuple[float, float]]:
    last_break = max(breaks_s, default=-np.inf)
    stretch = [cut for cut in cuts if cut[0] >= last_break]
    ends = [
        i + 1 for i, (early, late) in enumerate(pairwise(stretch)) if late[0] - early[0] >= BREAK_S
    ]
    return stretch[ends[-1] if ends else 0 :]


def _hint(gaps: NDArray[np.float64], minutes: float, amount: float) -> str:
    if gaps.size >= 3 * _GAPS:
        slower = float(np.median(gaps[-_GAPS:]) / max(np.median(gaps[:_GAPS]), 1e-9))
        if slower >= SLOWED:
            return (
                f"cuts come {100 * (slower - 1):.0f} % slower than at the start of this stretch;"
                " rest the hand"
            )
    if minutes >= LONG_STRETCH_MIN:
        return f"{minutes:.0f} minutes without a break; rest the hand"
    if amount >= MANY_CUTS:
        return f"{amount:g} cuts without a break; rest the hand"
    return ""
