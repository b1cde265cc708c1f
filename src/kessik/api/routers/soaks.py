"""Soaks: what is exposed, what was done to it, and what was seen."""

from typing import Annotated
from uuid import uuid4

from fastapi import APIRouter, File, Response, UploadFile

from kessik.api.dependencies import ImportDesk, Store
from kessik.api.downloads import attached
from kessik.api.schemas.common import Id, PictureHash, ShortText
from kessik.api.schemas.shelf import StruckBody
from kessik.api.schemas.soak_pictures_out import (
    GradeInWordsOut,
    LookMeasuringOut,
    NotReadOut,
    OutlineOut,
    RustOut,
    SeriesOut,
    SoakPictureOut,
    TakenLooksOut,
    TakenPicturesOut,
)
from kessik.api.schemas.soaks import (
    ActBody,
    AtBody,
    EndsBody,
    LookBody,
    MeasuringBody,
    SeriesBody,
    SoakBody,
    SoakMethodBody,
    SoakPatch,
)
from kessik.api.schemas.soaks_out import (
    ActOut,
    BladeInSoaksOut,
    BladeSoakOut,
    LookOut,
    PlaceTableOut,
    SoakLineOut,
    SoakOut,
)
from kessik.api.views.soak_pictures import (
    look_measuring_out,
    outline_out,
    rust_out,
    soak_picture_out,
)
from kessik.api.views.soaks import (
    act_out,
    blade_soaks_out,
    look_out,
    method_out,
    place_table_out,
    soak_line_out,
    soak_out,
)
from kessik.core.corrosion.quick import grades_in_words
from kessik.core.limits import most
from kessik.interchange.named_files import NamedFile
from kessik.services.clock import now
from kessik.services.record import bin as the_bin
from kessik.services.soaks import files, pictures, soaks
from kessik.services.soaks.series import read_series
from kessik.services.soaks.sheets import (
    all_sheets,
    sheets_of_blades,
    soak_calendar,
    soak_methods,
    soak_sheet,
    soaks_beside_trial,
)
from kessik.services.soaks.sheets import measured_look as kept_measuring
from kessik.services.soaks.side_by_side import place_table

router = APIRouter(tags=["soaks"])


@router.get("/soaks")
def get_soaks(store: Store) -> list[SoakLineOut]:
    """Every soak in a line, the newest first."""
    return [soak_line_out(sheet) for sheet in all_sheets(store, now())]


@router.get("/soaks-side-by-side")
def get_soaks_side_by_side(store: Store) -> PlaceTableOut:
    """The places of blades from one soak to the next."""
    return place_table_out(place_table(all_sheets(store, now())))


@router.get("/soak-methods")
def get_soak_methods(store: Store) -> list[SoakMethodBody]:
    """The methods that are there to be copied and changed: shipped, and of earlier soaks."""
    return [method_out(method) for method in soak_methods(store)]


@router.get("/soak-grades")
def get_soak_grades() -> list[GradeInWordsOut]:
    """The grades of ISO 10289 in words, for a look without a camera."""
    return [GradeInWordsOut.showing(grade) for grade in grades_in_words()]


@router.put("/soaks/{soak_id}")
def put_soak(soak_id: Id, body: SoakBody, store: Store) -> SoakOut:
    """Keep a new soak under a client-made id; the same id twice is one."""
    soaks.make_soak(store, body.to_core(id=soak_id), now())
    return soak_out(soak_sheet(store, soak_id, now()))


@router.patch("/soaks/{soak_id}")
def patch_soak(soak_id: Id, body: SoakPatch, store: Store) -> SoakOut:
    """Change what is said of a soak."""
    soaks.change_soak(store, soak_id, body.changes())
    return soak_out(soak_sheet(store, soak_id, now()))


@router.delete("/soaks/{soak_id}", status_code=204)
def delete_soak(soak_id: Id, store: Store) -> Response:
    """Put a soak into the bin, with its looks."""
    the_bin.move_to_bin(store, str(uuid4()), "soak", soak_id, "", now())
    return Response(status_code=204)


@router.get("/soaks/{soak_id}")
def get_soak(soak_id: Id, store: Store) -> SoakOut:
    """A soak, whole."""
    return soak_out(soak_sheet(store, soak_id, now()))


@router.put("/soaks/{soak_id}/started")
def put_started(soak_id: Id, body: AtBody, store: Store) -> SoakOut:
    """Say when it began."""
    soaks.start_soak(store, soak_id, body.moment(), now())
    return soak_out(soak_sheet(store, soak_id, now()))


@router.put("/soaks/{soak_id}/acts/{act_id}")
def put_act(soak_id: Id, act_id: Id, body: ActBody, store: Store) -> ActOut:
    """Keep something that was done, at its true time; the same request twice keeps one."""
    act = soaks.put_act(store, soak_id, body.to_core(id=act_id, at=body.moment()), now())
    return act_out(act, [])


@router.put("/soaks/{soak_id}/acts/{act_id}/struck")
def put_act_struck(soak_id: Id, act_id: Id, body: StruckBody, store: Store) -> ActOut:
    """Say that it was not so, with a reason, or that it was."""
    return act_out(soaks.exclude_act(store, soak_id, act_id, body.reason, now()), [])


@router.put("/soaks/{soak_id}/looks/{look_id}")
def put_look(soak_id: Id, look_id: Id, body: LookBody, store: Store) -> LookOut:
    """Keep a look, or what is put right in it."""
    measuring = body.measuring.to_core() if body.measuring else None
    look = soaks.put_look(store, soak_id, body.look(look_id), measuring, now())
    return look_out(look, [])


@router.put("/soaks/{soak_id}/looks/{look_id}/struck")
def put_look_struck(soak_id: Id, look_id: Id, body: StruckBody, store: Store) -> LookOut:
    """Leave a look out with a reason, or let it count again."""
    return look_out(soaks.exclude_look(store, soak_id, look_id, body.reason), [])


@router.get("/soaks/{soak_id}/looks/{look_id}/measuring")
def get_look_measuring(soak_id: Id, look_id: Id, store: Store) -> LookMeasuringOut:
    """How a look was measured: everything needed to do it again."""
    look, measuring = kept_measuring(store, soak_id, look_id)
    return look_measuring_out(look, measuring)


@router.get(
    "/soaks/{soak_id}/looks/{look_id}/strip",
    responses={200: {"content": {"image/jpeg": {}}}},
    response_class=Response,
)
def get_look_strip(soak_id: Id, look_id: Id, store: Store) -> Response:
    """The blade of a look, cut out of its picture, rust laid over it."""
    strip = pictures.look_strip(store, soak_id, look_id)
    return Response(strip, media_type="image/jpeg", headers={"Cache-Control": "private, no-cache"})


@router.post("/soaks/{soak_id}/pictures")
def post_pictures(
    soak_id: Id,
    store: Store,
    photos: Annotated[list[UploadFile], File(max_length=most("files"))],
) -> list[SoakPictureOut]:
    """Lay pictures on a soak's time line, without their place of taking."""
    named = [NamedFile((each.filename or "picture")[:200], each.file.read()) for each in photos]
    shown = pictures.add_pictures(store, soak_id, named, now())
    soak = soak_sheet(store, soak_id, now()).soak
    return [soak_picture_out(each, soak) for each in shown]


@router.post("/soaks/{soak_id}/camera-pictures")
def post_camera_pictures(soak_id: Id, store: Store) -> TakenPicturesOut:
    """Lay what a camera wrote, and nothing shows yet, on the time line."""
    return TakenPicturesOut(pictures=pictures.take_from_camera(store, soak_id, now()))


@router.post("/soaks/{soak_id}/series")
def post_series(soak_id: Id, body: SeriesBody, store: Store, imports: ImportDesk) -> SeriesOut:
    """Measure the other pictures of the time line like one of them; watched and cancelled as an
    import is, and what was read by then stays.
    """
    with imports.working(body.import_id) as work:
        found = read_series(store, soak_id, body.picture, now(), work)
    left = [NotReadOut.showing(each) for each in found.not_read]
    return SeriesOut.showing(found, not_read=left)


@router.delete("/soaks/{soak_id}/pictures/{content_hash}", status_code=204)
def delete_picture(soak_id: Id, content_hash: PictureHash, store: Store) -> Response:
    """Take a picture off the time line that no look was read from."""
    pictures.delete_picture(store, soak_id, content_hash)
    return Response(status_code=204)


@router.get("/pictures/{content_hash}/outline")
def get_outline(content_hash: PictureHash, store: Store, look_id: ShortText = "") -> OutlineOut:
    """The blade's outline: proposed, or carried over from an earlier look."""
    if look_id:
        found = pictures.outline_carried(store, content_hash, look_id)
    else:
        found = pictures.outline_in(store, content_hash)
    return outline_out(found)


@router.post("/pictures/{content_hash}/outline")
def post_ends(content_hash: PictureHash, body: EndsBody, store: Store) -> OutlineOut:
    """The blade's outline between the two ends that were pressed; nothing is kept."""
    return outline_out(pictures.outline_in(store, content_hash, body.to_core()))


@router.post("/pictures/{content_hash}/rust")
def post_rust(
    content_hash: PictureHash, body: MeasuringBody, store: Store, earlier_look: ShortText = ""
) -> RustOut:
    """Measure rust in a picture; nothing is kept."""
    measuring = body.to_core()
    reading, new = pictures.measured_rust(store, content_hash, measuring, earlier_look)
    return rust_out(reading, measuring.threshold, new)


@router.get("/soaks/{soak_id}/looks.csv")
def get_looks_csv(soak_id: Id, store: Store) -> Response:
    """The looks of a soak as `*.looks.csv`."""
    soak, text = files.looks_csv(store, soak_id, now())
    return attached(text.encode(), "text/csv; charset=utf-8", f"{soak.name}.looks.csv")


@router.post("/soaks/{soak_id}/look-imports")
def post_look_import(
    soak_id: Id, store: Store, file: Annotated[UploadFile, File()]
) -> TakenLooksOut:
    """Keep the looks of a file, all or nothing; the same file twice is kept once."""
    named = NamedFile((file.filename or "file.looks.csv")[:200], file.file.read())
    return TakenLooksOut(looks=files.import_looks(store, soak_id, named, now()))


@router.get("/soaks/{soak_id}/calendar.ics")
def get_soak_calendar(soak_id: Id, store: Store) -> Response:
    """What is still to be done, as iCalendar."""
    soak, text = soak_calendar(store, soak_id, now())
    return attached(text, "text/calendar; charset=utf-8", f"{soak.name}.ics")


@router.get("/blades/{blade_id}/soaks")
def get_blade_soaks(blade_id: Id, store: Store) -> list[BladeSoakOut]:
    """What soaks say of a blade, a line a coupon."""
    sheets = sheets_of_blades(store, [blade_id], now()).get(blade_id, [])
    return blade_soaks_out(blade_id, sheets)


@router.get("/trials/{trial_id}/soaks")
def get_trial_soaks(trial_id: Id, store: Store) -> list[BladeInSoaksOut]:
    """What soaks say of the blades of a trial; nothing while the trial is blind."""
    return [
        BladeInSoaksOut(
            blade_id=blade.id,
            code=blade.code,
            mark=blade.mark,
            soaks=blade_soaks_out(blade.id, sheets),
        )
        for blade, sheets in soaks_beside_trial(store, trial_id, now())
    ]
