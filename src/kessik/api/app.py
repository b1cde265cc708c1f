"""The application: routers under /api, the built pages beside them."""

import asyncio
from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from typing import Any

from fastapi import FastAPI
from starlette.exceptions import HTTPException
from starlette.responses import Response

from kessik import __version__
from kessik.api import problems
from kessik.api.built_pages import BuiltPages
from kessik.api.change_recorder import ChangeRecorder
from kessik.api.gate import AccessGate
from kessik.api.intake import Intake
from kessik.api.later_parts import PREFIX, LaterParts
from kessik.api.links import add_links
from kessik.api.practice_place import PracticeDoor, PracticePlace
from kessik.api.routers import pairing, verdicts
from kessik.api.server_context import ServerContext
from kessik.store.database import Database

_LATER = (
    "trials", "methods", "plans", "bench", "follow", "imports", "shelf", "hanging", "edges",
    "stock", "instruments", "pictures", "reckoner", "brine", "assays", "grades", "soaks",
    "soak_passes", "paper", "record", "backups", "sheets", "standings", "packages", "reports",
    "choice", "suiting", "gauge", "practice", "played", "training", "changes",
)  # fmt: skip  # names, several a line
"""All that the first page of a server does not ask for."""


class _Linked(FastAPI):
    """The application, whose contract says how one thing asked leads to the next."""

    def openapi(self) -> dict[str, Any]:
        if self.openapi_schema is None:
            self.state.later.load_now()
            add_links(super().openapi())
        return super().openapi()


def create_app(
    database: Database | None,
    pages: BuiltPages | None = None,
    lan_address: str | None = None,
    renews: bool = True,
    at_once: bool = True,
    in_practice: bool = False,
) -> FastAPI:
    """The whole application over one data folder; without a database only its contract can be read.

    With an address in the local network it answers there, too, to devices that were paired. It
    renews answers by itself while it serves, unless told not to. `in_practice` it serves the folder
    of the guided practice. Where it need not be whole `at
    once`, what the first page does not ask for is loaded while it serves.
    """
    app = _Linked(
        title="Kessik",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        lifespan=_opened,
    )
    server = None
    if database is not None:
        practice = PracticePlace(
            database.folder / "practice",
            lambda opened: create_app(opened, renews=renews, in_practice=True),
        )
        server = ServerContext(database, lan_address, renews, in_practice, practice)
    app.state.server = server
    problems.install(app)
    for part in (verdicts, pairing):
        app.include_router(part.router, prefix=PREFIX, responses=problems.RESPONSES)
    later = LaterParts(app, _LATER)
    app.router.routes.append(later)
    app.state.later = later
    app.include_router(pairing.pages)
    if server is not None:
        app.add_middleware(ChangeRecorder, changes=server.changes, guests=server.pairing)
        if not in_practice:
            app.add_middleware(PracticeDoor, place=server.practice)
    app.add_middleware(Intake)
    app.add_middleware(AccessGate, guests=server.pairing if server else None)
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

    if at_once:
        later.load_now()
    return app


@asynccontextmanager
async def _opened(app: FastAPI) -> AsyncIterator[None]:
    """Opens what the server needs, and closes it when the application ends."""
    server: ServerContext | None = app.state.server
    if server is None:
        yield
        return
    later = asyncio.create_task(app.state.later.load_soon())
    async with server.opened():
        yield
    later.cancel()
