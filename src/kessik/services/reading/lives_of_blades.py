"""The lives of blades over all trials, read from the answers as they are kept."""

from collections import defaultdict
from collections.abc import Collection
from dataclasses import dataclass

from kessik.core.trials.points import BladePoint
from kessik.services.reading.summaries import summaries
from kessik.store.database import Database
from kessik.store.queries import trials


@dataclass(frozen=True)
class LifeLine:
    """How far a blade went in a trial."""

    trial_id: str
    trial: str
    point: BladePoint


def life_lines(db: Database) -> list[LifeLine]:
    """Every point of every trial that may be shown."""
    kept = summaries(db)
    with db.read() as session:
        names = {trial.id: trial.name for trial in trials.all_trials(session)}
    return [
        LifeLine(trial_id, names[trial_id], point)
        for trial_id, summary in kept.items()
        if trial_id in names
        for point in summary.points
    ]


def life_lines_of(db: Database, blade_ids: Collection[str]) -> dict[str, list[LifeLine]]:
    """The lives of these blades, by the id of the blade."""
    found: dict[str, list[LifeLine]] = defaultdict(list)
    for line in life_lines(db):
        if line.point.blade_id in blade_ids:
            found[line.point.blade_id].append(line)
    return found
