"""Sheets of results: looked over before anything is stored, and brought in all at once."""

import re
from collections.abc import Mapping, Sequence, Set
from dataclasses import dataclass, field, replace
from typing import Literal
from uuid import NAMESPACE_URL, uuid4, uuid5

from openpyxl.utils import get_column_letter

from kessik.core.comparison.matching import MatchingRule
from kessik.core.errors import ConflictError, Fault, OutOfRangeError, RefusedFileError
from kessik.core.keeping import InBin
from kessik.core.protocols.methods import Method
from kessik.core.protocols.schools import BY_SCHOOL
from kessik.core.sharpening.settled import SettledRule
from kessik.core.shelf.blades import Blade
from kessik.core.trials.arms import arms_of
from kessik.core.trials.paper.lines import PaperLine
from kessik.core.trials.paper.sheets import (
    BLADE_COLUMN,
    FIRST_FAIL,
    LAST_PASS,
    READING,
    SheetLine,
    SheetReading,
    guess,
    guess_school,
    heads_of,
    lines_of,
)
from kessik.core.trials.state import TrialState
from kessik.core.trials.trial import Trial
from kessik.interchange.csv_tables import Row
from kessik.interchange.raw_sheets import RawSheet
from kessik.services.files.shelf_rows import read_blade
from kessik.services.files.work import READS, STORES, Work
from kessik.services.paper.runs import Entered, Made, keep_made, made_runs, next_edge, rows_made
from kessik.services.trials.methods import with_version
from kessik.services.trials.state import state_of_trial
from kessik.store.database import Database, Session
from kessik.store.queries import binning, shelf, trials
from kessik.store.queries.sheet_readings import Remembered, remember, remembered_for

OnThere = Literal["skip", "replace"]
Status = Literal["new", "there", "faulty"]
_PREVIEWED = 60


@dataclass(frozen=True)
class Target:
    """Where the runs go: an existing trial, or a new one of a name and a school."""

    trial_id: str = ""
    name: str = ""
    school: str = ""


@dataclass(frozen=True)
class PreviewLine:
    """What will become of one run: the row it begins in, what it says, and why not."""

    row: int
    blade: str
    edge: int
    says: str
    status: Status


@dataclass(frozen=True)
class BladeChoice:
    """A blade that a sheet names: in the trial already, on the shelf, or new."""

    code: str
    known: Literal["in_trial", "on_shelf", "archived", "new"]
    steel: str = ""


@dataclass(frozen=True)
class SheetPreview:
    """A sheet as it would be brought in; nothing is stored."""

    raw: RawSheet
    reading: SheetReading
    school: str
    lines: tuple[PreviewLine, ...]
    blades: tuple[BladeChoice, ...]
    counts: Mapping[Status, int]
    faults: tuple[Fault, ...]
    fault_count: int
    remembered: tuple[Remembered, ...]


@dataclass(frozen=True)
class Brought:
    """What was brought in."""

    trial: Trial
    kept: int
    skipped: int
    replaced: int


@dataclass
class _Plan:
    """A sheet laid beside its trial: lines with their edges, which are there, what is new."""

    state: TrialState
    cut: Set[str]
    lines: list[tuple[SheetLine, PaperLine]] = field(default_factory=list)
    there: dict[str, str] = field(default_factory=dict)
    placed: list[Blade] = field(default_factory=list)
    new: list[Blade] = field(default_factory=list)
    choices: dict[str, BladeChoice] = field(default_factory=dict)
    faults: list[Fault] = field(default_factory=list)


def preview(
    db: Database, raw: RawSheet, reading: SheetReading | None, target: Target, entered: Entered
) -> SheetPreview:
    """What would become of a sheet: its reading, guessed where none is given, and every run."""
    with db.read() as session:
        method, school = _method(session, raw, target)
        told = reading or guess(raw.rows, method)
        heads = heads_of(raw.rows, told.head_rows)
        known = tuple(remembered_for(session, heads))
        plan = _planned(session, raw, told, target, method, entered)
    todo = [(own, line) for own, line in plan.lines if line.id not in plan.there]
    faults, count = list(plan.faults), len(plan.faults)
    faulty = {fault.line for fault in plan.faults}
    wrong: set[str] = set()
    try:
        made_runs(plan.state, plan.cut, [line for _, line in todo], entered)
    except RefusedFileError as refused:
        wrong = {todo[fault.line - 1][1].id for fault in refused.faults}
        faults += [_placed(fault, todo, raw, told) for fault in refused.faults]
        count += refused.count
    lines = [
        PreviewLine(
            own.row,
            line.text("blade"),
            int(line.text("edge")) if line.text("edge").isdecimal() else 0,
            _says(own, line),
            "there"
            if line.id in plan.there
            else "faulty"
            if line.id in wrong or own.row in faulty
            else "new",
        )
        for own, line in plan.lines
    ]
    counts: dict[Status, int] = {
        status: sum(1 for line in lines if line.status == status)
        for status in ("new", "there", "faulty")
    }
    shown = sorted(lines, key=lambda line: (line.status != "faulty", line.row))[:_PREVIEWED]
    return SheetPreview(
        raw, told, school, tuple(shown), tuple(plan.choices.values()), counts,
        tuple(sorted(faults, key=lambda fault: fault.line)), count, known,
    )  # fmt: skip


def bring_in(
    db: Database,
    raw: RawSheet,
    reading: SheetReading,
    target: Target,
    on_there: OnThere,
    entered: Entered,
    import_id: str,
    reading_name: str = "",
    work: Work | None = None,
) -> Brought:
    """Keep the runs of a sheet, all or none; the same `import_id` twice is one.

    RefusedFileError names every slip by row and column.
    """
    work = work or Work()
    work.begin(READS, len(raw.rows))
    with db.read() as session:
        done = trials.find_trial(session, _new_id(import_id, "trial"))
        if done is not None:
            return Brought(done, 0, 0, 0)
        method, _ = _method(session, raw, target)
        plan = _planned(session, raw, reading, target, method, entered, import_id)
    work.step(len(raw.rows))
    if plan.faults:
        raise RefusedFileError(plan.faults)
    replaced = dict(plan.there) if on_there == "replace" else {}
    todo = [(own, line) for own, line in plan.lines if line.id not in plan.there or replaced]
    known = {run.run.id for run in plan.state.runs}
    todo = [(own, line) for own, line in todo if line.id not in known]
    made = _made(plan, todo, entered, raw, reading, set(replaced.values()))
    work.begin(STORES, len(made.runs))
    rows = rows_made(made, entered.now)
    with db.write() as session:
        if target.trial_id and state_of_trial(session, target.trial_id).runs != plan.state.runs:
            raise ConflictError("the trial was cut on meanwhile; look it over again", field="file")
        trial = _kept_trial(session, plan, target, entered)
        for run_id in replaced.values():
            _into_bin(session, run_id, plan.state, entered)
        _keep_blades(session, trial, plan)
        keep_made(session, made, rows)
        work.step(len(made.runs))
        if reading_name.strip():
            heads = heads_of(raw.rows, reading.head_rows)
            remember(session, reading_name.strip(), heads, reading, entered.now.utc)
    return Brought(trial, len(made.runs), len(plan.there) - len(replaced), len(replaced))


def _method(session: Session, raw: RawSheet, target: Target) -> tuple[Method, str]:
    if target.trial_id:
        trial = state_of_trial(session, target.trial_id).trial
        return trial.method, trial.method.school
    school = target.school or guess_school(raw.rows)
    if school not in BY_SCHOOL:
        raise OutOfRangeError(f"{school!r} is not one of the schools", field="school")
    return BY_SCHOOL[school], school


def _planned(
    session: Session,
    raw: RawSheet,
    reading: SheetReading,
    target: Target,
    method: Method,
    entered: Entered,
    import_id: str = "",
) -> _Plan:
    cut = shelf.cut_edges(session)
    if target.trial_id:
        state = state_of_trial(session, target.trial_id)
    else:
        name = target.name.strip() or raw.name.rsplit(".", 1)[0]
        made = Trial(
            _new_id(import_id or str(uuid4()), "trial"),
            name,
            entered.now,
            rule=MatchingRule("steel"),
            method=method,
            settled_rule=SettledRule("every_edge"),
            source="import",
        )
        state = TrialState(made, (), (), {})
    plan = _Plan(state, cut)
    told = list(lines_of(raw.rows, reading, method))
    _find_blades(session, plan, told, raw, reading, entered, import_id)
    _give_edges(plan, told, import_id or "preview")
    return plan


def _find_blades(
    session: Session,
    plan: _Plan,
    told: Sequence[SheetLine],
    raw: RawSheet,
    reading: SheetReading,
    entered: Entered,
    import_id: str,
) -> None:
    """The blades that lines name: those of the trial, of the shelf, and new ones."""
    arms = {arm.code.casefold() for arm in plan.state.blades}
    arms |= {code.casefold() for code in plan.state.codes.values()}
    here: dict[str, Blade] = {}
    away: set[str] = set()
    for blade in shelf.all_blades(session):
        key = blade.code.casefold()
        if blade.archived_utc is None:
            here[key] = blade
        else:
            away.add(key)
    for own in told:
        code = own.line.text("blade")
        key = code.casefold()
        if not code or key in plan.choices:
            continue
        if key in arms:
            plan.choices[key] = BladeChoice(code, "in_trial")
        elif plan.state.trial.is_blind:
            continue  # a line says what may be named
        elif key in here:
            plan.choices[key] = BladeChoice(code, "on_shelf", here[key].claimed_grade or "")
            plan.placed.append(here[key])
        elif key in away:
            plan.choices[key] = BladeChoice(code, "archived")
            said = f"{code} is archived; take it out of the archive first, or give it another code"
            plan.faults.append(Fault(raw.name, own.row, _column(raw, reading, "blade"), said))
        else:
            plan.choices[key] = BladeChoice(code, "new", own.facts.steel)
            plan.new.append(_new_blade(plan, own, raw, reading, entered, import_id))
    blades = [*plan.placed, *plan.new]
    plan.state = replace(plan.state, blades=(*plan.state.blades, *arms_of(blades, ())))


def _new_blade(
    plan: _Plan,
    own: SheetLine,
    raw: RawSheet,
    reading: SheetReading,
    entered: Entered,
    import_id: str,
) -> Blade:
    facts, code = own.facts, own.line.text("blade")
    values: dict[str, object] = {"blade": code, "claimed_grade": facts.steel or None}
    edge: dict[str, object] = {"blade": code}
    for name, role, text, into in (
        ("hardness_hrc", "hardness_hrc", facts.hardness_hrc, values),
        ("side_angle_deg", "angle_deg", facts.side_angle_deg, edge),
    ):
        try:
            into[name] = float(text.replace(",", ".")) if text else None
        except ValueError:
            said = f"“{text[:40]}” is not a number"
            plan.faults.append(Fault(raw.name, own.row, _column(raw, reading, role), said))
    values["hardness_standing"] = "measured_elsewhere" if values.get("hardness_hrc") else None
    number = own.line.text("edge")
    edges = {int(number) if number.isdecimal() else 1: Row(own.row, edge, {})}
    made = _new_id(import_id or str(uuid4()), f"blade:{code.casefold()}")
    blade = read_blade(code, Row(own.row, values, {}), edges, entered.now.utc, made)
    return replace(blade, origin=f"a sheet, {raw.name}")


def _give_edges(plan: _Plan, told: Sequence[SheetLine], import_id: str) -> None:
    """Every line with an edge, the next one of its blade where it names none; and which are there
    already.
    """
    arms = {arm.code.casefold(): arm for arm in plan.state.blades}
    ran = {(r.blade.id, r.edge.number): r.run.id for r in plan.state.runs if not r.run.practice}
    coming: dict[str, int] = {}
    for own in told:
        line, arm = own.line, arms.get(own.line.text("blade").casefold())
        if not line.text("edge") and arm is not None:
            number = coming.get(arm.id, next_edge(arm, plan.cut))
            coming[arm.id] = number + 1
            line = replace(line, cells={**line.cells, "edge": str(number)})
        line = replace(line, id=_new_id(import_id, f"line:{line.id}"))
        plan.lines.append((own, line))
        edge = line.text("edge")
        run_id = ran.get((arm.id, int(edge))) if arm is not None and edge.isdecimal() else None
        if run_id is not None:
            plan.there[line.id] = run_id


def _made(
    plan: _Plan,
    todo: Sequence[tuple[SheetLine, PaperLine]],
    entered: Entered,
    raw: RawSheet,
    reading: SheetReading,
    replaced: Set[str] = frozenset(),
) -> Made:
    """The runs of lines; faults at the row and the column of the sheet."""
    freed = {r.run.edge_id for r in plan.state.runs if r.run.id in replaced}
    lines = [line for _, line in todo]
    try:
        return made_runs(plan.state, set(plan.cut) - freed, lines, entered)
    except RefusedFileError as refused:
        placed = [_placed(fault, todo, raw, reading) for fault in refused.faults]
        raise RefusedFileError(placed, refused.count) from refused


_ALREADY = re.compile(r"stands in line (\d+) already")


def _placed(
    fault: Fault, todo: Sequence[tuple[SheetLine, PaperLine]], raw: RawSheet, reading: SheetReading
) -> Fault:
    """A fault of a line, where the sheet has it; of a tally at the row of its look."""
    own, said = todo[fault.line - 1][0], fault.message
    row = own.row
    if fault.column == "readings" and said.startswith("line "):
        number, _, rest = said.removeprefix("line ").partition(": ")
        if number.isdecimal() and int(number) <= len(own.rows):
            row, said = own.rows[int(number) - 1], rest
    said = _ALREADY.sub(
        lambda found: f"stands in row {todo[int(found[1]) - 1][0].row} already", said
    )
    return Fault(raw.name, row, _column(raw, reading, fault.column, own), said)


def _column(raw: RawSheet, reading: SheetReading, key: str, own: SheetLine | None = None) -> str:
    """The letter and the head of the column that has a role; in a wide sheet that of the blade."""
    roles = reading.roles
    wanted = [key]
    if key == "readings":
        wanted = [READING, BLADE_COLUMN]
    elif key not in roles:
        wanted = [FIRST_FAIL, LAST_PASS]
    place = next((roles.index(role) for role in wanted if role in roles), None)
    if reading.shape == "wide" and own is not None:
        place = int(own.line.id.removeprefix("c"))
    if place is None:
        return key
    heads = heads_of(raw.rows, reading.head_rows)
    head = heads[place] if place < len(heads) else ""
    return f"{get_column_letter(place + 1)} {head}".strip()


def _says(own: SheetLine, line: PaperLine) -> str:
    if line.readings:
        return f"{len(own.rows)} readings"
    skipped = {"blade", "edge", "note", "block", "verifies", "check_every"}
    return ", ".join(f"{key} {text}" for key, text in line.cells.items() if key not in skipped)


def _kept_trial(session: Session, plan: _Plan, target: Target, entered: Entered) -> Trial:
    if target.trial_id:
        return plan.state.trial
    made = with_version(session, plan.state.trial, entered.now.utc)
    trials.save_trial(session, made)
    return made


def _keep_blades(session: Session, trial: Trial, plan: _Plan) -> None:
    codes = {b.code.casefold() for b in shelf.all_blades(session) if b.archived_utc is None}
    twice = next((b.code for b in plan.new if b.code.casefold() in codes), None)
    if twice:
        raise ConflictError(f"{twice} came onto the shelf meanwhile; look again", field="file")
    marks = shelf.next_marks(session, len(plan.new))
    marked = [replace(blade, mark=mark) for blade, mark in zip(plan.new, marks, strict=True)]
    shelf.save_whole_blades(session, marked)
    for blade in (*plan.placed, *marked):
        trials.place_blade(session, trial.id, blade.id)


def _into_bin(session: Session, run_id: str, state: TrialState, entered: Entered) -> None:
    r = next(r for r in state.runs if r.run.id == run_id)
    name = f"{r.blade.own_code}, edge {r.edge.number}, run {r.run.number} in {state.trial.name}"
    why = "replaced from a sheet"
    binning.take_away(session, InBin(str(uuid4()), "run", run_id, name, (), why, entered.now.utc))


def _new_id(import_id: str, what: str) -> str:
    return str(uuid5(NAMESPACE_URL, f"kessik:sheet:{import_id}:{what}"))
