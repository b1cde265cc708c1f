"""What was done last is undone."""

from fastapi import APIRouter, Response

from kessik.api.dependencies import MayUndoOthers, Served
from kessik.api.schemas.common import Id

router = APIRouter(tags=["changes"])


@router.post("/changes/{change_id}/undone", status_code=204)
def post_undone(change_id: Id, server: Served, others: MayUndoOthers) -> Response:
    """Take back what an act changed; a write names its change in the header `Kessik-Change`. What
    another device did stays with the computer that serves, unless it was granted.
    """
    server.changes.undo(server.database, change_id, others=others)
    server.bench.logs.clear()
    server.desk.plug_in_all()  # an instrument may be another one again
    return Response(status_code=204)
