"""A blade's own page: its facts, edges, runs, trials and pictures."""

from dataclasses import dataclass

from kessik.core.pictures import Shown
from kessik.core.sharpening.settled import Settled, SettledRule
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge, Recipe, departures_of
from kessik.core.shelf.facts import settled_edge, usual_hardness
from kessik.core.trials.state import TrialRun, covered
from kessik.core.trials.trial import Trial
from kessik.services.assays.grades import grades_by_name
from kessik.services.shelf.blades import shelved
from kessik.services.trials.state import trial_state
from kessik.store.database import Database
from kessik.store.queries import pictures, shelf


@dataclass(frozen=True)
class BladePage:
    """All that is known of one blade; edges are judged by the usual settled-edge rule."""

    blade: Blade
    usual_hardness_hrc: tuple[float, float] | None
    runs: tuple[tuple[Trial, TrialRun], ...]
    trials: tuple[Trial, ...]
    edges: tuple[tuple[Edge, Settled, tuple[str, ...]], ...]
    photos: tuple[Shown, ...]
    recipes: tuple[Recipe, ...]
    settled_rule: SettledRule


def blade_page(db: Database, blade_id: str) -> BladePage:
    """Gather a blade's page; UnknownError where there is no such blade."""
    found = shelved(db, blade_id)
    blade, rule = found.blade, SettledRule()
    with db.read() as session:
        photos = pictures.shown_by(session, "blade", blade_id)
        recipes = shelf.all_recipes(session)
        grades = grades_by_name(session)
    trials: list[Trial] = []
    runs: list[tuple[Trial, TrialRun]] = []
    for trial_id in found.trial_ids:
        state = trial_state(db, trial_id)
        trial = state.trial
        trials.append(trial)
        own = [r for r in state.runs if r.blade.id == blade_id]
        runs.extend((trial, covered(r) if trial.is_blind else r) for r in own)
    edges = [
        (edge, settled_edge(blade, edge, rule), tuple(departures_of(edge, recipes)))
        for edge in blade.edges
    ]
    return BladePage(
        blade,
        usual_hardness(blade, grades),
        tuple(sorted(runs, key=lambda pair: pair[1].run.started.utc)),
        tuple(trials),
        tuple(edges),
        tuple(photos),
        tuple(recipes),
        rule,
    )
