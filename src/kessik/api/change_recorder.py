"""Every act of a tester is recorded while it is answered; the answer names it where it can be
undone.
"""

from urllib.parse import quote
from uuid import uuid4

from starlette.datastructures import MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from kessik.services.changes import RecentChanges

HEADER = "kessik-change"
"""The id of the change, then what was done, percent-encoded."""
_WRITING = frozenset({"PUT", "PATCH", "POST", "DELETE"})
_OF_THEIR_OWN = ("/api/runs/", "/api/changes/", "/api/bin", "/api/pairing")
_NEVER_BACK = "/covered"
"""Who has seen which blade is which cannot unsee it."""


class ChangeRecorder:
    """Around the routes: records what an act changes."""

    def __init__(self, app: ASGIApp, changes: RecentChanges) -> None:
        self.app, self._changes = app, changes

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        path = scope.get("path", "")
        if (
            scope["type"] != "http"
            or scope["method"] not in _WRITING
            or path.startswith(_OF_THEIR_OWN)
            or path.endswith(_NEVER_BACK)
        ):
            await self.app(scope, receive, send)
            return
        with self._changes.recorded(str(uuid4())) as change:

            async def named(message: Message) -> None:
                if message["type"] == "http.response.start" and message["status"] < 300:
                    said = self._changes.offer(change)
                    if said:
                        headers = MutableHeaders(scope=message)
                        headers[HEADER] = f"{change.id} {quote(said)}"
                await send(message)

            await self.app(scope, receive, named)
