"""Strop-back: the share of lost sharpness that stropping alone brings back, and when it no longer
does.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

import numpy as np

from kessik.core.protocols.checks import PASS_FAIL
from kessik.core.protocols.series import outcome_of
from kessik.core.spreads import READING_SCATTER, Z_95

WORTH_IT = 0.5
"""Stones are due once stropping brings back less than this share of the loss: common
practice, no source."""


@dataclass(frozen=True)
class StropBack:
    """Share of the loss regained after so many strokes, with its 95 % bounds; forces in gf.

    `share` is None where the edge had not lost enough to speak of a share of it.
    """

    strokes: float
    start_gf: float
    end_gf: float
    after_gf: float
    share: float | None
    low: float | None
    high: float | None


def strop_back(
    start_gf: Sequence[float],
    end_gf: Sequence[float],
    after_gf: Sequence[float],
    strokes: float,
    scatter: float = READING_SCATTER,
) -> StropBack:
    """Share regained (end - after) / (end - start) of the mean readings in gf, its bounds by
    propagated `scatter`, the s.d. of ln of one reading.

    A loss smaller than twice its own error has no share. Raises ValueError on empty readings.
    """
    start, end, after = (_mean_gf(readings) for readings in (start_gf, end_gf, after_gf))
    start_sd, end_sd, after_sd = (
        value * scatter / math.sqrt(len(readings))
        for value, readings in ((start, start_gf), (end, end_gf), (after, after_gf))
    )
    loss = end - start
    if loss <= 2 * math.hypot(start_sd, end_sd):
        return StropBack(strokes, start, end, after, None, None, None)
    share = (end - after) / loss
    slopes = (share * start_sd / loss, (1 - share) * end_sd / loss, after_sd / loss)
    half = Z_95 * math.hypot(*slopes)
    return StropBack(strokes, start, end, after, share, share - half, share + half)


@dataclass(frozen=True)
class AbilityBack:
    """What an edge does again after so many strokes: of each kind of check how many tries passed,
    and of how many; of a scale of the tester's own the grades that it showed, in their order.
    """

    strokes: float
    passed: Mapping[str, tuple[int, int]]
    grades: Mapping[str, tuple[str, ...]] = field(default_factory=dict)

    def does(self, check: str) -> bool | None:
        """Whether it passes a check again, in one try at least; None where that was not tried."""
        found = self.passed.get(check)
        return None if found is None else found[0] > 0


def ability_back(strokes: float, tries: Sequence[tuple[str, str]]) -> AbilityBack:
    """What the tries of checks after so many strokes showed; each a check and its outcome."""
    passed: dict[str, tuple[int, int]] = {}
    grades: dict[str, tuple[str, ...]] = {}
    for check, shown in tries:
        outcome = outcome_of(check, shown)
        if outcome in PASS_FAIL:
            good, of = passed.get(check, (0, 0))
            passed[check] = (good + (outcome == "pass"), of + 1)
        else:
            grades[check] = (*grades.get(check, ()), shown)
    return AbilityBack(strokes, passed, grades)


def stones_due(tests: Sequence[StropBack], keen_gf: float | None) -> int | None:
    """The strop-back, counted from 1, that no longer did: back under the keen limit (gf), else half
    of the loss.

    `tests` are the last readings of each strop-back of one edge, in their order; None while all of
    them did.
    """
    for number, test in enumerate(tests, 1):
        still_dull = keen_gf is not None and test.after_gf > keen_gf
        too_little = keen_gf is None and test.share is not None and test.share < WORTH_IT
        if still_dull or too_little:
            return number
    return None


def _mean_gf(readings: Sequence[float]) -> float:
    if len(readings) == 0:
        raise ValueError("a mean needs a reading")
    return float(np.exp(np.mean(np.log(readings))))
