"""What the routers are handed."""

from typing import Annotated

from fastapi import Depends, Request

from kessik.store.database import Database


async def _database(request: Request) -> Database:
    # async, though it waits for nothing: a plain function would cost every tap a second trip through the thread pool
    database: Database = request.app.state.database
    return database


Store = Annotated[Database, Depends(_database)]
