"""The shelf: blades, their measurements and photos, recipes, grades and abrasives."""

from typing import Annotated
from uuid import uuid4

from fastapi import APIRouter, File, Form, Response, UploadFile

from kessik.api.dependencies import Store
from kessik.api.schemas.common import Id, PictureHash, ShortText
from kessik.api.schemas.measurements import MeasurementBody, MeasurementOut, QuantityOut
from kessik.api.schemas.shelf import (
    AbrasiveBody,
    ArchivedBody,
    BladeBody,
    BladeOut,
    BladePageOut,
    BladePatch,
    CompoundOut,
    PhotoOut,
    RecipeBody,
    ShelfOut,
    StruckBody,
)
from kessik.api.views.measurements import measurement_out
from kessik.api.views.shelf import blade_out, blade_page_out, photo_out, recipe_body, shelved_out
from kessik.core.facts import QUANTITIES
from kessik.core.sharpening.abrasives import COMPOUNDS
from kessik.services.clock import local_day, now
from kessik.services.files.shelf_rows import blades_csv, edges_csv
from kessik.services.files.trial_export import zipped
from kessik.services.record import bin as the_bin
from kessik.services.shelf import blades
from kessik.services.shelf.pages import blade_page
from kessik.services.shelf.sharpenings import save_recipe
from kessik.store.queries import shelf as shelf_queries

router = APIRouter(tags=["shelf"])


@router.get("/quantities")
def get_quantities() -> list[QuantityOut]:
    """What can be known of blades and edges, with bounds and what is usual."""
    return [QuantityOut.showing(quantity) for quantity in QUANTITIES.values()]


@router.get("/shelf")
def get_shelf(store: Store) -> ShelfOut:
    """All that stands on the shelf."""
    with store.read() as session:
        recipes = shelf_queries.all_recipes(session)
        abrasives = shelf_queries.all_abrasives(session)
    return ShelfOut(
        blades=[shelved_out(found) for found in blades.the_shelf(store)],
        recipes=[recipe_body(recipe) for recipe in recipes],
        abrasives=[AbrasiveBody.showing(abrasive) for abrasive in abrasives],
        compounds=[
            CompoundOut(name=n, kind=k, size_um=um, standing=s) for n, k, um, s in COMPOUNDS
        ],
        today=local_day(now()).isoformat(),
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
    return blade_out(blades.make_blade(store, body.made(blade_id, now().utc)))


@router.get("/blades/{blade_id}")
def get_blade(blade_id: Id, store: Store) -> BladePageOut:
    """All that is known of one blade."""
    return blade_page_out(blade_page(store, blade_id))


@router.patch("/blades/{blade_id}")
def patch_blade(blade_id: Id, body: BladePatch, store: Store) -> BladeOut:
    """Change what is said of a blade."""
    return blade_out(blades.change_blade(store, blade_id, body.changes(), now()))


@router.put("/blades/{blade_id}/archived")
def put_archived(blade_id: Id, body: ArchivedBody, store: Store) -> BladeOut:
    """Archive a blade, or take it out of the archive."""
    return blade_out(blades.archive_blade(store, blade_id, body.archived, now()))


@router.delete("/blades/{blade_id}", status_code=204)
def delete_blade(blade_id: Id, store: Store) -> Response:
    """Put a blade without runs into the bin."""
    blades.check_deletable(store, blade_id)
    the_bin.move_to_bin(store, str(uuid4()), "blade", blade_id, "", now())
    return Response(status_code=204)


@router.put("/blades/{blade_id}/measurements/{measurement_id}")
def put_measurement(
    blade_id: Id, measurement_id: Id, body: MeasurementBody, store: Store
) -> MeasurementOut:
    """Keep one more measurement; the same request twice keeps one."""
    wanted = body.model_copy(update={"id": measurement_id})
    made = blades.measure(store, blade_id, wanted.edge_id, wanted.to_core(), now())
    return measurement_out(made, in_use=not made.struck)


@router.put("/measurements/{measurement_id}/struck")
def put_struck(measurement_id: Id, body: StruckBody, store: Store) -> MeasurementOut:
    """Strike a measurement out with a reason, or let it stand again; it stays visible."""
    made = blades.exclude_measurement(store, measurement_id, body.reason)
    return measurement_out(made, in_use=not made.struck)


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
    return photo_out(blades.add_photo(store, blade_id, photo.file.read(), caption, now()))


@router.delete("/blades/{blade_id}/photos/{content_hash}", status_code=204)
def delete_photo(blade_id: Id, content_hash: PictureHash, store: Store) -> Response:
    """Take a picture off a blade's page."""
    blades.delete_photo(store, blade_id, content_hash)
    return Response(status_code=204)


@router.put("/recipes/{recipe_id}")
def put_recipe(recipe_id: Id, body: RecipeBody, store: Store) -> RecipeBody:
    """Keep a named regime; edges made by it before keep the steps they were made with."""
    return recipe_body(save_recipe(store, body.to_core(id=recipe_id)))


@router.delete("/recipes/{recipe_id}", status_code=204)
def delete_recipe(recipe_id: Id, store: Store) -> Response:
    """Take a recipe off the shelf; edges made by it keep their steps."""
    with store.write() as session:
        shelf_queries.delete_recipe(session, recipe_id)
    return Response(status_code=204)


@router.put("/abrasives/{abrasive_id}")
def put_abrasive(abrasive_id: Id, body: AbrasiveBody, store: Store) -> AbrasiveBody:
    """Keep an abrasive of the tester's own."""
    return AbrasiveBody.showing(blades.save_abrasive(store, body.to_core(id=abrasive_id)))


@router.delete("/abrasives/{abrasive_id}", status_code=204)
def delete_abrasive(abrasive_id: Id, store: Store) -> Response:
    """Take an abrasive off the shelf."""
    with store.write() as session:
        shelf_queries.delete_abrasive(session, abrasive_id)
    return Response(status_code=204)
