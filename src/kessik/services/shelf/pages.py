"""A blade's own page: its facts, edges, runs, trials and pictures."""

from collections.abc import Mapping
from dataclasses import dataclass

from kessik.core.composition.derived import dissolved_for_teaching
from kessik.core.composition.grades import Grade, find_grade
from kessik.core.heat_treatment import martensite, own_warnings
from kessik.core.pictures import Shown
from kessik.core.sharpening.settled import Settled, SettledRule
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Edge, Recipe, departures_of
from kessik.core.shelf.facts import settled_edge, usual_hardness
from kessik.core.trials.state import TrialRun, covered
from kessik.core.trials.trial import Trial
from kessik.core.words.elements import martensite_words
from kessik.core.words.performance import caveat_words
from kessik.core.words.sentences import as_sentence
from kessik.services.reading.grades import grades_by_name
from kessik.services.reading.trial_states import trial_state
from kessik.services.shelf.blades import shelved
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
    hardening: tuple[str, ...]


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
        tuple(_hardening(blade, grades)),
    )


def _hardening(blade: Blade, grades: Mapping[str, Grade]) -> list[str]:
    """What its heat treatment risks, by its claimed grade; and what is taught of such a steel."""
    grade = find_grade(blade.claimed_grade or "", grades)
    if grade is None or not grade.ranges:
        return []
    warned = own_warnings(blade.heat_treatment, grade.middle("Cr"))
    middles = {found.element: found.middle_percent for found in grade.ranges}
    taught = martensite_words(martensite(dissolved_for_teaching(middles)))
    return [*(as_sentence(f"{caveat_words(caveat)}.") for caveat in warned), taught]
