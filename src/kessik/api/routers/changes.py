"""What was done last is undone."""

from fastapi import APIRouter, Response

from kessik.api.dependencies import Served
from kessik.api.schemas.common import Id

router = APIRouter(tags=["changes"])


@router.post("/changes/{change_id}/undone", status_code=204)
def post_undone(change_id: Id, house: Served) -> Response:
    """Take back what an act changed; a write names its change in the header `Kessik-Change`."""
    house.changes.undo(house.database, change_id)
    house.bench.logs.forget_all()
    house.desk.plug_in_all()  # an instrument may be another one again
    return Response(status_code=204)
