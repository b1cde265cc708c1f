"""Trials, blades and edges."""

from fastapi import APIRouter, Response

from kessik.api.dependencies import Store
from kessik.api.schemas.common import Id
from kessik.api.schemas.shelf import (
    ArchivedBody,
    BladeBody,
    BladeOut,
    BladePatch,
    PreparationBody,
    PreparedOut,
)
from kessik.api.schemas.trials import (
    LineUpOut,
    RoleBody,
    SeenBody,
    TrialBody,
    TrialOut,
    TrialPatch,
)
from kessik.api.views.shelf import blade_out
from kessik.api.views.trials import line_up_out, trial_out
from kessik.core.comparison.matching import MatchingRule
from kessik.core.geometry import Zone
from kessik.core.protocols.schools import BY_SCHOOL
from kessik.core.sharpening.settled import SettledRule
from kessik.core.trials.trial import Trial
from kessik.services.clock import now
from kessik.services.files.trial_export import export_trial, slug, zipped
from kessik.services.shelf.sharpenings import prepare_by_recipe
from kessik.services.trials import trials
from kessik.services.trials.line_up import line_up

router = APIRouter(tags=["trials"])


@router.put("/trials/{trial_id}")
def put_trial(trial_id: Id, body: TrialBody, store: Store) -> TrialOut:
    """Make a trial under a client-made id; the same request twice makes one trial."""
    own = body.model_dump()
    trial = Trial(
        id=trial_id,
        name=body.name.strip(),
        question=body.question,
        created=now(),
        rule=MatchingRule(
            body.factor,
            body.hardness_reading,
            body.tolerances,
            body.effects,
            tuple(body.let_go),
            body.scale_edge_length,
        ),
        settled_rule=SettledRule(
            body.settled_kind, body.settled_edge_number, body.settled_steel_removed_mm
        ),
        method=body.method.to_core() if body.method else BY_SCHOOL["force_limit_rope"],
        **{name: own[name] for name in ("edges_per_blade", "medium", "rope_diameter_mm")},
    )
    return trial_out(trials.make_trial(store, trial))


@router.patch("/trials/{trial_id}")
def patch_trial(trial_id: Id, body: TrialPatch, store: Store) -> TrialOut:
    """Change settings, each with a trace; which edges count is fixed once a counted run began."""
    return trial_out(trials.change_trial(store, trial_id, body.changes(), now(), body.reason))


@router.put("/trials/{trial_id}/archived", status_code=204)
def put_trial_archived(trial_id: Id, body: ArchivedBody, store: Store) -> Response:
    """Put a trial into the archive, or take it out."""
    trials.put_trial_away(store, trial_id, body.archived, now())
    return Response(status_code=204)


@router.put("/trials/{trial_id}/cautions")
def put_cautions(trial_id: Id, body: SeenBody, store: Store) -> TrialOut:
    """Put the cautions of this trial away once they were read, or bring them back."""
    return trial_out(trials.see_cautions(store, trial_id, now().utc if body.seen else None))


@router.get("/trials/{trial_id}/line-up")
def get_line_up(trial_id: Id, store: Store) -> LineUpOut:
    """Blades by variables: matched, the factor, confounded or pending."""
    return line_up_out(line_up(store, trial_id))


@router.put("/trials/{trial_id}/blades/{blade_id}")
def put_blade(trial_id: Id, blade_id: Id, body: BladeBody, store: Store) -> BladeOut:
    """Add a new blade to the shelf and to a trial."""
    return blade_out(trials.add_blade(store, trial_id, body.made(blade_id, now().utc)))


@router.put("/trials/{trial_id}/places/{blade_id}")
def put_place(trial_id: Id, blade_id: Id, body: RoleBody, store: Store) -> BladeOut:
    """Take a blade of the shelf into a trial, or say what it is there for."""
    return blade_out(trials.take_from_shelf(store, trial_id, blade_id, body.role, body.arms))


@router.post("/trials/{trial_id}/preparations")
def post_preparations(trial_id: Id, body: PreparationBody, store: Store) -> list[PreparedOut]:
    """Make the next edge of several blades by one recipe, in one act; the same edge ids twice make
    one set.
    """
    trials.check_in_trial(store, trial_id, list(body.edge_ids))
    zones = tuple(Zone(**zone.model_dump()) for zone in body.zones)
    made = prepare_by_recipe(
        store, body.recipe_id, body.edge_ids, body.made_on or now().utc[:10], zones
    )
    return [
        PreparedOut(
            blade_id=p.edge.blade_id,
            edge_id=p.edge.id,
            number=p.edge.number,
            departures=list(p.departures),
        )
        for p in made
    ]


@router.patch("/trials/{trial_id}/blades/{blade_id}")
def patch_blade(trial_id: Id, blade_id: Id, body: BladePatch, store: Store) -> BladeOut:
    """Change facts of a blade."""
    return blade_out(trials.change_blade(store, trial_id, blade_id, body.changes(), now()))


@router.delete("/trials/{trial_id}/blades/{blade_id}", status_code=204)
def delete_blade(trial_id: Id, blade_id: Id, store: Store) -> Response:
    """Take a blade that was not cut out of the trial."""
    trials.delete_place(store, trial_id, blade_id)
    return Response(status_code=204)


@router.get("/trials/{trial_id}/files", response_class=Response)
def get_files(trial_id: Id, store: Store) -> Response:
    """The trial as series, runs, blades and edges files, zipped."""
    files = export_trial(store, trial_id)
    name = slug(next(iter(files)).split(".")[0])
    headers = {"Content-Disposition": f'attachment; filename="{name}.zip"'}
    return Response(zipped(files), media_type="application/zip", headers=headers)
