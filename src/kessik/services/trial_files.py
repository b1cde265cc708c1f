"""Trial files: read into plain trials (for the command line and the import alike), and stored."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any
from uuid import NAMESPACE_URL, uuid4, uuid5

from kessik.core.comparison.analysis import TrialAnalysis, analyse
from kessik.core.comparison.matching import BladeFacts, MatchingRule
from kessik.core.errors import Fault, RefusedFileError
from kessik.core.protocols.events import BenchEvent, EventKind
from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import RunSeries
from kessik.core.sharpening.settled import SettledRule
from kessik.interchange.csv_tables import Row, Table
from kessik.interchange.method_json import MethodFile, read_method
from kessik.interchange.record_csv import RUN_COLUMNS, read_blades, read_edges, read_runs
from kessik.interchange.series_csv import SeriesFile, SeriesRow, SeriesRun, read_series
from kessik.services.bench import edge_length_used_mm
from kessik.services.facts import blade_facts, left_out
from kessik.services.methods import with_version
from kessik.services.record_files import import_onto_shelf, read_blade
from kessik.services.shelf import insert_blade
from kessik.store.database import Database, Session
from kessik.store.queries import bench_log, methods, trials
from kessik.store.records import Blade, Edge, MethodVersion, Moment, Run, Trial

IMPORT = "import"
_METHOD_FILE = ".method.json"
RUN_FIELDS = ("practice", "zone_from_mm", "zone_to_mm", "edge_length_used_mm", "round", "operator")
_RULE = SettledRule("every_edge")  # edges of a file may be numbered from where its tester began; it says what counts


@dataclass(frozen=True)
class NamedFile:
    """A file as handed in: its name decides what it is."""

    name: str
    data: bytes


@dataclass(frozen=True)
class ReadRun:
    """A run as its files tell it."""

    rows: SeriesRun
    record: Row | None

    @property
    def practice(self) -> bool:
        return bool(self.record and self.record.values.get("practice"))

    @property
    def compares(self) -> bool:
        """Whether it stands in comparisons: not practice, and on a fresh edge."""
        return not self.practice and not (self.record and self.record.values.get("after_strop"))

    def as_run(self, edge_id: str) -> Run:
        record = self.record.values if self.record else {}
        known = {name: record[name] for name in RUN_FIELDS if record.get(name) is not None}
        block = str(record.get("block") or "")
        if block.isdecimal():
            known["block"] = int(block)
        return Run("", "", edge_id, self.rows.run, Moment(""), count_unit=self.rows.count_unit, **known)

    @property
    def method_number(self) -> int | None:
        """The version of the method the run says it was cut under, as an export writes it."""
        said = re.search(r"version (\d+)$", str(self.record.values.get("method") or "") if self.record else "")
        return int(said[1]) if said else None


@dataclass(frozen=True)
class ReadTrial:
    """A trial as its files tell it; blades carry new ids and their edges. `methods` where a method file came along."""

    name: str
    blades: tuple[Blade, ...]
    runs: tuple[ReadRun, ...]
    methods: MethodFile | None = None

    def edge_of(self, run: ReadRun) -> tuple[Blade, Edge]:
        blade = next(b for b in self.blades if b.code == run.rows.blade)
        return blade, next(e for e in blade.edges if e.number == run.rows.edge)

    def series(self, run: ReadRun) -> RunSeries:
        blade, edge = self.edge_of(run)
        record = run.as_run(edge.id)
        length = edge_length_used_mm(record, blade)
        return replace(run.rows.series(), practice=run.practice, edge_length_used_mm=length, worked_mm=record.worked_mm)

    def analysis(self, rule: MatchingRule, method: Method) -> TrialAnalysis:
        """The trial analysed as the bench would; its own method file goes before the method handed in."""
        out = left_out(self.blades, [run.as_run(self.edge_of(run)[1].id) for run in self.runs], _RULE)
        facts = {blade.code: self._facts(blade, out) for blade in self.blades}
        in_force = self.methods.method if self.methods else method
        return analyse(
            [self.series(run) for run in self.runs if run.compares or run.practice], facts, rule, in_force, out
        )

    def _facts(self, blade: Blade, out: Mapping[tuple[str, int], str]) -> BladeFacts:
        cut = {run.rows.edge for run in self.runs if run.rows.blade == blade.code and not run.practice}
        edges = [e for e in blade.edges if e.number in cut]
        counting = [e for e in edges if (blade.code, e.number) not in out]
        return blade_facts(blade, counting or edges, _RULE)


@dataclass(frozen=True)
class ReadFiles:
    """Trials read from files, with what the reader noticed about each file; or blades and edges alone."""

    trials: tuple[ReadTrial, ...]
    notes: tuple[str, ...]
    blades: tuple[Table, ...] = ()
    edges: tuple[Table, ...] = ()


def read_files(files: Sequence[NamedFile]) -> ReadFiles:
    """Read series with the runs, blades and edges files beside them, or blades and edges files for the shelf.

    RefusedFileError lists every fault of all.
    """
    series: list[SeriesFile] = []
    tables: dict[str, list[Table]] = {"runs": [], "blades": [], "edges": []}
    readers = {"runs": read_runs, "blades": read_blades, "edges": read_edges}
    method_files = [read_method(file.name, file.data) for file in files if file.name.lower().endswith(_METHOD_FILE)]
    for file in files:
        if file.name.lower().endswith(_METHOD_FILE):
            continue
        kind = next((k for k in tables if file.name.lower().endswith(f".{k}.csv")), None)
        if kind:
            tables[kind].append(readers[kind](file.name, file.data))
        else:
            series.append(read_series(file.name, file.data))
    faults = [fault for file in series for fault in file.faults]
    faults += [fault for kind in tables.values() for table in kind for fault in table.faults]
    if not series and (tables["runs"] or not files):
        faults.append(Fault(files[0].name if files else "files", 1, "", "a series file (*.series.csv) is needed too"))
    if faults:
        raise RefusedFileError(faults)
    runs = [run for file in series for run in file.runs]
    everything = [file.table for file in series] + [table for kind in tables.values() for table in kind]
    notes = [f"{table.file}: {note}" for table in everything for note in table.notes]
    names = list(dict.fromkeys(run.trial for run in runs))
    trials = tuple(_read_trial(name, runs, tables, method_files[-1] if method_files else None) for name in names)
    return ReadFiles(trials, tuple(notes), tuple(tables["blades"]), tuple(tables["edges"]))


def _read_trial(
    name: str, all_runs: Sequence[SeriesRun], tables: Mapping[str, Sequence[Table]], methods: MethodFile | None
) -> ReadTrial:
    runs = [run for run in all_runs if run.trial == name]
    blade_rows = {row.values["blade"]: row for table in tables["blades"] for row in table.rows}
    edge_rows = {(row.values["blade"], row.values["edge"]): row for table in tables["edges"] for row in table.rows}
    run_rows = {
        (row.values["blade"], row.values["edge"], row.values.get("run") or 1): row
        for table in tables["runs"]
        for row in table.rows
        if row.values.get("trial") in (None, name)
    }
    codes = list(dict.fromkeys(run.blade for run in runs))
    now = runs[0].rows[0].values["time"] or ""
    blades = []
    for code in codes:
        numbers = {r.edge for r in runs if r.blade == code} | {n for c, n in edge_rows if c == code}
        by_number = {number: edge_rows.get((code, number)) for number in numbers}
        blades.append(replace(read_blade(code, blade_rows.get(code), by_number, now), origin=f"files of {name}"))
    found = tuple(ReadRun(r, run_rows.get((r.blade, r.edge, r.run))) for r in runs)
    return ReadTrial(name, tuple(blades), found, methods)


def _other(row: Row, columns: Sequence[Any], used: Sequence[str]) -> dict[str, Any]:
    """Columns Kessik knows but does not use yet, and unknown ones, kept with the row."""
    skipped = {*used, "blade", "edge", "run", "trial"}
    known = {c.name: row.values.get(c.name) for c in columns if c.name not in skipped}
    return {name: value for name, value in {**known, **row.extra}.items() if value is not None}


@dataclass(frozen=True)
class Imported:
    """What an import stored: trials, or the codes of blades on the shelf; and what the reader noticed."""

    trials: tuple[Trial, ...]
    blades: tuple[str, ...]
    notes: tuple[str, ...]


def import_files(db: Database, files: Sequence[NamedFile], now: Moment, rule: MatchingRule, method: Method) -> Imported:
    """Store the trials of files, or blades and edges on the shelf where no series comes with them; all or nothing."""
    read = read_files(files)
    if not read.trials:
        return Imported((), tuple(import_onto_shelf(db, read.blades, read.edges, now)), read.notes)
    stored = []
    with db.write() as session:
        for trial in read.trials:
            made = Trial(str(uuid4()), trial.name, now, rule=rule, method=method, settled_rule=_RULE, source=IMPORT)
            made, versions = with_versions(session, made, trial.methods, now.utc)
            trials.save_trial(session, made)
            for blade in trial.blades:
                insert_blade(session, blade, shared_code=True)
                trials.place_blade(session, made.id, blade.id)
            sequence = 1
            last_on: dict[str, str] = {}
            for run in trial.runs:
                cut_under = versions.get(run.method_number or 0, made.method_id)
                sequence = _store_run(session, made, trial, run, now, sequence, cut_under, last_on)
            stored.append(made)
    return Imported(tuple(stored), (), read.notes)


def with_versions(
    session: Session, trial: Trial, file: MethodFile | None, now_utc: str
) -> tuple[Trial, Mapping[int, str]]:
    """A trial with the versions of its method kept, as its file has them; and their ids by number."""
    if file is None:
        return with_version(session, trial, now_utc), {}
    line = str(uuid4())
    versions = {number: str(uuid4()) for number in file.versions}
    for number, version in file.versions.items():
        methods.add_version(session, MethodVersion(versions[number], line, number, version, now_utc))
    in_force = file.in_force
    return replace(trial, method=file.method, method_id=versions[in_force], method_number=in_force), versions


def _store_run(
    session: Session,
    made: Trial,
    trial: ReadTrial,
    run: ReadRun,
    now: Moment,
    sequence: int,
    method_id: str,
    last_on: dict[str, str],
) -> int:
    """Store a run; `last_on` holds the last run on each edge, for one that goes on after it was stropped back."""
    _, edge = trial.edge_of(run)
    record = run.record.values if run.record else {}
    other = _other(run.record, RUN_COLUMNS, (*RUN_FIELDS, "started", "after_strop")) if run.record else {}
    started = _moment(record.get("started")) or _moment(run.rows.rows[0].values["time"]) or now
    stored = replace(run.as_run(edge.id), id=str(uuid4()), trial_id=made.id, started=started, other=other)
    before = last_on.get(edge.id) if record.get("after_strop") else None
    stored = replace(stored, method_id=method_id, after_strop_of=before)
    last_on[edge.id] = stored.id
    bench_log.add_run(session, stored)
    events = _events(stored, run.rows, made.id, started, sequence)
    bench_log.append_many(session, stored.id, events, now.utc)
    return sequence + len(events)


def _events(run: Run, rows: SeriesRun, trial_id: str, started: Moment, sequence: int) -> list[BenchEvent]:
    events: list[BenchEvent] = []

    def add(kind: EventKind, count: float, payload: Mapping[str, Any], time: str | None = None) -> None:
        number = sequence + len(events)
        made = str(uuid5(NAMESPACE_URL, f"kessik:{run.id}:{number}"))
        events.append(
            BenchEvent(made, kind, f"{IMPORT}:{trial_id}", number, 0, count, time or started.utc, dict(payload))
        )

    add("start", 0.0, {})
    count, stopped = 0.0, False
    for row in rows.rows:
        target = float(row.values["count"])
        if target > count:
            add("cut", count, {"amount": target - count}, row.values["time"])
            count = target
        if row.is_of_strop and not stopped:
            add("stop", count, {"by": IMPORT})
        kind, payload = _event_of(row)
        stopped = stopped or row.is_of_strop or kind == "stop"
        add(kind, count, payload, row.values["time"])
        if row.values["struck"]:
            add("strike", count, {"target": events[-1].id, "reason": row.values["note"] or "struck in the file"})
    if not stopped:
        add("stop", count, {"by": IMPORT})
    return events


def _event_of(row: SeriesRow) -> tuple[EventKind, dict[str, Any]]:
    v = row.values
    kept = {name: v[name] for name in ("stage", "position_mm", "note", "time") if v[name] is not None}
    if row.extra:
        kept["extra"] = dict(row.extra)
    check = row.check
    if v["check"] == "stop":
        return "stop", {"by": "tester", **kept}
    if v["check"] == "strop":
        return "strop", {"strokes": v["value"], **kept}
    if check.force_gf is not None:
        if v["check"] != "force":
            kept["written_as"] = v["check"]
        return "reading", {
            "check": "force",
            "value": check.force_gf,
            "unit": "gf",
            "entered": [v["value"], v["unit"]],
            **kept,
        }
    if check.outcome is not None:
        return "outcome", {"check": v["check"], "outcome": check.outcome, "entered": v["outcome"], **kept}
    return "reading", {"check": v["check"], "value": v["value"], "unit": v["unit"], **kept}


def _moment(text: str | None) -> Moment | None:
    if not text:
        return None
    local = datetime.fromisoformat(text)
    offset = local.utcoffset()
    utc = (local - offset).replace(tzinfo=None) if offset else local.replace(tzinfo=None)
    return Moment(f"{utc.isoformat()}+00:00", int(offset.total_seconds() // 60) if offset else 0)
