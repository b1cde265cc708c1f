"""The guided practice: begun, taken step by step, and deleted without a trace; on this machine
alone.
"""

from fastapi import APIRouter, Depends
from starlette.concurrency import run_in_threadpool

from kessik.api.dependencies import Served, at_home
from kessik.api.practice_place import PracticePlace
from kessik.api.schemas.practice import PracticeOut
from kessik.api.views.practice import practice_out
from kessik.core.errors import NotAllowedNowError, UnknownError
from kessik.core.trials.practice import PracticeStepKind
from kessik.services.bench.bench import Bench
from kessik.services.clock import now
from kessik.services.practice.first_trial import make_practice
from kessik.services.practice.steps import practice_stands, take_step

router = APIRouter(tags=["practice"])


@router.get("/practice")
async def get_practice(server: Served) -> PracticeOut | None:
    """Where the practice stands; null where none was begun."""
    bench = await server.practice.bench()
    return await _standing(server.practice, bench) if bench else None


@router.post("/practice", dependencies=[Depends(at_home)])
async def post_practice(server: Served) -> PracticeOut | None:
    """Begin the practice, or go on with it; twice begins one."""
    if server.in_practice:
        raise NotAllowedNowError("this is the practice already", field="practice")
    bench = await server.practice.begun()
    await run_in_threadpool(make_practice, bench, now())
    return await _standing(server.practice, bench)


@router.post("/practice/steps/{kind}", dependencies=[Depends(at_home)])
async def post_practice_step(kind: PracticeStepKind, server: Served) -> PracticeOut | None:
    """Let the virtual bench do its part of a step; nothing where the practice is beyond it."""
    place = server.practice
    bench = await place.bench()
    if bench is None:
        raise UnknownError("there is no practice; begin one on Today", field="practice")
    if place.runs_cut is not None:
        raise NotAllowedNowError("the virtual bench is cutting already", field="practice")
    place.runs_cut = (0, 0)

    def told(done: int, of: int) -> None:
        place.runs_cut = (done, of)

    try:
        await run_in_threadpool(take_step, bench, kind, now(), told)
    finally:
        place.runs_cut = None
    return await _standing(place, bench)


@router.delete("/practice", status_code=204, dependencies=[Depends(at_home)])
async def delete_practice(server: Served) -> None:
    """Delete the practice with all that is in it; not while the virtual bench is cutting."""
    if server.practice.runs_cut is not None:
        raise NotAllowedNowError("wait until the virtual bench has cut", field="practice")
    await server.practice.delete()


async def _standing(place: PracticePlace, bench: Bench) -> PracticeOut | None:
    stands = await run_in_threadpool(practice_stands, bench)
    return practice_out(stands, place.runs_cut) if stands else None
