"""Instruments and their daily checks on a reference."""

from fastapi import APIRouter, Response

from kessik.api.dependencies import AtHome, PluggedIn, Store
from kessik.api.schemas.common import Id, PictureHash
from kessik.api.schemas.instruments import InstrumentBody, InstrumentOut, ReferenceCheckBody
from kessik.core.devices import Instrument, ReferenceCheck
from kessik.core.errors import UnknownError
from kessik.interchange.photos import media_type_of
from kessik.services.clock import now
from kessik.services.devices import instruments
from kessik.store.photo_files import photo_path

router = APIRouter(tags=["instruments"])


@router.get("/instruments")
def get_instruments(store: Store, desk: PluggedIn, at_home: AtHome) -> list[InstrumentOut]:
    """Every instrument, whether it is there now, and how it reads on its reference."""
    known = instruments.known_instruments(store)
    return [InstrumentOut.of(each, desk.status(each.instrument.id), at_home) for each in known]


@router.put("/instruments/{instrument_id}")
def put_instrument(
    instrument_id: Id, body: InstrumentBody, store: Store, desk: PluggedIn, at_home: AtHome
) -> InstrumentOut:
    """Keep an instrument under a client-made id, and plug it in."""
    wanted = Instrument(**{**body.model_dump(), "id": instrument_id})
    instruments.save_instrument(store, wanted, at_home=at_home)
    desk.plug_in_all()
    return _one(store, desk, instrument_id, at_home)


@router.put("/instruments/{instrument_id}/reference-checks/{check_id}")
def put_reference_check(
    instrument_id: Id,
    check_id: Id,
    body: ReferenceCheckBody,
    store: Store,
    desk: PluggedIn,
    at_home: AtHome,
) -> InstrumentOut:
    """Record the day's readings on the reference."""
    check = ReferenceCheck(
        check_id, instrument_id, tuple(body.readings), body.reference, body.note.strip(), now()
    )
    instruments.record_check(store, check)
    return _one(store, desk, instrument_id, at_home)


@router.put("/instruments/{instrument_id}/put-away", status_code=204)
def put_instrument_away(instrument_id: Id, store: Store, desk: PluggedIn) -> None:
    """Unplug an instrument for good; its reference checks stay in the record."""
    instruments.put_away(store, instrument_id, now().utc)
    desk.plug_in_all()


@router.get(
    "/pictures/{picture}", responses={200: {"content": {"image/*": {}}}}, response_class=Response
)
def get_picture(picture: PictureHash, store: Store) -> Response:
    """A picture that a camera took at the bench, by the hash of its content."""
    path = photo_path(store.folder, picture)
    if not path.is_file():
        raise UnknownError("there is no such picture", field="picture")
    data = path.read_bytes()
    return Response(
        data, media_type=media_type_of(data), headers={"Cache-Control": "private, max-age=31536000"}
    )


def _one(store: Store, desk: PluggedIn, instrument_id: str, at_home: bool) -> InstrumentOut:
    return next(each for each in get_instruments(store, desk, at_home) if each.id == instrument_id)
