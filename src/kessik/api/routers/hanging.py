"""What is noted of blades and grades: energies to break, hours wet without a soak, care."""

from typing import Annotated

from fastapi import APIRouter, File, Query, UploadFile

from kessik.api.dependencies import Store
from kessik.api.schemas.common import Finite, Id, ShortText
from kessik.api.schemas.hanging import (
    CareBody,
    CareOut,
    EnergyOut,
    FieldExposureBody,
    FieldExposureOut,
    ToughnessBody,
    ToughnessOut,
    ToughnessPlaceOut,
)
from kessik.api.schemas.shelf import StruckBody
from kessik.api.views.hanging import (
    care_out,
    energy_out,
    field_exposure_out,
    toughness_out,
    toughness_place_out,
)
from kessik.core.shelf.care import CareAct
from kessik.core.shelf.field_exposures import FieldExposure
from kessik.core.shelf.toughness import Toughness, pendulum_energy
from kessik.interchange.named_files import NamedFile
from kessik.services.clock import now
from kessik.services.shelf import hanging

router = APIRouter(tags=["shelf"])
Height = Annotated[Finite, Query()]


@router.get("/toughness")
def get_toughness(
    store: Store, blade_id: ShortText = "", grade: ShortText = ""
) -> ToughnessPlaceOut:
    """What is known of the toughness of a blade or a grade, with others of an alike test."""
    return toughness_place_out(hanging.toughness_place(store, blade_id, grade))


@router.put("/toughness/{toughness_id}")
def put_toughness(toughness_id: Id, body: ToughnessBody, store: Store) -> ToughnessOut:
    """Keep an energy to break; the same request twice keeps one."""
    return toughness_out(hanging.keep(store, body.to_core(id=toughness_id), now()))


@router.put("/toughness/{toughness_id}/struck")
def put_toughness_struck(toughness_id: Id, body: StruckBody, store: Store) -> ToughnessOut:
    """Leave it out with a reason, or let it count again."""
    return toughness_out(hanging.exclude(store, Toughness, toughness_id, body.reason, now()))


@router.post("/energy-of-curve")
def post_curve(file: Annotated[UploadFile, File()]) -> EnergyOut:
    """The energy under a force and deflection file; nothing is kept."""
    named = NamedFile((file.filename or "file.curve.csv")[:200], file.file.read())
    return energy_out(hanging.energy_of_file(named))


@router.get("/energy-of-pendulum")
def get_pendulum(
    mass_kg: Height, from_mm: Height, to_mm: Height, read_mm: Height = 1.0, lost_j: Height = 0.0
) -> EnergyOut:
    """The energy that a pendulum gave, from two heights; nothing is kept."""
    return energy_out(pendulum_energy(mass_kg, from_mm, to_mm, read_mm, lost_j))


@router.get("/blades/{blade_id}/exposures")
def get_exposures(blade_id: Id, store: Store) -> list[FieldExposureOut]:
    """The hours that a blade was wet without a soak."""
    return [field_exposure_out(e) for e in hanging.noted_of_blade(store, FieldExposure, blade_id)]


@router.put("/blades/{blade_id}/exposures/{exposure_id}")
def put_exposure(
    blade_id: Id, exposure_id: Id, body: FieldExposureBody, store: Store
) -> FieldExposureOut:
    """Keep hours wet without a soak; the same request twice keeps one."""
    found = body.to_core(id=exposure_id, blade_id=blade_id)
    return field_exposure_out(hanging.keep(store, found, now()))


@router.put("/exposures/{exposure_id}/struck")
def put_exposure_struck(exposure_id: Id, body: StruckBody, store: Store) -> FieldExposureOut:
    """Leave it out with a reason, or let it count again."""
    return field_exposure_out(
        hanging.exclude(store, FieldExposure, exposure_id, body.reason, now())
    )


@router.get("/blades/{blade_id}/care")
def get_care(blade_id: Id, store: Store) -> list[CareOut]:
    """What was done to a blade for its care."""
    return [care_out(act) for act in hanging.noted_of_blade(store, CareAct, blade_id)]


@router.put("/blades/{blade_id}/care/{care_id}")
def put_care(blade_id: Id, care_id: Id, body: CareBody, store: Store) -> CareOut:
    """Keep what was done; the same request twice keeps one."""
    act = body.to_core(id=care_id, blade_id=blade_id)
    return care_out(hanging.keep(store, act, now()))


@router.put("/care/{care_id}/struck")
def put_care_struck(care_id: Id, body: StruckBody, store: Store) -> CareOut:
    """Leave it out with a reason, or let it count again."""
    return care_out(hanging.exclude(store, CareAct, care_id, body.reason, now()))
