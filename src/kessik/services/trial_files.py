"""Trial files: read into plain trials (for the command line and the import alike), stored, and written again."""

import io
import re
import zipfile
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime
from typing import Any
from uuid import NAMESPACE_URL, uuid4, uuid5

from kessik.core.comparison.analysis import Limits, TrialAnalysis, analyse
from kessik.core.comparison.matching import BladeFacts, MatchingRule, Standing
from kessik.core.errors import Fault, RefusedFileError
from kessik.core.protocols.events import BenchEvent, EventKind
from kessik.core.protocols.methods import Method
from kessik.core.protocols.run_state import LoggedCheck
from kessik.core.protocols.series import RunSeries
from kessik.interchange.csv_tables import Row, Table, write_table
from kessik.interchange.record_csv import (
    BLADE_COLUMNS,
    EDGE_COLUMNS,
    RUN_COLUMNS,
    read_blades,
    read_edges,
    read_runs,
)
from kessik.interchange.series_csv import SeriesFile, SeriesRow, SeriesRun, read_series, write_series
from kessik.services.trials import blade_facts, insert_blade
from kessik.services.verdicts import TrialRun, trial_runs
from kessik.store.database import Database, Session
from kessik.store.queries import bench_log, trials
from kessik.store.records import Blade, Edge, Moment, Run, Trial

IMPORT = "import"
_BLADE_FIELDS = (
    "claimed_grade", "hardness_hrc", "usual_hardness_low_hrc", "usual_hardness_high_hrc", "edge_length_mm", "note",
)  # fmt: skip
_EDGE_FIELDS = ("side_angle_deg", "micro_bevel_side_deg", "thickness_behind_edge_mm", "note")
_RUN_FIELDS = ("practice", "zone_from_mm", "zone_to_mm", "edge_length_used_mm")


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

    def series(self) -> RunSeries:
        return replace(self.rows.series(), practice=self.practice)


@dataclass(frozen=True)
class ReadTrial:
    """A trial as its files tell it; blades carry new ids and their edges."""

    name: str
    blades: tuple[Blade, ...]
    runs: tuple[ReadRun, ...]

    def facts(self) -> dict[str, BladeFacts]:
        used = {(run.rows.blade, run.rows.edge) for run in self.runs if not run.practice}
        return {b.code: blade_facts(b, [e for e in b.edges if (b.code, e.number) in used]) for b in self.blades}

    def analysis(self, rule: MatchingRule, limits: Limits) -> TrialAnalysis:
        return analyse([run.series() for run in self.runs], self.facts(), rule, limits)


@dataclass(frozen=True)
class ReadFiles:
    """Trials read from files, with what the reader noticed about each file."""

    trials: tuple[ReadTrial, ...]
    notes: tuple[str, ...]


def read_files(files: Sequence[NamedFile]) -> ReadFiles:
    """Read series with the runs, blades and edges files beside them; RefusedFileError lists every fault of all."""
    series: list[SeriesFile] = []
    tables: dict[str, list[Table]] = {"runs": [], "blades": [], "edges": []}
    readers = {"runs": read_runs, "blades": read_blades, "edges": read_edges}
    for file in files:
        kind = next((k for k in tables if file.name.lower().endswith(f".{k}.csv")), None)
        if kind:
            tables[kind].append(readers[kind](file.name, file.data))
        else:
            series.append(read_series(file.name, file.data))
    faults = [fault for file in series for fault in file.faults]
    faults += [fault for kind in tables.values() for table in kind for fault in table.faults]
    if not series:
        faults.append(Fault(files[0].name if files else "files", 1, "", "a series file (*.series.csv) is needed too"))
    if faults:
        raise RefusedFileError(faults)
    runs = [run for file in series for run in file.runs]
    everything = [file.table for file in series] + [table for kind in tables.values() for table in kind]
    notes = [f"{table.file}: {note}" for table in everything for note in table.notes]
    names = list(dict.fromkeys(run.trial for run in runs))
    return ReadFiles(tuple(_read_trial(name, runs, tables) for name in names), tuple(notes))


def _read_trial(name: str, all_runs: Sequence[SeriesRun], tables: Mapping[str, Sequence[Table]]) -> ReadTrial:
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
    blades = tuple(_blade(code, blade_rows.get(code), runs, edge_rows) for code in codes)
    return ReadTrial(name, blades, tuple(ReadRun(r, run_rows.get((r.blade, r.edge, r.run))) for r in runs))


def _blade(code: str, row: Row | None, runs: Sequence[SeriesRun], edge_rows: Mapping[tuple[str, int], Row]) -> Blade:
    blade_id = str(uuid4())
    numbers = sorted({r.edge for r in runs if r.blade == code} | {n for c, n in edge_rows if c == code})
    edges = tuple(_edge(blade_id, number, edge_rows.get((code, number))) for number in numbers)
    if row is None:
        return Blade(blade_id, code, edges=edges)
    known = _known(row.values, _BLADE_FIELDS)
    standing: Standing = row.values.get("hardness_standing") or "claimed"
    return Blade(
        blade_id,
        code,
        hardness_standing=standing,
        other=_other(row, BLADE_COLUMNS, _BLADE_FIELDS),
        edges=edges,
        **known,
    )


def _edge(blade_id: str, number: int, row: Row | None) -> Edge:
    if row is None:
        return Edge(str(uuid4()), blade_id, number)
    known = _known(row.values, _EDGE_FIELDS)
    return Edge(str(uuid4()), blade_id, number, other=_other(row, EDGE_COLUMNS, _EDGE_FIELDS), **known)


def _known(values: Mapping[str, Any], names: Sequence[str]) -> dict[str, Any]:
    return {name: values[name] for name in names if values.get(name) is not None}


def _other(row: Row, columns: Sequence[Any], used: Sequence[str]) -> dict[str, Any]:
    """Columns Kessik knows but does not use yet, and unknown ones, kept with the row."""
    skipped = {*used, "blade", "edge", "run", "trial", "hardness_standing"}
    known = {c.name: row.values.get(c.name) for c in columns if c.name not in skipped}
    return {name: value for name, value in {**known, **row.extra}.items() if value is not None}


def import_files(
    db: Database, files: Sequence[NamedFile], now: Moment, rule: MatchingRule, method: Method
) -> tuple[list[Trial], tuple[str, ...]]:
    """Store the trials of files, all or nothing; returns them with what the reader noticed."""
    read = read_files(files)
    stored = []
    with db.write() as session:
        for trial in read.trials:
            made = Trial(str(uuid4()), trial.name, now, rule=rule, method=method, source=IMPORT)
            trials.save_trial(session, made)
            for blade in trial.blades:
                insert_blade(session, made.id, blade)
            sequence = 1
            for run in trial.runs:
                sequence = _store_run(session, made, trial, run, now, sequence)
            stored.append(made)
    return stored, read.notes


def _store_run(session: Session, made: Trial, trial: ReadTrial, run: ReadRun, now: Moment, sequence: int) -> int:
    blade = next(b for b in trial.blades if b.code == run.rows.blade)
    edge = next(e for e in blade.edges if e.number == run.rows.edge)
    record = run.record.values if run.record else {}
    known = _known(record, _RUN_FIELDS)
    other = _other(run.record, RUN_COLUMNS, (*_RUN_FIELDS, "started")) if run.record else {}
    started = _moment(record.get("started")) or _moment(run.rows.rows[0].values["time"]) or now
    stored = Run(
        str(uuid4()), made.id, edge.id, run.rows.run, started, count_unit=run.rows.count_unit, other=other, **known
    )  # fmt: skip
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
    count = 0.0
    for row in rows.rows:
        target = float(row.values["count"])
        if target > count:
            add("cut", count, {"amount": target - count}, row.values["time"])
            count = target
        kind, payload = _event_of(row)
        add(kind, count, payload, row.values["time"])
        if row.values["struck"]:
            add("strike", count, {"target": events[-1].id, "reason": row.values["note"] or "struck in the file"})
    if not events or events[-1].kind != "stop":
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
    if check.force_gf is not None:
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


def export_trial(db: Database, trial_id: str) -> dict[str, str]:
    """A trial as its four files, by name."""
    trial, blades, runs = trial_runs(db, trial_id)
    name = slug(trial.name)
    unknown: dict[str, None] = {}
    series = [_series_row(trial, r, i, logged, unknown) for r in runs for i, logged in enumerate(r.state.checks, 1)]
    blade_rows = [_blade_row(b) for b in blades]
    edge_rows = [_edge_row(b, e) for b in blades for e in b.edges]
    run_rows = [_run_row(trial, r) for r in runs]
    return {
        f"{name}.series.csv": write_series(series, list(unknown)),
        f"{name}.runs.csv": write_table(_header(RUN_COLUMNS, run_rows), run_rows),
        f"{name}.blades.csv": write_table(_header(BLADE_COLUMNS, blade_rows), blade_rows),
        f"{name}.edges.csv": write_table(_header(EDGE_COLUMNS, edge_rows), edge_rows),
    }


def zipped(files: Mapping[str, str]) -> bytes:
    """The files in one archive."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, text in files.items():
            archive.writestr(name, text)
    return out.getvalue()


def slug(name: str) -> str:
    """A file name from a trial's name."""
    return re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-") or "trial"


def _header(columns: Sequence[Any], rows: Sequence[Mapping[str, Any]]) -> list[str]:
    names = [column.name for column in columns]
    return names + [name for name in dict.fromkeys(key for row in rows for key in row) if name not in names]


def _series_row(trial: Trial, r: TrialRun, seq: int, logged: LoggedCheck, unknown: dict[str, None]) -> dict[str, Any]:
    p = logged.payload
    entered = p.get("entered")
    value, unit = entered if isinstance(entered, list) else (p.get("value"), p.get("unit"))
    extra = p.get("extra") or {}
    unknown.update(dict.fromkeys(extra))
    return {
        "trial": trial.name,
        "blade": r.blade.code,
        "edge": r.edge.number,
        "run": r.run.number,
        "seq": seq,
        "count": logged.check.count,
        "count_unit": r.run.count_unit,
        "check": logged.check.kind,
        "value": value,
        "unit": unit,
        "outcome": entered if isinstance(entered, str) else p.get("outcome"),
        "stage": p.get("stage"),
        "position_mm": p.get("position_mm"),
        "struck": logged.check.struck,
        "time": p.get("time"),
        "note": p.get("note"),
        **extra,
    }


def _blade_row(blade: Blade) -> dict[str, Any]:
    known = {name: getattr(blade, name) or None for name in _BLADE_FIELDS}
    standing = blade.hardness_standing if blade.hardness_hrc is not None else None
    return {**blade.other, "blade": blade.code, **known, "hardness_standing": standing}


def _edge_row(blade: Blade, edge: Edge) -> dict[str, Any]:
    known = {name: getattr(edge, name) or None for name in _EDGE_FIELDS}
    return {**edge.other, "blade": blade.code, "edge": edge.number, **known}


def _run_row(trial: Trial, r: TrialRun) -> dict[str, Any]:
    known = {name: getattr(r.run, name) for name in _RUN_FIELDS}
    own = {"trial": trial.name, "blade": r.blade.code, "edge": r.edge.number, "run": r.run.number}
    return {"medium": trial.medium or None, **r.run.other, **own, **known, "started": r.run.started.utc}
