"""The application: routers under /api, the built pages beside them."""

from collections.abc import AsyncIterator, Mapping
from contextlib import asynccontextmanager
from pathlib import Path
from typing import Any

from fastapi import FastAPI, Request
from fastapi.responses import FileResponse
from starlette.exceptions import HTTPException
from starlette.responses import Response

from kessik import __version__
from kessik.api import problems
from kessik.api.gate import Gate
from kessik.api.house import House
from kessik.api.intake import Intake
from kessik.api.links import add_links
from kessik.api.routers import (
    bench,
    edges,
    follow,
    imports,
    instruments,
    methods,
    pairing,
    pictures,
    plans,
    reckoner,
    shelf,
    stock,
    trials,
    verdicts,
)  # fmt: skip  # a table is read by its rows
from kessik.store.database import Database

_PARTS = (
    trials, methods, plans, bench, follow, imports, verdicts, shelf, edges, stock, instruments,
    pairing, pictures, reckoner,
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
        lifespan=_opened,
    )
    house = None if database is None else House(database, lan_address, renews)
    app.state.house = house
    problems.install(app)
    for part in _PARTS:
        app.include_router(part.router, prefix="/api", responses=problems.RESPONSES)
    app.include_router(pairing.pages)
    app.add_middleware(Intake)
    app.add_middleware(Gate, pairing=house.pairing if house else None)
    files = _built_files(pages)

    @app.get("/api/{rest:path}", include_in_schema=False)
    def unknown(rest: str) -> Response:
        raise HTTPException(404, "there is nothing at this address")

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str, request: Request) -> Response:
        return _page(files, path)

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
