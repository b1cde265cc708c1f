"""Every act of a tester is recorded while it is answered; the answer names it where it can be
undone.
"""

from urllib.parse import quote
from uuid import uuid4

from starlette.datastructures import MutableHeaders
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from kessik.services.changes import RecentChanges
from kessik.services.devices.pairing import Pairing
from kessik.store.actor import ACTOR

HEADER = "kessik-change"
"""The id of the change, then what was done, percent-encoded."""
_WRITING = frozenset({"PUT", "PATCH", "POST", "DELETE"})
_OF_THEIR_OWN = ("/api/runs/", "/api/changes/", "/api/bin", "/api/pairing")
_NEVER_BACK = "/covered"
"""Who has seen which blade is which cannot unsee it."""


class ChangeRecorder:
    """Around the routes: records what an act changes, and which device acts."""

    def __init__(self, app: ASGIApp, changes: RecentChanges, guests: Pairing) -> None:
        self.app, self._changes, self._guests = app, changes, guests

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        token = ACTOR.set(self._actor(scope))
        try:
            await self._recorded(scope, receive, send)
        finally:
            ACTOR.reset(token)

    def _actor(self, scope: Scope) -> str:
        state = scope.get("state", {})
        if state.get("at_home", True):
            return ""
        device = self._guests.device(state.get("session") or "")
        return device.name if device else ""

    async def _recorded(self, scope: Scope, receive: Receive, send: Send) -> None:
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
