"""`*.series.csv`: one row a check."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from kessik.core.errors import Fault, KessikError
from kessik.core.protocols.events import AFTER_STROP, INSPECTED, MOST_STROKES, check_force_gf
from kessik.core.protocols.series import Check, RunSeries, outcome_of
from kessik.core.units import force_to_gf
from kessik.interchange.csv_tables import Column, Row, Table, read_table, write_table

CHECKS = (
    "force", "paper", "shave", "hair_sample", "inspect", "effort", "rank", "depth", "dose_start", "dose_end", "strop",
    "stop",
)  # fmt: skip
PASS_FAIL = ("paper", "shave", "hair_sample")
FORCE = ("force", "dose_start", "dose_end")  # a reading before or after a dose is a reading
COUNT_UNITS = ("cuts", "mm", "m", "in", "ft", "cycles", "layers", "strokes")

COLUMNS = (
    Column("trial"),
    Column("blade", required=True),
    Column("edge", "integer", low=1),
    Column("run", "integer", low=1),
    Column("seq", "integer"),
    Column("count", "number", required=True, low=0),
    Column("count_unit", "choice", choices=COUNT_UNITS),
    Column("check", "choice", required=True, choices=CHECKS),
    Column("value", "number"),
    Column("unit"),
    Column("outcome", "choice", choices=("pass", "fail", "doubt", *INSPECTED)),
    Column("stage"),
    Column("position_mm", "number", low=0, unit="mm"),
    Column("struck", "yes_no"),
    Column("time", "time"),
    Column("note"),
)
HEADER = tuple(column.name for column in COLUMNS)


@dataclass(frozen=True)
class SeriesRow:
    """One check with everything its row said; `values` holds the known columns, `extra` the unknown ones."""

    line: int
    values: Mapping[str, Any]
    extra: Mapping[str, str]

    @property
    def is_of_strop(self) -> bool:
        """Strokes on the strop after the stop, or a reading that followed them."""
        return AFTER_STROP in (self.values["check"], self.values["stage"])

    @property
    def check(self) -> Check:
        v = self.values
        force = v["check"] in FORCE and v["value"] is not None
        return Check(
            count=float(v["count"]),
            kind="force" if force else v["check"],
            force_gf=force_to_gf(v["value"], v["unit"] or "gf") if force else None,
            outcome=outcome_of(v["check"], v["outcome"]),
            stage=v["stage"],
            struck=bool(v["struck"]),
            value=None if force else v["value"],
            seen=(v["outcome"] or "") if v["check"] == "inspect" else "",
            position_mm=v["position_mm"],
        )


@dataclass(frozen=True)
class SeriesRun:
    """The rows of one run, in order."""

    trial: str
    blade: str
    edge: int
    run: int
    count_unit: str
    rows: tuple[SeriesRow, ...]

    def series(self) -> RunSeries:
        """The run's checks; what was read after stropping it back is of the strop and not of the run."""
        checks = tuple(row.check for row in self.rows if not row.is_of_strop)
        return RunSeries(self.blade, self.edge, self.run, checks, self.count_unit)


@dataclass(frozen=True)
class SeriesFile:
    """A series file as read: its runs in the order they first stand, and what was noticed."""

    table: Table
    runs: tuple[SeriesRun, ...]
    faults: tuple[Fault, ...]


def read_series(file: str, data: bytes) -> SeriesFile:
    """Read a series; all faults at once, and no runs where there is any."""
    table = read_table(file, data, COLUMNS)
    faults = list(table.faults)
    unread = {(fault.line, fault.column) for fault in faults}
    rows = [_with_defaults(row, file) for row in table.rows]
    for row in rows:
        faults.extend(fault for fault in _row_faults(file, row) if (fault.line, fault.column) not in unread)
    if any(row.values.get("blade") is None or row.values.get("count") is None for row in rows):
        return SeriesFile(table, (), tuple(sorted(faults, key=lambda f: f.line)))
    groups: dict[tuple[str, str, int, int], list[SeriesRow]] = {}
    for row in rows:
        v = row.values
        groups.setdefault((v["trial"], v["blade"], v["edge"] or 1, v["run"] or 1), []).append(row)
    runs = []
    for (trial, blade, edge, run), members in groups.items():
        ordered = sorted(members, key=lambda r: (r.values["seq"] is None, r.values["seq"] or 0))
        faults.extend(_order_faults(file, ordered))
        units = {row.values["count_unit"] for row in ordered}
        if len(units) > 1:
            faults.append(
                Fault(file, ordered[0].line, "count_unit", f"one run is counted in {' and '.join(sorted(units))}")
            )
        runs.append(SeriesRun(trial, blade, edge, run, ordered[0].values["count_unit"], tuple(ordered)))
    return SeriesFile(table, tuple(runs) if not faults else (), tuple(sorted(faults, key=lambda f: f.line)))


def _with_defaults(row: Row, file: str) -> SeriesRow:
    base = {name: row.values.get(name) for name in HEADER}
    base["trial"] = base["trial"] or trial_name(file)
    base["edge"], base["run"] = base["edge"] or 1, base["run"] or 1
    base["count_unit"] = base["count_unit"] or "cuts"
    return SeriesRow(row.line, base, row.extra)


def trial_name(file: str) -> str:
    """The trial a file speaks of where no column says so: the file's name."""
    return file.rsplit("/", 1)[-1].removesuffix(".csv").removesuffix(".series") or file


def _row_faults(file: str, row: SeriesRow) -> list[Fault]:
    v = row.values
    check = v["check"]
    if check in FORCE and (check == "force" or v["value"] is not None):
        if v["value"] is None:
            return [Fault(file, row.line, "value", "a force check needs its reading here")]
        try:
            check_force_gf(force_to_gf(v["value"], v["unit"] or "gf"))
        except KessikError as error:
            return [Fault(file, row.line, "unit" if error.field == "unit" else "value", error.message)]
    if check in PASS_FAIL and v["outcome"] not in ("pass", "fail", "doubt"):
        return [Fault(file, row.line, "outcome", f"a {check} check needs pass, fail or doubt here")]
    if check == "inspect" and v["outcome"] not in INSPECTED:
        return [Fault(file, row.line, "outcome", f"an inspection needs one of {', '.join(INSPECTED)} here")]
    if check == "effort" and (v["value"] is None or not 0 <= v["value"] <= 10):
        return [Fault(file, row.line, "value", "effort is a number from 0 to 10")]
    if check == "strop" and (v["value"] is None or not 1 <= v["value"] <= MOST_STROKES):
        return [Fault(file, row.line, "value", f"a strop needs its strokes here, 1 to {MOST_STROKES:g}")]
    if check in ("rank", "depth") and (v["value"] is None or v["value"] < 0):
        return [Fault(file, row.line, "value", f"a {check} needs its number here, 0 or more")]
    return []


def _order_faults(file: str, rows: Sequence[SeriesRow]) -> list[Fault]:
    faults = []
    highest = 0.0
    for row in rows:
        count = row.values["count"]
        if count < highest:
            message = (
                f"count {count:g} stands after {highest:g}; within a run counts may not fall (use seq to order rows)"
            )
            faults.append(Fault(file, row.line, "count", message))
        highest = max(highest, count)
    return faults


def write_series(rows: Sequence[Mapping[str, Any]], unknown_columns: Sequence[str] = ()) -> str:
    """Rows by column name, unknown columns last."""
    return write_table([*HEADER, *unknown_columns], rows)
