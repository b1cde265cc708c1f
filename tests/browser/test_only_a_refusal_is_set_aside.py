"""A server that fails now and then: every cut waits until it is taken, and only a refusal at a
field is set aside.
"""

from selenium.webdriver.common.keys import Keys
from starlette.responses import JSONResponse

from tests.browser.chromium import chromium
from tests.browser.conftest import Person
from tests.serving import ServedHere


class EveryThirdFails:
    """The application behind a server that answers 500 to every third event."""

    def __init__(self, app):
        self.app, self.seen = app, 0

    async def __call__(self, scope, receive, send):
        if scope["type"] == "http" and scope["method"] == "PUT" and "/events/" in scope["path"]:
            self.seen += 1
            if self.seen % 3 == 0:
                await JSONResponse({"detail": "something broke"}, status_code=500)(
                    scope, receive, send
                )
                return
        await self.app(scope, receive, send)


def test_a_server_that_answers_500_to_every_third_cut_loses_none(tmp_path):
    served = ServedHere(tmp_path / "data", around=EveryThirdFails)
    try:
        hand = served.hand()
        (_, edge), _ = hand.make_trial("A", "B", schedule="every", every=100)
        run = hand.start(edge)
        with chromium() as driver:
            person = Person(driver, served.address)
            person.open(f"/runs/{run}")
            person.see("Wipe the fresh edge")
            person.press(*[Keys.SPACE] * 20)
            person.see("all on disk", seconds=60)
            assert person.text("count") == "20"
        state = hand.client.get(f"/api/runs/{run}").json()["state"]
        assert (state["count"], state["not_understood"]) == (20, 0)
    finally:
        served.kill()
