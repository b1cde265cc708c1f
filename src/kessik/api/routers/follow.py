"""Following: what happens at a bench or an instrument, pushed as it happens."""

from collections.abc import AsyncIterator

from fastapi import APIRouter, Depends
from fastapi.sse import EventSourceResponse
from starlette.concurrency import run_in_threadpool

from kessik.api.dependencies import Store
from kessik.api.schemas.bench import NewsOut
from kessik.api.schemas.common import Id, Wire
from kessik.api.schemas.instruments import InstrumentNewsOut
from kessik.services.bench_side import news
from kessik.services.clock import now
from kessik.services.instrument_desk import InstrumentNews
from kessik.services.live import INSTRUMENTS, live_of, run_topic

router = APIRouter(tags=["follow"])


def _known_run(run_id: Id, store: Store) -> str:
    """The run is there: asked before the stream begins, so that what is wrong is said as a problem."""
    news(store, run_id, 0)
    return run_id


class FollowOut(Wire):
    """What just happened: news of the followed run, or of an instrument."""

    run: NewsOut | None = None
    instrument: InstrumentNewsOut | None = None


@router.get("/runs/{run_id}/follow", response_class=EventSourceResponse, dependencies=[Depends(_known_run)])
async def follow_run(run_id: Id, store: Store, after: int = 0) -> AsyncIterator[FollowOut]:
    """A run's log from behind a position on, and what instruments say, as server-sent events."""
    with live_of(store).listening(run_topic(run_id), INSTRUMENTS) as listener:
        stirred = True
        while True:
            told = [] if stirred else [await listener.messages.get()]
            while not listener.messages.empty():
                told.append(listener.messages.get_nowait())
            for message in told:
                if isinstance(message, InstrumentNews):
                    yield FollowOut(instrument=InstrumentNewsOut.of(message))
                else:
                    stirred = True
            if stirred:
                found = await run_in_threadpool(news, store, run_id, after)
                after = max([after, *(event.position for event in found.events)])
                stirred = False
                yield FollowOut(run=NewsOut.of(found, now().utc))


@router.get("/instruments/follow", response_class=EventSourceResponse)
async def follow_instruments(store: Store) -> AsyncIterator[FollowOut]:
    """What instruments say, as server-sent events."""
    with live_of(store).listening(INSTRUMENTS) as listener:
        while True:
            message = await listener.messages.get()
            if isinstance(message, InstrumentNews):
                yield FollowOut(instrument=InstrumentNewsOut.of(message))
