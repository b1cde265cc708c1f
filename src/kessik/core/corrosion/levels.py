"""What the factor of a soak did: its levels in order, from coupons that are alike in all else.

The model is that of two-way tables: rating points = level + kind of coupon + error, where a kind is
a blade, or a steel, with the oil, coating and finish that are not asked about [1].

References
----------
[1] G. E. P. Box, J. S. Hunter and W. G. Hunter, Statistics for Experimenters, on randomised blocks;
    from memory.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from itertools import combinations

import numpy as np
from numpy.typing import NDArray

from kessik.core.corrosion.course import Bounds
from kessik.core.corrosion.fairness import Specimen, value_of
from kessik.core.corrosion.ordering import shared_places, tied_runs
from kessik.core.corrosion.ranking import APART, PRIOR_POINTS, PRIOR_WEIGHT, RankEntry, mean_area

_ALIKE_IN = ("coating", "oil", "flat_finish", "polished_before", "exposed_before")


@dataclass(frozen=True)
class LevelEntry:
    """A level of the factor: points beside the other levels, the mean area of its coupons, how many
    they are, from the least rust to the most of them.
    """

    level: str
    points: float
    area: Bounds
    coupons: tuple[str, ...]
    least: Bounds
    most: Bounds
    is_clean: bool


@dataclass(frozen=True)
class LevelOrder:
    """The levels from the least rust to the most, in groups that share a place, with the longest
    runs that cannot be told apart; `blocks` is on how many kinds of coupons levels stand beside
    each other, `apart` on how many of them two levels were told apart. `unlinked` levels stand
    beside no other.
    """

    entries: tuple[LevelEntry, ...]
    places: tuple[tuple[str, ...], ...]
    ties: tuple[tuple[str, ...], ...]
    blocks: int
    apart: int
    contrary: bool
    unlinked: tuple[str, ...] = ()
    apart_pairs: frozenset[tuple[str, str]] = frozenset()

    def are_apart(self, one: str, other: str) -> bool:
        """Whether two levels were told apart."""
        return (one, other) in self.apart_pairs or (other, one) in self.apart_pairs


@dataclass(frozen=True)
class LevelRow:
    """One coupon of a level and of a kind, with where it stands."""

    level: str
    kind: tuple[str, ...]
    standing: RankEntry


def level_order(
    factor: str, specimens: Sequence[Specimen], standings: Mapping[str, RankEntry]
) -> LevelOrder | None:
    """The order of the levels; None where every coupon is a level of its own, or all are one.

    Coupons are compared inside a blade where its coupons have several levels, else inside a steel,
    else inside what they were given.
    """
    known = [each for each in specimens if each.coupon.id in standings]
    levels = list(dict.fromkeys(value_of(factor, each) for each in known))
    if len(levels) < 2 or (factor == "steel" and len(levels) == _blades(known)):
        return None
    rows = max(
        (_rows(factor, known, standings, inside) for inside in _insides(factor)),
        key=lambda rows: len(linked_levels(rows)),
    )
    linked = linked_levels(rows)
    if len(linked) < 2:
        return None
    own = [row for row in rows if row.level in linked]
    return order_of_levels(own, [level for level in levels if level not in linked])


def _blades(known: Sequence[Specimen]) -> int:
    return len({each.coupon.blade_id or each.coupon.id for each in known})


def _insides(factor: str) -> tuple[str, ...]:
    """Within what levels may stand beside each other, the nearest first."""
    return ("treated",) if factor == "steel" else ("blade", "steel", "treated")


def _rows(
    factor: str, known: Sequence[Specimen], standings: Mapping[str, RankEntry], inside: str
) -> list[LevelRow]:
    alike = [variable for variable in _ALIKE_IN if variable != factor]
    rows = []
    for each in known:
        given = tuple(value_of(variable, each).casefold() for variable in alike)
        own = each.coupon.blade_id if inside == "blade" else ""
        steel = each.steel.casefold() if inside in ("blade", "steel") else ""
        kind = (own or steel, *given)
        rows.append(LevelRow(value_of(factor, each), kind, standings[each.coupon.id]))
    return rows


def linked_levels(rows: Sequence[LevelRow], of: str | None = None) -> set[str]:
    """The largest set of levels that kinds of coupons link to each other, or that of a level."""
    groups: list[set[str]] = []
    by_kind: dict[tuple[str, ...], set[str]] = {}
    for row in rows:
        by_kind.setdefault(row.kind, set()).add(row.level)
    for levels in by_kind.values():
        touched = [group for group in groups if group & levels]
        groups = [group for group in groups if not group & levels]
        groups.append(levels.union(*touched))
    if of is not None:
        return next((group for group in groups if of in group), set())
    return max(groups, key=len, default=set())


def order_of_levels(rows: Sequence[LevelRow], unlinked: Sequence[str]) -> LevelOrder:
    """The order of levels that kinds of coupons link."""
    levels = list(dict.fromkeys(row.level for row in rows))
    effects, covariance = _least_squares(rows, levels)
    entries = sorted(
        (_entry(level, effects[place], rows) for place, level in enumerate(levels)),
        key=lambda entry: -entry.points,
    )
    place_of = {level: place for place, level in enumerate(levels)}

    def apart(one: LevelEntry, other: LevelEntry) -> bool:
        if one.is_clean and other.is_clean:
            return False
        i, j = place_of[one.level], place_of[other.level]
        variance = covariance[i, i] + covariance[j, j] - 2.0 * covariance[i, j]
        return abs(one.points - other.points) > APART * math.sqrt(max(variance, 0.0))

    steps = _steps(rows)
    return LevelOrder(
        tuple(entries),
        tuple(tuple(e.level for e in group) for group in shared_places(entries, apart)),
        tuple(tuple(e.level for e in run) for run in tied_runs(entries, apart)),
        len(steps),
        sum(bool(step) for step in steps),
        len(levels) == 2 and len({step for step in steps if step}) > 1,
        tuple(unlinked),
        frozenset((a.level, b.level) for a, b in combinations(entries, 2) if apart(a, b)),
    )


def _least_squares(
    rows: Sequence[LevelRow], levels: Sequence[str]
) -> tuple[NDArray[np.float64], NDArray[np.float64]]:
    """Effects of the levels and their covariance, up to a constant that all share.

    The error is that of the residuals and of what sides usually differ by, and never less than
    what the coupons' own looks leave open. A worked example: two levels on two blades, 10 and 7
    points on one, 6 and 3 on the other, lie 3.0 points apart with nothing left over.
    """
    kinds = list(dict.fromkeys(row.kind for row in rows))
    design = np.zeros((len(rows), len(levels) + len(kinds)))
    for place, row in enumerate(rows):
        design[place, levels.index(row.level)] = 1.0
        design[place, len(levels) + kinds.index(row.kind)] = 1.0
    points = np.array([row.standing.points for row in rows])
    inverse = np.linalg.pinv(design.T @ design)
    effects = np.asarray(inverse @ design.T @ points, dtype=np.float64)
    left = points - design @ effects
    freedom = max(len(rows) - int(np.linalg.matrix_rank(design)), 0)
    pooled = (float(left @ left) + PRIOR_WEIGHT * PRIOR_POINTS**2) / (freedom + PRIOR_WEIGHT)
    own = float(np.mean([row.standing.error**2 for row in rows]))
    count = len(levels)
    covariance = np.asarray(max(pooled, own) * inverse[:count, :count], dtype=np.float64)
    return effects[:count], covariance


def _entry(level: str, points: float, rows: Sequence[LevelRow]) -> LevelEntry:
    own = [row.standing for row in rows if row.level == level]
    ordered = sorted(own, key=lambda standing: standing.area.middle)
    return LevelEntry(
        level,
        float(points),
        mean_area([standing.area for standing in own]),
        tuple(standing.coupon_id for standing in own),
        ordered[0].area,
        ordered[-1].area,
        all(standing.is_clean for standing in own),
    )


def _steps(rows: Sequence[LevelRow]) -> list[int]:
    """Of every two coupons of one kind and unlike levels, which rusted less: 1 the level that was
    met first, −1 the other, 0 where they could not be told apart.
    """
    by_kind: dict[tuple[str, ...], list[LevelRow]] = {}
    for row in rows:
        by_kind.setdefault(row.kind, []).append(row)
    first_met = {level: place for place, level in enumerate(dict.fromkeys(r.level for r in rows))}
    found = []
    for own in by_kind.values():
        for one, other in combinations(sorted(own, key=lambda r: first_met[r.level]), 2):
            if one.level == other.level:
                continue
            step = one.standing.points - other.standing.points
            error = math.hypot(one.standing.error, other.standing.error)
            found.append(0 if abs(step) <= APART * error else 1 if step > 0 else -1)
    return found
