"""Trials written as files, so that they can be read again as they were."""

import io
import re
import zipfile
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from kessik.core.protocols.events import AFTER_STROP
from kessik.core.protocols.methods import Method
from kessik.core.protocols.run_state import LoggedCheck
from kessik.core.shelf.blades import Blade
from kessik.core.trials.arms import blades_of
from kessik.core.trials.state import TrialRun
from kessik.core.trials.trial import Trial
from kessik.interchange.csv_tables import write_table
from kessik.interchange.data_package import FILE_NAME as PACKAGE
from kessik.interchange.data_package import describe
from kessik.interchange.method_json import write_method
from kessik.interchange.record_csv import RUN_COLUMNS
from kessik.interchange.series_csv import write_series
from kessik.interchange.series_events import row_of_check
from kessik.services.files.shelf_rows import blades_csv, edges_csv, header
from kessik.services.files.trial_files import RUN_FIELDS
from kessik.services.reading.trial_states import state_of_trial
from kessik.store.database import Database, Session
from kessik.store.queries import methods, stock


@dataclass
class TrialTables:
    """Rows of trials as files have them: checks, runs and blades; methods by the names of files."""

    series: list[dict[str, Any]] = field(default_factory=list)
    runs: list[dict[str, Any]] = field(default_factory=list)
    blades: dict[str, Blade] = field(default_factory=dict)
    methods: dict[str, str] = field(default_factory=dict)
    unknown: dict[str, None] = field(default_factory=dict)

    def add(self, session: Session, trial_id: str) -> Trial:
        """Add a trial; UnknownError where there is none."""
        state = state_of_trial(session, trial_id)
        trial, runs = state.trial, state.runs
        kept = {v.number: v for v in methods.methods_of_runs(session, trial_id).values()}
        lots = {lot.id: lot.name for lot in stock.all_lots(session)}
        versions = {**{n: v.method for n, v in kept.items()}, trial.method_number: trial.method}
        numbers = {v.id: n for n, v in kept.items()}
        self.series += [
            _series_row(trial, r, i, logged, self.unknown)
            for r in runs
            for i, logged in enumerate(r.state.checks, 1)
        ]
        self.series += [row for r in runs for row in _strop_rows(trial, r)]
        verified = {r.run.id: f"{r.edge.number}/{r.run.number}" for r in runs}
        self.runs += [
            _run_row(trial, r, numbers.get(r.run.method_id, trial.method_number), lots, verified)
            for r in runs
        ]
        self.blades |= {blade.id: blade for blade in blades_of(state.blades)}
        name = slug(trial.name)
        if f"{name}.method.json" in self.methods:
            name = f"{name}-{len(self.methods) + 1}"
        self.methods[f"{name}.method.json"] = write_method(versions, trial.method_number)
        return trial

    def files(self, name: str) -> dict[str, str]:
        """The tables as files, by name."""
        blades = list(self.blades.values())
        return {
            f"{name}.series.csv": write_series(self.series, list(self.unknown)),
            f"{name}.runs.csv": write_table(header(RUN_COLUMNS, self.runs), self.runs),
            f"{name}.blades.csv": blades_csv(blades),
            f"{name}.edges.csv": edges_csv(blades),
        }


def export_trial(db: Database, trial_id: str) -> dict[str, str]:
    """A trial as its four files, its method, and the package that describes them, by name."""
    tables = TrialTables()
    with db.read() as session:
        trial = tables.add(session, trial_id)
    files = {**tables.files(slug(trial.name)), **tables.methods}
    return {**files, PACKAGE: describe(trial.name, trial.created.utc, files)}


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


def _key(trial: Trial, r: TrialRun) -> dict[str, Any]:
    return {
        "trial": trial.name,
        "blade": r.blade.own_code,
        "edge": r.edge.number,
        "run": r.run.number,
    }


def _series_row(
    trial: Trial, r: TrialRun, seq: int, logged: LoggedCheck, unknown: dict[str, None]
) -> dict[str, Any]:
    row = row_of_check(logged)
    unknown.update(dict.fromkeys(logged.payload.extra or {}))
    return {
        **_key(trial, r),
        "seq": seq,
        "count_unit": r.run.count_unit,
        **row,
        "stage": row["stage"] or _only_stage(r.method, logged.check.kind),
    }


def _strop_rows(trial: Trial, r: TrialRun) -> list[dict[str, Any]]:
    """Strokes on the strop after the stop, each with the readings that followed."""
    own = {
        "trial": trial.name,
        "blade": r.blade.own_code,
        "edge": r.edge.number,
        "run": r.run.number,
    }
    own |= {"count": r.state.count, "count_unit": r.run.count_unit}
    rows: list[dict[str, Any]] = []
    before = 0.0
    for test in r.state.strops:
        rows.append({"check": "strop", "value": test.strokes - before, "unit": "strokes"})
        rows += [
            {"check": "force", "value": gf, "unit": "gf", "stage": AFTER_STROP}
            for gf in test.readings_gf
        ]
        rows += [
            {"check": check, "outcome": said, "stage": AFTER_STROP} for check, said in test.tries
        ]
        before = test.strokes
    return [{**own, "seq": len(r.state.checks) + i, **row} for i, row in enumerate(rows, 1)]


def _only_stage(method: Method, kind: str) -> str | None:
    """The stage a pass/fail check decides, where it decides one alone."""
    own = [stage.name for stage in method.stages if stage.check == kind and stage.limit_gf is None]
    return own[0] if len(own) == 1 else None


def _run_row(
    trial: Trial,
    r: TrialRun,
    version: int,
    lots: Mapping[str, str],
    verified: Mapping[str, str],
) -> dict[str, Any]:
    known = {name: getattr(r.run, name) for name in RUN_FIELDS}
    own = {
        "trial": trial.name,
        "blade": r.blade.own_code,
        "edge": r.edge.number,
        "run": r.run.number,
    }
    taken = "; ".join(lots[booking.lot_id] for booking in r.run.bookings if booking.lot_id in lots)
    spoiled = "; ".join(
        f"spoiled at {n:g}{f' ({cause})' if cause else ''}" for n, cause in r.state.spoiled
    )
    note = "; ".join(part for part in (r.run.other.get("note"), spoiled) if part)
    named = {
        "note": note,
        "method": f"{r.method.name}, version {version}",
        "arm": r.run.arm or r.edge.arm,
        "block": r.run.block,
        "verifies_run": verified.get(r.run.verifies_run_id or ""),
        "lot": taken or None,
    }
    named["from_paper"] = r.run.from_paper or None
    named["after_strop"] = r.run.after_strop_of is not None or None
    said = {name: value for name, value in {**named, **known}.items() if value not in (None, "")}
    return {
        "medium": trial.medium or None,
        **r.run.other,
        **own,
        **said,
        "started": r.run.started.utc,
    }
