"""The shelf: blades, their measurements and photos, recipes, grades and abrasives."""

from typing import Annotated
from uuid import uuid4

from fastapi import APIRouter, File, Form, Response, UploadFile

from kessik.api.dependencies import Store
from kessik.api.schemas.common import Id, PictureHash, ShortText
from kessik.api.schemas.edges import SettledOut
from kessik.api.schemas.measurements import MeasurementBody, MeasurementOut, QuantityOut
from kessik.api.schemas.shelf import (
    AbrasiveBody,
    ArchivedBody,
    BladeBody,
    BladeOut,
    BladePageOut,
    BladePatch,
    CompoundOut,
    EdgeStandingOut,
    PhotoOut,
    RecipeBody,
    RunOfBladeOut,
    ShelfOut,
    ShelvedOut,
    StruckBody,
    TrialName,
)
from kessik.core.facts import QUANTITIES
from kessik.core.sharpening.abrasives import COMPOUNDS
from kessik.core.words.settled import rule_words, settled_words
from kessik.services.clock import local_day, now
from kessik.services.files.shelf_rows import blades_csv, edges_csv
from kessik.services.files.trial_export import zipped
from kessik.services.record import bin as the_bin
from kessik.services.shelf import blades
from kessik.services.shelf.pages import BladePage, blade_page
from kessik.services.shelf.sharpenings import save_recipe
from kessik.store.queries import shelf as shelf_queries

router = APIRouter(tags=["shelf"])


@router.get("/quantities")
def get_quantities() -> list[QuantityOut]:
    """What can be known of blades and edges, with bounds and what is usual."""
    return [QuantityOut.of_quantity(quantity) for quantity in QUANTITIES.values()]


@router.get("/shelf")
def get_shelf(store: Store) -> ShelfOut:
    """All that stands on the shelf."""
    with store.read() as session:
        recipes = shelf_queries.all_recipes(session)
        abrasives = shelf_queries.all_abrasives(session)
    return ShelfOut(
        blades=[_shelved(found) for found in blades.the_shelf(store)],
        recipes=[RecipeBody.of(recipe) for recipe in recipes],
        abrasives=[AbrasiveBody.of(abrasive) for abrasive in abrasives],
        compounds=[
            CompoundOut(name=n, kind=k, size_um=um, standing=s) for n, k, um, s in COMPOUNDS
        ],
        today=local_day(now()).isoformat(),
    )


def _shelved(found: blades.Shelved) -> ShelvedOut:
    return ShelvedOut(
        blade=BladeOut.of(found.blade),
        runs=found.runs,
        trial_ids=list(found.trial_ids),
        waiting=found.waiting,
    )


@router.get("/shelf/files", response_class=Response)
def get_shelf_files(store: Store) -> Response:
    """The shelf's blades and edges as files, zipped; archived blades stay out."""
    kept = [found.blade for found in blades.the_shelf(store) if found.blade.archived_utc is None]
    files = {"shelf.blades.csv": blades_csv(kept), "shelf.edges.csv": edges_csv(kept)}
    headers = {"Content-Disposition": 'attachment; filename="shelf.zip"'}
    return Response(zipped(files), media_type="application/zip", headers=headers)


@router.put("/blades/{blade_id}")
def put_blade(blade_id: Id, body: BladeBody, store: Store) -> BladeOut:
    """Put a new blade on the shelf; the same request twice makes one blade."""
    return BladeOut.of(blades.make_blade(store, body.to_core(blade_id, now().utc)))


@router.get("/blades/{blade_id}")
def get_blade(blade_id: Id, store: Store) -> BladePageOut:
    """All that is known of one blade."""
    return _page(blade_page(store, blade_id))


def _page(found: BladePage) -> BladePageOut:
    return BladePageOut(
        blade=BladeOut.of(found.blade),
        usual_hardness_hrc=list(found.usual_hardness_hrc) if found.usual_hardness_hrc else None,
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
        photos=[PhotoOut.of(photo) for photo in found.photos],
        recipes=[RecipeBody.of(recipe) for recipe in found.recipes],
        settled_rule=rule_words(found.settled_rule),
        hardening=list(found.hardening),
    )


@router.patch("/blades/{blade_id}")
def patch_blade(blade_id: Id, body: BladePatch, store: Store) -> BladeOut:
    """Change what is said of a blade."""
    return BladeOut.of(blades.change_blade(store, blade_id, body.changes(), now()))


@router.put("/blades/{blade_id}/archived")
def put_archived(blade_id: Id, body: ArchivedBody, store: Store) -> BladeOut:
    """Archive a blade, or take it out of the archive."""
    return BladeOut.of(blades.archive_blade(store, blade_id, body.archived, now()))


@router.delete("/blades/{blade_id}", status_code=204)
def delete_blade(blade_id: Id, store: Store) -> Response:
    """Put a blade without runs into the bin."""
    blades.check_deletable(store, blade_id)
    the_bin.take_away(store, str(uuid4()), "blade", blade_id, "", now())
    return Response(status_code=204)


@router.put("/blades/{blade_id}/measurements/{measurement_id}")
def put_measurement(
    blade_id: Id, measurement_id: Id, body: MeasurementBody, store: Store
) -> MeasurementOut:
    """Keep one more measurement; the same request twice keeps one."""
    wanted = body.model_copy(update={"id": measurement_id})
    made = blades.measure(store, blade_id, wanted.edge_id, wanted.to_core(), now())
    return MeasurementOut.of(made, in_use=not made.struck)


@router.put("/measurements/{measurement_id}/struck")
def put_struck(measurement_id: Id, body: StruckBody, store: Store) -> MeasurementOut:
    """Strike a measurement out with a reason, or let it stand again; it stays visible."""
    made = blades.strike_measurement(store, measurement_id, body.reason)
    return MeasurementOut.of(made, in_use=not made.struck)


@router.post("/blades/{blade_id}/photos")
def post_photo(
    blade_id: Id,
    store: Store,
    photo: Annotated[UploadFile, File()],
    caption: Annotated[ShortText, Form()] = "",
) -> PhotoOut:
    """Keep a picture of a blade, without its place of taking; the same picture twice is kept
    once.
    """
    return PhotoOut.of(blades.add_photo(store, blade_id, photo.file.read(), caption, now()))


@router.delete("/blades/{blade_id}/photos/{content_hash}", status_code=204)
def delete_photo(blade_id: Id, content_hash: PictureHash, store: Store) -> Response:
    """Take a picture off a blade's page."""
    blades.remove_photo(store, blade_id, content_hash)
    return Response(status_code=204)


@router.put("/recipes/{recipe_id}")
def put_recipe(recipe_id: Id, body: RecipeBody, store: Store) -> RecipeBody:
    """Keep a named regime; edges made by it before keep the steps they were made with."""
    return RecipeBody.of(save_recipe(store, body.model_copy(update={"id": recipe_id}).to_core()))


@router.delete("/recipes/{recipe_id}", status_code=204)
def delete_recipe(recipe_id: Id, store: Store) -> Response:
    """Take a recipe off the shelf; edges made by it keep their steps."""
    with store.write() as session:
        shelf_queries.delete_recipe(session, recipe_id)
    return Response(status_code=204)


@router.put("/abrasives/{abrasive_id}")
def put_abrasive(abrasive_id: Id, body: AbrasiveBody, store: Store) -> AbrasiveBody:
    """Keep an abrasive of the tester's own."""
    return AbrasiveBody.of(
        blades.save_abrasive(store, body.model_copy(update={"id": abrasive_id}).to_core())
    )


@router.delete("/abrasives/{abrasive_id}", status_code=204)
def delete_abrasive(abrasive_id: Id, store: Store) -> Response:
    """Take an abrasive off the shelf."""
    with store.write() as session:
        shelf_queries.delete_abrasive(session, abrasive_id)
    return Response(status_code=204)
