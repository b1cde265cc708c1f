"""Who may ask: this machine under its own names, and devices of the network once they are paired;
nobody else.

A browser names the host it asks and, with every write, the page that asks: a page of another site
or port, or an extension, that reaches this machine through the visitor's browser is refused by one
or the other.
"""

from http.cookies import CookieError, SimpleCookie
from ipaddress import ip_address
from typing import Protocol
from urllib.parse import urlsplit

from starlette.datastructures import Headers, MutableHeaders
from starlette.responses import HTMLResponse, Response
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from kessik.api.pair_page import pair_page
from kessik.api.refusal import problem

COOKIE = "kessik_session"
PAIR_PATH = "/pair"
OWN_NAMES = frozenset({"127.0.0.1", "localhost", "::1"})
_READING = frozenset({"GET", "HEAD", "OPTIONS"})
_OWN_FETCH = frozenset({"same-origin", "none"})

_POLICY = {
    "Content-Security-Policy": (
        "default-src 'self'; img-src 'self' data: blob:; object-src 'none'; base-uri 'none'; "
        # the primitives of the pages set styles of their own; scripts are the pages' files alone
        "style-src 'self' 'unsafe-inline'; script-src 'self'; form-action 'self'; frame-ancestors"
        " 'none'"
    ),
    "X-Frame-Options": "DENY",
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": (
        "same-origin"
    ),  # with none at all a form of our own could not say where it comes from
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Permissions-Policy": "camera=(), microphone=(), geolocation=(), payment=(), usb=()",
}


class Guests(Protocol):
    """The devices of the network that were let in."""

    @property
    def address(self) -> str | None:
        """This machine's address in the local network, where it answers there."""

    def knows(self, session: str) -> bool:
        """Whether a device with this session was paired."""


class AccessGate:
    """In front of everything; without guests only this machine may ask."""

    def __init__(self, app: ASGIApp, guests: Guests | None) -> None:
        self.app, self.guests = app, guests

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] == "lifespan":
            await self.app(scope, receive, send)
            return
        refusal = (
            self._refusal(scope)
            if scope["type"] == "http"
            else problem(404, "Not here", "nothing is here")
        )
        await (refusal or self.app)(scope, receive, _with_policy(send))

    def _refusal(self, scope: Scope) -> Response | None:
        headers = Headers(scope=scope)
        host = _name(f"//{headers.get('host', '')}")
        lan = self.guests.address if self.guests else None
        at_home = is_at_home(scope)
        scope.setdefault("state", {})
        scope["state"] |= {"at_home": at_home, "session": _session(headers)}
        if not at_home and (lan is None or host != lan):
            return problem(
                400, "Not allowed from here", "open Kessik by an address that it shows itself"
            )
        if scope["method"] not in _READING and not _is_our_page(headers):
            return problem(
                403, "Not allowed from here", "only Kessik's own pages may change anything here"
            )
        if at_home or scope["path"] == PAIR_PATH or self._is_paired(scope["state"]["session"]):
            return None
        if "text/html" in headers.get("accept", ""):
            return HTMLResponse(pair_page(), status_code=401)
        return problem(
            401,
            "Not paired",
            "pair this device first: show a code on the computer that runs Kessik",
        )

    def _is_paired(self, session: str | None) -> bool:
        return self.guests is not None and session is not None and self.guests.knows(session)


def is_at_home(scope: Scope) -> bool:
    """Whether this machine itself asks, by one of its own names and over loopback."""
    host = _name(f"//{Headers(scope=scope).get('host', '')}")
    return host in OWN_NAMES and _is_this_machine(scope)


def _with_policy(send: Send) -> Send:
    """Every answer says what a page of Kessik may load, and that nobody frames it."""

    async def sent(message: Message) -> None:
        if message["type"] == "http.response.start":
            headers = MutableHeaders(scope=message)
            for name, value in _POLICY.items():
                headers.setdefault(name, value)
        await send(message)

    return sent


def _session(headers: Headers) -> str | None:
    try:
        found = SimpleCookie(headers.get("cookie", "")).get(COOKIE)
    except CookieError:
        return None
    return found.value if found is not None else None


def _is_our_page(headers: Headers) -> bool:
    """A write of a page from this very origin, or of no browser at all."""
    if headers.get("sec-fetch-site", "same-origin") not in _OWN_FETCH:
        return False
    origin = headers.get("origin")
    if origin is None:
        return True
    try:
        asked = urlsplit(origin)
    except ValueError:
        return False
    return asked.scheme in ("http", "https") and asked.netloc == headers.get("host")


def _name(address: str) -> str:
    try:
        return urlsplit(address).hostname or ""
    except ValueError:
        return ""


def _is_this_machine(scope: Scope) -> bool:
    """Whether it was asked over loopback."""
    try:
        return ip_address((scope.get("client") or ("",))[0]).is_loopback
    except ValueError:
        return False
