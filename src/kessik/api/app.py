"""The application: routers under /api, the built pages beside them."""

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from typing import Any

from fastapi import FastAPI
from starlette.exceptions import HTTPException
from starlette.responses import Response

from kessik import __version__
from kessik.api import problems
from kessik.api.acting import Acting
from kessik.api.built_pages import BuiltPages
from kessik.api.gate import Gate
from kessik.api.house import House
from kessik.api.intake import Intake
from kessik.api.links import add_links
from kessik.api.routers import (
    assays,
    backups,
    bench,
    brine,
    changes,
    edges,
    follow,
    grades,
    imports,
    instruments,
    methods,
    pairing,
    paper,
    pictures,
    plans,
    reckoner,
    record,
    sheets,
    shelf,
    soaks,
    stock,
    trials,
    verdicts,
)  # fmt: skip  # a table is read by its rows
from kessik.store.database import Database

_PARTS = (
    trials, methods, plans, bench, follow, imports, verdicts, shelf, edges, stock, instruments,
    pairing, pictures, reckoner, brine, assays, grades, soaks,
    paper, record, backups, sheets, changes,
)  # fmt: skip  # names, several a line


class _Linked(FastAPI):
    """The application, whose contract says how one thing asked leads to the next."""

    def openapi(self) -> dict[str, Any]:
        if self.openapi_schema is None:
            add_links(super().openapi())
        return super().openapi()


def create_app(
    database: Database | None,
    pages: BuiltPages | None = None,
    lan_address: str | None = None,
    renews: bool = True,
) -> FastAPI:
    """The whole application over one data folder; without a database only its contract can be read.

    With an address in the local network it answers there, too, to devices that were paired. It
    renews answers by itself while it serves, unless told not to.
    """
    app = _Linked(
        title="Kessik",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        lifespan=_opened,
    )
    house = None if database is None else House(database, lan_address, renews)
    app.state.house = house
    problems.install(app)
    for part in _PARTS:
        app.include_router(part.router, prefix="/api", responses=problems.RESPONSES)
    app.include_router(pairing.pages)
    if house is not None:
        app.add_middleware(Acting, changes=house.changes)
    app.add_middleware(Intake)
    app.add_middleware(Gate, guests=house.pairing if house else None)
    built = pages or BuiltPages()

    @app.get("/api/{rest:path}", include_in_schema=False)
    def unknown(rest: str) -> Response:
        raise HTTPException(404, "there is nothing at this address")

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str) -> Response:
        found = built.response(path)
        if found is None and not built.are_built:
            raise HTTPException(503, "the pages are not built; run `make build`")
        if found is None:
            raise HTTPException(404, "there is no such file")
        return found

    return app


@asynccontextmanager
async def _opened(app: FastAPI) -> AsyncIterator[None]:
    """The house is open while the application serves."""
    house: House | None = app.state.house
    if house is None:
        yield
        return
    async with house.opened():
        yield
