"""Who may ask: this machine under its own names, and devices of the network once they are paired; nobody else.

A browser names the host it asks and, with every write, the page that asks: a page of another site that reaches this
machine through a name of its own, or through the visitor's browser, is refused by one or the other.
"""

from http.cookies import CookieError, SimpleCookie
from ipaddress import ip_address
from urllib.parse import urlsplit

from starlette.datastructures import Headers
from starlette.responses import HTMLResponse, Response
from starlette.types import ASGIApp, Receive, Scope, Send

from kessik.api.pair_page import pair_page
from kessik.api.problems import problem
from kessik.services.pairing import Pairing

COOKIE = "kessik_session"
PAIR_PATH = "/pair"
OWN_NAMES = frozenset({"127.0.0.1", "localhost", "::1", "testserver"})
_HERE_ONLY = ("/api/pairing",)
_READING = frozenset({"GET", "HEAD", "OPTIONS"})


class Gate:
    """In front of everything; without a pairing only this machine may ask."""

    def __init__(self, app: ASGIApp, pairing: Pairing | None) -> None:
        self.app, self.pairing = app, pairing

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "lifespan":
            await self.app(scope, receive, send)
            return
        refusal = self._refusal(scope) if scope["type"] == "http" else problem(404, "Not here", "nothing is here")
        await (refusal or self.app)(scope, receive, send)

    def _refusal(self, scope: Scope) -> Response | None:
        headers = Headers(scope=scope)
        host = _name(f"//{headers.get('host', '')}")
        lan = self.pairing.address if self.pairing else None
        at_home = host in OWN_NAMES and _is_this_machine(scope)
        if not at_home and (lan is None or host != lan):
            return problem(400, "Not from here", "Kessik does not go by that name")
        if scope["method"] not in _READING:
            origin = headers.get("origin")
            if origin is not None and not _is_ours(origin, headers, at_home):
                return problem(403, "Not from here", f"a page at {origin[:80]} may not change anything here")
        if at_home:
            return None
        if scope["path"].startswith(_HERE_ONLY):
            return problem(403, "Not from here", "devices are paired and shut out on the machine that serves")
        if scope["path"] == PAIR_PATH or self._is_paired(headers):
            return None
        if "text/html" in headers.get("accept", ""):
            return HTMLResponse(pair_page(), status_code=401)
        return problem(401, "Not paired", "pair this device first: have a code shown on the machine that serves")

    def _is_paired(self, headers: Headers) -> bool:
        assert self.pairing is not None
        try:
            found = SimpleCookie(headers.get("cookie", "")).get(COOKIE)
        except CookieError:
            return False
        return found is not None and self.pairing.knows(found.value)


def _is_ours(origin: str, headers: Headers, at_home: bool) -> bool:
    """At home any page of this machine, as the pages of `make dev` are; from the network only the very same host."""
    return _name(origin) in OWN_NAMES if at_home else urlsplit(origin).netloc == headers.get("host")


def _name(address: str) -> str:
    try:
        return urlsplit(address).hostname or ""
    except ValueError:
        return ""


def _is_this_machine(scope: Scope) -> bool:
    """Asked over loopback; without any address it was asked inside this process."""
    try:
        return ip_address((scope.get("client") or ("",))[0]).is_loopback
    except ValueError:
        return True
