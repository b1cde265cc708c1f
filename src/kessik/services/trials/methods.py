"""Methods of trials: taken from a school, copied, changed; every version that a run was cut under
is kept.
"""

from dataclasses import dataclass, replace
from uuid import uuid4

from kessik.core.errors import UnknownError
from kessik.core.gauge.kept import KeptStudy, newest_in_use, scatter_percent
from kessik.core.protocols.methods import Method, with_scatter
from kessik.core.protocols.schools import SCHOOLS
from kessik.core.trials.trial import MethodVersion, Trial
from kessik.store.database import Database, Session
from kessik.store.queries import gauges, methods, traces, trials


@dataclass(frozen=True)
class KnownMethods:
    """What a trial can take its method from: the ready ones, and the tester's own lines with their
    newest version; `archived` names the lines that were put away. The ready ones come with what the
    newest `study` in use found of the gauge.
    """

    ready: tuple[Method, ...]
    own: tuple[MethodVersion, ...]
    archived: frozenset[str] = frozenset()
    study: KeptStudy | None = None


def known_methods(db: Database) -> KnownMethods:
    """Ready methods, and those of trials that differ from them."""
    with db.read() as session:
        versions = methods.newest_versions(session)
        archived = frozenset(traces.archived(session, "method"))
        study = newest_in_use(gauges.all_studies(session), "force")
    own = tuple(v for v in versions if with_scatter(v.method, None) not in SCHOOLS)
    percent = scatter_percent(study) if study else None
    ready = tuple(with_scatter(school, percent) for school in SCHOOLS)
    return KnownMethods(ready, own, archived, study)


def put_method_away(db: Database, line_id: str, archived: bool, now_utc: str) -> None:
    """Put a line of methods into the archive, or take it out; trials that go by it go on."""
    with db.write() as session:
        if all(v.line_id != line_id for v in methods.newest_versions(session)):
            raise UnknownError("there is no such method", field="method")
        traces.set_archived(session, "method", line_id, now_utc if archived else None)


def with_version(session: Session, trial: Trial, now_utc: str) -> Trial:
    """A trial whose method is kept as the first version of a line of its own."""
    versioned, version = first_version(trial, now_utc)
    methods.add_version(session, version)
    return versioned


def first_version(trial: Trial, now_utc: str) -> tuple[Trial, MethodVersion]:
    """A trial with its method as the first version of a line of its own, yet to be kept."""
    made = str(uuid4())
    version = MethodVersion(made, made, 1, trial.method, now_utc)
    return replace(trial, method_id=made, method_number=1), version


def change_method(
    db: Database, trial_id: str, method: Method, now_utc: str, take_line_of: str | None = None
) -> Trial:
    """Give a trial another method. One that a run was cut under stays as it was and gets a new
    version beside it.

    `take_line_of` is the id of a version to follow; without it the trial's own line goes on.
    """
    with db.write() as session:
        trial = trials.find_trial(session, trial_id)
        if trial is None:
            raise UnknownError("there is no such trial", field="trial")
        followed = methods.find_version(session, take_line_of or trial.method_id)
        if followed is None:
            raise UnknownError("there is no such method", field="method_id")
        if followed.method == method:
            changed = replace(
                trial, method=method, method_id=followed.id, method_number=followed.number
            )
            trials.save_trial(session, changed)
            return changed
        made, old = str(uuid4()), trial.method_id
        line, number = followed.line_id, methods.next_number(session, followed.line_id)
        unused = take_line_of is None and not methods.is_used(session, old, trial_id)
        if unused:
            number = followed.number
            methods.rename_number(session, old)
        methods.add_version(session, MethodVersion(made, line, number, method, now_utc))
        changed = replace(trial, method=method, method_id=made, method_number=number)
        trials.save_trial(session, changed)
        if unused:
            methods.delete_version(session, old)
    return changed


def versions_of(db: Database, trial_id: str) -> list[MethodVersion]:
    """The versions the runs of a trial were cut under, and the one in force, oldest first."""
    with db.read() as session:
        trial = trials.find_trial(session, trial_id)
        if trial is None:
            raise UnknownError("there is no such trial", field="trial")
        found = methods.methods_of_runs(session, trial_id)
        in_force = methods.find_version(session, trial.method_id)
    if in_force is not None:
        found[in_force.id] = in_force
    return sorted(found.values(), key=lambda version: (version.made_utc, version.number))
