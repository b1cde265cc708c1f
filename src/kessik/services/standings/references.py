"""References of earlier trials beside the answer of one: how far each would have gone there."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any

from kessik.core.shelf.blades import Blade, TrialRole
from kessik.core.standings.board import Board, StandingsQuestion
from kessik.core.standings.comparable import USUAL, TrialLife
from kessik.core.standings.references import LifeOnScale, best_known, on_scale_of
from kessik.core.trials.points import BladePoint
from kessik.services.reading.summaries import Summary, summaries_of
from kessik.services.standings.boards import Field, read_field, work_out
from kessik.store.database import Database
from kessik.store.queries import trials


@dataclass(frozen=True)
class PlacedReference:
    """A reference with its life as it would be in the trial, in the unit of the trial; `seen_in` is
    the newest trial that read a curve of it, where `own` is how long it lasted.
    """

    blade: Blade
    role: TrialRole
    life: LifeOnScale
    seen_in: str = ""
    own: float | None = None


def references_of(db: Database, trial_id: str) -> list[PlacedReference]:
    """The references that comparable trials had, the longest-lived first; none while the trial's
    own answer is hidden or nothing connects it with others.
    """
    with db.read() as session:
        field = read_field(session)
        roles = trials.references(session)
        known = summaries_of(session)
    summary = known.get(trial_id)
    own = {
        point.blade_id: LifeOnScale(point.estimate, point.low, point.high)
        for point in (summary.points if summary else ())
        if point.estimate and point.low and point.high
    }
    if summary is None or not own:
        return []
    lives = _main_lives(field, trial_id, summary.points)
    elsewhere = {
        life.blade_id for trial, told in field.lives.items() if trial != trial_id for life in told
    }
    linked = {blade: life for blade, life in own.items() if blade in elsewhere}
    if not linked or not lives:
        return []
    base = best_known(linked)
    board = work_out(field, _question(lives[0], base))
    if board.reference != base:
        return []
    found = [
        replace(placed, **_curve_of(known, trial_id, blade_id))
        for blade_id, role in roles.items()
        if blade_id not in own and blade_id in field.blades
        if (placed := _placed(board, field, blade_id, role, linked[base]))
    ]
    return sorted(found, key=lambda each: -each.life.estimate)


def _curve_of(known: Mapping[str, Summary], trial_id: str, blade_id: str) -> dict[str, Any]:
    """The trial that read a curve of a blade, and how long it lasted there."""
    for other, summary in known.items():
        point = next((p for p in summary.points if p.blade_id == blade_id and p.estimate), None)
        has_curve = any(life.blade_id == blade_id and life.log_sd for life in summary.standing)
        if other != trial_id and point is not None and has_curve:
            return {"seen_in": other, "own": point.estimate}
    return {}


def _main_lives(field: Field, trial_id: str, points: tuple[BladePoint, ...]) -> list[TrialLife]:
    stages = {point.stage for point in points}
    return [life for life in field.lives.get(trial_id, ()) if life.stage in stages]


def _question(life: TrialLife, base: str) -> StandingsQuestion:
    """The trial's own class of lives, beside one of its blades."""
    return StandingsQuestion(like=tuple((key, life.traits[key]) for key in USUAL), reference=base)


def _placed(
    board: Board, field: Field, blade_id: str, role: TrialRole, base: LifeOnScale
) -> PlacedReference | None:
    rung = next((rung for rung in board.rungs if rung.arm == blade_id), None)
    if rung is None or rung.ratio is None or rung.ratio.b != board.reference:
        return None
    life = on_scale_of(base, rung.ratio)
    if life is None:
        return None
    return PlacedReference(field.blades[blade_id], role, life)
