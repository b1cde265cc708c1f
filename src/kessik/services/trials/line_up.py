"""The line-up: whether a trial's comparison will be fair, before an edge is spent on it."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from kessik.core.comparison.findings import Mismatch, Open
from kessik.core.comparison.matching import (
    BladeFacts,
    Cell,
    Variable,
    match,
    not_recorded,
    shared_blade,
    shown_by_runs,
)
from kessik.core.comparison.remedies import Remedy, ways_out
from kessik.core.comparison.verdict import open_facts, scope_of
from kessik.core.shelf.blades import TrialRole
from kessik.core.trials.blade_facts import blade_facts
from kessik.core.trials.edges_that_count import edges_in_use
from kessik.core.trials.run_series import edge_length_used_mm
from kessik.core.trials.state import TrialState
from kessik.services.assays.verdicts import claims_of
from kessik.services.reading.grades import grades_by_name
from kessik.services.reading.trial_states import trial_state
from kessik.store.database import Database
from kessik.store.queries import shelf


@dataclass(frozen=True)
class LineUp:
    """A trial as it stands with what is matched, what is open, and the scope an answer could
    have.
    """

    state: TrialState
    cells: tuple[Cell, ...]
    pending: tuple[Open, ...]
    scope: str
    taken_as_equal: tuple[Variable, ...]
    missing_references: tuple[TrialRole, ...]
    used_up: tuple[str, ...]
    ways_out: tuple[tuple[Mismatch, tuple[Remedy, ...]], ...]


def line_up(db: Database, trial_id: str) -> LineUp:
    """The trial as the line-up shows it."""
    state = trial_state(db, trial_id)
    trial, blades = state.trial, state.blades
    with db.read() as session:
        grades, used_up = grades_by_name(session), shelf.cut_edges(session)
        claims = claims_of(session, [blade.id for blade in blades])
    runs = [found.run for found in state.runs]
    facts = [
        _with_runs(
            blade_facts(
                blade,
                edges_in_use(blade, runs, used_up),
                trial.settled_rule,
                grades,
                claims.get(blade.id),
            ),
            state,
        )
        for blade in blades
    ]
    cells = match(facts, trial.rule)
    pending = open_facts(cells, facts, trial.rule)
    spoiled = any(cell.state == "confounded" for cell in cells)
    scope = scope_of(trial.rule, bool(pending), spoiled, shared_blade(facts))
    equal = tuple(not_recorded(facts, trial.rule)) if blades else ()
    cut = tuple(edge.id for blade in blades for edge in blade.own_edges if edge.id in used_up)
    ways = tuple(_ways_out(cells, facts, state))
    return LineUp(state, tuple(cells), pending, scope, equal, _missing_references(state), cut, ways)


def _ways_out(
    cells: Sequence[Cell], facts: Sequence[BladeFacts], state: TrialState
) -> Iterator[tuple[Mismatch, tuple[Remedy, ...]]]:
    """Every mismatch with what would do away with it."""
    cut = {r.blade.code for r in state.runs}
    for cell in cells:
        found = cell.finding
        if isinstance(found, Mismatch):
            yield found, tuple(ways_out(found, facts, state.trial.rule, cell.blade in cut))


def _with_runs(facts: BladeFacts, state: TrialState) -> BladeFacts:
    """What the runs of a blade show, as its verdict takes it, in place of what was recorded
    before.
    """
    own = [r for r in state.runs if r.counts and r.blade.code == facts.code]
    if state.sealed:
        return facts
    lengths = [edge_length_used_mm(r.run, r.blade) for r in own]
    starts = [r.start for r in own if r.start]
    return shown_by_runs(facts, starts, lengths, state.trial.method.force_scatter)


def _missing_references(state: TrialState) -> tuple[TrialRole, ...]:
    """What is still missing to give a result its place: a low and a high reference. Leaving them
    out is possible.
    """
    if len({blade.id for blade in state.blades}) < 2:
        return ()
    roles = {blade.role for blade in state.blades}
    wanted: tuple[TrialRole, ...] = ("low_reference", "high_reference")
    return tuple(role for role in wanted if role not in roles)
