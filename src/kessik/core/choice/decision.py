"""A choice weighed: who is first, how sure that is, who is beaten in everything, and at which
weight the choice flips.

Weights are exchange rates between ratios: with edge at 6 and price at 3, an edge that lasts 10 %
longer makes good a price about 21 % higher (1.1 ** (6 / 3)). A worked example: A lasts 1.5 times as
long as B and costs 2 times as much; at equal weights ln 1.5 - ln 2 < 0, and B is chosen; from a
weight of edge of ln 2 / ln 1.5 = 1.71 times that of price on, A is.

References
----------
[1] R. L. Keeney, H. Raiffa, Decisions with Multiple Objectives (1976): additive values, dominance.
"""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from statistics import NormalDist

from kessik.core.choice.axes import AXES, BY_KEY, Axis, AxisKey, Choosable
from kessik.core.spreads import Z_95

Weights = Mapping[AxisKey, float]
MOST_WEIGHT = 10.0
_SAME = 1e-9


@dataclass(frozen=True)
class Standing:
    """A candidate behind the first by `behind`, with its standard deviation; `is_within_doubt`
    where the order of the two may be the other way round.
    """

    id: str
    behind: float
    sd: float
    chance: float
    is_within_doubt: bool
    beaten_by: str = ""
    is_beaten_surely: bool = False


@dataclass(frozen=True)
class Missing:
    """A candidate that cannot be placed: what is not known of it, and what that would have to be
    for it to come first, where it is one thing.
    """

    id: str
    unknown: tuple[AxisKey, ...]
    needed: float | None = None


@dataclass(frozen=True)
class Flip:
    """The weight of an axis from which on, upwards or downwards, another comes first."""

    axis: AxisKey
    weight: float
    id: str
    upwards: bool


@dataclass(frozen=True)
class Bargain:
    """What the first gains over the second, and what that is worth in price at these weights."""

    first: str
    second: str
    gains: Mapping[AxisKey, float]
    price_ratio: float | None
    worth: float | None


@dataclass(frozen=True)
class Decision:
    """The answer at some weights: those that can be placed, the first on top."""

    ranked: tuple[Standing, ...]
    missing: tuple[Missing, ...]
    flips: tuple[Flip, ...]
    bargain: Bargain | None


def decide(candidates: Sequence[Choosable], weights: Weights) -> Decision:
    """Weigh candidates; axes of no weight are not looked at."""
    axes = [axis for axis in AXES if weights.get(axis.key, 0.0) > 0]
    placed = [c for c in candidates if all(axis.key in c.figures for axis in axes)]
    at = {c.id: _position(c, axes, weights) for c in placed}
    order = sorted(placed, key=lambda c: (-at[c.id][0], c.name)) if axes else []
    if not order:
        return Decision((), _missing(candidates, axes, weights, None), (), None)
    first = order[0]
    ranked = tuple(_standing(c, first, at, axes, order) for c in order)
    return Decision(
        ranked,
        _missing(candidates, axes, weights, at[first.id][0]),
        tuple(_flips(order, axes, weights)),
        _bargain(order, axes, weights),
    )


def _position(candidate: Choosable, axes: Sequence[Axis], weights: Weights) -> tuple[float, float]:
    """The weighted sum of a candidate and its standard deviation."""
    points = [(weights[axis.key], candidate.figures[axis.key].on(axis)) for axis in axes]
    value = sum(weight * place for weight, (place, _) in points)
    return value, math.sqrt(sum((weight * sd) ** 2 for weight, (_, sd) in points))


def _standing(
    candidate: Choosable,
    first: Choosable,
    at: Mapping[str, tuple[float, float]],
    axes: Sequence[Axis],
    order: Sequence[Choosable],
) -> Standing:
    behind = at[first.id][0] - at[candidate.id][0]
    sd = math.hypot(at[first.id][1], at[candidate.id][1]) if candidate is not first else 0.0
    chance = 0.5 if sd <= 0 and behind < _SAME else NormalDist().cdf(-behind / max(sd, _SAME))
    beaten = [other for other in order if _beats(other, candidate, axes, surely=False)]
    surely = [other for other in beaten if _beats(other, candidate, axes, surely=True)]
    by = next(iter(surely or beaten), None)
    return Standing(
        candidate.id,
        behind,
        sd,
        chance if candidate is not first else 1.0,
        candidate is not first and behind < Z_95 * sd,
        by.id if by else "",
        bool(surely),
    )


def _beats(one: Choosable, other: Choosable, axes: Sequence[Axis], *, surely: bool) -> bool:
    """Whether one is at least as good in everything and better in something; `surely` where no
    difference may be the other way round.
    """
    if one is other:
        return False
    gains = []
    for axis in axes:
        a, sd_a = one.figures[axis.key].on(axis)
        b, sd_b = other.figures[axis.key].on(axis)
        doubt = Z_95 * math.hypot(sd_a, sd_b) if surely else 0.0
        if a - b < (doubt if abs(a - b) > _SAME else 0.0) - _SAME:
            return False
        gains.append(a - b)
    return any(gain > _SAME for gain in gains)


def _missing(
    candidates: Sequence[Choosable], axes: Sequence[Axis], weights: Weights, best: float | None
) -> tuple[Missing, ...]:
    found = []
    for candidate in candidates:
        unknown = tuple(axis.key for axis in axes if axis.key not in candidate.figures)
        if unknown:
            found.append(Missing(candidate.id, unknown, _needed(candidate, axes, weights, best)))
    return tuple(found)


def _needed(
    candidate: Choosable, axes: Sequence[Axis], weights: Weights, best: float | None
) -> float | None:
    """What the one thing that is not known would have to be."""
    unknown = [axis for axis in axes if axis.key not in candidate.figures]
    if len(unknown) != 1 or best is None:
        return None
    known = [axis for axis in axes if axis.key in candidate.figures]
    (axis,) = unknown
    place = (best - _position(candidate, known, weights)[0]) / weights[axis.key]
    value = math.exp(min(place if axis.more_is_better else -place, 50.0))
    return value - 1.0 if axis.from_nothing else value


def _flips(order: Sequence[Choosable], axes: Sequence[Axis], weights: Weights) -> list[Flip]:
    """For each axis the nearest weights, below and above, at which another comes first."""
    found = []
    for axis in axes:
        lines = [_line(candidate, axis, axes, weights) for candidate in order]
        now = weights[axis.key]
        for upwards in (False, True):
            flip = _nearest(lines, now, upwards=upwards)
            if flip is not None and 0.0 <= flip[0] <= MOST_WEIGHT:
                found.append(Flip(axis.key, flip[0], order[flip[1]].id, upwards))
    return found


def _line(
    candidate: Choosable, axis: Axis, axes: Sequence[Axis], weights: Weights
) -> tuple[float, float]:
    """A candidate's sum as a line over the weight of one axis: its level at 0, and its slope."""
    rest = [each for each in axes if each is not axis]
    return _position(candidate, rest, weights)[0], candidate.figures[axis.key].on(axis)[0]


def _nearest(
    lines: Sequence[tuple[float, float]], now: float, *, upwards: bool
) -> tuple[float, int] | None:
    """The nearest crossing of the first line by another that lies above it beyond."""
    level, slope = lines[0]
    best: tuple[float, int] | None = None
    for number, (other_level, other_slope) in enumerate(lines[1:], 1):
        steeper = other_slope - slope
        if abs(steeper) < _SAME or (steeper > 0) != upwards:
            continue
        weight = (level - other_level) / steeper
        if (weight > now) != upwards and abs(weight - now) > _SAME:
            continue
        if best is None or abs(weight - now) < abs(best[0] - now):
            best = weight, number
    return best


def _bargain(order: Sequence[Choosable], axes: Sequence[Axis], weights: Weights) -> Bargain | None:
    """What the first has over the second, in ratios, and the price that it would be worth."""
    if len(order) < 2:
        return None
    first, second = order[0], order[1]
    gains: dict[AxisKey, float] = {}
    worth = 0.0
    for axis in axes:
        gain = first.figures[axis.key].on(axis)[0] - second.figures[axis.key].on(axis)[0]
        gains[axis.key] = math.exp(gain)
        if axis.key != "price":
            worth += weights[axis.key] * gain
    price = weights.get("price", 0.0)
    if price <= 0:
        return Bargain(first.id, second.id, gains, None, None)
    paid = BY_KEY["price"]
    ratio = second.figures["price"].on(paid)[0] - first.figures["price"].on(paid)[0]
    return Bargain(first.id, second.id, gains, math.exp(ratio), math.exp(min(worth / price, 50.0)))
