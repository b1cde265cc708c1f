"""Which grades an analyser can tell apart at all, however many shots are taken."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

import numpy as np

from kessik.core.composition.allowances import as_melted
from kessik.core.composition.elements import visibility
from kessik.core.composition.grades import Grade, Range
from kessik.core.composition.means import Calibration
from kessik.core.composition.table import Floats, GradeTable, expected_content

_COMMON_SHARE, _WORTH_NAMING_PERCENT = 0.5, 0.1
NEVER_APART, SELDOM_APART = 0.95, 0.75
"""Overlaps of what two grades look like: from here on shots never, or seldom, separate them."""


@dataclass(frozen=True)
class Difference:
    """An element in which two grades differ: the ranges of each, None where it is not listed;
    whether the analyser sees it, and whether its content would `separate` them.
    """

    element: str
    first: Range | None
    second: Range | None
    is_seen: bool
    separates: bool


def looks_variance(table: GradeTable, calibration: Calibration) -> Floats:
    """How widely each grade's content of each element is read with no shot error left, shape
    (grades, elements), mass per cent squared.
    """
    times = [calibration.poorly_seen if visibility(s) == "poorly" else 1.0 for s in table.elements]
    share = calibration.relative * table.centre
    floor = np.array(times) * np.maximum(calibration.absolute_percent, share)
    return np.asarray(table.spread**2 + floor**2)


def overlaps(
    table: GradeTable, variance: Floats, places: Sequence[int], also: Collection[str] = ()
) -> Floats:
    """How far these grades look like every other, between 0 and 1, shape (places, grades): by what
    an analyser sees, and by the elements `also` known from another method.

    References
    ----------
    [1] A. Bhattacharyya, On a measure of divergence between two populations, 1943; from memory:
    the coefficient of two normal distributions, multiplied over the elements.
    """
    rows = list(places)
    columns = [i for i, symbol in enumerate(table.elements) if _is_known(symbol, also)]
    v, c = (each[:, columns].astype(np.float32) for each in (variance, table.centre))
    half_logs = 0.25 * np.log(v).sum(axis=1)
    log_overlap = half_logs[rows, None] + half_logs[None, :] + 0.5 * np.log(2.0) * v.shape[1]
    for column in range(v.shape[1]):
        both = v[rows, column, None] + v[None, :, column]
        apart = c[rows, column, None] - c[None, :, column]
        np.square(apart, out=apart)
        apart /= 4.0 * both
        np.log(both, out=both)
        log_overlap -= 0.5 * both + apart
    return np.asarray(np.exp(log_overlap), dtype=np.float64)


def _is_known(symbol: str, also: Collection[str]) -> bool:
    return visibility(symbol) != "not_seen" or symbol in also


def groups_never_apart(overlap: Floats) -> list[list[int]]:
    """The grades that no analyser tells apart, in groups of two and more, by their place."""
    group = np.arange(overlap.shape[0])
    for first, second in np.argwhere(np.triu(overlap >= NEVER_APART, 1)):
        group[group == group[second]] = group[first]
    found: Mapping[int, list[int]] = {}
    members: dict[int, list[int]] = dict(found)
    for place, name in enumerate(group.tolist()):
        members.setdefault(name, []).append(place)
    return [places for places in members.values() if len(places) > 1]


def differences(first: Grade, second: Grade) -> list[Difference]:
    """The elements whose ranges differ between two grades, what differs most first."""
    symbols = dict.fromkeys(r.element for grade in (first, second) for r in grade.ranges)
    found = []
    for symbol in symbols:
        one, other = first.range_of(symbol), second.range_of(symbol)
        middles = [r.middle_percent if r else 0.0 for r in (one, other)]
        if max(middles) < _WORTH_NAMING_PERCENT or _ends(one) == _ends(other):
            continue
        apart = abs(middles[0] - middles[1]) / max(middles)
        is_seen = visibility(symbol) != "not_seen"
        made = Difference(symbol, one, other, is_seen, _separates(one, other, symbol))
        found.append((apart, made))
    return [difference for _, difference in sorted(found, key=lambda pair: -pair[0])]


def _ends(found: Range | None) -> tuple[float | None, float | None]:
    return (found.low_percent, found.high_percent) if found else (None, None)


def _separates(one: Range | None, other: Range | None, symbol: str) -> bool:
    """Whether the ranges have less than half of the narrower one in common."""
    (a, b), (c, d) = (_span(found, symbol) for found in (one, other))
    narrower = min(b - a, d - c)
    return min(b, d) - max(a, c) < _COMMON_SHARE * narrower or narrower == 0 != abs(a - c)


def _span(found: Range | None, symbol: str) -> tuple[float, float]:
    melted = as_melted(found) if found else None
    centre, spread = expected_content(melted, symbol)
    low, high = _ends(melted)
    if melted is None:
        return 0.0, centre + spread
    return low or 0.0, high if high is not None else centre + 2 * spread


def separating(
    first: Grade, second: Grade, *, seen: bool, also: Collection[str] = ()
) -> tuple[str, ...]:
    """The elements whose content would separate two grades, among those that an analyser in air
    sees or that are `also` known, or among the others.
    """
    found = [d.element for d in differences(first, second) if d.separates]
    return tuple(symbol for symbol in found if _is_known(symbol, also) == seen)
