"""Files brought in: read and checked before anything is stored, stored in pieces that let taps
through.

All or nothing all the same: nobody sees what arrives before all of it is there, and what does not
arrive is removed.
"""

from collections.abc import Iterator, Mapping, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any
from uuid import NAMESPACE_URL, uuid4, uuid5

from kessik.core.comparison.matching import MatchingRule
from kessik.core.errors import UnknownError
from kessik.core.moments import Moment
from kessik.core.protocols.methods import Method
from kessik.core.trials.trial import MethodVersion, Trial
from kessik.interchange.csv_tables import Column, Row, is_time
from kessik.interchange.method_json import MethodFile
from kessik.interchange.named_files import NamedFile
from kessik.interchange.record_csv import RUN_COLUMNS
from kessik.interchange.series_events import IMPORT, RunToLog, log_of_rows
from kessik.services.files.arriving import (
    BLADES_AT_ONCE,
    EVENTS_AT_ONCE,
    arriving,
    in_pieces,
    let_taps_through,
)
from kessik.services.files.other_files import import_others, is_other
from kessik.services.files.record_files import import_onto_shelf
from kessik.services.files.trial_files import RULE, RUN_FIELDS, ReadRun, ReadTrial, read_files
from kessik.services.files.work import STORES, Work
from kessik.services.shelf.checks import check_new_blades
from kessik.services.trials.methods import with_version
from kessik.store.database import Database, Session
from kessik.store.queries import arrivals, bench_log, methods, shelf, trials


@dataclass(frozen=True)
class Imported:
    """What an import stored: trials, or the codes of blades on the shelf; and what the reader
    noticed.
    """

    trials: tuple[Trial, ...]
    blades: tuple[str, ...]
    notes: tuple[str, ...]


def import_files(
    db: Database,
    files: Sequence[NamedFile],
    now: Moment,
    rule: MatchingRule,
    method: Method,
    *,
    import_id: str | None = None,
    work: Work | None = None,
) -> Imported:
    """Store the trials of files, or blades and edges on the shelf where no series comes with them;
    all or nothing.

    The same `import_id` twice is one import.
    """
    work = work or Work()
    if any(is_other(file) for file in files):
        brought = import_others(db, files, now)
        return Imported((), brought.blades, brought.notes)
    read = read_files(files, work)
    if not read.trials:
        return Imported((), tuple(import_onto_shelf(db, read.blades, read.edges, now)), read.notes)
    given = import_id or str(uuid4())
    made = [_trial(given, trial, now, rule, method) for trial in read.trials]
    known = _known(db, made)
    if known:
        return Imported(known, (), read.notes)
    with arriving(db, f"{now.utc}|{given}", work) as arrival:
        stored = _store(db, arrival, list(zip(made, read.trials, strict=True)), now, work)
    return Imported(tuple(stored), (), read.notes)


def _trial(
    import_id: str, trial: ReadTrial, now: Moment, rule: MatchingRule, method: Method
) -> Trial:
    made = str(uuid5(NAMESPACE_URL, f"kessik:{import_id}:{trial.name}"))
    return Trial(made, trial.name, now, rule=rule, method=method, settled_rule=RULE, source=IMPORT)


def _known(db: Database, made: Sequence[Trial]) -> tuple[Trial, ...]:
    """The trials as they are stored, where this import was made before."""
    with db.read() as session:
        found = [trials.find_trial(session, trial.id) for trial in made]
    return tuple(trial for trial in found if trial is not None)


def _store(
    db: Database, arrival: str, pairs: Sequence[tuple[Trial, ReadTrial]], now: Moment, work: Work
) -> list[Trial]:
    work.begin(STORES, sum(len(run.rows.rows) for _, read in pairs for run in read.runs))
    stored = []
    for trial, read in pairs:
        check_new_blades(read.blades)
        with db.write() as session:
            made, versions = _with_versions(session, trial, read.methods, now.utc)
            trials.save_trial(session, made)
            arrivals.mark(session, arrival, trial_ids=[made.id])
        _store_blades(db, arrival, made, read)
        _store_runs(db, made, read, versions, now, work)
        stored.append(made)
    return stored


def _store_blades(db: Database, arrival: str, trial: Trial, read: ReadTrial) -> None:
    for some in in_pieces(read.blades, BLADES_AT_ONCE):
        with db.write() as session:
            marks = shelf.next_marks(session, len(some))
            marked = [replace(blade, mark=mark) for blade, mark in zip(some, marks, strict=True)]
            shelf.save_whole_blades(session, marked)
            arrivals.mark(session, arrival, blade_ids=[blade.id for blade in some])
            for blade in some:
                trials.place_blade(session, trial.id, blade.id)
                trials.set_arms(session, trial.id, blade.id, blade.arms)
        let_taps_through()


def _with_versions(
    session: Session, trial: Trial, file: MethodFile | None, now_utc: str
) -> tuple[Trial, Mapping[int, str]]:
    """A trial with the versions of its method kept, as its file has them; and their ids by
    number.
    """
    if file is None:
        return with_version(session, trial, now_utc), {}
    line = str(uuid4())
    versions = {number: str(uuid4()) for number in file.versions}
    for number, version in file.versions.items():
        methods.add_version(
            session, MethodVersion(versions[number], line, number, version, now_utc)
        )
    in_force = file.in_force
    return (
        replace(trial, method=file.method, method_id=versions[in_force], method_number=in_force),
        versions,
    )


def _store_runs(
    db: Database,
    trial: Trial,
    read: ReadTrial,
    versions: Mapping[int, str],
    now: Moment,
    work: Work,
) -> None:
    sequence = 1
    last_on: dict[
        str, str
    ] = {}  # the last run on each edge, for one that goes on after it was stropped back
    made: dict[tuple[str, int, int], str] = {}
    for run in read.runs:
        edge = read.edge_of(run)
        record = run.record.values if run.record else {}
        started = _started(run, now)
        stored = replace(
            run.as_run(edge),
            id=str(uuid4()),
            trial_id=trial.id,
            started=started,
            other=_other(run.record, RUN_COLUMNS) if run.record else {},
            method_id=versions.get(run.method_number or 0, trial.method_id),
            after_strop_of=last_on.get(edge.id) if record.get("after_strop") else None,
            block=read.block_of(run),
            from_paper=_from_paper(record.get("from_paper"), now),
            verifies_run_id=made.get((run.rows.blade, *run.verifies)) if run.verifies else None,
        )
        last_on[edge.id] = stored.id
        made[run.rows.blade, run.rows.edge, run.rows.run] = stored.id
        to_log = RunToLog(stored.id, f"{IMPORT}:{trial.id}", sequence, started.utc)
        rows = ((row.values, row.said) for row in run.rows.rows)
        for index, some in enumerate(in_pieces(log_of_rows(to_log, rows), EVENTS_AT_ONCE)):
            event_rows = bench_log.rows_of(stored.id, some, now.utc)
            with db.write() as session:
                if index == 0:
                    bench_log.add_run(session, stored)
                bench_log.append_rows(session, event_rows)
            sequence += len(some)
            let_taps_through()
        work.step(len(run.rows.rows))


def _other(row: Row, columns: Sequence[Column]) -> dict[str, Any]:
    """Columns Kessik knows but does not use yet, and unknown ones, kept with the row."""
    used = {
        *RUN_FIELDS,
        "arm",
        "block",
        "verifies_run",
        "started",
        "after_strop",
        "from_paper",
        "blade",
        "edge",
        "run",
        "trial",
    }
    known = {c.name: row.values.get(c.name) for c in columns if c.name not in used}
    return {name: value for name, value in {**known, **row.extra}.items() if value is not None}


def _started(run: ReadRun, now: Moment) -> Moment:
    record = run.record.values if run.record else {}
    return _moment(record.get("started")) or _moment(run.rows.rows[0].values["time"]) or now


def _from_paper(said: str | None, now: Moment) -> str:
    """When a run was entered from paper: as its file says, or now where that says no time."""
    if not said or said.strip().casefold() in ("no", "false", "0"):
        return ""
    return said.strip() if is_time(said.strip()) else now.utc


def _moment(text: str | None) -> Moment | None:
    if not text:
        return None
    local = datetime.fromisoformat(text)
    offset = local.utcoffset()
    utc = (local - offset).replace(tzinfo=None) if offset else local.replace(tzinfo=None)
    return Moment(f"{utc.isoformat()}+00:00", int(offset.total_seconds() // 60) if offset else 0)


class Imports:
    """The imports of one server: each under its client-made id, so that it can be watched and
    cancelled.
    """

    def __init__(self) -> None:
        self._works: dict[str, Work] = {}

    @contextmanager
    def working(self, import_id: str) -> Iterator[Work]:
        """The work of an import while it is done."""
        work = self._works.setdefault(import_id, Work())
        try:
            yield work
        finally:
            self._works.pop(import_id, None)

    def find(self, import_id: str) -> Work:
        """The work under way under an id, or UnknownError."""
        work = self._works.get(import_id)
        if work is None:
            raise UnknownError("no import is under way under this id", field="import_id")
        return work
