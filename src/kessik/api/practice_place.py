"""The guided practice: a data folder of its own beside the real one, served under /practice.

Nothing of it can reach a standing, a plan or a package, and deleting it leaves no trace: its rows
are in no table of the real folder.
"""

import asyncio
from collections.abc import Callable
from contextlib import AsyncExitStack
from pathlib import Path
from shutil import rmtree
from typing import TYPE_CHECKING

from starlette.concurrency import run_in_threadpool
from starlette.types import ASGIApp, Receive, Scope, Send

from kessik.api.refusal import problem
from kessik.store.database import DATABASE_NAME, Database

if TYPE_CHECKING:
    from fastapi import FastAPI

    from kessik.services.bench.bench import Bench

PREFIX = "/practice"
_ENDS_WITHIN_S = 2.0


class PracticePlace:
    """The practice folder and the application over it, which `serve` makes; both are there once it
    is begun.
    """

    def __init__(self, folder: Path, serve: "Callable[[Database], FastAPI]") -> None:
        self._folder, self._serve = folder, serve
        self._opened: tuple[FastAPI, AsyncExitStack] | None = None
        self._turn = asyncio.Lock()
        self.runs_cut: tuple[int, int] | None = None
        """How many runs the virtual bench has cut of those it is cutting; None while it rests."""
        self.under_way = 0

    @property
    def is_there(self) -> bool:
        return (self._folder / DATABASE_NAME).exists()

    async def app(self) -> "FastAPI | None":
        """The application over the practice folder; None where no practice was begun."""
        async with self._turn:
            if self._opened is None and self.is_there:
                self._opened = await self._open()
        return self._opened[0] if self._opened else None

    async def bench(self) -> "Bench | None":
        """The bench of the practice; None where none was begun."""
        app = await self.app()
        return app.state.server.bench if app else None

    async def begun(self) -> "Bench":
        """The bench of the practice, whose folder is made where it is not there."""
        async with self._turn:
            if self._opened is None:
                self._opened = await self._open()
        bench: Bench = self._opened[0].state.server.bench
        return bench

    async def delete(self) -> None:
        """Close the practice and delete its folder."""
        await self.close()
        if self._folder.exists():
            await run_in_threadpool(rmtree, self._folder)

    async def close(self) -> None:
        """Let what is being answered end, and close what was opened."""
        async with self._turn:
            opened, self._opened = self._opened, None
        if opened is None:
            return
        until = asyncio.get_running_loop().time() + _ENDS_WITHIN_S
        while self.under_way and asyncio.get_running_loop().time() < until:
            await asyncio.sleep(0.02)
        await opened[1].aclose()

    async def _open(self) -> "tuple[FastAPI, AsyncExitStack]":
        database = await run_in_threadpool(Database, self._folder, hurried=True)
        stack = AsyncExitStack()
        stack.push_async_callback(run_in_threadpool, database.close)
        app = self._serve(database)
        await stack.enter_async_context(app.router.lifespan_context(app))
        return app, stack


class PracticeDoor:
    """In front of an application: what is asked of /practice/api goes to the practice folder."""

    def __init__(self, app: ASGIApp, place: PracticePlace) -> None:
        self._app, self._place = app, place

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http" or not scope["path"].startswith(f"{PREFIX}/api/"):
            await self._app(scope, receive, send)
            return
        practice = await self._place.app()
        if practice is None:
            gone = problem(404, "Not here", "there is no practice; begin one on Today")
            await gone(scope, receive, send)
            return
        path = scope["path"].removeprefix(PREFIX)
        inside = {**scope, "path": path, "raw_path": path.encode()}
        inside.pop("app", None)
        self._place.under_way += 1
        try:
            await practice(inside, receive, send)
        finally:
            self._place.under_way -= 1
