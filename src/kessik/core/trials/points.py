"""How far each blade of a trial went, as other trials and pages take it from its answer."""

import math
from dataclasses import dataclass

from kessik.core.comparison.levels import levelled
from kessik.core.sharpness.life import AsWritten, Bracketed, Crossed, Found, span_of
from kessik.core.trials.verdict import Verdict


@dataclass(frozen=True)
class BladePoint:
    """A blade's life at the main stage of a trial, in `unit`, with its 95 % bounds; no estimate
    where an end is open. `like` is shared by the trials whose lives may be laid side by side.
    """

    blade_id: str
    code: str
    like: str
    stage: str
    unit: str
    edges: int
    estimate: float | None = None
    low: float | None = None
    high: float | None = None
    school: str = ""
    medium: str = ""


@dataclass(frozen=True)
class FarBelowUsual:
    """A blade whose life is far below the usual of its grade, taken from so many other lives."""

    point: BladePoint
    grade: str
    usual: float
    others: int


FAR_BELOW = 0.7
"""A life is far below the usual where all of its interval lies under so much of it: common
practice, no source."""


def is_far_below(point: BladePoint, usual: float) -> bool:
    """Whether a life lies far below what is usual, whatever its own error."""
    return point.high is not None and point.high < FAR_BELOW * usual


def points_of(found: Verdict) -> tuple[BladePoint, ...]:
    """A point for each arm that was cut; none while the answer is hidden."""
    if found.sealed:
        return ()
    blades = {blade.code: blade for blade in found.blades}
    points = []
    for result in found.analysis.blades:
        life = result.lives.get(found.stage)
        if life is None or result.blade not in blades:
            continue
        estimate, low, high = _numbers(life.found)
        points.append(
            BladePoint(
                blades[result.blade].id,
                result.blade,
                _like(found, result.count_unit),
                found.stage,
                result.count_unit,
                result.edges,
                estimate,
                low,
                high,
                found.trial.method.school,
                found.trial.method.medium,
            )
        )
    return tuple(points)


def _like(found: Verdict, unit: str) -> str:
    method = found.trial.method
    return f"{method.name}: {found.stage}, {unit}"


def _numbers(found: Found) -> tuple[float | None, float | None, float | None]:
    if not isinstance(found, Crossed | Bracketed | AsWritten):
        return None, None, None
    span = span_of(found)
    return span.middle, span.low, span.high


def lives_of(found: Verdict) -> dict[str, float]:
    """How far each blade goes, by its code; halfway of what pass and fail bracket."""
    lives = {}
    for blade in found.analysis.blades:
        life = blade.lives.get(found.stage)
        estimate = _numbers(life.found)[0] if life is not None else None
        if estimate is not None:
            lives[blade.blade] = estimate
    return lives


def repeats_of(found: Verdict) -> tuple[tuple[float, ...], ...]:
    """Ln lives of the edges of each blade, without the levels of blocks; rounds of one light
    sharpening may fall off, and are no repeats of one another.
    """
    if found.trial.method.cycles:
        return ()
    log_lives: dict[tuple[str, int, int], float] = {}
    for result in found.analysis.runs:
        life, run = result.lives.get(found.stage), result.run
        if life is not None and isinstance(life.life.found, Crossed) and not result.left_out:
            log_life = math.log(life.life.found.estimate)
            log_lives[run.blade, run.edge, run.block or 0] = log_life
    blades = list(dict.fromkeys(place[0] for place in log_lives))
    inside = levelled(log_lives) if len(blades) > 1 else log_lives
    return tuple(tuple(inside[place] for place in inside if place[0] == blade) for blade in blades)
