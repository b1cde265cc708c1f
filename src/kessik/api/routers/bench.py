"""Runs and the bench log."""

from zlib import crc32

from fastapi import APIRouter, Response

from kessik.api.dependencies import AtBench, DeskDep, InPractice
from kessik.api.schemas.bench import (
    AckOut,
    NewsOut,
    OtherBladeOut,
    RunBody,
    RunOut,
    StockLeftOut,
)  # fmt: skip  # a table is read by its rows
from kessik.api.schemas.common import Id, LogPosition
from kessik.api.schemas.events import EventBody, EventOut, event_of
from kessik.api.views.bench import (
    CHECKS_ACKNOWLEDGED,
    news_out,
    open_state,
    run_out,
    seen_events,
)
from kessik.api.views.events import event_out
from kessik.core.runs import Run
from kessik.interchange.log_csv import write_log
from kessik.services.bench import beside, runs, virtual_line
from kessik.services.bench.bench import Bench
from kessik.services.bench.found import run_found
from kessik.services.bench.runs import RunView
from kessik.services.clock import now
from kessik.services.files.trial_export import slug

router = APIRouter(tags=["bench"])


def _out(bench: Bench, view: RunView) -> RunOut:
    has_found = view.state.status in ("stopped", "abandoned") and not view.is_covered
    return run_out(view, run_found(bench.db, view) if has_found else None)


@router.put("/trials/{trial_id}/runs/{run_id}")
def put_run(
    trial_id: Id, run_id: Id, body: RunBody, bench: AtBench, in_practice: InPractice
) -> RunOut:
    """Start a run on an edge under a client-made id."""
    seed = body.practice_seed if body.practice_seed is not None else crc32(run_id.encode())
    run = Run(
        id=run_id,
        trial_id=trial_id,
        edge_id=body.edge_id,
        number=1,
        started=now(),
        practice=body.practice,
        practice_seed=seed if body.practice or in_practice else None,
        zone_from_mm=body.zone_from_mm,
        zone_to_mm=body.zone_to_mm,
        operator=body.operator.strip(),
        verifies_run_id=body.verifies_run_id,
        after_strop_of=body.after_strop_of,
    )
    return _out(bench, runs.start_run(bench, run, body.insist_on_lot))


@router.get("/runs/{run_id}", response_model=RunOut)
def get_run(run_id: Id, bench: AtBench) -> Response:
    """A run with its state and log."""
    return Response(
        _out(bench, runs.run_view(bench, run_id)).model_dump_json(), media_type="application/json"
    )


@router.put("/runs/{run_id}/events/{event_id}", response_model=AckOut)
def put_event(run_id: Id, event_id: Id, body: EventBody, bench: AtBench) -> Response:
    """Take one event; answered only once it is on disk. The same event twice is one event."""
    event = event_of(body, event_id)
    ack = runs.append_event(bench, run_id, event, now().utc)
    # A plan in an acknowledgement never says why: the bench has that from the plan itself, where it
    # may be seen.
    state = open_state(ack.state, True, event.last_seen_position, CHECKS_ACKNOWLEDGED)
    answer = AckOut(position=ack.position, duplicate=ack.duplicate, state=state)
    # Written here once: FastAPI would take the answer apart and check it a second time, on every
    # tap.
    return Response(answer.model_dump_json(), media_type="application/json")


@router.post("/runs/{run_id}/plan")
def post_plan(run_id: Id, bench: AtBench, after: LogPosition = 0) -> NewsOut:
    """Plan the next check if readings came in since; what the tester is told is logged. Answers
    with the news.
    """
    runs.plan_check(bench, run_id, now().utc)
    return news_out(beside.news(bench, run_id, after), now().utc)


@router.get("/runs/{run_id}/news")
def get_news(run_id: Id, bench: AtBench, after: LogPosition = 0) -> NewsOut:
    """What changed at a run behind a log position: for whoever follows and lacks something."""
    return news_out(beside.news(bench, run_id, after), now().utc)


@router.get("/runs/{run_id}/log")
def get_whole_log(run_id: Id, bench: AtBench) -> list[EventOut]:
    """Every event of a run, oldest first."""
    view = runs.run_view(bench, run_id)
    return [event_out(event) for event in seen_events(view.events, view.state, bool(view.sealed))]


@router.get("/runs/{run_id}/other-blade")
def get_other_blade(run_id: Id, bench: AtBench) -> OtherBladeOut | None:
    """The blade that takes its turn after this run's; null where no other has its turn."""
    found = beside.other(bench, run_id)
    return OtherBladeOut.showing(found) if found else None


@router.get("/runs/{run_id}/stock")
def get_stock(run_id: Id, bench: AtBench) -> list[StockLeftOut]:
    """What is left of the lots the run takes from."""
    return [StockLeftOut.showing(left) for left in beside.stock_left(bench, run_id)]


@router.get("/runs/{run_id}/log.csv", responses={200: {"content": {"text/csv": {}}}})
def get_log(run_id: Id, bench: AtBench) -> Response:
    """The run's log as a table, one row an event, corrections beside what they changed."""
    view = runs.run_view(bench, run_id)
    name = f"{view.shown_as} edge {view.edge.number} run {view.run.number}"
    head = {"Content-Disposition": f'attachment; filename="{slug(name)}.log.csv"'}
    return Response(
        write_log(seen_events(view.events, view.state, bool(view.sealed))),
        media_type="text/csv",
        headers=head,
    )


@router.post("/runs/{run_id}/virtual-reading", status_code=204)
def post_virtual_reading(run_id: Id, bench: AtBench, desk: DeskDep) -> None:
    """Pull the virtual test line, in a run of the virtual bench. The reading comes as any
    instrument's does.
    """
    virtual_line.pull_line(bench, desk, run_id)
