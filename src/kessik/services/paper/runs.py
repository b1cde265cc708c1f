"""Finished runs from paper kept in a trial: all of them, or none with every slip told."""

from collections import Counter
from collections.abc import Collection, Iterator, Mapping, Sequence, Set
from dataclasses import dataclass, field, replace
from typing import Any, NamedTuple
from uuid import NAMESPACE_URL, uuid5

from kessik.core.errors import Fault
from kessik.core.moments import Moment
from kessik.core.protocols.events import BenchEvent, Cut, Payload, Start, Stop
from kessik.core.runs import Run
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge
from kessik.core.trials.paper.columns import PaperColumn, paper_columns
from kessik.core.trials.paper.lines import EntryError, PaperLine, PaperRun, needs_gap, read_lines
from kessik.core.trials.paper.placing import (
    OnEdge,
    PaperRound,
    Stretch,
    numbered_rounds,
    sharpened,
    sharpening_slips,
    stretch_slips,
)
from kessik.core.trials.run_series import usual_length_mm
from kessik.interchange.faults import Faults, FoundFaults
from kessik.interchange.series_events import counted_up
from kessik.services.reading.trial_states import TrialOutline, outline_of_trial
from kessik.services.record.undoing import offer_undo
from kessik.store.database import Database, Session
from kessik.store.queries import bench_log, shelf
from kessik.store.queries.bin_contents import Results

PAPER = "paper"
CutEdges = Mapping[str, Sequence[Stretch]]
"""What was cut of each edge, by its id."""


@dataclass(frozen=True)
class PaperForm:
    """What the lines of a trial hold, its arms with their next edges, and the unit counted in."""

    columns: tuple[PaperColumn, ...]
    arms: tuple[tuple[str, int], ...]
    count_unit: str
    check_every: float | None


@dataclass(frozen=True)
class Entered:
    """By whom and for which day lines were entered; `check_every` is the gap of the checks of all
    of them, where it is known.
    """

    by: str
    cut_on: str
    now: Moment
    check_every: float | None = None

    @property
    def started(self) -> Moment:
        """The day it was cut, where it is known."""
        if not self.cut_on:
            return self.now
        return Moment(f"{self.cut_on}T12:00:00+00:00", self.now.offset_minutes)


def paper_form(db: Database, trial_id: str) -> PaperForm:
    """What may be written down for a trial."""
    with db.read() as session:
        state = outline_of_trial(session, trial_id)
        cut = shelf.cut_stretches(session)
    method = state.trial.method
    arms = tuple((_shown_code(arm, state), next_edge(arm, cut)) for arm in state.blades)
    every = method.every if method.schedule == "every" else None
    return PaperForm(tuple(paper_columns(method)), arms, method.count_unit, every)


def keep_lines(
    db: Database, trial_id: str, lines: Sequence[PaperLine], entered: Entered
) -> list[str]:
    """Keep lines as ended runs, all or none; returns their ids. A line kept before is kept once.

    RefusedFileError names every slip by the number of its line and the key of its column.
    """
    with db.write() as session:  # what is there may not change between the look and the keeping
        state = outline_of_trial(session, trial_id)
        known = {r.run.id for r in state.runs}
        todo = [line for line in lines if line.id not in known]
        made = made_runs(state, shelf.cut_stretches(session), todo, entered)
        made.faults.refuse()
        if made.runs:
            name = state.trial.name
            offer_undo(db, made.results(trial_id), name, entered.now)
        keep_made(session, made, entered)
    return [line.id for line in lines]


@dataclass(frozen=True)
class Checked:
    """Lines looked over: their slips, and how many hold totals that tell no gap of their checks."""

    slips: tuple[Fault, ...]
    totals_without_gap: int


def checked(db: Database, trial_id: str, lines: Sequence[PaperLine], entered: Entered) -> Checked:
    """Lines as they stand, looked over; nothing is kept."""
    with db.read() as session:
        state = outline_of_trial(session, trial_id)
        cut = shelf.cut_stretches(session)
    slips = tuple(made_runs(state, cut, lines, entered).faults.first)
    if entered.check_every is not None:
        return Checked(slips, 0)
    return Checked(slips, sum(needs_gap(line, state.trial.method) for line in lines))


@dataclass(frozen=True)
class Made:
    """Lines read as runs, by the ids of their lines, with the edges that are not on the shelf yet,
    and those there that lines tell the sharpening of (`filled`); and their slips: a fault names its
    line by its place, from 1 on, and `faulty` every line that has one.
    """

    runs: tuple[Run, ...]
    edges: tuple[Edge, ...]
    filled: tuple[Edge, ...]
    found: Mapping[str, PaperRun]
    faults: FoundFaults
    faulty: Set[str]

    def results(self, trial_id: str) -> Results:
        """What comes into a trial, by ids."""
        return Results(trial_id, [r.id for r in self.runs], [e.id for e in self.edges])

    def log_rows(self, run: Run, entered: Entered) -> list[dict[str, Any]]:
        """The log of a run as rows to store."""
        return bench_log.rows_of(run.id, _log(self.found[run.id], entered), entered.now.utc)


def made_runs(
    state: TrialOutline, cut: CutEdges, lines: Sequence[PaperLine], entered: Entered
) -> Made:
    """Lines as runs of a trial; `cut` are the stretches of edges that were cut already."""
    slips = _Slips({line.id: number for number, line in enumerate(lines, 1)})
    by_code = {_shown_code(arm, state).casefold(): arm for arm in state.blades}
    desk = _Placing(state, cut, slips)
    method, every = state.trial.method, entered.check_every
    for line, (found, told) in zip(lines, read_lines(lines, method, every), strict=True):
        arm = by_code.get(line.text("blade").casefold())
        if arm is None and line.text("blade"):
            told.append(EntryError("blade", _no_such(line.text("blade"), state)))
        slips.tell(line.id, told)
        if found and arm and not told:
            desk.place(found, arm)
    runs = tuple(_runs(state, desk.in_rounds(), entered, slips))
    by_line = {found.id: found for found, _, _ in desk.placed}
    new, filled = tuple(desk.new.values()), tuple(desk.filled.values())
    return Made(runs, new, filled, by_line, slips.faults.found(), slips.faulty)


@dataclass
class _Placing:
    """Lines as they find their edges, one after the other."""

    state: TrialOutline
    cut: CutEdges
    slips: "_Slips"
    placed: list[tuple[PaperRun, Blade, Edge]] = field(default_factory=list)
    new: dict[str, Edge] = field(default_factory=dict)
    filled: dict[str, Edge] = field(default_factory=dict)
    taken: dict[tuple[str, int], list[OnEdge]] = field(default_factory=dict)

    def place(self, found: PaperRun, arm: Blade) -> None:
        """A line on its edge: the one it names, else the next of its blade."""
        number = found.edge or self._next(arm)
        there = next((e for e in arm.edges if e.number == number), None)
        edge = there or self.new.get(_edge_id(arm, number)) or _new_edge(arm, number, found)
        whose = f"edge {number} of {arm.own_code}"
        before = [OnEdge(stretch) for stretch in self.cut.get(edge.id, ())]
        taken = self.taken.setdefault((arm.id, number), before)
        told = stretch_slips(found, whose, arm.edge_length_mm, taken)
        told += sharpening_slips(found, edge, whose)
        if arm.archived_utc:
            told = [EntryError("blade", f"{arm.own_code} is archived; restore it first")]
        elif told and told[0].key == "edge":
            told = [
                EntryError("edge", f"{told[0].message}; the next free number is {self._next(arm)}")
            ]
        taken.append(OnEdge(found.zone_mm, self.slips.numbers[found.id]))
        self.slips.tell(found.id, told)
        if told:
            return
        known, edge = edge, sharpened(edge, found)
        if there is None:
            self.new[edge.id] = edge
        elif edge != known:
            self.filled[edge.id] = edge
        self.placed.append((found, arm, edge))

    def _next(self, arm: Blade) -> int:
        here = [number for arm_id, number in self.taken if arm_id == arm.id]
        return max(next_edge(arm, self.cut), max(here, default=0) + 1)

    def in_rounds(self) -> list[tuple[PaperRun, Blade, Edge]]:
        """What was placed, with the number of each round where the method goes by rounds."""
        if not self.state.trial.method.cycles:
            return self.placed
        before = [
            PaperRound(r.blade.arm_id, r.blade.own_code, r.run.round)
            for r in self.state.runs
            if r.run.compares
        ]
        lines = [
            PaperRound(arm.arm_id, arm.own_code, found.round, self.slips.numbers[found.id])
            for found, arm, _ in self.placed
        ]
        numbers, told = numbered_rounds([*before, *lines])
        own = numbers[len(before) :]
        for found, _, _ in self.placed:
            slip = told.get(self.slips.numbers[found.id])
            self.slips.tell(found.id, [slip] if slip else [])
        return [
            (replace(found, round=number), arm, edge)
            for (found, arm, edge), number in zip(self.placed, own, strict=True)
        ]


@dataclass
class _Slips:
    """The slips of lines, as they are found; `numbers` are the places of lines by their ids."""

    numbers: Mapping[str, int]
    faults: Faults = field(default_factory=Faults)
    faulty: set[str] = field(default_factory=set)

    def tell(self, line_id: str, slips: Sequence[EntryError]) -> None:
        for slip in slips:
            self.faults.add(Fault(PAPER, self.numbers[line_id], slip.key, slip.message))
            self.faulty.add(line_id)


def _runs(
    state: TrialOutline,
    read: Sequence[tuple[PaperRun, Blade, Edge]],
    entered: Entered,
    slips: _Slips,
) -> Iterator[Run]:
    """Runs of what was read, each with the run that it verifies; one that is missing is told where
    no other slip may be why.
    """
    is_whole = not slips.faulty
    on_edge = Counter(r.run.edge_id for r in state.runs)
    numbers = []
    for _, _, edge in read:
        on_edge[edge.id] += 1
        numbers.append(on_edge[edge.id])
    named = _named_runs(state, read, numbers)
    length_mm = usual_length_mm((r.run for r in state.runs), state.trial.method)
    for (found, arm, edge), number in zip(read, numbers, strict=True):
        target = named.get((arm.id, *found.verifies)) if found.verifies else None
        if found.verifies and target is None and is_whole:
            said = f"there is no run of edge {found.verifies[0]} of {arm.own_code} to verify"
            slips.tell(found.id, [EntryError("verifies", said)])
        yield _run(state, _Cut(found, arm, edge, number, length_mm, target), entered)


def keep_made(session: Session, made: Made, entered: Entered) -> None:
    """Keep what was made in the transaction of the session."""
    shelf.add_edges(session, made.edges)
    for edge in made.filled:
        shelf.save_edge(session, edge)
    bench_log.add_runs(session, made.runs)
    rows = [row for run in made.runs for row in made.log_rows(run, entered)]
    if rows:
        bench_log.append_rows(session, rows)


class _Cut(NamedTuple):
    """What was read of a run, and where it was cut."""

    found: PaperRun
    arm: Blade
    edge: Edge
    number: int
    length_mm: float | None
    verifies_run_id: str | None


def _run(state: TrialOutline, cut: _Cut, by: Entered) -> Run:
    found, arm, edge, number, length_mm, verifies_run_id = cut
    other = {"note": found.note} if found.note else {}
    return Run(
        id=found.id,
        trial_id=state.trial.id,
        edge_id=edge.id,
        number=number,
        started=by.started,
        arm=arm.arm if arm.arm != edge.arm else "",
        count_unit=state.trial.method.count_unit,
        zone_from_mm=found.zone_mm[0] if found.zone_mm else None,
        zone_to_mm=found.zone_mm[1] if found.zone_mm else None,
        edge_length_used_mm=found.length_mm or (None if found.zone_mm else length_mm),
        method_id=state.trial.method_id,
        block=found.block,
        round=found.round,
        check_every=found.check_every,
        operator=by.by.strip(),
        verifies_run_id=verifies_run_id,
        from_paper=by.now.utc,
        other=other,
    )


def _log(found: PaperRun, entered: Entered) -> Iterator[BenchEvent]:
    """The log of a run: what its line says, with what was cut in between counted up."""
    sequence, count = 0, 0.0

    def event(said: Payload) -> BenchEvent:
        nonlocal sequence
        sequence += 1
        key = f"{found.id}-{sequence}"
        return BenchEvent(key, said, f"{PAPER}:{found.id}", sequence, 0, count, entered.now.utc)

    yield event(Start())
    for at, said in found.log:
        for amount in counted_up(count, at):
            yield event(Cut(amount=amount))
            count += amount
        yield event(said)
    yield event(Stop(by=PAPER))


def next_edge(arm: Blade, cut: Collection[str]) -> int:
    """The number of the edge that comes next: one that waits since the last cut, or a new one."""
    last = max((edge.number for edge in arm.edges if edge.id in cut), default=0)
    waiting = [edge.number for edge in arm.own_edges if edge.number > last]
    return min(waiting, default=1 + max((e.number for e in arm.edges), default=0))


def _edge_id(arm: Blade, number: int) -> str:
    return str(uuid5(NAMESPACE_URL, f"kessik:edge:{arm.id}:{number}"))


def _new_edge(arm: Blade, number: int, found: PaperRun) -> Edge:
    least = found.is_least
    return Edge(_edge_id(arm, number), arm.id, number, arm=arm.arm, number_is_least=least)


def _no_such(code: str, state: TrialOutline) -> str:
    known = ", ".join(_shown_code(arm, state) for arm in state.blades)
    if state.trial.is_blind:
        return (
            f"this trial is blind: write the code of the blade, {known}, or reveal the codes first"
        )
    return f"there is no {code} in this trial; {known or 'no blade'} is"


def _shown_code(arm: Blade, state: TrialOutline) -> str:
    """The code a line names a blade or arm by: while the trial is blind the one that was drawn."""
    return state.codes.get(arm.arm_id, arm.code)


def _named_runs(
    state: TrialOutline,
    read: Sequence[tuple[PaperRun, Blade, Edge]],
    numbers: Sequence[int],
) -> dict[tuple[str, int, int], str]:
    """Ids of runs by blade, edge and number, those just read among them."""
    named = {(r.blade.id, r.edge.number, r.run.number): r.run.id for r in state.runs}
    fresh = {
        (arm.id, edge.number, number): found.id
        for (found, arm, edge), number in zip(read, numbers, strict=True)
    }
    return {**fresh, **named}
