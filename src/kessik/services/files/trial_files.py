"""Trial files read into plain trials, for the command line and the import alike."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from kessik.core.comparison.analysis import LeftOut, TrialAnalysis, analyse
from kessik.core.comparison.matching import BladeFacts, MatchingRule
from kessik.core.errors import Fault, RefusedFileError, SheetOfResultsError
from kessik.core.limits import LIMITS
from kessik.core.moments import Moment
from kessik.core.protocols.checks import CheckKind
from kessik.core.protocols.methods import Method
from kessik.core.protocols.series import LOST_IN_ORDER, RunSeries
from kessik.core.runs import Run
from kessik.core.sharpening.settled import SettledRule
from kessik.core.sharpness.life import AsWritten
from kessik.core.sharpness.outcomes import outcome_lives
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge
from kessik.core.trials.arms import arm_and_edge, arms_of
from kessik.core.trials.blade_facts import blade_facts
from kessik.core.trials.edges_that_count import edges_cut, left_out
from kessik.core.trials.run_series import edge_length_used_mm
from kessik.core.words.sentences import counted
from kessik.interchange.csv_tables import Row, Table
from kessik.interchange.data_package import FILE_NAME as PACKAGE
from kessik.interchange.faults import together
from kessik.interchange.method_json import MethodFile, read_method
from kessik.interchange.named_files import NamedFile
from kessik.interchange.record_csv import read_blades, read_edges, read_runs
from kessik.interchange.series_csv import SeriesFile, SeriesRun, is_sheet_of_results, read_series
from kessik.services.files.shelf_rows import read_blade
from kessik.services.work import READS, ImportWork

_METHOD_FILE = ".method.json"
_LONGEST_NUMBER = 6
RUN_FIELDS = ("practice", "zone_from_mm", "zone_to_mm", "edge_length_used_mm", "round", "operator",
    "check_every",
)  # fmt: skip  # names, several a line
RULE = SettledRule(
    "every_edge"
)  # edges of a file may be numbered from where its tester began; it says what counts


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

    @property
    def arm(self) -> str:
        """The arm it was cut as, where a runs file says so."""
        return str(self.record.values.get("arm") or "").strip() if self.record else ""

    def as_run(self, edge: Edge) -> Run:
        record = self.record.values if self.record else {}
        known = {name: record[name] for name in RUN_FIELDS if record.get(name) is not None}
        return Run(
            "",
            "",
            edge.id,
            self.rows.run,
            Moment(""),
            arm="" if self.arm == edge.arm else self.arm,
            count_unit=self.rows.count_unit,
            **known,
        )

    @property
    def block_name(self) -> str:
        """The block as the file names it; empty where it does not."""
        return str(self.record.values.get("block") or "").strip() if self.record else ""

    @property
    def verifies(self) -> tuple[int, int] | None:
        """The edge and run of the same blade that this one verifies: `3`, or `3/2` for its second
        run.
        """
        said = str(self.record.values.get("verifies_run") or "") if self.record else ""
        found = re.fullmatch(r"(?:edge\s*)?(\d+)(?:\s*/\s*(?:run\s*)?(\d+))?", said.strip())
        return (int(found[1]), int(found[2] or 1)) if found else None

    @property
    def method_number(self) -> int | None:
        """The version of the method the run says it was cut under, as an export writes it."""
        said = re.search(
            r"version (\d+)$", str(self.record.values.get("method") or "") if self.record else ""
        )
        return int(said[1]) if said else None


@dataclass(frozen=True)
class ReadTrial:
    """A trial as its files tell it; blades carry new ids and their edges. `methods` where a method
    file came along.
    """

    name: str
    blades: tuple[Blade, ...]
    runs: tuple[ReadRun, ...]
    methods: MethodFile | None = None

    def edge_of(self, run: ReadRun) -> Edge:
        """The edge that a run was cut with."""
        blade = next(b for b in self.blades if b.code == run.rows.blade)
        return next(e for e in blade.edges if e.number == run.rows.edge)

    @cached_property
    def arms(self) -> tuple[Blade, ...]:
        """What the trial compares."""
        return arms_of(self.blades, [run.as_run(self.edge_of(run)) for run in self.runs])

    @cached_property
    def _blocks(self) -> dict[str, int]:
        """The number of each block: as the file says, or by when its name first comes."""
        names = list(dict.fromkeys(run.block_name for run in self.runs if run.block_name))
        if all(name.isdecimal() and len(name) <= _LONGEST_NUMBER for name in names):
            return {name: int(name) for name in names}
        return {name: number for number, name in enumerate(names, 1)}

    def block_of(self, run: ReadRun) -> int | None:
        """The number of a run's block, where the file names one."""
        return self._blocks.get(run.block_name)

    def series(self, run: ReadRun) -> RunSeries:
        record = run.as_run(self.edge_of(run))
        arm, _ = arm_and_edge(self.arms, record)
        length = edge_length_used_mm(record, arm)
        return replace(
            run.rows.series(),
            blade=arm.code,
            cut_with=arm.own_code,
            practice=run.practice,
            edge_length_used_mm=length,
            worked_mm=record.worked_mm,
            block=self.block_of(run),
            check_every=record.check_every,
            verifies=run.verifies,
            round=record.round,
        )

    def analysis(self, rule: MatchingRule, method: Method) -> TrialAnalysis:
        """The trial analysed as the bench would; its own method file goes before the method handed
        in.
        """
        runs = [run.as_run(self.edge_of(run)) for run in self.runs]
        out = left_out(self.arms, runs, RULE)
        facts = {arm.code: _facts(arm, runs, out) for arm in self.arms}
        in_force = self.methods.method if self.methods else method
        return analyse(
            [self.series(run) for run in self.runs if run.compares or run.practice],
            facts,
            rule,
            in_force,
            out,
        )


def _facts(arm: Blade, runs: Sequence[Run], out: LeftOut) -> BladeFacts:
    cut = edges_cut(arm, runs)
    counting = [edge for edge in cut if (arm.code, edge.number) not in out]
    return blade_facts(arm, counting or cut, RULE)


@dataclass(frozen=True)
class ReadFiles:
    """Trials read from files, with what the reader noticed about each file; or blades and edges
    alone.
    """

    trials: tuple[ReadTrial, ...]
    notes: tuple[str, ...]
    blades: tuple[Table, ...] = ()
    edges: tuple[Table, ...] = ()


def read_files(files: Sequence[NamedFile], work: ImportWork | None = None) -> ReadFiles:
    """Read series with the runs, blades and edges files beside them, or blades and edges files for
    the shelf.

    RefusedFileError lists the faults of all.
    """
    work = work or ImportWork()
    files = [file for file in files if not file.name.endswith(PACKAGE)]
    work.begin(READS, len(files))
    limit = LIMITS["files"]
    if len(files) > limit.most:
        raise RefusedFileError([Fault("files", 1, "", limit.says(str(len(files))))])
    series: list[SeriesFile] = []
    tables: dict[str, list[Table]] = {"runs": [], "blades": [], "edges": []}
    readers = {"runs": read_runs, "blades": read_blades, "edges": read_edges}
    method_files = [
        read_method(file.name, file.data)
        for file in files
        if file.name.lower().endswith(_METHOD_FILE)
    ]
    for file in files:
        work.step()
        if file.name.lower().endswith(_METHOD_FILE):
            continue
        kind = next((k for k in tables if file.name.lower().endswith(f".{k}.csv")), None)
        if kind:
            tables[kind].append(readers[kind](file.name, file.data))
        elif is_sheet_of_results(file):
            raise SheetOfResultsError(file.name)
        else:
            series.append(read_series(file.name, file.data, _own_checks(method_files)))
    if not series and (tables["runs"] or not files):
        where = files[0].name if files else "files"
        raise RefusedFileError([Fault(where, 1, "", "a series file (*.series.csv) is needed too")])
    _check_blades(tables["blades"])
    found = [file.faults for file in series] + [t.faults for kind in tables.values() for t in kind]
    together(found).refuse()
    runs = [run for file in series for run in file.runs]
    everything = [file.table for file in series] + [
        table for kind in tables.values() for table in kind
    ]
    notes = [f"{table.file}: {note}" for table in everything for note in table.notes]
    names = list(dict.fromkeys(run.trial for run in runs))
    trials = tuple(
        _read_trial(name, runs, tables, method_files[-1] if method_files else None)
        for name in names
    )
    notes += [line for trial in trials for line in _gaps_wanted(trial)]
    return ReadFiles(trials, tuple(notes), tuple(tables["blades"]), tuple(tables["edges"]))


def _own_checks(files: Sequence[MethodFile]) -> list[CheckKind]:
    """The checks of the tester's own that method files define."""
    methods = [method for file in files for method in file.versions.values()]
    return [row for method in methods for row in method.rows if row.is_own]


def _gaps_wanted(trial: ReadTrial) -> list[str]:
    """What to ask where totals were written down without the gap of their checks, once a trial."""
    method = trial.methods.method if trial.methods else Method()
    order = [s.name for s in method.stages if s.limit_gf is None] or LOST_IN_ORDER
    bare = 0
    for run in trial.runs:
        series = trial.series(run)
        lives = outcome_lives(series.outcomes(method.stages), order, series.check_every)
        founds = [life.found for life in lives.values()]
        bare += any(isinstance(f, AsWritten) and f.gap is None for f in founds)
    if not bare:
        return []
    return [
        f"{trial.name}: {counted(bare, 'run')} written down as totals; how often was checked?"
        " Say it as check_every in a runs file"
    ]


def _check_blades(tables: Sequence[Table]) -> None:
    limit, blades = LIMITS["file_blades"], sum(len(table.rows) for table in tables)
    if blades > limit.most:
        raise RefusedFileError([Fault(tables[0].file, 1, "blade", limit.says(str(blades)))])


def _read_trial(
    name: str,
    all_runs: Sequence[SeriesRun],
    tables: Mapping[str, Sequence[Table]],
    methods: MethodFile | None,
) -> ReadTrial:
    runs = [run for run in all_runs if run.trial == name]
    blade_rows = {row.values["blade"]: row for table in tables["blades"] for row in table.rows}
    edge_rows = {
        (row.values["blade"], row.values["edge"]): row
        for table in tables["edges"]
        for row in table.rows
    }
    run_rows = {
        (row.values["blade"], row.values["edge"], row.values.get("run") or 1): row
        for table in tables["runs"]
        for row in table.rows
        if row.values.get("trial") in (None, name)
    }
    found = tuple(ReadRun(r, run_rows.get((r.blade, r.edge, r.run))) for r in runs)
    codes = list(dict.fromkeys(run.blade for run in runs))
    now = runs[0].rows[0].values["time"] or ""
    blades = []
    for code in codes:
        numbers = {r.edge for r in runs if r.blade == code} | {n for c, n in edge_rows if c == code}
        by_number = {number: edge_rows.get((code, number)) for number in numbers}
        blade = read_blade(code, blade_rows.get(code), by_number, now)
        own = [run for run in found if run.rows.blade == code]
        blades.append(replace(_prepared(blade, own), origin=f"files of {name}"))
    return ReadTrial(name, tuple(blades), found, methods)


def _prepared(blade: Blade, runs: Sequence[ReadRun]) -> Blade:
    """A blade with the arms that its files name, its edges prepared as the first run on each says
    where the edge itself does not.
    """
    told = {run.rows.edge: run.arm for run in reversed(runs) if run.arm}
    edges = tuple(replace(e, arm=e.arm or told.get(e.number, "")) for e in blade.edges)
    by_number = {edge.number: edge.arm for edge in edges}
    cut = dict.fromkeys(run.arm or by_number[run.rows.edge] for run in runs)
    return replace(blade, edges=edges, arms=tuple(arm for arm in cut if arm))
