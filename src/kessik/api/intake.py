"""What comes in over the wire is checked before anything reads it: its kind, size, nesting,
numbers and text.

So that no route has to: a body is small, arrives in time, and holds only what JSON, SQLite and a
screen can carry.
"""

import json
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, NoReturn

import anyio
from starlette.datastructures import Headers
from starlette.responses import Response
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from kessik.api.refusal import problem
from kessik.core.limits import LIMITS, most
from kessik.core.protocols.entries import is_plain

SILENCE_S = 20.0
"""A body of which nothing comes for so long is given up."""
WRITES_AT_ONCE = 16
"""Requests that write at once; the others wait without a thread, so that reading never
waits for writing."""
_READING = frozenset({"GET", "HEAD", "OPTIONS"})
_FORMS = (
    "/api/imports",
    "/api/shot-imports",
    "/api/grade-imports",
    "/photos",
    "/pictures",
    "/look-imports",
    "/energy-of-curve",
    "/gauge-files",
    "/sheet-previews",
    "/sheet-imports",
    "/package-imports",
)
_PACKAGE = "/package-imports"
_PAIR = "/pair"
_LONGEST_PATH = 600
"""A name as long as may be, and what stands before it."""
_LARGEST = 2**53
_DRAINED_BYTES, _DRAINED_S = 100_000_000, 5.0


class Intake:
    """In front of the routes; refuses a body as a problem that names the field where there is
    one.
    """

    def __init__(self, app: ASGIApp) -> None:
        self.app = app
        self._writes = anyio.Semaphore(WRITES_AT_ONCE)

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        if (
            len(scope["path"]) > _LONGEST_PATH
            or not is_plain(scope["path"])
            or "//" in scope["path"]
        ):
            await problem(404, "Not found", "there is nothing at this address")(
                scope, receive, send
            )
            return
        if scope["method"] in _READING:
            await self.app(scope, receive, send)
            return
        try:
            body = _Body(Headers(scope=scope), scope["path"], receive)
            taken = await body.checked()
        except _UnfitError as unfit:
            await unfit.response(scope, receive, send)
            await _drained(receive)
            return
        async with self._writes:
            await self.app(scope, taken, send)


@dataclass
class _UnfitError(Exception):
    """A body that is not taken, with the answer to it."""

    response: Response


class _Body:
    """The body of one request as it comes in."""

    def __init__(self, headers: Headers, path: str, receive: Receive) -> None:
        self._kind = headers.get("content-type", "").split(";")[0].strip().lower()
        self._is_file = path.endswith(_FORMS)
        self._is_form = path == _PAIR
        self._limited_by = "upload_mb" if self._is_file else "request_kb"
        if path.endswith(_PACKAGE):
            self._limited_by = "package_upload_mb"
        self._receive = receive
        size = headers.get("content-length", "0")
        self._told_size = int(size) if size.isdecimal() and len(size) < 20 else 0

    @property
    def _limit(self) -> int:
        return most(self._limited_by) * (1_000_000 if self._is_file else 1000)

    async def checked(self) -> Receive:
        """The messages to hand on: those of a file as they come, all others once the whole body is
        sound.
        """
        if self._told_size > self._limit:
            self._too_large()
        if self._is_file:
            if self._told_size or self._kind:
                self._must_be("multipart/form-data")
            return self._counted()
        data = await self._whole()
        if self._is_form:
            if data:
                self._must_be("application/x-www-form-urlencoded")
        elif data:
            self._must_be("application/json")
            _check_json(data)
        return _replayed(data, self._receive)

    async def _whole(self) -> bytes:
        parts, size = [], 0
        more = True
        while more:
            message = await self._next()
            if message["type"] == "http.disconnect":
                break
            part = message.get("body", b"")
            size += len(part)
            if size > self._limit:
                self._too_large()
            parts.append(part)
            more = message.get("more_body", False)
        return b"".join(parts)

    def _counted(self) -> Receive:
        size = 0

        async def receive() -> Message:
            nonlocal size
            message = await self._next() if size >= 0 else await self._receive()
            size += len(message.get("body", b""))
            if size > self._limit:
                return {"type": "http.disconnect"}
            if not message.get("more_body", False):
                size = -1
            return message

        return receive

    async def _next(self) -> Message:
        with anyio.move_on_after(SILENCE_S):
            return await self._receive()
        raise _UnfitError(
            problem(408, "Too slow", "the request stopped halfway; nothing was stored")
        )

    def _must_be(self, kind: str) -> None:
        if self._kind != kind:
            said = self._kind[:60] or "no type"
            raise _UnfitError(problem(415, "Refused", f"send {kind}, not {said}"))

    def _too_large(self) -> NoReturn:
        limit = LIMITS[self._limited_by]
        detail = (
            f"at most {limit.most:g} {limit.unit} can be sent at once; nothing was"
            " imported or stored"
        )
        raise _UnfitError(problem(413, "Too large", detail, "file" if self._is_file else None))


async def _drained(receive: Receive) -> None:
    """Let a client finish what it sends, within reason: it reads the answer only then."""
    left = _DRAINED_BYTES
    with anyio.move_on_after(_DRAINED_S):
        while left > 0:
            message = await receive()
            left -= len(message.get("body", b""))
            if message["type"] == "http.disconnect" or not message.get("more_body", False):
                return


def _replayed(data: bytes, receive: Receive) -> Receive:
    """The whole body as one message; then whatever else comes, such as that the client left."""
    given = False

    async def replay() -> Message:
        nonlocal given
        if given:
            return await receive()
        given = True
        return {"type": "http.request", "body": data, "more_body": False}

    return replay


def _check_json(data: bytes) -> None:
    try:
        content = json.loads(data, parse_constant=_no_constant)
    except RecursionError as error:
        raise _unfit_json("it is nested too deeply", None) from error
    except ValueError as error:
        raise _UnfitError(
            problem(400, "The request cannot be read", f"this is not JSON: {str(error)[:200]}")
        ) from error
    for field, wrong in _wrong(content):
        raise _unfit_json(wrong, field)


def _no_constant(word: str) -> NoReturn:
    raise ValueError(f"{word} is not a number")


def _wrong(content: Any) -> Iterator[tuple[str | None, str]]:  # noqa: ANN401 - any JSON value
    """What of a JSON value cannot be kept, with the field it stands at."""
    ahead: list[tuple[Any, str | None, int]] = [(content, None, 1)]
    while ahead:
        value, field, depth = ahead.pop()
        if depth > most("nesting"):
            yield field, "it is nested too deeply"
        elif isinstance(value, dict):
            for name, each in value.items():
                if not is_plain(name):
                    yield field, "a name holds a character that is not text"
                ahead.append((each, name, depth + 1))
        elif isinstance(value, list):
            ahead.extend((each, field, depth + 1) for each in value)
        elif isinstance(value, str) and not is_plain(value):
            yield field, "this holds a character that is not text"
        elif isinstance(value, int) and abs(value) > _LARGEST:
            yield field, "this number has too many digits"


def _unfit_json(wrong: str, field: str | None) -> _UnfitError:
    detail = f"{field}: {wrong}" if field else wrong
    return _UnfitError(problem(422, "Value out of range", detail, field))
