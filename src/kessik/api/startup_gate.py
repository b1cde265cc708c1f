"""The door while the server is still being built: pages at once, all else as soon as it can be.

Loading the API takes longer than a browser needs to read the first page. So the pages are served
meanwhile, to this machine only, and whatever else is asked waits until the API is there.
"""

import asyncio
from collections.abc import Callable
from typing import TYPE_CHECKING

from starlette.concurrency import run_in_threadpool
from starlette.types import ASGIApp, Receive, Scope, Send

from kessik.api.built_pages import BuiltPages
from kessik.api.gate import AccessGate, is_at_home

if TYPE_CHECKING:
    from fastapi import FastAPI

_READING = frozenset({"GET", "HEAD"})
_OF_THE_API = ("/api/", "/practice/api/", "/pair")


class StartupGate:
    """The application from its first moment: `load` makes the whole of it, off the event loop.

    Where that fails, `failed` is called with what went wrong, and nobody is left waiting.
    """

    def __init__(
        self,
        load: Callable[[], "FastAPI"],
        failed: Callable[[Exception], None],
        pages: BuiltPages | None = None,
    ) -> None:
        self._load, self._failed = load, failed
        self._pages = pages or BuiltPages()
        self._door = AccessGate(self._page, guests=None)
        self._is_open = asyncio.Event()
        self._whole: ASGIApp | None = None

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "lifespan":
            await self._live(receive, send)
        elif self._whole is None and self._is_page(scope):
            await self._door(scope, receive, send)
        else:
            await self._is_open.wait()
            if self._whole is not None:
                await self._whole(scope, receive, send)

    async def _live(self, receive: Receive, send: Send) -> None:
        """Told to start, it is ready at once; told to end, it closes what it has opened."""
        await receive()
        await send({"type": "lifespan.startup.complete"})
        try:
            app = await run_in_threadpool(self._load)
            async with app.router.lifespan_context(app):
                self._whole = app
                self._is_open.set()
                await receive()
        except Exception as wrong:
            self._failed(wrong)
        finally:
            self._is_open.set()
        await send({"type": "lifespan.shutdown.complete"})

    def _is_page(self, scope: Scope) -> bool:
        return (
            scope["type"] == "http"
            and scope["method"] in _READING
            and not scope["path"].startswith(_OF_THE_API)
            and is_at_home(scope)
            and self._pages.response(scope["path"].lstrip("/")) is not None
        )

    async def _page(self, scope: Scope, receive: Receive, send: Send) -> None:
        page = self._pages.response(scope["path"].lstrip("/"))
        assert page is not None
        await page(scope, receive, send)
