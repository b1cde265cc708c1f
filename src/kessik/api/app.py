"""The application: routers under /api, the built pages beside them."""

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path

from fastapi import FastAPI, Request
from fastapi.responses import FileResponse
from starlette.concurrency import run_in_threadpool
from starlette.exceptions import HTTPException
from starlette.responses import Response

from kessik import __version__
from kessik.api import problems
from kessik.api.gate import Gate
from kessik.api.routers import (
    bench,
    edges,
    follow,
    instruments,
    methods,
    pairing,
    plans,
    reckoner,
    shelf,
    stock,
    trials,
    verdicts,
)  # fmt: skip
from kessik.services.instrument_desk import desk_of, plug_in_all
from kessik.services.pairing import Pairing
from kessik.store.database import Database

PAGES = Path(__file__).parent.parent / "web_dist"


def create_app(database: Database | None, pages: Path = PAGES, lan_address: str | None = None) -> FastAPI:
    """The whole application over one data folder; without a database only its contract can be read.

    With an address in the local network it answers there, too, to devices that were paired.
    """
    app = FastAPI(
        title="Kessik",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        lifespan=_plugged_in,
    )
    app.state.database = database
    app.state.pairing = None if database is None else Pairing(database, lan_address)
    problems.install(app)
    for part in (trials, methods, plans, bench, follow, verdicts, shelf, edges, stock, instruments, pairing, reckoner):
        app.include_router(part.router, prefix="/api", responses=problems.RESPONSES)
    app.include_router(pairing.pages)
    app.add_middleware(Gate, pairing=app.state.pairing)

    @app.get("/api/{rest:path}", include_in_schema=False)
    def unknown(rest: str) -> Response:
        raise HTTPException(404, f"there is nothing at /api/{rest}")

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str, request: Request) -> Response:
        return _page(pages, path)

    return app


@asynccontextmanager
async def _plugged_in(app: FastAPI) -> AsyncIterator[None]:
    """Instruments are plugged in while the application serves."""
    database: Database | None = app.state.database
    if database is not None:
        await run_in_threadpool(plug_in_all, database)
    yield
    if database is not None:
        await run_in_threadpool(desk_of(database).close)


def _page(pages: Path, path: str) -> Response:
    """A built file, or the page itself for any place inside it."""
    wanted = (pages / path).resolve()
    if path and wanted.is_file() and wanted.is_relative_to(pages.resolve()):
        lasting = "public, max-age=31536000, immutable" if path.startswith("assets/") else "no-cache"
        return FileResponse(wanted, headers={"Cache-Control": lasting})
    if "." in path.rsplit("/", 1)[-1]:
        raise HTTPException(404, f"there is no file {path}")
    start = pages / "index.html"
    if not start.is_file():
        raise HTTPException(503, "the pages are not built; run `make build`")
    return FileResponse(start, headers={"Cache-Control": "no-cache"})
