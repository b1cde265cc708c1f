"""Blades, recipes and the rest of the shelf over the wire."""

from kessik.api.schemas.edges import SettledOut
from kessik.api.schemas.shelf import (
    BladeOut,
    BladePageOut,
    EdgeStandingOut,
    PhotoOut,
    RecipeBody,
    RunOfBladeOut,
    ShelvedOut,
    TrialName,
)
from kessik.api.views.edges import edge_out, step_bodies
from kessik.api.views.measurements import histories
from kessik.core.pictures import Shown
from kessik.core.shelf.blades import Blade
from kessik.core.shelf.edges import Recipe
from kessik.core.words.settled import rule_words, settled_words
from kessik.core.words.shelf import loan_words
from kessik.services.shelf.blades import Shelved
from kessik.services.shelf.pages import BladePage


def blade_out(blade: Blade) -> BladeOut:
    """A blade, or one arm of it, with what is known of it."""
    hardness = blade.used("hardness_hrc")
    return BladeOut.showing(
        blade,
        loan_says=loan_words(blade),
        hardness_hrc=hardness.value if hardness else None,
        hardness_standing=hardness.standing if hardness else None,
        next_edge=max((edge.number for edge in blade.edges), default=0) + 1,
        measurements=histories(blade.measurements, blade),
        edges=[edge_out(edge, blade) for edge in blade.own_edges],
    )


def recipe_body(recipe: Recipe) -> RecipeBody:
    """A recipe with its steps."""
    return RecipeBody.showing(recipe, steps=step_bodies(recipe.steps))


def photo_out(photo: Shown) -> PhotoOut:
    """A picture of a blade."""
    return PhotoOut.showing(photo, hash=photo.picture.hash)


def shelved_out(found: Shelved) -> ShelvedOut:
    """A blade on the shelf."""
    return ShelvedOut.showing(found, blade=blade_out(found.blade))


def blade_page_out(found: BladePage) -> BladePageOut:
    """All that is known of one blade."""
    return BladePageOut.showing(
        found,
        blade=blade_out(found.blade),
        runs=[
            RunOfBladeOut(
                run_id=r.run.id,
                trial_id=trial.id,
                trial=trial.name,
                edge=r.edge.number,
                number=r.run.number,
                practice=r.run.practice,
                status=r.state.status,
                count=r.state.count,
                count_unit=r.run.count_unit,
                started_utc=r.run.started.utc,
                zone_from_mm=r.run.zone_from_mm,
                zone_to_mm=r.run.zone_to_mm,
                worn_share=r.worn_share,
            )
            for trial, r in found.runs
        ],
        trials=[TrialName(id=trial.id, name=trial.name) for trial in found.trials],
        edge_standings=[
            EdgeStandingOut(
                edge_id=edge.id,
                settled=SettledOut(state=state.state, says=settled_words(state)),
                departures=list(departures),
            )
            for edge, state, departures in found.edges
        ],
        photos=[photo_out(photo) for photo in found.photos],
        recipes=[recipe_body(recipe) for recipe in found.recipes],
        settled_rule=rule_words(found.settled_rule),
    )
