"""Parts of the API that are loaded once they are asked for, or once the server has nothing better
to do: the first page a tester sees needs one of them only, and waits for no other.
"""

import asyncio
import gc
from collections.abc import Iterable
from importlib import import_module
from typing import TYPE_CHECKING

from fastapi import FastAPI
from starlette.concurrency import run_in_threadpool
from starlette.routing import BaseRoute, Match
from starlette.types import Receive, Scope, Send

from kessik.api import problems

if TYPE_CHECKING:
    from types import ModuleType

PREFIX = "/api"
_NOTHING_ELSE_S = 1.0
"""How long the server waits for its first question before it loads the rest by itself."""
_SETTLES_AFTER_S = (5.0, 60.0)
"""What is there by then stays, and is not looked through for garbage any more: each look would hold
every tap for a tenth of a second.
"""


class LaterParts(BaseRoute):
    """Stands for the routes of some parts until they are loaded, and is replaced by them then."""

    def __init__(self, app: FastAPI, names: Iterable[str]) -> None:
        self._app, self._names = app, tuple(names)
        self._lock = asyncio.Lock()

    def matches(self, scope: Scope) -> tuple[Match, Scope]:
        """Whatever of the API no earlier route has taken."""
        is_ours = scope["type"] == "http" and scope["path"].startswith(f"{PREFIX}/")
        return (Match.FULL if is_ours else Match.NONE), {}

    async def handle(self, scope: Scope, receive: Receive, send: Send) -> None:
        """Load the parts, and ask the application once more."""
        await self.load()
        await self._app.router(scope, receive, send)

    async def load_soon(self) -> None:
        """Load the parts by itself, after the first page had its turn."""
        await asyncio.sleep(_NOTHING_ELSE_S)
        await self.load()
        for wait_s in _SETTLES_AFTER_S:
            await asyncio.sleep(wait_s)
            gc.freeze()

    async def load(self) -> None:
        """Load the parts; whoever comes meanwhile waits, and nothing is loaded twice."""
        async with self._lock:
            if self in self._app.router.routes:
                self._put(await run_in_threadpool(self._modules))

    def load_now(self) -> None:
        """The same at once, where nothing is being served yet."""
        if self in self._app.router.routes:
            self._put(self._modules())

    def _modules(self) -> "list[ModuleType]":
        return [import_module(f"kessik.api.routers.{name}") for name in self._names]

    def _put(self, modules: "list[ModuleType]") -> None:
        routes = self._app.router.routes
        if self not in routes:
            return
        before = len(routes)
        for module in modules:
            self._app.include_router(module.router, prefix=PREFIX, responses=problems.RESPONSES)
        made = routes[before:]
        place = routes.index(self)
        self._app.router.routes = [*routes[:place], *made, *routes[place + 1 : before]]
