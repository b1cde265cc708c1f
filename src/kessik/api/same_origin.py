"""Refuses writes that another site's page sends to this machine."""

from urllib.parse import urlsplit

from starlette.datastructures import Headers
from starlette.types import ASGIApp, Receive, Scope, Send

from kessik.api.problems import problem

_READING = frozenset({"GET", "HEAD", "OPTIONS"})


class SameOrigin:
    """A browser names the page a request comes from; it must be one of ours, or the request may only read."""

    def __init__(self, app: ASGIApp, hosts: frozenset[str]) -> None:
        self.app, self.hosts = app, hosts

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "http" and scope["method"] not in _READING:
            origin = Headers(scope=scope).get("origin")
            if origin is not None and urlsplit(origin).hostname not in self.hosts:
                answer = problem(403, "Not from here", f"a page at {origin[:80]} may not change anything here")
                await answer(scope, receive, send)
                return
        await self.app(scope, receive, send)
