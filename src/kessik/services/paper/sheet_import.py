"""Runs of a sheet brought in: stored aside in pieces that let taps through, and moved to their
trial and their blades all at once.
"""

from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import nullcontext
from dataclasses import dataclass, replace
from functools import partial
from uuid import uuid4

from kessik.core.bin import InBin
from kessik.core.errors import ConflictError, RefusedFileError
from kessik.core.runs import Run
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge
from kessik.core.trials.paper.heads import heads_of
from kessik.core.trials.paper.sheets import OnThere
from kessik.core.trials.trial import MethodVersion, Trial
from kessik.interchange.named_files import NamedFile
from kessik.interchange.raw_sheets import RawSheet
from kessik.interchange.sheets_apart import read_sheet_apart
from kessik.services.arriving import (
    arriving,
    blades_in_pieces,
    let_taps_through,
)
from kessik.services.paper.runs import Made, made_runs
from kessik.services.paper.sheet_plans import Sheet, SheetPlan, Target, method_for, placed_fault
from kessik.services.paper.sheet_plans import planned as laid_beside
from kessik.services.record.bin_moves import results_leaving
from kessik.services.record.undoing import in_bin, offer_undo
from kessik.services.trials.methods import first_version
from kessik.services.work import READS, STORES, ImportWork
from kessik.store.database import Database, Session
from kessik.store.queries import arrivals, bench_log, methods, shelf, trials
from kessik.store.queries.arrivals import PlaceholderRows
from kessik.store.queries.bin_contents import Results
from kessik.store.queries.sheet_readings import remember

_START_AND_STOP = 2
_EVENTS_AT_ONCE = 500


@dataclass(frozen=True)
class ImportedSheet:
    """What was brought in."""

    trial: Trial
    kept: int
    skipped: int
    replaced: int
    blades: tuple[str, ...] = ()
    new_blades: tuple[str, ...] = ()


@dataclass(frozen=True)
class _Load:
    """What a sheet brings: its runs, the trial they go to, and the ids of runs they replace."""

    sheet: Sheet
    plan: SheetPlan
    made: Made
    trial: Trial
    version: MethodVersion | None
    replaced: tuple[str, ...]
    reading_name: str

    @property
    def is_new_trial(self) -> bool:
        """Whether the trial comes with the sheet, and the version of its method with it."""
        return self.version is not None

    def results(self) -> Results:
        """What comes, by ids."""
        new, trial = self.plan.new, self.trial.id
        return replace(
            self.made.results(trial),
            edges=[e.id for e in (*self.made.edges, *(e for b in new for e in b.edges))],
            placed=[blade.id for blade in (*self.plan.placed, *new)],
            blades=[blade.id for blade in new],
            trials=[trial] if self.version else (),
            methods=[self.version.id] if self.version else (),
        )

    @property
    def bin_id(self) -> str:
        """The id under which the replaced runs lie in the bin."""
        return self.sheet.new_id("bin")


def bring_in(
    db: Database,
    sheet: Sheet,
    target: Target,
    on_there: OnThere = "skip",
    reading_name: str = "",
    work: ImportWork | None = None,
) -> ImportedSheet:
    """Keep the runs of a sheet, all or none; the same sheet id twice is one.

    RefusedFileError names every slip by row and column, CancelledError says that nothing was kept,
    ConflictError what was changed meanwhile.
    """
    work = work or ImportWork()
    work.begin(READS, len(sheet.raw.rows))
    with db.read() as session:
        done = trials.find_trial(session, sheet.new_id("trial"))
        if done is not None:
            return ImportedSheet(done, 0, 0, 0)
        plan = laid_beside(session, sheet, target, method_for(session, sheet.raw, target))
    if plan.faults:
        raise RefusedFileError(plan.faults)
    replaced = tuple(plan.there.values()) if on_there == "replace" else ()
    made = _made(plan, sheet, replaced)
    work.step(len(sheet.raw.rows))
    trial, version = plan.state.trial, None
    if not target.trial_id:
        trial, version = first_version(trial, sheet.entered.now.utc)
    load = _Load(sheet, plan, made, trial, version, replaced, reading_name.strip())
    _keep(db, load, work)
    there = len(plan.there) - len(replaced)
    cut = tuple(dict.fromkeys(found.blade for found in made.found.values()))
    new = tuple(blade.code for blade in plan.new)
    return ImportedSheet(trial, len(made.runs), there, len(replaced), cut, new)


def read_watched(file: NamedFile, work: ImportWork) -> RawSheet:
    """A file as rows; CancelledError once the tester has had enough."""
    work.begin(READS, 0)
    return read_sheet_apart(file, lambda: work.step(0))


def _made(plan: SheetPlan, sheet: Sheet, replaced: Sequence[str]) -> Made:
    """The runs of lines; faults at the row and the column of the sheet."""
    known = {r.run.id for r in plan.state.runs}
    todo = [
        (own, line)
        for own, line in plan.lines
        if line.id not in known and (replaced or line.id not in plan.there)
    ]
    freed = _freed(plan, replaced)
    cut = {edge: stretches for edge, stretches in plan.cut.items() if edge not in freed}
    made = made_runs(plan.state, cut, [line for _, line in todo], sheet.entered)
    if made.faults.count:
        placed = [placed_fault(fault, todo, sheet) for fault in made.faults.first]
        raise RefusedFileError(placed, made.faults.count)
    return made


def _freed(plan: SheetPlan, replaced: Sequence[str]) -> set[str]:
    """The edges of runs that are replaced."""
    gone = set(replaced)
    return {r.run.edge_id for r in plan.state.runs if r.run.id in gone}


def _keep(db: Database, load: _Load, work: ImportWork) -> None:
    arrival = f"{load.sheet.entered.now.utc}|{load.sheet.import_id}"
    aside = _Aside.of(load)
    if load.made.runs:
        now, bin_id = load.sheet.entered.now, load.bin_id if load.replaced else ""
        offer_undo(db, load.results(), load.trial.name, now, bin_id)
    work.begin(STORES, len(load.made.runs))
    replaced = Results(load.trial.id, load.replaced)
    with (
        results_leaving(db, replaced) if load.replaced else nullcontext() as move,
        arriving(db, arrival, work, partial(_land, load=load, aside=aside, move=move)),
    ):
        with db.write() as session:
            if load.version is not None:
                methods.add_version(session, load.version)
            stand_in = aside.stand_ins.trial[0]
            trials.save_trial(session, replace(load.trial, id=stand_in))
            arrivals.stand_in_trial(session, arrival, stand_in)
        for blades in blades_in_pieces([*load.plan.new, *aside.blades]):
            _store_blades(db, arrival, blades)
        for runs in _run_pieces(load.made):
            _store_runs(db, load, aside, runs)
            work.step(len(runs))


@dataclass(frozen=True)
class _Aside:
    """What is stored in the place of what is there already: nobody sees a run before all are
    there.
    """

    stand_ins: PlaceholderRows
    blades: tuple[Blade, ...]
    edges: Mapping[str, Edge]
    """The edge that each run is cut on meanwhile, by the id of its own."""

    @classmethod
    def of(cls, load: _Load) -> "_Aside":
        plan, new = load.plan, {blade.id for blade in load.plan.new}
        there = {edge.id: edge for arm in plan.state.blades for edge in arm.edges}
        coming = {edge.id: edge for edge in load.made.edges}
        blades: dict[str, str] = {}
        edges: dict[str, Edge] = {}
        for edge_id in {run.edge_id for run in load.made.runs}:
            edge = coming.get(edge_id) or there[edge_id]
            if edge.blade_id not in new:
                blade_id = blades.setdefault(edge.blade_id, str(uuid4()))
                own_id = edge_id if edge_id in coming else str(uuid4())
                edge = replace(edge, id=own_id, blade_id=blade_id)
            edges[edge_id] = edge
        stand_ins = PlaceholderRows(
            (str(uuid4()), load.trial.id),
            {aside: real for real, aside in blades.items()},
            {edge.id: real for real, edge in edges.items() if edge.id != real},
        )
        codes = {arm.id: arm.own_code for arm in plan.state.blades}
        return cls(stand_ins, tuple(Blade(a, codes[r]) for r, a in blades.items()), edges)


def _store_blades(db: Database, arrival: str, blades: Sequence[Blade]) -> None:
    with db.write() as session:
        marks = shelf.next_marks(session, len(blades))
        marked = [replace(blade, mark=mark) for blade, mark in zip(blades, marks, strict=True)]
        shelf.save_whole_blades(session, marked)
        arrivals.mark(session, arrival, blade_ids=[blade.id for blade in blades])
    let_taps_through()


def _store_runs(db: Database, load: _Load, aside: _Aside, runs: Sequence[Run]) -> None:
    saved = {edge.id for blade in load.plan.new for edge in blade.edges}
    edges = [edge for run in runs if (edge := aside.edges[run.edge_id]).id not in saved]
    stored = [
        replace(
            run,
            trial_id=aside.stand_ins.trial[0],
            method_id=load.trial.method_id,
            edge_id=aside.edges[run.edge_id].id,
        )
        for run in runs
    ]
    rows = [row for run in runs for row in load.made.log_rows(run, load.sheet.entered)]
    with db.write() as session:
        shelf.add_edges(session, edges)
        bench_log.add_runs(session, stored)
        bench_log.append_rows(session, rows)
    let_taps_through()


def _run_pieces(made: Made) -> Iterator[list[Run]]:
    """The runs, a few at a time: so many that their logs are not too long for one piece."""
    some: list[Run] = []
    events = 0
    for run in made.runs:
        some.append(run)
        events += _START_AND_STOP + 2 * len(made.found[run.id].log)
        if events >= _EVENTS_AT_ONCE:
            yield some
            some, events = [], 0
    if some:
        yield some


def _land(
    session: Session,
    load: _Load,
    aside: _Aside,
    move: Callable[[Session, InBin], None] | None,
) -> None:
    """Everything is there: it is moved to where it belongs, unless that was changed meanwhile."""
    plan = load.plan
    _check_unchanged(session, load, aside)
    if load.is_new_trial:
        trials.save_trial(session, load.trial)
    if move:
        move(session, _replaced(load))
    arrivals.move_in(session, aside.stand_ins)
    for edge in load.made.filled:
        shelf.save_edge(session, edge)
    trials.place_blades(session, load.trial.id, [b.id for b in (*plan.placed, *plan.new)])
    if load.reading_name:
        sheet = load.sheet
        heads = heads_of(sheet.raw.rows, sheet.reading.head_rows)
        remember(session, load.reading_name, heads, sheet.reading, sheet.entered.now.utc)


def _check_unchanged(session: Session, load: _Load, aside: _Aside) -> None:
    plan = load.plan
    codes = {code.casefold() for code in shelf.codes_there(session).values()}
    twice = next((blade.code for blade in plan.new if blade.code.casefold() in codes), None)
    if twice:
        raise ConflictError(
            f"{twice} was added to the shelf meanwhile; check the rows again", field="file"
        )
    known = {r.run.id for r in plan.state.runs}
    if not load.is_new_trial and bench_log.run_ids_of(session, plan.state.trial.id) != known:
        raise ConflictError(
            "runs were added to the trial meanwhile; check the rows again", field="file"
        )
    cut = shelf.cut_edges(session) - _freed(plan, load.replaced)
    if cut & set(aside.stand_ins.edges.values()):
        raise ConflictError(
            "one of these edges was cut meanwhile; check the rows again", field="file"
        )


def _replaced(load: _Load) -> InBin:
    replaced, trial = Results(load.trial.id, load.replaced), load.trial.name
    reason, now = "replaced from a sheet", load.sheet.entered.now
    return in_bin(load.bin_id, replaced, trial, reason, now)
