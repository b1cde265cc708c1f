"""What is put right later: the record of a trial, its runs, and the bin."""

from typing import Annotated

from fastapi import APIRouter, Depends, Query, Response

from kessik.api.dependencies import AtBench, Store, only_with
from kessik.api.schemas.common import Id
from kessik.api.schemas.record import (
    AnsweredOut,
    BinnedOut,
    ComparedOut,
    DependentsOut,
    RunPatch,
    StrikeOutBody,
    StruckOutOut,
    TakeAwayBody,
    TrialRecordOut,
    WithoutBody,
)
from kessik.api.views.record import binned_out, trial_record_out
from kessik.core.bin import Deletable
from kessik.services.clock import now
from kessik.services.record import bin as the_bin
from kessik.services.record.excluding import exclude, lives_under, looked_without
from kessik.services.record.runs import change_run
from kessik.services.record.trials import trial_record

router = APIRouter(tags=["record"])


@router.get("/trials/{trial_id}/record")
def get_record(trial_id: Id, store: Store) -> TrialRecordOut:
    """Every run of a trial, and every trace of what was put right."""
    return trial_record_out(trial_record(store, trial_id))


@router.patch("/runs/{run_id}", status_code=204)
def patch_run(run_id: Id, body: RunPatch, bench: AtBench) -> Response:
    """Put right what is said of a run; its log stays as it is. The same `trace_id` twice is one
    change.
    """
    change_run(bench, run_id, body.changes(), body.reason, body.trace_id, now())
    return Response(status_code=204)


@router.post("/trials/{trial_id}/looks-without")
def post_look_without(trial_id: Id, body: WithoutBody, store: Store) -> ComparedOut:
    """What the answer would be without some readings or runs; nothing is stored."""
    return ComparedOut.showing(looked_without(store, trial_id, body.event_ids, body.run_ids))


@router.get("/trials/{trial_id}/lives-under")
def get_lives_under(
    trial_id: Id, store: Store, limit_gf: Annotated[float, Query(allow_inf_nan=False)]
) -> AnsweredOut:
    """How long each blade stays under any force, gf."""
    return AnsweredOut.showing(lives_under(store, trial_id, limit_gf))


@router.post("/trials/{trial_id}/strikes")
def post_strikes(trial_id: Id, body: StrikeOutBody, bench: AtBench) -> StruckOutOut:
    """Strike readings out, and let the edges of runs not count, with a reason."""
    made = exclude(bench, trial_id, body.event_ids, body.run_ids, body.reason, now())
    return StruckOutOut(strike_ids=made)


@router.get("/bin")
def get_bin(store: Store) -> list[BinnedOut]:
    """What was taken away, the newest first."""
    return [binned_out(entry) for entry in the_bin.in_bin(store)]


@router.get("/hangs-on/{kind}/{owner_id}", include_in_schema=False)  # its earlier name
@router.get("/dependents/{kind}/{owner_id}")
def get_dependents(kind: Deletable, owner_id: Id, store: Store) -> DependentsOut:
    """What would go into the bin with a thing."""
    name, holds = the_bin.dependents(store, kind, owner_id)
    return DependentsOut(name=name, holds=holds)


@router.put("/bin/{bin_id}")
def put_into_bin(bin_id: Id, body: TakeAwayBody, bench: AtBench) -> BinnedOut:
    """Put a thing into the bin with all that hangs on it, under a client-made id."""
    entry = the_bin.move_to_bin(bench.db, bin_id, body.kind, body.owner_id, body.reason, now())
    bench.logs.clear()
    return binned_out(entry)


@router.put("/bin/{bin_id}/brought-back", dependencies=[Depends(only_with("bring_back"))])
def put_brought_back(bin_id: Id, bench: AtBench) -> BinnedOut:
    """Bring a thing back whole."""
    entry = the_bin.restore(bench.db, bin_id)
    bench.logs.clear()
    return binned_out(entry)


@router.delete(
    "/bin/{bin_id}", status_code=204, dependencies=[Depends(only_with("delete_for_good"))]
)
def delete_for_good(bin_id: Id, store: Store) -> Response:
    """Let a thing go for good."""
    the_bin.delete_for_good(store, bin_id)
    return Response(status_code=204)
