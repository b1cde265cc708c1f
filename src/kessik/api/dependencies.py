"""What the routers are handed."""

from typing import Annotated

from fastapi import Depends, Request

from kessik.core.errors import NotHereError
from kessik.services.files.imports import Imports
from kessik.services.trials.answers import Answers
from kessik.store.database import Database


async def _database(request: Request) -> Database:
    # async, though it waits for nothing: a plain function would cost every tap a second trip
    # through the thread pool
    database: Database = request.app.state.database
    return database


async def _imports(request: Request) -> Imports:
    imports: Imports = request.app.state.imports
    return imports


async def _answers(request: Request) -> Answers:
    answers: Answers = request.app.state.answers
    return answers


async def is_at_home(request: Request) -> bool:
    """Whether this machine itself asks, and not a device of the network."""
    return bool(request.state.at_home)


async def at_home(request: Request) -> None:
    """Only this machine itself may ask; NotHereError for a device of the network."""
    if not request.state.at_home:
        raise NotHereError("this is done on the machine that serves")


Store = Annotated[Database, Depends(_database)]
Kept = Annotated[Answers, Depends(_answers)]
ImportDesk = Annotated[Imports, Depends(_imports)]
AtHome = Annotated[bool, Depends(is_at_home)]
