"""The application: routers under /api, the built pages beside them."""

from collections.abc import AsyncIterator
from contextlib import asynccontextmanager
from pathlib import Path

from fastapi import FastAPI, Request
from fastapi.responses import FileResponse
from starlette.concurrency import run_in_threadpool
from starlette.exceptions import HTTPException
from starlette.middleware.trustedhost import TrustedHostMiddleware
from starlette.responses import Response

from kessik import __version__
from kessik.api import problems
from kessik.api.routers import (
    bench,
    edges,
    follow,
    instruments,
    methods,
    plans,
    reckoner,
    shelf,
    stock,
    trials,
    verdicts,
)  # fmt: skip
from kessik.api.same_origin import SameOrigin
from kessik.services.instrument_desk import desk_of, plug_in_all
from kessik.store.database import Database

PAGES = Path(__file__).parent.parent / "web_dist"
LOCAL_HOSTS = ["127.0.0.1", "localhost", "[::1]", "testserver"]
LOCAL_PAGES = frozenset({"127.0.0.1", "localhost", "::1"})


def create_app(database: Database | None, pages: Path = PAGES) -> FastAPI:
    """The whole application over one data folder; without a database only its contract can be read."""
    app = FastAPI(
        title="Kessik",
        version=__version__,
        docs_url=None,
        redoc_url=None,
        openapi_url="/api/openapi.json",
        lifespan=_plugged_in,
    )
    app.state.database = database
    problems.install(app)
    for part in (trials, methods, plans, bench, follow, verdicts, shelf, edges, stock, instruments, reckoner):
        app.include_router(part.router, prefix="/api", responses=problems.RESPONSES)
    app.add_middleware(SameOrigin, hosts=LOCAL_PAGES)
    app.add_middleware(TrustedHostMiddleware, allowed_hosts=LOCAL_HOSTS)

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
