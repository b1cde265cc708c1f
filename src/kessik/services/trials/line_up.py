"""The line-up: whether a trial's comparison will be fair, before an edge is spent on it."""

from dataclasses import dataclass, replace

from kessik.core.comparison.matching import BladeFacts, Cell, Fact, match, not_recorded
from kessik.core.comparison.verdict import pending_words, scope_words
from kessik.core.trials.blade_facts import blade_facts
from kessik.core.trials.edges_that_count import edges_in_use
from kessik.core.trials.state import TrialState
from kessik.services.shelf.blades import grades_by_name
from kessik.services.trials.state import trial_state
from kessik.store.database import Database
from kessik.store.queries import shelf


@dataclass(frozen=True)
class LineUp:
    """A trial as it stands with what is matched, what is open, and the scope an answer could
    have.
    """

    state: TrialState
    cells: tuple[Cell, ...]
    pending: tuple[str, ...]
    scope: str
    taken_as_equal: tuple[str, ...]
    references: tuple[str, ...]
    used_up: tuple[str, ...]


def line_up(db: Database, trial_id: str) -> LineUp:
    """The trial as the line-up shows it."""
    state = trial_state(db, trial_id)
    trial, blades = state.trial, state.blades
    with db.read() as session:
        grades, used_up = grades_by_name(session), shelf.cut_edges(session)
    runs = [found.run for found in state.runs]
    facts = [
        _with_starts(
            blade_facts(blade, edges_in_use(blade, runs, used_up), trial.settled_rule, grades),
            state,
        )
        for blade in blades
    ]
    cells = match(facts, trial.rule)
    pending = pending_words(cells, facts, trial.rule)
    spoiled = any(cell.state == "confounded" for cell in cells)
    scope = scope_words(trial.rule, bool(pending), spoiled)
    equal = tuple(variable.label for variable in not_recorded(facts, trial.rule)) if blades else ()
    cut = tuple(edge.id for blade in blades for edge in blade.edges if edge.id in used_up)
    return LineUp(state, tuple(cells), pending, scope, equal, _references(state), cut)


def _with_starts(facts: BladeFacts, state: TrialState) -> BladeFacts:
    """Start readings of runs, where there are any, in place of those taken at the sharpening."""
    own = [r.start for r in state.runs if r.counts and r.blade.code == facts.code and r.start]
    if not own or state.sealed:
        return facts
    return replace(
        facts,
        edges={
            **facts.edges,
            "start_gf": [Fact(start_gf, readings=readings) for start_gf, readings in own],
        },
    )


def _references(state: TrialState) -> tuple[str, ...]:
    """What is still missing to give a result its place: a low and a high reference. Leaving them
    out is possible.
    """
    if len(state.blades) < 2:
        return ()
    said = []
    roles = {blade.role for blade in state.blades}
    if "low_reference" not in roles:
        said.append(
            "No low reference is named: a well-known modest blade shows where the scale begins."
        )
    if "high_reference" not in roles:
        said.append(
            "No high reference is named: a well-known strong blade shows where the scale ends."
        )
    return tuple(said)
