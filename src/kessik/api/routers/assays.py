"""The assay: batches, shots, and what they say of claims."""

from typing import Annotated

from fastapi import APIRouter, File, Form, Query, Response, UploadFile

from kessik.api.dependencies import Store
from kessik.api.downloads import attached
from kessik.api.schemas.assays import (
    AssayOut,
    AssayPlaceOut,
    BatchBody,
    BatchOut,
    BatchPatch,
    BatchSheetOut,
    ShotBody,
    ShotOut,
    StandInShotBody,
    TakenOut,
)
from kessik.api.schemas.common import Id, ShortText
from kessik.api.schemas.instruments import WaitingShotsOut
from kessik.api.schemas.performance import OfferOut, PerformanceOut, SideBySideOut
from kessik.api.schemas.shelf import StruckBody
from kessik.api.views.assays import assay_out, assay_place_out, batch_out
from kessik.api.views.performance import offer_out, performance_out, side_by_side_out
from kessik.core.composition.shots import PlusMinusIs, Shot
from kessik.core.limits import most
from kessik.core.trials.performance import YieldKind
from kessik.interchange.named_files import NamedFile
from kessik.services.assays import batches, sheets, shots
from kessik.services.assays.offers import assay_offers
from kessik.services.assays.performance import performance
from kessik.services.assays.side_by_side import side_by_side
from kessik.services.assays.verdicts import assay_place, assayed_blade, batch_to_hand_over
from kessik.services.clock import local_day, now
from kessik.services.devices.shots import waiting_shots
from kessik.services.reading.lives_of_blades import life_lines_of

router = APIRouter(tags=["assays"])
_XLSX = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"


@router.get("/assays")
def get_assays(store: Store) -> AssayPlaceOut:
    """Every batch, every blade that was shot or is to be, and the files that wait."""
    waiting = [WaitingShotsOut.showing(each) for each in waiting_shots(store)]
    return assay_place_out(assay_place(store), waiting)


@router.put("/batches/{batch_id}")
def put_batch(batch_id: Id, body: BatchBody, store: Store) -> BatchOut:
    """Keep a new batch under a client-made id; the same id twice is one."""
    return batch_out(batches.make_batch(store, body.to_core(id=batch_id), now()))


@router.patch("/batches/{batch_id}")
def patch_batch(batch_id: Id, body: BatchPatch, store: Store) -> BatchOut:
    """Change what is said of a batch, or which blades are in it."""
    return batch_out(batches.change_batch(store, batch_id, body.changes()))


@router.delete("/batches/{batch_id}", status_code=204)
def delete_batch(batch_id: Id, store: Store) -> Response:
    """Take a batch away; its blades and their shots stay."""
    batches.delete_batch(store, batch_id)
    return Response(status_code=204)


@router.get("/batches/{batch_id}")
def get_batch(batch_id: Id, store: Store) -> BatchSheetOut:
    """A batch to hand over."""
    batch, blades, shelf = batch_to_hand_over(store, batch_id)
    return BatchSheetOut(
        batch=batch_out(batch),
        blades=[assay_out(found, shelf, []) for found in blades],
        today=local_day(now()).isoformat(),
    )


@router.get("/batches/{batch_id}/shots.csv")
def get_batch_shots(batch_id: Id, store: Store) -> Response:
    """The shots of a batch as `*.shots.csv`."""
    batch, text = sheets.batch_shots_csv(store, batch_id)
    return attached(text.encode(), "text/csv; charset=utf-8", f"{batch.name}.shots.csv")


@router.get("/batches/{batch_id}/sheet.xlsx")
def get_batch_sheet(batch_id: Id, store: Store) -> Response:
    """The batch as a workbook."""
    batch, book = sheets.batch_xlsx(store, batch_id)
    return attached(book, _XLSX, f"{batch.name}.xlsx")


@router.post("/shot-imports")
def post_shot_import(
    store: Store,
    files: Annotated[list[UploadFile], File(max_length=most("files"))],
    batch_id: Annotated[ShortText, Form()] = "",
    plus_minus_is: Annotated[PlusMinusIs, Form()] = "one_sigma",
) -> TakenOut:
    """Keep the shots of result files, all or nothing; the same file twice is kept once."""
    named = [
        NamedFile((file.filename or "file.shots.csv")[:200], file.file.read()) for file in files
    ]
    return TakenOut.showing(shots.import_shots(store, named, batch_id, now(), plus_minus_is))


@router.post("/waiting-shots/{shots_id}/taken")
def post_waiting_taken(shots_id: Id, store: Store, batch_id: ShortText = "") -> TakenOut:
    """Use the shots that an analyser's folder brought."""
    return TakenOut.showing(shots.take_waiting(store, shots_id, batch_id, now()))


@router.get("/performance")
def get_performance(
    store: Store, method: ShortText = "", against: ShortText = "", of: YieldKind = "life"
) -> PerformanceOut:
    """What blades are made of against how they did; what is not named is the first there is."""
    return performance_out(performance(store, method, against, of))


@router.get("/trials/{trial_id}/assay-offers")
def get_assay_offers(trial_id: Id, store: Store) -> list[OfferOut]:
    """The blades of a trial whose life asks for an assay."""
    return [offer_out(found) for found in assay_offers(store, trial_id)]


@router.get("/side-by-side")
def get_side_by_side(store: Store, first: Id, second: Id) -> SideBySideOut:
    """Two blades as their makers describe them, side by side."""
    return side_by_side_out(side_by_side(store, first, second))


@router.get("/blades/{blade_id}/assay")
def get_blade_assay(
    blade_id: Id, store: Store, corrected: Annotated[bool, Query()] = True
) -> AssayOut:
    """What the shots of a blade say of its claim; the correction for the unseen can be switched
    off.
    """
    found, shelf = assayed_blade(store, blade_id, corrected=corrected)
    lives = life_lines_of(store, [blade_id]).get(blade_id, [])
    return assay_out(found, shelf, lives)


@router.put("/blades/{blade_id}/shots/{shot_id}")
def put_shot(blade_id: Id, shot_id: Id, body: ShotBody, store: Store) -> ShotOut:
    """Keep a shot under a client-made id; the same request twice keeps one."""
    return ShotOut.showing(
        shots.put_shot(store, body.to_core(id=shot_id, blade_id=blade_id), now())
    )


@router.put("/blades/{blade_id}/shots/{shot_id}/struck")
def put_shot_struck(blade_id: Id, shot_id: Id, body: StruckBody, store: Store) -> ShotOut:
    """Leave a shot out with a reason, or let it count again; it stays visible."""
    return ShotOut.showing(shots.exclude_shot(store, blade_id, shot_id, body.reason, now()))


@router.put("/blades/{blade_id}/stand-in-shots/{shot_id}")
def put_stand_in_shot(blade_id: Id, shot_id: Id, body: StandInShotBody, store: Store) -> ShotOut:
    """A shot of the simulated analyser, kept like any other."""
    day = local_day(now()).isoformat()
    blank = Shot(shot_id, blade_id, body.name, (), "bare", on=day, batch_id=body.batch_id)
    return ShotOut.showing(shots.shoot_with_stand_in(store, blank, body.asked(), now()))
