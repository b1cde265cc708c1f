"""A phone by the rope and the laptop on the bench, over a real connection."""

import contextlib
import json
import threading
import time

import httpx2
import pytest

from tests.serving import Served


@pytest.fixture
def served(tmp_path):
    server = Served(tmp_path)
    yield server
    server.kill()


class Following:
    """A client that listens to a run; what it was told, in order."""

    def __init__(self, address, run, after=0):
        self.told = []
        threading.Thread(
            target=self._listen,
            args=(f"{address}/api/runs/{run}/follow?after={after}",),
            daemon=True,
        ).start()
        self.wait_for(lambda: self.told)

    def _listen(self, url):
        with contextlib.suppress(httpx2.HTTPError), httpx2.stream("GET", url, timeout=30) as answer:
            for line in answer.iter_lines():
                if line.startswith("data:"):
                    self.told.append(json.loads(line[5:]))

    def wait_for(self, condition, seconds=5):
        end = time.monotonic() + seconds
        while not condition():
            assert time.monotonic() < end, "it was not told"
            time.sleep(0.005)


def test_what_one_device_does_the_other_hears_at_once(served):
    laptop, phone = served.hand(), served.hand()
    (_, edge), _ = laptop.make_trial("A", "B")
    run = laptop.start(edge)
    following = Following(served.address, run)
    laptop.cut(run, 1)
    following.wait_for(lambda: following.told[-1]["run"]["state"]["count"] == 1)
    phone.cut(run, 1)
    following.wait_for(lambda: following.told[-1]["run"]["state"]["proposals"])
    assert [e["kind"] for e in following.told[-1]["run"]["log"]] == ["cut"], (
        "only what is new is sent"
    )
    state = phone.send(run, "takeover").json()["state"]
    assert state["holder"] == phone.device
    refused = laptop.send(run, "accept", {"targets": [state["proposals"][0]["event_id"]]})
    assert refused.status_code == 409
    accepted = phone.send(run, "accept", {"targets": [state["proposals"][0]["event_id"]]})
    assert accepted.json()["state"]["count"] == 2


def test_a_run_that_is_not_there_is_said_before_any_stream_begins(client):
    assert client.get("/api/runs/nowhere-at-all/follow").status_code == 404
