"""Plans played on the virtual bench."""

from fastapi import APIRouter, Depends
from starlette.concurrency import run_in_threadpool

from kessik.api.dependencies import ImportDesk, Served, Store, at_home
from kessik.api.schemas.common import Id
from kessik.api.schemas.played import OpenedOut, PlayedOut, StatedBody
from kessik.api.views.played import played_out
from kessik.services.clock import now
from kessik.services.practice.played import Stated, open_played

router = APIRouter(tags=["plan"])


@router.post("/trials/{trial_id}/plan/played")
def post_played(
    trial_id: Id, body: StatedBody, store: Store, server: Served, imports: ImportDesk
) -> PlayedOut:
    """Play the saved plan of a trial; watched and cancelled under the client-made id."""
    stated = Stated(
        body.lives,
        body.edge_spread_percent,
        body.reading_scatter_percent,
        body.trials,
        body.seed,
    )
    with imports.working(body.id) as work:
        played = server.played.play(store, trial_id, stated, body.id, work)
    return played_out(body.id, played)


@router.post("/played/{play_id}/{number}", dependencies=[Depends(at_home)])
async def post_opened(play_id: Id, number: int, server: Served) -> OpenedOut:
    """Open one trial of a played plan as a full one, in the practice folder."""
    played, trial = server.played.trial(play_id, number)
    bench = server.bench if server.in_practice else await server.practice.begun()
    made = await run_in_threadpool(open_played, bench, play_id, played, trial, now())
    return OpenedOut(trial_id=made)
