"""A sheet laid beside its trial: its lines with their edges, which are there, what is new."""

import re
from collections.abc import Collection, Iterator, Mapping, Sequence, Set
from dataclasses import dataclass, field, replace
from itertools import count
from uuid import NAMESPACE_URL, UUID, uuid4, uuid5

from kessik.core.comparison.matching import MatchingRule
from kessik.core.errors import Fault, KessikError, OutOfRangeError
from kessik.core.protocols.methods import Method
from kessik.core.protocols.schools import BY_SCHOOL
from kessik.core.sharpening.settled import SettledRule
from kessik.core.shelf.blades import Blade
from kessik.core.trials.arms import arms_of
from kessik.core.trials.paper.cells import edge_in
from kessik.core.trials.paper.guessing import guess_school
from kessik.core.trials.paper.heads import (
    ANGLE,
    BLADE_COLUMN,
    FIRST_FAIL,
    HARDNESS,
    LAST_PASS,
    READING,
    STOPPED,
    heads_of,
)
from kessik.core.trials.paper.lines import PaperLine
from kessik.core.trials.paper.sheets import BladeKnown, SheetLine, SheetReading, lines_of
from kessik.core.trials.trial import Trial
from kessik.interchange.csv_tables import Row
from kessik.interchange.raw_sheets import RawSheet
from kessik.services.files.shelf_rows import read_blade
from kessik.services.paper.runs import CutEdges, Entered, next_edge
from kessik.services.reading.trial_states import TrialOutline, outline_of_trial
from kessik.services.reading.trials import get_trial
from kessik.store.database import Session
from kessik.store.queries import shelf

_PLACE_BITS = 32
_ALREADY = re.compile(r"is in line (\d+) already")


@dataclass(frozen=True)
class Target:
    """Where the runs go: an existing trial, or a new one of a name and a school."""

    trial_id: str = ""
    name: str = ""
    school: str = ""


@dataclass(frozen=True)
class Sheet:
    """A sheet, how it is read, and who brings it in; the ids of what it makes follow from its
    own.
    """

    raw: RawSheet
    reading: SheetReading
    entered: Entered
    import_id: str = field(default_factory=lambda: str(uuid4()))

    def new_id(self, what: str) -> str:
        """The id of something that the sheet makes: the same each time it is brought in."""
        return str(uuid5(NAMESPACE_URL, f"kessik:sheet:{self.import_id}:{what}"))

    def line_ids(self) -> Iterator[str]:
        """The ids of its lines: what follows each other is stored beside each other, which is much
        faster.
        """
        first = UUID(self.new_id("lines")).int >> _PLACE_BITS << _PLACE_BITS
        return (str(UUID(int=first | place)) for place in count())

    def fault(self, row: int, key: str, message: str, own: SheetLine | None = None) -> Fault:
        """A fault at a row and at the column that has a role."""
        return Fault(self.raw.name, row, self._column(key, own), message)

    def _column(self, key: str, own: SheetLine | None) -> str:
        """The letter and the head of a column; in a wide sheet that of the blade."""
        roles = self.reading.roles
        wanted = [key]
        if key == "readings":
            wanted = [READING, BLADE_COLUMN]
        elif key not in roles:
            wanted = [FIRST_FAIL, LAST_PASS, STOPPED]
        place = next((roles.index(role) for role in wanted if role in roles), None)
        if self.reading.shape == "wide" and own is not None:
            place = int(own.line.id.removeprefix("c"))
        if place is None:
            return key
        heads = heads_of(self.raw.rows, self.reading.head_rows)
        head = heads[place] if place < len(heads) else ""
        from openpyxl.utils import get_column_letter  # only sheets need it

        return f"{get_column_letter(place + 1)} {head}".strip()


@dataclass(frozen=True)
class BladeChoice:
    """A blade that a sheet names: in the trial already, on the shelf, or new."""

    code: str
    known: BladeKnown
    steel: str = ""


@dataclass
class SheetPlan:
    """A sheet laid beside its trial: `there` the runs that lines stand for already, by the ids of
    the lines; `placed` blades of the shelf that come into the trial, `new` ones that come onto it.
    """

    state: TrialOutline
    cut: CutEdges
    lines: list[tuple[SheetLine, PaperLine]] = field(default_factory=list)
    there: dict[str, str] = field(default_factory=dict)
    placed: list[Blade] = field(default_factory=list)
    new: list[Blade] = field(default_factory=list)
    choices: dict[str, BladeChoice] = field(default_factory=dict)
    faults: list[Fault] = field(default_factory=list)


def method_for(session: Session, raw: RawSheet, target: Target) -> Method:
    """The method of the trial the runs go to; of a new one that of the school, guessed where none
    is said.
    """
    if target.trial_id:
        return get_trial(session, target.trial_id).method
    school = target.school or guess_school(raw.rows)
    if school not in BY_SCHOOL:
        raise OutOfRangeError(f"{school!r} is not one of the schools", field="school")
    return BY_SCHOOL[school]


def planned(session: Session, sheet: Sheet, target: Target, method: Method) -> SheetPlan:
    """A sheet laid beside the trial that it goes to."""
    if target.trial_id:
        state = outline_of_trial(session, target.trial_id)
    else:
        state = TrialOutline(_new_trial(sheet, target, method))
    plan = SheetPlan(state, shelf.cut_stretches(session))
    told = list(lines_of(sheet.raw.rows, sheet.reading, method))
    _find_blades(session, plan, told, sheet)
    _give_edges(plan, told, sheet)
    return plan


def placed_fault(fault: Fault, lines: Sequence[tuple[SheetLine, PaperLine]], sheet: Sheet) -> Fault:
    """A fault of a line, where the sheet has it; of a tally at the row of its look."""
    own, said = lines[fault.line - 1][0], fault.message
    row = own.row
    if fault.column == "readings" and said.startswith("line "):
        number, _, rest = said.removeprefix("line ").partition(": ")
        if number.isdecimal() and int(number) <= len(own.rows):
            row, said = own.rows[int(number) - 1], rest
    said = _ALREADY.sub(
        lambda found: f"stands in row {lines[int(found[1]) - 1][0].row} already", said
    )
    return sheet.fault(row, fault.column, said, own)


def _new_trial(sheet: Sheet, target: Target, method: Method) -> Trial:
    return Trial(
        sheet.new_id("trial"),
        target.name.strip() or sheet.raw.name.rsplit(".", 1)[0],
        sheet.entered.now,
        rule=MatchingRule("steel"),
        method=method,
        settled_rule=SettledRule("every_edge"),
        source="import",
    )


def _find_blades(
    session: Session, plan: SheetPlan, told: Sequence[SheetLine], sheet: Sheet
) -> None:
    """The blades that lines name: those of the trial, of the shelf, and new ones."""
    arms = {arm.code.casefold() for arm in plan.state.blades}
    arms |= {code.casefold() for code in plan.state.codes.values()}
    here, away = _on_the_shelf(session)
    by_code: dict[str, list[SheetLine]] = {}
    for own in told:
        by_code.setdefault(own.line.text("blade").casefold(), []).append(own)
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
            said = f"{code} is archived; restore it from the archive first, or give it another code"
            plan.faults.append(sheet.fault(own.row, "blade", said))
        else:
            plan.choices[key] = BladeChoice(code, "new", own.facts.steel)
            plan.new.append(_new_blade(plan, by_code[key], sheet))
    blades = [*plan.placed, *plan.new]
    plan.state = replace(plan.state, blades=(*plan.state.blades, *arms_of(blades, ())))


def _on_the_shelf(session: Session) -> tuple[Mapping[str, Blade], Set[str]]:
    """Blades by their codes, and the codes of archived ones."""
    blades = shelf.all_blades(session)
    here = {blade.code.casefold(): blade for blade in blades if blade.archived_utc is None}
    return here, {blade.code.casefold() for blade in blades if blade.archived_utc}


def _new_blade(plan: SheetPlan, lines: Sequence[SheetLine], sheet: Sheet) -> Blade:
    """A blade with what its rows say of it; an angle that one row names holds for every edge of the
    blade that names none of its own.
    """
    code, row = lines[0].line.text("blade"), lines[0].row
    hardness = _first_number(plan, lines, HARDNESS, sheet)
    angle = _first_number(plan, lines, ANGLE, sheet)
    values: dict[str, object] = {
        "blade": code,
        "claimed_grade": next((own.facts.steel for own in lines if own.facts.steel), None),
        "hardness_hrc": hardness,
        "hardness_standing": sheet.reading.hardness_standing if hardness is not None else None,
    }
    edges: dict[int, Row] = {}
    for own in lines:
        own_angle = _number(own.facts.side_angle_deg)
        said = {"blade": code, "side_angle_deg": angle if own_angle is None else own_angle}
        edges.setdefault(_edge_number(own, edges), Row(own.row, said, {}))
    made = sheet.new_id(f"blade:{code.casefold()}")
    blade = read_blade(code, Row(row, values, {}), edges, sheet.entered.now.utc, made)
    standing = sheet.reading.angle_standing
    known = tuple(
        replace(e, measurements=tuple(replace(m, standing=standing) for m in e.measurements))
        for e in blade.edges
    )
    return replace(blade, edges=known, origin=f"a sheet, {sheet.raw.name}")


def _edge_number(own: SheetLine, taken: Collection[int]) -> int:
    """The edge a line names, else the next of its blade."""
    return _named_edge(own.line) or max(taken, default=0) + 1


def _number(text: str) -> float | None:
    try:
        return float(text.replace(",", ".")) if text else None
    except ValueError:
        return None


def _first_number(
    plan: SheetPlan, lines: Sequence[SheetLine], role: str, sheet: Sheet
) -> float | None:
    """The first number that the rows of a blade name; every cell that holds none is a fault."""
    found: list[float] = []
    for own in lines:
        text = own.facts.hardness_hrc if role == HARDNESS else own.facts.side_angle_deg
        number = _number(text)
        if number is not None:
            found.append(number)
        elif text:
            plan.faults.append(sheet.fault(own.row, role, f"“{text[:40]}” is not a number"))
    return found[0] if found else None


def _give_edges(plan: SheetPlan, told: Sequence[SheetLine], sheet: Sheet) -> None:
    """Every line with an edge, the next one of its blade where it names none; and which are there
    already.
    """
    arms = {arm.code.casefold(): arm for arm in plan.state.blades}
    ran = {(r.blade.id, r.edge.number): r.run.id for r in plan.state.runs if not r.run.practice}
    coming: dict[str, int] = {}
    for line_id, own in zip(sheet.line_ids(), told, strict=False):
        arm, cells = arms.get(own.line.text("blade").casefold()), own.line.cells
        if not own.line.text("edge") and arm is not None:
            number = coming.get(arm.id) or next_edge(arm, plan.cut)
            coming[arm.id] = number + 1
            cells = {**cells, "edge": str(number)}
        line = replace(own.line, id=line_id, cells=cells)
        plan.lines.append((own, line))
        named = _named_edge(line)
        run_id = ran.get((arm.id, named)) if arm is not None and named else None
        if run_id is not None and run_id != line.id:  # it may be brought in a second time
            plan.there[line.id] = run_id


def _named_edge(line: PaperLine) -> int | None:
    """The edge that a line names; None where it names none, or none that can be read."""
    try:
        found = edge_in(line.text("edge"), "edge")
    except KessikError:
        return None
    return found[0] if found else None
