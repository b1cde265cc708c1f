"""The application: routers under /api, the built pages beside them."""

import asyncio
import logging
from collections.abc import AsyncIterator, Mapping
from contextlib import asynccontextmanager
from pathlib import Path
from typing import Any

from fastapi import FastAPI, Request
from fastapi.responses import FileResponse
from starlette.concurrency import run_in_threadpool
from starlette.exceptions import HTTPException
from starlette.responses import Response

from kessik import __version__
from kessik.api import problems
from kessik.api.gate import Gate
from kessik.api.intake import Intake
from kessik.api.links import add_links
from kessik.api.pages import pages as answer_pages
from kessik.api.routers import (
    bench,
    edges,
    follow,
    imports,
    instruments,
    methods,
    pairing,
    plans,
    reckoner,
    shelf,
    stock,
    trials,
    verdicts,
)  # fmt: skip  # a table is read by its rows
from kessik.api.routers.follow import make_run_news
from kessik.core.errors import KessikError
from kessik.services.devices.instrument_desk import desk_of, plug_in_all
from kessik.services.devices.pairing import Pairing
from kessik.services.files.imports import Imports
from kessik.services.trials.answers import Answers
from kessik.services.trials.renewing import Renewing
from kessik.services.upkeep.keeping import look_after
from kessik.store.database import Database

_PARTS = (
    trials, methods, plans, bench, follow, imports, verdicts, shelf, edges, stock, instruments,
    pairing, reckoner,
)  # fmt: skip  # names, several a line
PAGES = Path(__file__).parent.parent / "web_dist"


class _Linked(FastAPI):
    """The application, whose contract says how one thing asked leads to the next."""

    def openapi(self) -> dict[str, Any]:
        if self.openapi_schema is None:
            add_links(super().openapi())
        return super().openapi()


def create_app(
    database: Database | None,
    pages: Path = PAGES,
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
        lifespan=_plugged_in,
    )
    app.state.database = database
    app.state.pairing = None if database is None else Pairing(database, lan_address)
    app.state.run_news = None if database is None else make_run_news(database)
    app.state.imports = Imports()
    app.state.renews = renews
    app.state.renewing = None if database is None else Renewing(database, "kessik.api.answering")
    app.state.answers = None if database is None else Answers(database, answer_pages())
    problems.install(app)
    for part in _PARTS:
        app.include_router(part.router, prefix="/api", responses=problems.RESPONSES)
    app.include_router(pairing.pages)
    app.add_middleware(Intake)
    app.add_middleware(Gate, pairing=app.state.pairing)
    files = _built_files(pages)

    @app.get("/api/{rest:path}", include_in_schema=False)
    def unknown(rest: str) -> Response:
        raise HTTPException(404, "there is nothing at this address")

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str, request: Request) -> Response:
        return _page(files, path)

    return app


@asynccontextmanager
async def _plugged_in(app: FastAPI) -> AsyncIterator[None]:
    """Instruments are plugged in while the application serves."""
    database: Database | None = app.state.database
    if database is None:
        yield
        return
    await run_in_threadpool(plug_in_all, database)
    if app.state.renews:
        app.state.renewing.start()
    upkeep = asyncio.create_task(_look_after(database))
    try:
        yield
    finally:  # a server that is hurried does not wait here for anything
        upkeep.cancel()
        app.state.renewing.close()
        desk_of(database).close()


async def _look_after(database: Database) -> None:
    """What is done by itself while the server lives, once an hour; a disk that is full does not end
    it.
    """
    while True:
        try:
            await run_in_threadpool(look_after, database)
        except KessikError as failed:
            logging.getLogger("kessik").error("the daily backup was not made: %s", failed)
        await asyncio.sleep(3600)


def _built_files(pages: Path) -> Mapping[str, Path]:
    """The built files by their address: what is not among them is never looked for on the disk."""
    return {path.relative_to(pages).as_posix(): path for path in pages.rglob("*") if path.is_file()}


def _page(files: Mapping[str, Path], path: str) -> Response:
    """A built file, or the page itself for any place inside it."""
    wanted = files.get(path)
    if wanted is not None:
        lasting = (
            "public, max-age=31536000, immutable" if path.startswith("assets/") else "no-cache"
        )
        return FileResponse(wanted, headers={"Cache-Control": lasting})
    if "." in path.rsplit("/", 1)[-1]:
        raise HTTPException(404, "there is no such file")
    start = files.get("index.html")
    if start is None:
        raise HTTPException(503, "the pages are not built; run `make build`")
    return FileResponse(start, headers={"Cache-Control": "no-cache"})
