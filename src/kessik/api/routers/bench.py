"""Runs and the bench log."""

from zlib import crc32

from fastapi import APIRouter, Response

from kessik.api.dependencies import Store
from kessik.api.schemas.bench import AckOut, EventBody, RunBody, RunOut, StateOut, VirtualReadingOut
from kessik.api.schemas.common import Id
from kessik.services import bench, practice
from kessik.services.bench import RunView
from kessik.services.clock import now
from kessik.services.verdicts import run_words
from kessik.store.records import Run

router = APIRouter(tags=["bench"])


def _out(view: RunView) -> RunOut:
    ended = view.state.status in ("stopped", "abandoned")
    hidden = view.trial.is_blind and not view.run.practice
    found = "The run is kept; what it showed waits until the blades are uncovered." if hidden else None
    return RunOut.of(view, found or run_words(view) if ended else None)


@router.put("/trials/{trial_id}/runs/{run_id}")
def put_run(trial_id: Id, run_id: Id, body: RunBody, store: Store) -> RunOut:
    """Start a run on an edge under a client-made id."""
    seed = body.practice_seed if body.practice_seed is not None else crc32(run_id.encode())
    run = Run(
        id=run_id,
        trial_id=trial_id,
        edge_id=body.edge_id,
        number=1,
        started=now(),
        practice=body.practice,
        practice_seed=seed if body.practice else None,
        zone_from_mm=body.zone_from_mm,
        zone_to_mm=body.zone_to_mm,
        operator=body.operator.strip(),
        verifies_run_id=body.verifies_run_id,
    )
    return _out(bench.start_run(store, run, body.insist_on_lot))


@router.get("/runs/{run_id}")
def get_run(run_id: Id, store: Store) -> RunOut:
    """A run with its state and log."""
    return _out(bench.run_view(store, run_id))


@router.put("/runs/{run_id}/events/{event_id}", response_model=AckOut)
def put_event(run_id: Id, event_id: Id, body: EventBody, store: Store) -> Response:
    """Take one event; answered only once it is on disk. The same event twice is one event."""
    ack = bench.append_event(store, run_id, body.event(event_id), now().utc)
    answer = AckOut(position=ack.position, duplicate=ack.duplicate, state=StateOut.of(ack.state))
    # Written here once: FastAPI would take the answer apart and check it a second time, on every tap.
    return Response(answer.model_dump_json(), media_type="application/json")


@router.post("/runs/{run_id}/plan")
def post_plan(run_id: Id, store: Store) -> RunOut:
    """Plan the next check if readings came in since; what the tester is told is logged."""
    bench.plan_check(store, run_id, now().utc)
    return _out(bench.run_view(store, run_id))


@router.post("/runs/{run_id}/virtual-reading")
def post_virtual_reading(run_id: Id, store: Store) -> VirtualReadingOut:
    """What the virtual tester shows now; only in a practice run, and not recorded by itself."""
    return VirtualReadingOut(force_gf=practice.virtual_reading(store, run_id))
