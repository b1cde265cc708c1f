"""Rows on their way into the bin or out of it: hidden with their trial or their blade, so that
thousands move in one short transaction and come and go in pieces.

A trial or a blade that comes or goes is hidden itself; runs of a trial that stays, and edges of a
blade that stays, hang on placeholders meanwhile.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cache
from uuid import uuid4

from sqlalchemy import TextClause, text
from sqlalchemy.orm import Session

from kessik.store.queries import arrivals
from kessik.store.queries.foreign_keys import parents_of
from kessik.store.tables import Base, BladeRow, TrialRow

HIDDEN = ("trial", "blade", "run", "edge")
"""What is hidden until it comes or is removed, in the order in which it can be."""
_GO_ALONG = frozenset({"edge", "run", "event", "revision", "answer"})
"""What hangs on hidden rows and goes with them."""
_ELSEWHERE = (
    "SELECT 1 FROM blade JOIN edge ON edge.blade_id = blade.id JOIN run ON run.edge_id = edge.id"
    " JOIN trial ON trial.id = run.trial_id"
    " WHERE blade.arriving = :label AND trial.arriving IS NOT :label"
    " UNION ALL SELECT 1 FROM trial JOIN run AS hidden ON hidden.trial_id = trial.id"
    " JOIN run ON run.after_strop_of = hidden.id JOIN trial AS other ON other.id = run.trial_id"
    " WHERE trial.arriving = :label AND other.arriving IS NOT :label LIMIT 1"
)
"""A run that stays, and was cut on a hidden edge or goes on from a hidden run."""
_OF_HIDDEN = {
    "trial": "SELECT id FROM trial WHERE arriving = :label",
    "blade": "SELECT id FROM blade WHERE arriving = :label",
    "edge": "SELECT edge.id FROM edge JOIN blade ON blade.id = edge.blade_id"
    " WHERE blade.arriving = :label",
}


@dataclass(frozen=True)
class Placeholders:
    """The ids of a trial and a blade that runs and edges hang on, and the label they are hidden
    under.
    """

    label: str
    trial_id: str
    blade_id: str


def make_placeholders(session: Session, label: str) -> Placeholders:
    """Placeholders under a label; `arrivals.delete_some` removes them with all that is hidden under
    it.
    """
    made = Placeholders(label, str(uuid4()), str(uuid4()))
    session.add(_trial(made.trial_id))
    session.add(BladeRow(id=made.blade_id, code="", mark=-1))
    session.flush()
    arrivals.stand_in_trial(session, label, made.trial_id)
    arrivals.mark(session, label, blade_ids=[made.blade_id])
    return made


def remove_placeholders(session: Session, made: Placeholders) -> None:
    """Remove placeholders that nothing hangs on any more."""
    session.execute(text("DELETE FROM blade WHERE id = :id"), {"id": made.blade_id})
    session.execute(text("DELETE FROM trial WHERE id = :id"), {"id": made.trial_id})


def hide(
    session: Session, there: Placeholders, table: str, where: str, of: Mapping[str, str]
) -> None:
    """Hide trials or blades, or what hangs on those that stay; trials and blades come first."""
    own = {**of, "label": there.label, "trial": there.trial_id, "blade": there.blade_id}
    session.execute(text(_HIDES[table].format(where=where)), own)


_HIDES: Mapping[str, str] = {
    "trial": "UPDATE trial SET arriving = :label, method_id = NULL WHERE {where}",
    "blade": "UPDATE blade SET arriving = :label WHERE {where}",
    "run": "UPDATE run SET trial_id = :trial, number = rowid WHERE ({where})"
    " AND trial_id NOT IN (SELECT id FROM trial WHERE arriving = :label)",
    "edge": "UPDATE edge SET blade_id = :blade, number = rowid WHERE ({where})"
    " AND blade_id NOT IN (SELECT id FROM blade WHERE arriving = :label)",
}


def is_built_on(session: Session, there: Placeholders) -> bool:
    """Whether something that stays hangs on what is hidden."""
    label = {"label": there.label}
    return any(session.execute(each, label).first() for each in _hanging())


@cache
def _hanging() -> Sequence[TextClause]:
    """Queries for one row each that hangs on what is hidden."""
    hanging = [
        f"SELECT 1 FROM {child} WHERE {column} IN ({_OF_HIDDEN[of]}) LIMIT 1"
        for child in Base.metadata.tables
        for column, of in parents_of(child).items()
        if child not in _GO_ALONG and of in _OF_HIDDEN
    ]
    return [text(sql) for sql in (_ELSEWHERE, *hanging)]


def _trial(trial_id: str) -> TrialRow:
    return TrialRow(
        id=trial_id,
        name="",
        factor="",
        hardness_reading="",
        tolerances={},
        effects={},
        let_go=[],
        scale_edge_length=False,
        settled_rule={},
        created_utc="",
        created_offset_minutes=0,
        plan={},
    )
