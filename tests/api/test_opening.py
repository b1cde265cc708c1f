"""The first seconds of a server: its pages are there before its API, and for this machine only."""

import asyncio
from contextlib import asynccontextmanager
from threading import Event

import httpx2
import pytest

from kessik.api.app import create_app
from kessik.api.built_pages import BuiltPages
from kessik.api.startup_gate import StartupGate


@pytest.fixture
def pages(tmp_path):
    (tmp_path / "index.html").write_text("the page")
    return BuiltPages(tmp_path)


@asynccontextmanager
async def living(app):
    """An application that was told to start; it is told to end afterwards, and does."""
    said, told = asyncio.Queue(), asyncio.Queue()
    life = asyncio.create_task(app({"type": "lifespan"}, told.get, said.put))
    await told.put({"type": "lifespan.startup"})
    assert (await said.get())["type"] == "lifespan.startup.complete"
    yield
    await told.put({"type": "lifespan.shutdown"})
    await life


def asking(app, host="127.0.0.1", client="127.0.0.1"):
    transport = httpx2.ASGITransport(app, client=(client, 50000), raise_app_exceptions=False)
    return httpx2.AsyncClient(transport=transport, base_url=f"http://{host}:8737")


def test_pages_come_at_once_and_the_api_as_soon_as_it_can_be(database, pages):
    may_load = Event()

    def load():
        may_load.wait(20)
        return create_app(database, renews=False)

    async def visit():
        app = StartupGate(load, failed=pytest.fail, pages=pages)
        async with living(app), asking(app) as here, asking(app, "elsewhere.example") as tricked:
            page = await here.get("/trials/some")
            assert page.text == "the page"
            assert "frame-ancestors" in page.headers["content-security-policy"]
            waiting = [
                asyncio.create_task(asked)
                for asked in (here.get("/api/instruments"), tricked.get("/"))
            ]
            await asyncio.sleep(0.05)
            assert not any(each.done() for each in waiting)
            may_load.set()
            answer, refusal = await asyncio.gather(*waiting)
            assert (answer.status_code, refusal.status_code) == (200, 400)

    asyncio.run(visit())


def test_an_api_that_cannot_be_loaded_leaves_nobody_waiting(pages):
    told = []

    def load():
        raise OSError("no room")

    async def visit():
        app = StartupGate(load, failed=told.append, pages=pages)
        async with living(app), asking(app) as here:
            with pytest.raises(AssertionError):  # no answer at all; the server says so with a 500
                await asyncio.wait_for(here.get("/api/instruments"), 20)

    asyncio.run(visit())
    assert [str(wrong) for wrong in told] == ["no room"]
