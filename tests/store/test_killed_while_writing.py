"""The server killed in the middle of writing, again and again: what was acknowledged is there,
nothing twice.
"""

import os
import random
import signal
import threading
from uuid import uuid4

import httpx2
import pytest

from tests.helpers.killing import survive, undisturbed
from tests.helpers.ledger import WRITES
from tests.helpers.pieces import MANY
from tests.serving import Served

KILLS = 10


def hammer(hand, run, events, acknowledged):
    """Send taps until nobody answers; note what was acknowledged."""
    try:
        for event_id, body in events:
            if hand.client.put(f"/api/runs/{run}/events/{event_id}", json=body).status_code == 200:
                acknowledged.add(event_id)
    except httpx2.TransportError:
        return


@pytest.mark.apart
def test_ten_kills_lose_nothing_that_was_acknowledged(tmp_path):
    served = Served(tmp_path / "data")
    hand = served.hand()
    (_, edge), _ = hand.make_trial("A", "B")
    run = hand.start(edge)
    acknowledged, sent = set(), []
    for kill in range(KILLS):
        fresh = [
            (str(uuid4()), hand.event("cut", {"amount": 1}, at=len(sent) + n)) for n in range(400)
        ]
        sent += fresh
        taps = threading.Thread(target=hammer, args=(hand, run, fresh, acknowledged))
        files = threading.Thread(target=bring, args=(served,))
        taps.start()
        files.start()
        threading.Event().wait(0.5 + 0.05 * kill)
        os.kill(served.process.pid, signal.SIGKILL)
        served.process.wait()
        taps.join()
        files.join()
        served.start()
        hand.client = served.hand().client
    try:
        log = hand.client.get(f"/api/runs/{run}/log").json()
        cuts = [event["id"] for event in log if event["kind"] == "cut"]
        assert len(acknowledged) > 0  # how many a slow machine gets to is no matter
        assert acknowledged <= set(cuts)
        assert len(cuts) == len(set(cuts)) <= len(sent)
        imported = [
            t
            for t in hand.client.get("/api/today").json()["trials"]
            if t["trial"]["source"] == "import"
        ]
        for entry in imported:
            record = hand.client.get(f"/api/trials/{entry['trial']['id']}/record").json()
            assert len(record["runs"]) == 6, "a file came in whole or not at all"
    finally:
        served.kill()


def bring(served):
    try:
        httpx2.post(
            f"{served.address}/api/imports",
            files=[("files", ("raft.series.csv", MANY))],
            timeout=30,
        )
    except httpx2.TransportError:
        return


VICTIMS = ("blades/blade-001/photos", "sheet-imports", "imports", "bin/bin-00002",
           "bin/bin-00002/brought-back")  # fmt: skip


@pytest.mark.apart
def test_a_write_is_there_whole_or_not_at_all_and_once_when_it_is_sent_again(tmp_path):
    """Those that take several transactions or files; `make bench` kills in all."""
    expected = undisturbed(tmp_path / "undisturbed")
    served = Served(tmp_path / "killed")
    victims = {n for n, write in enumerate(WRITES) if write.path in VICTIMS}
    try:
        survive(served, expected, victims, random.Random(5))
    finally:
        served.kill()
