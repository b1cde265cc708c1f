"""Files brought in: read and checked before anything is stored, stored in pieces that let taps
through.

All or nothing all the same: nobody sees what arrives before all of it is there, and what does not
arrive is removed.
"""

from collections.abc import Iterator, Mapping, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, replace
from datetime import datetime
from hashlib import sha256
from typing import Any
from uuid import NAMESPACE_URL, uuid4, uuid5

from kessik.core.comparison.matching import MatchingRule
from kessik.core.errors import ConflictError, UnknownError
from kessik.core.moments import Moment
from kessik.core.protocols.methods import Method
from kessik.core.trials.trial import MethodVersion, Trial
from kessik.core.words.sentences import counted
from kessik.interchange.csv_tables import Column, Row, is_time
from kessik.interchange.method_json import MethodFile
from kessik.interchange.named_files import NamedFile
from kessik.interchange.record_csv import RUN_COLUMNS
from kessik.interchange.series_events import IMPORT, RunToLog, log_of_rows
from kessik.services.arriving import (
    EVENTS_AT_ONCE,
    arriving,
    blades_in_pieces,
    in_pieces,
    let_taps_through,
)
from kessik.services.files.other_files import import_others, is_other
from kessik.services.files.record_files import import_onto_shelf
from kessik.services.files.trial_files import RULE, RUN_FIELDS, ReadRun, ReadTrial, read_files
from kessik.services.record.undoing import offer_undo
from kessik.services.shelf.checks import check_new_blades
from kessik.services.trials.methods import first_version
from kessik.services.work import STORES, ImportWork
from kessik.store.database import Database
from kessik.store.queries import arrivals, bench_log, methods, shelf, trials
from kessik.store.queries.bin_contents import Results
from kessik.store.queries.binning import all_binned


@dataclass(frozen=True)
class Imported:
    """What an import stored: trials, or the codes of blades on the shelf; and what the reader
    noticed. `is_again` where the same import was made before, and nothing was stored anew.
    """

    trials: tuple[Trial, ...]
    blades: tuple[str, ...]
    notes: tuple[str, ...]
    is_again: bool = False


def id_of_files(files: Sequence[NamedFile]) -> str:
    """The id of an import of just these files: the same whenever they are brought in again."""
    sums = sorted(sha256(file.name.encode() + b"\0" + file.data).hexdigest() for file in files)
    return str(uuid5(NAMESPACE_URL, f"kessik:files:{':'.join(sums)}"))


def import_files(
    db: Database,
    files: Sequence[NamedFile],
    now: Moment,
    rule: MatchingRule,
    method: Method,
    *,
    import_id: str | None = None,
    work: ImportWork | None = None,
) -> Imported:
    """Store the trials of files, or blades and edges on the shelf where no series comes with them;
    all or nothing.

    The same `import_id` twice is one import.
    """
    work = work or ImportWork()
    if any(is_other(file) for file in files):
        brought = import_others(db, files, now)
        return Imported((), brought.blades, brought.notes)
    read = read_files(files, work)
    if not read.trials:
        return Imported((), tuple(import_onto_shelf(db, read.blades, read.edges, now)), read.notes)
    given = import_id or str(uuid4())
    coming = [_Coming.of(given, trial, now, rule, method) for trial in read.trials]
    known = _known(db, coming)
    if known:
        return Imported(known, (), read.notes, is_again=True)
    _check_not_binned(db, coming)
    offer_undo(db, _results(coming), _called(coming), now)
    with arriving(db, f"{now.utc}|{given}", work) as arrival:
        _store(db, arrival, coming, now, work)
    return Imported(tuple(each.trial for each in coming), (), read.notes)


@dataclass(frozen=True)
class _Coming:
    """A trial of a file with the versions of its method, their ids by the numbers they have in it,
    and the ids of its runs.
    """

    trial: Trial
    read: ReadTrial
    versions: tuple[MethodVersion, ...]
    version_ids: Mapping[int, str]
    run_ids: tuple[str, ...]

    @classmethod
    def of(
        cls, import_id: str, read: ReadTrial, now: Moment, rule: MatchingRule, method: Method
    ) -> "_Coming":
        made = str(uuid5(NAMESPACE_URL, f"kessik:{import_id}:{read.name}"))
        trial = Trial(
            made, read.name, now, rule=rule, method=method, settled_rule=RULE, source=IMPORT
        )
        run_ids = tuple(str(uuid4()) for _ in read.runs)
        if read.methods is None:
            versioned, version = first_version(trial, now.utc)
            return cls(versioned, read, (version,), {}, run_ids)
        versions = _versions(read.methods, now.utc)
        in_force = versions[read.methods.in_force]
        versioned = replace(
            trial,
            method=read.methods.method,
            method_id=in_force.id,
            method_number=in_force.number,
        )
        ids = {number: version.id for number, version in versions.items()}
        return cls(versioned, read, tuple(versions.values()), ids, run_ids)


def _versions(file: MethodFile, now_utc: str) -> dict[int, MethodVersion]:
    """The versions of a method as its file has them, by their numbers."""
    line = str(uuid4())
    return {
        number: MethodVersion(str(uuid4()), line, number, version, now_utc)
        for number, version in file.versions.items()
    }


def _results(coming: Sequence[_Coming]) -> Results:
    blades = [blade for each in coming for blade in each.read.blades]
    ids = [blade.id for blade in blades]
    return Results(
        coming[0].trial.id,
        [run_id for each in coming for run_id in each.run_ids],
        edges=[edge.id for blade in blades for edge in blade.edges],
        placed=ids,
        blades=ids,
        trials=[each.trial.id for each in coming],
        methods=[version.id for each in coming for version in each.versions],
    )


def _called(coming: Sequence[_Coming]) -> str:
    first, more = coming[0].trial.name, len(coming) - 1
    return f"{first} and {counted(more, 'more trial')}" if more else first


def _known(db: Database, coming: Sequence[_Coming]) -> tuple[Trial, ...]:
    """The trials as they are stored, where this import was made before."""
    with db.read() as session:
        found = [trials.find_trial(session, each.trial.id) for each in coming]
    return tuple(trial for trial in found if trial is not None)


def _check_not_binned(db: Database, coming: Sequence[_Coming]) -> None:
    with db.read() as session:
        binned = {entry.owner_id for entry in all_binned(session)}
    gone = next((each.trial for each in coming if each.trial.id in binned), None)
    if gone is not None:
        raise ConflictError(
            f"{gone.name} was imported from these files before and is in the bin; restore it there",
            field="files",
        )


def _store(
    db: Database, arrival: str, coming: Sequence[_Coming], now: Moment, work: ImportWork
) -> None:
    work.begin(STORES, sum(len(run.rows.rows) for each in coming for run in each.read.runs))
    for each in coming:
        check_new_blades(each.read.blades)
        with db.write() as session:
            for version in each.versions:
                methods.add_version(session, version)
            trials.save_trial(session, each.trial)
            arrivals.mark(session, arrival, trial_ids=[each.trial.id])
        _store_blades(db, arrival, each.trial, each.read)
        _store_runs(db, each, now, work)


def _store_blades(db: Database, arrival: str, trial: Trial, read: ReadTrial) -> None:
    for some in blades_in_pieces(read.blades):
        with db.write() as session:
            marks = shelf.next_marks(session, len(some))
            marked = [replace(blade, mark=mark) for blade, mark in zip(some, marks, strict=True)]
            shelf.save_whole_blades(session, marked)
            arrivals.mark(session, arrival, blade_ids=[blade.id for blade in some])
            for blade in some:
                trials.place_blade(session, trial.id, blade.id)
                trials.set_arms(session, trial.id, blade.id, blade.arms)
        let_taps_through()


def _store_runs(db: Database, coming: _Coming, now: Moment, work: ImportWork) -> None:
    trial, read, sequence = coming.trial, coming.read, 1
    last_on: dict[
        str, str
    ] = {}  # the last run on each edge, for one that goes on after it was stropped back
    made: dict[tuple[str, int, int], str] = {}
    for run_id, run in zip(coming.run_ids, read.runs, strict=True):
        edge = read.edge_of(run)
        record = run.record.values if run.record else {}
        started = _started(run, now)
        stored = replace(
            run.as_run(edge),
            id=run_id,
            trial_id=trial.id,
            started=started,
            other=_other(run.record, RUN_COLUMNS) if run.record else {},
            method_id=coming.version_ids.get(run.method_number or 0, trial.method_id),
            after_strop_of=last_on.get(edge.id) if record.get("after_strop") else None,
            block=read.block_of(run),
            from_paper=_from_paper(record.get("from_paper"), now),
            verifies_run_id=made.get((run.rows.blade, *run.verifies)) if run.verifies else None,
        )
        last_on[edge.id] = stored.id
        made[run.rows.blade, run.rows.edge, run.rows.run] = stored.id
        to_log = RunToLog(stored.id, f"{IMPORT}:{trial.id}", sequence, started.utc)
        rows = ((row.values, row.payload) for row in run.rows.rows)
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
        self._works: dict[str, ImportWork] = {}

    @contextmanager
    def working(self, import_id: str) -> Iterator[ImportWork]:
        """The work of an import while it is done."""
        work = self._works.setdefault(import_id, ImportWork())
        try:
            yield work
        finally:
            self._works.pop(import_id, None)

    def find(self, import_id: str) -> ImportWork:
        """The work under way under an id, or UnknownError."""
        work = self._works.get(import_id)
        if work is None:
            raise UnknownError("no import is under way under this id", field="import_id")
        return work
