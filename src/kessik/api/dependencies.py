"""What the routers are handed."""

from typing import Annotated

from fastapi import Depends, Request

from kessik.store.database import Database


def _database(request: Request) -> Database:
    database: Database = request.app.state.database
    return database


Store = Annotated[Database, Depends(_database)]
