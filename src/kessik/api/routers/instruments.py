"""Instruments and their daily checks on a reference."""

from fastapi import APIRouter

from kessik.api.dependencies import AtHome, DeskDep, Store
from kessik.api.schemas.common import Id
from kessik.api.schemas.instruments import (
    InstrumentBody,
    InstrumentOut,
    ReferenceCheckBody,
    WaitingShotsOut,
)
from kessik.api.views.instruments import instrument_out
from kessik.core.devices import Instrument, ReferenceCheck
from kessik.services.clock import now
from kessik.services.devices import instruments, shots

router = APIRouter(tags=["instruments"])


@router.get("/instruments")
def get_instruments(store: Store, desk: DeskDep, at_home: AtHome) -> list[InstrumentOut]:
    """Every instrument, whether it is there now, and how it reads on its reference."""
    known = instruments.known_instruments(store)
    return [instrument_out(each, desk.status(each.instrument.id), at_home) for each in known]


@router.put("/instruments/{instrument_id}")
def put_instrument(
    instrument_id: Id, body: InstrumentBody, store: Store, desk: DeskDep, at_home: AtHome
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
    desk: DeskDep,
    at_home: AtHome,
) -> InstrumentOut:
    """Record the day's readings on the reference."""
    check = ReferenceCheck(
        check_id, instrument_id, tuple(body.readings), body.reference, body.note.strip(), now()
    )
    instruments.record_check(store, check)
    return _one(store, desk, instrument_id, at_home)


@router.put("/instruments/{instrument_id}/put-away", status_code=204)
def put_instrument_away(instrument_id: Id, store: Store, desk: DeskDep) -> None:
    """Unplug an instrument for good; its reference checks stay in the record."""
    instruments.archive(store, instrument_id, now().utc)
    desk.plug_in_all()


@router.get("/shots")
def get_shots(store: Store) -> list[WaitingShotsOut]:
    """The shots that wait to be used, file by file, oldest first."""
    return [WaitingShotsOut.showing(each) for each in shots.waiting_shots(store)]


@router.delete("/shots/{shots_id}", status_code=204)
def delete_shots(shots_id: Id, store: Store) -> None:
    """Put the shots of one file aside for good."""
    shots.put_shots_aside(store, shots_id)


def _one(store: Store, desk: DeskDep, instrument_id: str, at_home: bool) -> InstrumentOut:
    return next(each for each in get_instruments(store, desk, at_home) if each.id == instrument_id)
