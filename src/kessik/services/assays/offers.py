"""Where an assay is worth asking for: a life far below what the grade usually gives."""

from statistics import median

from kessik.core.composition.grades import find_grade
from kessik.core.trials.points import FarBelowUsual, is_far_below
from kessik.services.reading.grades import grades_by_name
from kessik.services.reading.lives_of_blades import LifeLine, life_lines
from kessik.store.database import Database
from kessik.store.queries import assays, shelf


def assay_offers(db: Database, trial_id: str) -> list[FarBelowUsual]:
    """The blades of a trial that went far less than others of their grade under the same method,
    and were never shot.
    """
    lines = [line for line in life_lines(db) if line.point.estimate is not None]
    with db.read() as session:
        grades = grades_by_name(session)
        shot = set(assays.shots_by_blade(session))
        blades = {blade.id: blade for blade in shelf.all_blades(session)}
    named = {i: find_grade(blade.claimed_grade or "", grades) for i, blade in blades.items()}
    found = []
    for line in lines:
        own = named.get(line.point.blade_id)
        if line.trial_id != trial_id or own is None or line.point.blade_id in shot:
            continue
        others = [o for o in lines if _is_alike(line, o) and named.get(o.point.blade_id) == own]
        usual = median(o.point.estimate or 0.0 for o in others) if others else 0.0
        if others and is_far_below(line.point, usual):
            found.append(FarBelowUsual(line.point, own.name, usual, len(others)))
    return found


def _is_alike(line: LifeLine, other: LifeLine) -> bool:
    one, two = line.point, other.point
    return one.like == two.like and one.blade_id != two.blade_id
