"""How an edge goes from keen to dull, and whether it falls: read off its checks, so that a pencil
can follow.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from kessik.core.protocols.series import RunSeries, by_count
from kessik.core.protocols.stop_rules import mean_force_gf

Course = Literal["gradual", "plateau", "cliff"]
_LARGEST_SHARE = 0.4
_STEEPER = 2.5
"""A fall takes so much of the whole rise, and so many times more of it than of the cuts: common
practice, no source."""
_SLOWER = 3.0
"""A plateau rises so many times slower than the edge did before keen, a cliff so many times faster:
common practice, no source."""
_LEAST_SHARE = 0.05
Point = tuple[float, float]
"""A count and the mean reading there, gf."""


@dataclass(frozen=True)
class Fall:
    """Between two checks in a row the edge fell: from the last count that held to the first below
    it, with the readings.
    """

    held: Point
    gone: Point


@dataclass(frozen=True)
class AfterKeen:
    """How one edge went from the loss of its keen edge to the end of what was seen of it: from
    which count and reading to which, and the fall that ended it, where one did.
    """

    course: Course
    start: Point
    end: Point
    fall: Fall | None = None


def means_by_count(run: RunSeries) -> list[Point]:
    """The mean force of every check in the worked zone, by its count."""
    checks = sorted(run.force_checks(), key=lambda check: check.count)
    return [(count, mean_force_gf(group)) for count, group in by_count(checks)]


def fall_of(points: Sequence[Point], limit_gf: float) -> Fall | None:
    """The fall through a limit: one gap between checks that takes a large share of the whole rise
    and far more of it than of the cuts; None where the edge wore through it.
    """
    over = next((i for i, (_, gf) in enumerate(points) if gf > limit_gf), 0)
    if over < 2:
        return None
    first, held, gone = points[0], points[over - 1], points[over]
    cuts, rise = gone[0] - first[0], gone[1] - first[1]
    if rise <= 0 or cuts <= 0:
        return None
    of_rise, of_cuts = (gone[1] - held[1]) / rise, (gone[0] - held[0]) / cuts
    if of_rise < _LARGEST_SHARE or of_rise < _STEEPER * of_cuts:
        return None
    return Fall(held, gone)


def after_keen(points: Sequence[Point], keen_gf: float, dull_gf: float) -> AfterKeen | None:
    """How an edge went on after keen; None where that was not lost, or nothing was seen after."""
    at = next((i for i, (_, gf) in enumerate(points) if gf > keen_gf), 0)
    if at == 0 or at + 1 > len(points):
        return None
    end = next((i for i, (_, gf) in enumerate(points) if gf > dull_gf), len(points) - 1)
    if end < at:
        return None
    fall = fall_of(points, dull_gf)
    start = points[at] if fall is None or points[at] != fall.gone else points[at - 1]
    stop = fall.held if fall is not None else points[end]
    if fall is not None and stop[0] - start[0] <= _LEAST_SHARE * fall.gone[0]:
        return AfterKeen("cliff", fall.held, fall.gone, fall)
    if stop[0] <= start[0]:
        return AfterKeen("gradual", points[at - 1], stop, fall)
    before = (start[1] - points[0][1]) / max(start[0] - points[0][0], 1e-9)
    after = (stop[1] - start[1]) / (stop[0] - start[0])
    if fall is None and after > _SLOWER * max(before, 0.0):
        return AfterKeen("cliff", start, stop)
    course: Course = "plateau" if after * _SLOWER < before else "gradual"
    return AfterKeen(course, start, stop, fall)
