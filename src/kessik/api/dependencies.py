"""What the routers are handed, out of the house that serves."""

from typing import Annotated

from fastapi import Depends, Request

from kessik.api.house import House
from kessik.core.errors import NotHereError
from kessik.services.bench.bench import Bench
from kessik.services.devices.instrument_desk import Desk
from kessik.services.devices.pairing import Pairing
from kessik.services.files.imports import Imports
from kessik.services.trials.answers import Answers
from kessik.store.database import Database

# All of them async, though they wait for nothing: a plain function would cost every tap a second
# trip through the thread pool.


async def _house(request: Request) -> House:
    house: House = request.app.state.house
    return house


Served = Annotated[House, Depends(_house)]


async def _database(house: Served) -> Database:
    return house.database


async def _bench(house: Served) -> Bench:
    return house.bench


async def _desk(house: Served) -> Desk:
    return house.desk


async def _pairing(house: Served) -> Pairing:
    return house.pairing


async def _imports(house: Served) -> Imports:
    return house.imports


async def _answers(house: Served) -> Answers:
    return house.answers


async def is_at_home(request: Request) -> bool:
    """Whether this machine itself asks, and not a device of the network."""
    return bool(request.state.at_home)


async def at_home(request: Request) -> None:
    """Only this machine itself may ask; NotHereError for a device of the network."""
    if not request.state.at_home:
        raise NotHereError("do this on the computer that serves")


Store = Annotated[Database, Depends(_database)]
AtBench = Annotated[Bench, Depends(_bench)]
PluggedIn = Annotated[Desk, Depends(_desk)]
Gatekeeper = Annotated[Pairing, Depends(_pairing)]
Kept = Annotated[Answers, Depends(_answers)]
ImportDesk = Annotated[Imports, Depends(_imports)]
AtHome = Annotated[bool, Depends(is_at_home)]
