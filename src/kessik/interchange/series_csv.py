"""`*.series.csv`: one row a check."""

import re
from collections.abc import Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

from kessik.core.errors import Fault, KessikError
from kessik.core.limits import LIMITS
from kessik.core.protocols.checks import CHECKS, DAMAGE, PASS_FAIL, CheckKind
from kessik.core.protocols.events import (
    AFTER_STROP,
    DOSE_CHECKS,
    Outcome,
    Payload,
    Reading,
    check_count_at,
    check_shows,
)
from kessik.core.protocols.series import WRITTEN, Check, RunSeries, outcome_of, seen_in
from kessik.core.units import force_to_gf
from kessik.interchange.csv_tables import Column, Row, Table, limited, read_table, write_table
from kessik.interchange.faults import Faults, FoundFaults
from kessik.interchange.named_files import NamedFile
from kessik.interchange.series_events import FORCE, payload_of_row

_SERIES, WORKBOOK = ".series.csv", b"PK\x03\x04"

_OWN_CHECK = "a check of your own comes with its method file, *.method.json"
CHECK_WORDS = (*CHECKS, *DOSE_CHECKS, AFTER_STROP, "stop", WRITTEN)
"""What the column `check` may hold besides the checks of the tester's own."""
COUNT_UNITS = ("cuts", "mm", "m", "in", "ft", "cycles", "layers", "strokes")

COLUMNS = (
    Column("trial", longest="word"),
    Column("blade", required=True, longest="word"),
    limited("edge", "edge_number", "integer"),
    limited("run", "run_number", "integer"),
    Column("seq", "integer", low=-(2**53), high=2**53),
    limited("count", "count", required=True),
    Column("count_unit", "choice", choices=COUNT_UNITS),
    Column("check", "choice", required=True, choices=CHECK_WORDS, hint=_OWN_CHECK),
    Column("value", "number"),
    Column("unit", longest="word"),
    Column("outcome", "choice", choices=(*PASS_FAIL, *DAMAGE)),
    Column("stage", longest="word"),
    limited("position_mm", "position_mm"),
    Column("struck", "yes_no"),
    Column("time", "time"),
    Column("note", longest="text"),
)
_COLUMN_OF = {"strokes": "value", "count_at": "count", "extra": ""}
HEADER = tuple(column.name for column in COLUMNS)


@dataclass(frozen=True)
class SeriesRow:
    """One check with everything its row said; `values` holds the known columns, `extra` the unknown
    ones.
    """

    line: int
    values: Mapping[str, Any]
    extra: Mapping[str, str]

    @property
    def is_of_strop(self) -> bool:
        """Strokes on the strop after the stop, or a reading that followed them."""
        return AFTER_STROP in (self.values["check"], self.values["stage"])

    @cached_property
    def payload(self) -> Payload:
        """What the row says, as a bench would have logged it; OutOfRangeError names the column."""
        return payload_of_row(self.values, self.extra)

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
            seen=seen_in(v["check"], v["outcome"] or ""),
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
        """The run's checks; what was read after stropping it back is of the strop and not of the
        run.
        """
        checks = tuple(row.check for row in self.rows if not row.is_of_strop)
        return RunSeries(self.blade, self.edge, self.run, checks, self.count_unit)


@dataclass(frozen=True)
class SeriesFile:
    """A series file as read: its runs in the order they first stand, and what was noticed."""

    table: Table
    runs: tuple[SeriesRun, ...]
    faults: FoundFaults


def is_sheet_of_results(file: NamedFile) -> bool:
    """Whether a file that does not call itself a series has none of a series' own columns, and is
    a workbook or has several columns all the same.
    """
    if file.name.lower().endswith(_SERIES):
        return False
    if file.data.startswith(WORKBOOK):
        return True
    head = file.data.lstrip(b"\xef\xbb\xbf \r\n").split(b"\n", 1)[0].decode("utf-8", "replace")
    columns = {name.strip(' "\r').casefold() for name in re.split(r"[,;\t]", head)}
    return len(columns) > 1 and not {"count", "check"} & columns


def columns_with(own_checks: Sequence[CheckKind]) -> tuple[Column, ...]:
    """The columns of a series whose method has checks of the tester's own."""
    words = {
        "check": [row.key for row in own_checks],
        "outcome": [word.key for row in own_checks for word in row.outcomes],
    }
    return tuple(
        replace(column, choices=tuple(dict.fromkeys((*column.choices, *words[column.name]))))
        if column.name in words
        else column
        for column in COLUMNS
    )


def read_series(file: str, data: bytes, own_checks: Sequence[CheckKind] = ()) -> SeriesFile:
    """Read a series; all faults at once, and no runs where there is any.

    `own_checks` are those that a method file beside it defines.
    """
    table = read_table(file, data, columns_with(own_checks))
    faults = Faults.of(table.faults)
    rows = [_with_defaults(row, file) for row in table.rows]
    table = replace(table, rows=())  # the rows live on in the runs
    for row in rows:
        if (row.line, "check") not in faults.cells and not faults.is_hopeless:
            faults.take(
                f
                for f in _row_faults(file, row, own_checks)
                if (f.line, f.column) not in faults.cells
            )
    rows = [
        row for row in rows if row.values["blade"] is not None and row.values["count"] is not None
    ]
    groups: dict[tuple[str, str, int, int], list[SeriesRow]] = {}
    for row in rows:
        v = row.values
        groups.setdefault((v["trial"], v["blade"], v["edge"], v["run"]), []).append(row)
    runs = []
    for (trial, blade, edge, run), members in groups.items():
        ordered = sorted(members, key=lambda r: (r.values["seq"] is None, r.values["seq"] or 0))
        faults.take(_order_faults(file, ordered))
        units = {row.values["count_unit"] for row in ordered}
        if len(units) > 1:
            message = f"one run is counted in {' and '.join(sorted(units))}"
            faults.add(Fault(file, ordered[0].line, "count_unit", message))
        runs.append(
            SeriesRun(trial, blade, edge, run, ordered[0].values["count_unit"], tuple(ordered))
        )
    most = LIMITS["file_runs"]
    if len(runs) > most.most:
        faults.add(Fault(file, 1, "run", most.says(f"{len(runs)}")))
    return SeriesFile(table, () if faults.count else tuple(runs), faults.found())


def _with_defaults(row: Row, file: str) -> SeriesRow:
    base = dict(row.values)  # it is the row from here on, and a large file has many
    for name in HEADER:
        base.setdefault(name, None)
    base["trial"] = base["trial"] or trial_name(file)
    base["edge"], base["run"] = base["edge"] or 1, base["run"] or 1
    base["count_unit"] = base["count_unit"] or "cuts"
    return SeriesRow(row.line, base, row.extra)


def trial_name(file: str) -> str:
    """The trial a file speaks of where no column says so: the file's name."""
    return file.rsplit("/", 1)[-1].removesuffix(".csv").removesuffix(".series") or file


def _row_faults(file: str, row: SeriesRow, own_checks: Sequence[CheckKind]) -> list[Fault]:
    """What the bench would refuse of a row, at the column it stands in; a check of the tester's own
    shows what some version of its method lets it show.
    """
    try:
        check_count_at(row.values["count"] or 0.0)
        payload = row.payload
        known = [kind for kind in own_checks if kind.key == row.values["check"]]
        if known and isinstance(payload, Reading | Outcome):
            _check_shows_any(payload, known)
    except KessikError as error:
        column = _COLUMN_OF.get(error.field or "", error.field or "check")
        return [Fault(file, row.line, column, error.message)]
    return []


def _check_shows_any(payload: Reading | Outcome, versions: Sequence[CheckKind]) -> None:
    for older in versions[:-1]:
        with suppress(KessikError):
            return check_shows(payload, older)
    return check_shows(payload, versions[-1])


def _order_faults(file: str, rows: Sequence[SeriesRow]) -> list[Fault]:
    faults = []
    highest = 0.0
    for row in rows:
        count = row.values["count"]
        if count < highest:
            message = (
                f"count {count:g} stands after {highest:g}; within a run counts may not fall (use"
                " seq to order rows)"
            )
            faults.append(Fault(file, row.line, "count", message))
        highest = max(highest, count)
    return faults


def write_series(rows: Sequence[Mapping[str, Any]], unknown_columns: Sequence[str] = ()) -> str:
    """Rows by column name, unknown columns last."""
    return write_table([*HEADER, *unknown_columns], rows)
