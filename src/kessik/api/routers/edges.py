"""Edges: sharpenings recorded and changed, their zones, damage and the tester's word on them."""

from dataclasses import replace

from fastapi import APIRouter, Response

from kessik.api.dependencies import Store
from kessik.api.schemas.common import Id
from kessik.api.schemas.edges import EdgeBody, EdgeOut
from kessik.api.views.edges import edge_out
from kessik.core.shelf.edges import Edge
from kessik.services.clock import now
from kessik.services.shelf import sharpenings
from kessik.services.shelf.blades import get_blade
from kessik.store.database import Database

router = APIRouter(tags=["edges"])


@router.put("/blades/{blade_id}/edges/{edge_id}")
def put_edge(blade_id: Id, edge_id: Id, body: EdgeBody, store: Store) -> EdgeOut:
    """Record a sharpening, or change what is known of one; what is not sent stays as it is."""
    return _save(store, blade_id, edge_id, body)


@router.put("/trials/{trial_id}/blades/{blade_id}/edges/{edge_id}")
def put_edge_in_trial(
    trial_id: Id, blade_id: Id, edge_id: Id, body: EdgeBody, store: Store
) -> EdgeOut:
    """The same for a blade that must be in this trial."""
    return _save(store, blade_id, edge_id, body, trial_id)


@router.delete("/blades/{blade_id}/edges/{edge_id}", status_code=204)
def delete_edge(blade_id: Id, edge_id: Id, store: Store) -> Response:
    """Take back an edge recorded by mistake; not once it was cut."""
    sharpenings.delete_edge(store, blade_id, edge_id)
    return Response(status_code=204)


def _save(
    store: Database, blade_id: str, edge_id: str, body: EdgeBody, trial_id: str | None = None
) -> EdgeOut:
    with store.read() as session:
        blade = get_blade(session, blade_id)
    known = next((edge for edge in blade.edges if edge.id == edge_id), None)
    after = max((edge.number for edge in blade.edges), default=0) + 1
    start = known or Edge(edge_id, blade_id, body.number or after)
    edge = replace(start, number=body.number or start.number, **body.changes())
    saved = sharpenings.save_edge(store, edge, body.sent_values(), now(), inside=trial_id)
    with store.read() as session:
        return edge_out(saved, get_blade(session, blade_id))
