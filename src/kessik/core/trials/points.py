"""How far each blade of a trial went, as other places speak of it: one point a blade."""

from dataclasses import dataclass

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
