"""Sharpenings: edges made by recipe or by hand, their zones and damage, and the tester's word on
whether they count.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from kessik.core.errors import ConflictError, NotAllowedNowError, OutOfRangeError, UnknownError
from kessik.core.geometry import Zone, check_zones
from kessik.core.moments import Moment
from kessik.core.sharpening.regimes import check_steps, departures
from kessik.core.shelf.blades import Blade, split_arm_id
from kessik.core.shelf.edges import Edge, Recipe, check_edge_facts
from kessik.services.shelf.blades import get_blade
from kessik.services.shelf.facts import stated_again
from kessik.store.database import Database, Session
from kessik.store.queries import bench_log, shelf, trials

STATED = ("side_angle_deg", "micro_bevel_side_deg", "thickness_behind_edge_mm")


@dataclass(frozen=True)
class Prepared:
    """An edge with how it departs from the recipe it was made by."""

    edge: Edge
    departures: tuple[str, ...]


def save_edge(
    db: Database,
    edge: Edge,
    stated: Mapping[str, float | None] | None,
    now: Moment,
    *,
    inside: str | None = None,
) -> Edge:
    """Record a sharpening, or change what is known of one; values `stated` become measurements
    where they are new.

    `inside` names a trial that the blade must be in.
    """
    with db.write() as session:
        blade = get_blade(session, edge.blade_id)
        if inside is not None and all(b.id != blade.id for b in trials.blades_of(session, inside)):
            raise UnknownError("there is no such blade in this trial", field="blade")
        _check(session, blade, edge)
        known = next((e for e in blade.edges if e.id == edge.id), None)
        shelf.save_edge(session, edge)
        for quantity, value in (stated or {}).items():
            changes = stated_again(
                known.measurements if known else (), quantity, value, "measured_here", now.utc
            )
            shelf.save_measurements(session, blade.id, edge.id, changes)
        blade = get_blade(session, edge.blade_id)
    return next(e for e in blade.edges if e.id == edge.id)


def _check(session: Session, blade: Blade, edge: Edge) -> None:
    check_edge_facts(edge)
    check_steps(edge.steps)
    if any(e.number == edge.number and e.id != edge.id for e in blade.edges):
        raise ConflictError(f"{blade.code} has an edge {edge.number} already", field="number")
    elsewhere = shelf.find_edge_owner(session, edge.id)
    if elsewhere not in (None, blade.id):
        raise ConflictError("this edge belongs to another blade", field="id")
    for name, what in (("minutes", "minutes"), ("steel_removed_mm", "mm of steel removed")):
        value = getattr(edge, name)
        if value is not None and not 0 <= value <= 1000:
            raise OutOfRangeError(
                f"{value:g} {what} is out of range: give 0 to 1000", field=name, value=value
            )
    check_zones(edge.zones, blade.edge_length_mm, overlap_insisted=edge.zones_overlap)
    for mark in edge.damage:
        beyond = blade.edge_length_mm is not None and mark.position_mm > blade.edge_length_mm
        if mark.position_mm < 0 or beyond:
            raise OutOfRangeError(
                f"{mark.kind} at {mark.position_mm:g} mm lies beyond the edge", field="damage"
            )
    if edge.overrule is not None and not edge.overrule_reason.strip():
        raise OutOfRangeError(
            "say why the rule is overruled; the reason stays visible", field="overrule_reason"
        )


def delete_edge(db: Database, blade_id: str, edge_id: str) -> None:
    """Take back an edge recorded by mistake; not once it was cut."""
    with db.write() as session:
        blade = get_blade(session, blade_id)
        if all(edge.id != edge_id for edge in blade.edges):
            raise UnknownError("there is no such edge on this blade", field="edge")
        if bench_log.edge_has_runs(session, edge_id):
            raise NotAllowedNowError(
                "this edge has been cut; its runs stay in the record", field="edge"
            )
        shelf.delete_edge(session, edge_id)


def save_recipe(db: Database, recipe: Recipe) -> Recipe:
    """Keep a named regime; a name stands once."""
    if not recipe.name.strip():
        raise OutOfRangeError("name the recipe", field="name")
    if not recipe.steps:
        raise OutOfRangeError("a recipe needs one step at least", field="steps")
    check_steps(recipe.steps)
    with db.write() as session:
        for other in shelf.all_recipes(session):
            if other.id != recipe.id and other.name.casefold() == recipe.name.strip().casefold():
                raise ConflictError(f"there is a recipe {other.name} already", field="name")
        shelf.save_recipe(session, replace(recipe, name=recipe.name.strip()))
    return recipe


def recipe_by_id(session: Session, recipe_id: str) -> Recipe:
    """The recipe, or UnknownError."""
    recipe = next((r for r in shelf.all_recipes(session) if r.id == recipe_id), None)
    if recipe is None:
        raise UnknownError("there is no such recipe", field="recipe_id")
    return recipe


def prepare_by_recipe(
    db: Database,
    recipe_id: str,
    edge_ids: Mapping[str, str],
    made_on: str,
    zones: Sequence[Zone] = (),
) -> list[Prepared]:
    """Make the next edge of several blades or arms, by their ids, by one recipe, in one act; the
    same edge ids twice make one set.
    """
    with db.write() as session:
        recipe = recipe_by_id(session, recipe_id)
        made = []
        for arm_id, edge_id in edge_ids.items():
            blade_id, arm = split_arm_id(arm_id)
            blade = get_blade(session, blade_id)
            edge = next((e for e in blade.edges if e.id == edge_id), None)
            if edge is None:
                number = max((e.number for e in blade.edges), default=0) + 1
                edge = Edge(
                    edge_id,
                    blade_id,
                    number,
                    arm=arm,
                    made_on=made_on,
                    regime=recipe.name,
                    recipe_id=recipe.id,
                    steps=recipe.steps,
                    zones=tuple(zones),
                )
                _check(session, blade, edge)
                shelf.save_edge(session, edge)
            made.append(Prepared(edge, tuple(departures(recipe.steps, edge.steps))))
    return made
