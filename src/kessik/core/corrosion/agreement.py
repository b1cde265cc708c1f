"""How far raters agree: the same side in the same round, graded twice.

References
----------
[1] J. Cohen, Weighted kappa, Psychological Bulletin 70 (1968) 213: quadratic weights.
[2] J. M. Bland and D. G. Altman, Lancet 327 (1986) 307: the spread of differences is root 2 times
    that of one rating.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations

import numpy as np

from kessik.core.corrosion.course import RATER_POINTS, RUSTED_PERCENT, bounds_of
from kessik.core.corrosion.ratings import grade_of, rating_points
from kessik.core.corrosion.rounds import Round, SideToSee
from kessik.core.corrosion.soaks import BY_EYE, Look

_RATER_WEIGHT = 4.0
"""How many pairs of ratings the usual spread of one is worth; common practice, no source."""
_GRADES = 11


@dataclass(frozen=True)
class Agreement:
    """Two raters, or one at two times, over the sides that both graded: weighted kappa, None where
    all grades are one, and the mean difference in grades, the second's less the first's, with the
    mean of its size.
    """

    first: str
    second: str
    sides: int
    kappa: float | None
    mean_difference: float
    mean_size: float


@dataclass(frozen=True)
class RatedTwice:
    """All pairs of ratings: how raters agree, and what one rating is worth in rating points."""

    agreements: tuple[Agreement, ...] = ()
    rater_points: float = RATER_POINTS


@dataclass(frozen=True)
class UsualRater:
    """How far one rating by eye is off before a soak says more: a standard deviation in rating
    points, worth so many pairs of ratings.
    """

    points: float = RATER_POINTS
    weight: float = _RATER_WEIGHT


def rated_twice(
    looks: Sequence[Look], rounds: Sequence[Round], usual: UsualRater | None = None
) -> RatedTwice:
    """The ratings by eye that a round has of one side in one stage, pair by pair; `usual` is what
    is known of the rater beforehand.

    A worked example: six sides, of which the second rater gives five the same grade and one a grade
    less, differ by 0.17 grades on average.
    """
    began = {look_id: place for place, each in enumerate(rounds) for look_id in each.look_ids}
    of_place: dict[tuple[int, SideToSee], list[Look]] = {}
    for look in sorted(looks, key=lambda each: each.clock_h):
        is_whole = look.counts and look.region == "" and look.id in began
        if is_whole and look.how in BY_EYE and bounds_of(look) is not None:
            place = SideToSee(look.coupon_id, look.side, look.stage)
            of_place.setdefault((began[look.id], place), []).append(look)
    pairs: dict[tuple[str, str], list[tuple[float, float]]] = {}
    for same in of_place.values():
        for one, other in combinations(same, 2):
            first, second = sorted((one, other), key=lambda look: look.seen_by.casefold())
            named = (first.seen_by.strip(), second.seen_by.strip())
            pairs.setdefault(named, []).append((_area(first), _area(second)))
    agreements = tuple(_agreement(named, areas) for named, areas in sorted(pairs.items()))
    return RatedTwice(agreements, _rater_points(pairs, usual or UsualRater()))


def weighted_kappa(first: Sequence[int], second: Sequence[int]) -> float | None:
    """Cohen's kappa with quadratic weights over grades 0 to 10 [1]; None where every grade of both
    is the same one.
    """
    seen = np.zeros((_GRADES, _GRADES))
    np.add.at(seen, (np.asarray(first), np.asarray(second)), 1.0)
    expected = np.outer(seen.sum(axis=1), seen.sum(axis=0)) / seen.sum()
    grades = np.arange(_GRADES)
    weights = (grades[:, None] - grades[None, :]) ** 2
    by_chance = float((weights * expected).sum())
    return None if by_chance == 0 else 1.0 - float((weights * seen).sum()) / by_chance


def _area(look: Look) -> float:
    area = bounds_of(look)
    assert area is not None
    return area.middle


def _agreement(
    named: tuple[str, str], areas: Sequence[tuple[float, float]]
) -> Agreement:  # fmt: skip
    first = [grade_of("iso_10289", one) for one, _ in areas]
    second = [grade_of("iso_10289", other) for _, other in areas]
    steps = np.subtract(second, first)
    kappa = weighted_kappa(first, second)
    return Agreement(
        *named, len(areas), kappa, float(steps.mean()), float(np.abs(steps).mean())
    )  # fmt: skip


def _rater_points(
    pairs: Mapping[tuple[str, str], Sequence[tuple[float, float]]], usual: UsualRater
) -> float:
    """The spread of one rating, from differences of two [2] and what is usual."""
    squares, count = usual.weight * usual.points**2, usual.weight
    for areas in pairs.values():
        for one, other in areas:
            apart = rating_points(max(one, RUSTED_PERCENT)) - rating_points(
                max(other, RUSTED_PERCENT)
            )
            squares += 0.5 * apart**2
            count += 1
    return float(np.sqrt(squares / count))
