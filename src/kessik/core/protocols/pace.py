"""Pace at the bench: cuts a minute, time without a break, and when the hand has had enough."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

import numpy as np
from numpy.typing import NDArray

# Common practice, no source: hands differ, and the tester's own comes first.
BREAK_S = 240.0
LONG_STRETCH_MIN = 45.0
MANY_CUTS = 150.0
SLOWED = 1.4
_GAPS = 12

TiredBy = Literal["slowed", "long", "many"]


@dataclass(frozen=True)
class HandPace:
    """Cuts a minute over the last cuts (None before two), minutes and cuts since the last break,
    and by what the hand seems tired; `slower` is how much longer a cut takes than at the start.
    """

    per_minute: float | None
    minutes_without_break: float
    cuts_without_break: float
    tired_by: TiredBy | None = None
    slower: float = 1.0


def pace(cuts: Sequence[tuple[float, float]], breaks_s: Sequence[float] = ()) -> HandPace:
    """Pace from (time s, amount) of cuts in their order; a pause, or four minutes without a cut, is
    a break.

    The hand is called tired after 45 minutes or 150 cuts without one, or where the last dozen cuts
    come 40 % slower than the first dozen of the stretch: common practice, no source.
    """
    stretch = _since_break(cuts, breaks_s)
    if len(stretch) < 2:
        return HandPace(None, 0.0, sum(amount for _, amount in stretch))
    times = np.array([at for at, _ in stretch])
    gaps = np.diff(times) / np.array([amount for _, amount in stretch[1:]])
    minutes, amount = (times[-1] - times[0]) / 60.0, sum(amount for _, amount in stretch)
    now_s = float(np.median(gaps[-_GAPS:]))
    slower = _slower(gaps)
    tired_by = _tired_by(slower, minutes, amount)
    return HandPace(60.0 / now_s if now_s > 0 else None, minutes, amount, tired_by, slower)


def _since_break(
    cuts: Sequence[tuple[float, float]], breaks_s: Sequence[float]
) -> list[tuple[float, float]]:
    last_break = max(breaks_s, default=-np.inf)
    stretch = [cut for cut in cuts if cut[0] >= last_break]
    ends = [
        i + 1 for i, (early, late) in enumerate(pairwise(stretch)) if late[0] - early[0] >= BREAK_S
    ]
    return stretch[ends[-1] if ends else 0 :]


def _slower(gaps: NDArray[np.float64]) -> float:
    if gaps.size < 3 * _GAPS:
        return 1.0
    return float(np.median(gaps[-_GAPS:]) / max(np.median(gaps[:_GAPS]), 1e-9))


def _tired_by(slower: float, minutes: float, amount: float) -> TiredBy | None:
    if slower >= SLOWED:
        return "slowed"
    if minutes >= LONG_STRETCH_MIN:
        return "long"
    return "many" if amount >= MANY_CUTS else None
