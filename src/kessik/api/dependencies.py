"""What the routers are handed, out of the context of the server."""

from collections.abc import Awaitable, Callable
from typing import Annotated

from fastapi import Depends, Request

from kessik.api.server_context import ServerContext
from kessik.core.devices import Grant
from kessik.core.errors import NotHereError
from kessik.core.vocabulary import GRANTS
from kessik.services.bench.bench import Bench
from kessik.services.devices.instrument_desk import Desk
from kessik.services.devices.pairing import Pairing
from kessik.services.files.imports import Imports
from kessik.services.trials.answers import Answers
from kessik.store.database import Database

# All of them async, though they wait for nothing: a plain function would cost every tap a second
# trip through the thread pool.


async def _server(request: Request) -> ServerContext:
    server: ServerContext = request.app.state.server
    return server


Served = Annotated[ServerContext, Depends(_server)]


async def _database(server: Served) -> Database:
    return server.database


async def _bench(server: Served) -> Bench:
    return server.bench


async def _desk(server: Served) -> Desk:
    return server.desk


async def _pairing(server: Served) -> Pairing:
    return server.pairing


async def _imports(server: Served) -> Imports:
    return server.imports


async def _answers(server: Served) -> Answers:
    return server.answers


async def is_at_home(request: Request) -> bool:
    """Whether this machine itself asks, and not a device of the network."""
    return bool(request.state.at_home)


async def at_home(request: Request) -> None:
    """Only this machine itself may ask; NotHereError for a device of the network."""
    if not request.state.at_home:
        raise NotHereError("do this on the computer that runs Kessik")


def is_granted(request: Request, grant: Grant) -> bool:
    """Whether this machine itself asks, or a device that was granted it."""
    if request.state.at_home:
        return True
    server: ServerContext = request.app.state.server
    device = server.pairing.device(request.state.session or "")
    return device is not None and grant in device.grants


def only_with(grant: Grant) -> Callable[[Request], Awaitable[None]]:
    """A dependency that lets this machine through, and devices that were granted it; NotHereError
    for others.
    """

    async def checked(request: Request) -> None:
        if not is_granted(request, grant):
            raise NotHereError(
                f"this device may not {GRANTS[grant]}: do it on the computer that runs Kessik, or"
                " grant it there under Devices"
            )

    return checked


async def _undoes_others(request: Request) -> bool:
    return is_granted(request, "undo_others")


MayUndoOthers = Annotated[bool, Depends(_undoes_others)]
Store = Annotated[Database, Depends(_database)]
AtBench = Annotated[Bench, Depends(_bench)]
DeskDep = Annotated[Desk, Depends(_desk)]
Gatekeeper = Annotated[Pairing, Depends(_pairing)]
AnswersDep = Annotated[Answers, Depends(_answers)]
ImportDesk = Annotated[Imports, Depends(_imports)]


async def _in_practice(server: Served) -> bool:
    return server.in_practice


InPractice = Annotated[bool, Depends(_in_practice)]
"""Whether the folder is that of the guided practice, where every run is on the virtual bench."""
AtHome = Annotated[bool, Depends(is_at_home)]
