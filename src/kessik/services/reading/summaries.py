"""What other pages learn of a trial: read as it is kept, so that no page works it out anew."""

from dataclasses import dataclass, field

from pydantic import TypeAdapter, ValidationError

from kessik.core.due import PlannedWork
from kessik.core.standings.comparable import TrialLife
from kessik.core.trials.points import BladePoint
from kessik.store.database import Database, Session
from kessik.store.queries import answers


@dataclass(frozen=True)
class Summary:
    """What other pages learn of a trial: lives by blade, ln lives of the edges of each blade, and
    by run that ended its count and how often it was checked; `work` is
    planned work, `pace_s` the seconds that a cut and a reading
    take, `points` the life of each blade with its bounds, and `standing` the lives of its edges as
    standings take them.
    """

    stage: str = ""
    lives: dict[str, float] = field(default_factory=dict)
    repeats: tuple[tuple[float, ...], ...] = ()
    used: dict[str, tuple[float, int]] = field(default_factory=dict)
    work: tuple[PlannedWork, ...] = ()
    pace_s: tuple[float | None, float | None] = (None, None)
    points: tuple[BladePoint, ...] = ()
    standing: tuple[TrialLife, ...] = ()


_SUMMARY = TypeAdapter(Summary)
SHAPE = repr(_SUMMARY.json_schema())
"""What a kept summary holds; answers of another shape are renewed."""


def written(summary: Summary) -> str:
    """A summary as it is kept."""
    return _SUMMARY.dump_json(summary).decode()


def summaries(db: Database) -> dict[str, Summary]:
    """What is known of each trial, by its id; one that cannot be read is not among them."""
    with db.read() as session:
        return summaries_of(session)


def used_by_runs(session: Session) -> dict[str, tuple[float, int]]:
    """Of runs that ended: how far each went, and how often it was checked."""
    found: dict[str, tuple[float, int]] = {}
    for summary in summaries_of(session).values():
        found |= summary.used
    return found


def summaries_of(session: Session) -> dict[str, Summary]:
    """The same as one session sees it."""
    kept = answers.summaries(session)
    found = {}
    for trial_id, text in kept.items():
        try:
            found[trial_id] = _SUMMARY.validate_json(text)
        except ValidationError:
            continue  # of another version; it is being renewed
    return found
