"""Sides of a soak graded again without names, and a soak among all others."""

from fastapi import APIRouter, Response

from kessik.api.dependencies import Store
from kessik.api.schemas.common import Id
from kessik.api.schemas.soak_passes import (
    AmongSoaksOut,
    BlindGradeBody,
    BlindPassOut,
    LaidOutOut,
)
from kessik.api.views.soak_passes import among_out, blind_pass_out, laid_out_out
from kessik.services.clock import now
from kessik.services.soaks.among import among_soaks
from kessik.services.soaks.blind import grade_blind, open_pass, picture_to_grade

router = APIRouter(tags=["soaks"])


@router.get("/soaks/{soak_id}/among")
def get_among(soak_id: Id, store: Store) -> AmongSoaksOut:
    """Where its steels stand among those of other soaks."""
    return among_out(among_soaks(store, soak_id, now()))


@router.get("/soaks/{soak_id}/passes/{pass_id}")
def get_pass(soak_id: Id, pass_id: Id, store: Store) -> BlindPassOut:
    """The sides of a round in an order that tells nothing; nothing is kept by asking."""
    return blind_pass_out(open_pass(store, soak_id, pass_id, now()))


@router.put("/soaks/{soak_id}/passes/{pass_id}/{number}")
def put_grade(
    soak_id: Id, pass_id: Id, number: int, body: BlindGradeBody, store: Store
) -> BlindPassOut:
    """Keep the grade of one side; given again, the later one counts."""
    found = grade_blind(store, soak_id, pass_id, number, body.grade, body.seen_by, now())
    return blind_pass_out(found)


@router.get(
    "/soaks/{soak_id}/passes/{pass_id}/{number}/picture",
    responses={200: {"content": {"image/jpeg": {}}}},
    response_class=Response,
)
def get_picture_to_grade(soak_id: Id, pass_id: Id, number: int, store: Store) -> Response:
    """The blade of one side, with nothing laid over it."""
    shown = picture_to_grade(store, open_pass(store, soak_id, pass_id, now()), number)
    return Response(shown, media_type="image/jpeg", headers={"Cache-Control": "private, no-cache"})


@router.get("/soaks/{soak_id}/passes/{pass_id}/laid-out/names")
def get_laid_out(soak_id: Id, pass_id: Id, store: Store) -> list[LaidOutOut]:
    """What lies at which number, for whoever lays the coupons out."""
    return laid_out_out(open_pass(store, soak_id, pass_id, now()))
