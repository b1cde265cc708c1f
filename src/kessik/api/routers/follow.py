"""Following: what happens at a bench or an instrument, pushed as it happens, as server-sent
events.
"""

import asyncio
from collections.abc import AsyncIterator

from fastapi import APIRouter, Depends, Request
from starlette.responses import StreamingResponse

from kessik.api.dependencies import Served
from kessik.api.following import FollowOut, as_event
from kessik.api.schemas.common import Id, LogPosition
from kessik.api.schemas.instruments import InstrumentNewsOut
from kessik.api.server_context import ServerContext
from kessik.services.bench.beside import news
from kessik.services.devices.instrument_desk import InstrumentNews
from kessik.services.live import DEVICES, INSTRUMENTS, Listener, run_topic

router = APIRouter(tags=["follow"])
_EVENTS = "text/event-stream"
_SIGN_OF_LIFE_S = 15.0
_AT_MOST_EVERY_S = 0.05
"""News of a hammering bench is gathered, so that who watches costs it nothing."""


_DESCRIBED: dict[int | str, dict[str, object]] = {
    200: {"model": FollowOut, "content": {_EVENTS: {}}}
}


def _known_run(run_id: Id, server: Served) -> str:
    """The run is there: asked before the stream begins, so that what is wrong is said as a
    problem.
    """
    news(server.bench, run_id, 0)
    return run_id


@router.get(
    "/runs/{run_id}/follow",
    response_class=StreamingResponse,
    responses=_DESCRIBED,
    dependencies=[Depends(_known_run)],
)
async def follow_run(
    run_id: Id, server: Served, request: Request, after: LogPosition = 0
) -> StreamingResponse:
    """A run's log from behind a position on, and what instruments say."""
    return _stream(_run_events(run_id, server, request, after))


@router.get("/instruments/follow", response_class=StreamingResponse, responses=_DESCRIBED)
async def follow_instruments(server: Served, request: Request) -> StreamingResponse:
    """What instruments say."""
    return _stream(_instrument_events(server, request))


async def _run_events(
    run_id: str, server: ServerContext, request: Request, after: int
) -> AsyncIterator[bytes]:
    with server.bench.live.listening(run_topic(run_id), INSTRUMENTS, DEVICES) as listener:
        told = after
        stirred = True
        while True:
            if stirred:
                data, after = await server.run_news.since(run_id, after, told)
                yield data
                await asyncio.sleep(_AT_MOST_EVERY_S)
            messages = await _heard(listener, server, request)
            if messages is None:
                return
            stirred = False
            for message in messages:
                if isinstance(message, InstrumentNews):
                    yield as_event(FollowOut(instrument=InstrumentNewsOut.showing(message)))
                elif isinstance(message, int):
                    told, stirred = max(told, message), True
            if not messages:
                yield b": here\n\n"


async def _instrument_events(server: ServerContext, request: Request) -> AsyncIterator[bytes]:
    with server.bench.live.listening(INSTRUMENTS, DEVICES) as listener:
        yield b": here\n\n"
        while (messages := await _heard(listener, server, request)) is not None:
            for message in messages:
                if isinstance(message, InstrumentNews):
                    yield as_event(FollowOut(instrument=InstrumentNewsOut.showing(message)))
            if not messages:
                yield b": here\n\n"


async def _heard(
    listener: Listener, server: ServerContext, request: Request
) -> list[object] | None:
    """What was told since, or nothing after a while of silence; None where this device may no
    longer listen, which may have happened before it began to.
    """
    if not _is_still_let_in(server, request):
        return None
    found: list[object] = []
    try:
        found.append(await asyncio.wait_for(listener.messages.get(), _SIGN_OF_LIFE_S))
        while not listener.messages.empty():
            found.append(listener.messages.get_nowait())
    except TimeoutError:
        pass
    return found if _is_still_let_in(server, request) else None


def _is_still_let_in(server: ServerContext, request: Request) -> bool:
    if request.state.at_home:
        return True
    session = request.state.session
    return session is not None and server.pairing.knows(session)


def _stream(events: AsyncIterator[bytes]) -> StreamingResponse:
    headers = {"Cache-Control": "no-store", "X-Accel-Buffering": "no"}
    return StreamingResponse(events, media_type=_EVENTS, headers=headers)
