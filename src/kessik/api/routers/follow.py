"""Following: what happens at a bench or an instrument, pushed as it happens, as server-sent
events.
"""

import asyncio
from collections.abc import AsyncIterator

from fastapi import APIRouter, Depends, Request
from starlette.responses import StreamingResponse

from kessik.api.dependencies import Store
from kessik.api.schemas.bench import NewsOut
from kessik.api.schemas.common import Id, LogPosition, Wire
from kessik.api.schemas.instruments import InstrumentNewsOut
from kessik.services.bench.beside import news
from kessik.services.bench.live import DEVICES, INSTRUMENTS, Listener, live_of, run_topic
from kessik.services.bench.run_news import RunNews
from kessik.services.clock import now
from kessik.services.devices.instrument_desk import InstrumentNews
from kessik.store.database import Database

router = APIRouter(tags=["follow"])
_EVENTS = "text/event-stream"
_SIGN_OF_LIFE_S = 15.0
_AT_MOST_EVERY_S = 0.05
"""News of a hammering bench is gathered, so that who watches costs it nothing."""


class FollowOut(Wire):
    """What just happened: news of the followed run, or of an instrument."""

    run: NewsOut | None = None
    instrument: InstrumentNewsOut | None = None


_DESCRIBED: dict[int | str, dict[str, object]] = {
    200: {"model": FollowOut, "content": {_EVENTS: {}}}
}


def _known_run(run_id: Id, store: Store) -> str:
    """The run is there: asked before the stream begins, so that what is wrong is said as a
    problem.
    """
    news(store, run_id, 0)
    return run_id


@router.get(
    "/runs/{run_id}/follow",
    response_class=StreamingResponse,
    responses=_DESCRIBED,
    dependencies=[Depends(_known_run)],
)
async def follow_run(
    run_id: Id, store: Store, request: Request, after: LogPosition = 0
) -> StreamingResponse:
    """A run's log from behind a position on, and what instruments say."""
    return _stream(_run_events(run_id, store, request, after))


@router.get("/instruments/follow", response_class=StreamingResponse, responses=_DESCRIBED)
async def follow_instruments(store: Store, request: Request) -> StreamingResponse:
    """What instruments say."""
    return _stream(_instrument_events(store, request))


def make_run_news(store: Database) -> RunNews:
    """The one maker of news for all followers of a server."""

    def make(run_id: str, after: int) -> tuple[bytes, int]:
        found = news(store, run_id, after)
        reached = max([after, *(event.position for event in found.events)])
        return _event(FollowOut(run=NewsOut.of(found, now().utc))), reached

    return RunNews(make)


async def _run_events(
    run_id: str, store: Database, request: Request, after: int
) -> AsyncIterator[bytes]:
    maker: RunNews = request.app.state.run_news
    with live_of(store).listening(run_topic(run_id), INSTRUMENTS, DEVICES) as listener:
        told = after
        stirred = True
        while True:
            if stirred:
                data, after = await maker.since(run_id, after, told)
                yield data
                await asyncio.sleep(_AT_MOST_EVERY_S)
            messages = await _heard(listener, request)
            if messages is None:
                return
            stirred = False
            for message in messages:
                if isinstance(message, InstrumentNews):
                    yield _event(FollowOut(instrument=InstrumentNewsOut.of(message)))
                elif isinstance(message, int):
                    told, stirred = max(told, message), True
            if not messages:
                yield b": here\n\n"


async def _instrument_events(store: Database, request: Request) -> AsyncIterator[bytes]:
    with live_of(store).listening(INSTRUMENTS, DEVICES) as listener:
        yield b": here\n\n"
        while (messages := await _heard(listener, request)) is not None:
            for message in messages:
                if isinstance(message, InstrumentNews):
                    yield _event(FollowOut(instrument=InstrumentNewsOut.of(message)))
            if not messages:
                yield b": here\n\n"


async def _heard(listener: Listener, request: Request) -> list[object] | None:
    """What was told since, or nothing after a while of silence; None where this device may no
    longer listen.
    """
    found: list[object] = []
    try:
        found.append(await asyncio.wait_for(listener.messages.get(), _SIGN_OF_LIFE_S))
        while not listener.messages.empty():
            found.append(listener.messages.get_nowait())
    except TimeoutError:
        pass
    return found if _is_still_let_in(request) else None


def _is_still_let_in(request: Request) -> bool:
    if request.state.at_home:
        return True
    pairing, session = request.app.state.pairing, request.state.session
    return pairing is not None and session is not None and pairing.knows(session)


def _event(content: FollowOut) -> bytes:
    return f"data: {content.model_dump_json()}\n\n".encode()


def _stream(events: AsyncIterator[bytes]) -> StreamingResponse:
    headers = {"Cache-Control": "no-store", "X-Accel-Buffering": "no"}
    return StreamingResponse(events, media_type=_EVENTS, headers=headers)
