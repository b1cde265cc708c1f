"""A server that is killed in the middle of writes: each is there whole or not at all, and once when
it is sent again.
"""

import threading
import time
from dataclasses import dataclass, field

import httpx2

from kessik.api.app import create_app
from kessik.store.database import Database
from tests.conftest import here
from tests.helpers.ledger import WRITES, differences, held

REFUSED_AGAIN = 404
"""What is gone or back already is said to be; nothing is done twice."""


@dataclass
class Expected:
    """What a folder holds before the first write and after each, and how long each took in s."""

    states: list = field(default_factory=list)
    seconds: list = field(default_factory=list)


def undisturbed(folder):
    """The writes with nobody killed."""
    expected = Expected()
    with Database(folder, hurried=True) as database, here(create_app(database)) as client:
        expected.states.append(held(folder))
        for write in WRITES:
            start = time.perf_counter()
            answer = write.send(client)
            expected.seconds.append(time.perf_counter() - start)
            assert answer.is_success, (write.path, answer.text)
            expected.states.append(held(folder))
    return expected


def survive(served, expected, victims, random):
    """Send every write, and kill the server in the middle of the victims; returns how many of these
    were found stored.
    """
    stored, client = 0, _client(served)
    for number, write in enumerate(WRITES):
        if number in victims:
            stored += _killed(served, client, expected, number, random)
            client = _client(served)
        answer = write.send(client)
        known = number in victims and answer.status_code == REFUSED_AGAIN
        assert answer.is_success or known, (write.path, answer.text)
        _equal(served, expected.states[number + 1], f"after {write.verb} {write.path}")
    return stored


def _client(served):
    client = httpx2.Client(base_url=served.address, timeout=60)
    client.get("/api/today")  # it is up
    return client


def _killed(served, client, expected, number, random):
    """Kill the server while a write is under way; whether it is stored."""
    write, answers = WRITES[number], []
    sending = threading.Thread(target=_send, args=(client, write, answers))
    sending.start()
    time.sleep(random.uniform(0, 1.5 * expected.seconds[number] + 0.08))
    served.kill()
    sending.join()
    found = held(served.folder)
    before, after = expected.states[number : number + 2]
    is_there = not differences(found, after)
    assert is_there or not differences(found, before), (
        f"{write.verb} {write.path} is half there: {differences(found, before)}"
    )
    assert is_there or not any(answers), f"{write.path} was acknowledged, and is lost"
    served.start()
    _equal(served, after if is_there else before, f"after a restart in {write.path}")
    return is_there


def _send(client, write, answers):
    try:
        answers.append(write.send(client).is_success)
    except httpx2.HTTPError:
        return


def _equal(served, wanted, when):
    found = differences(held(served.folder), wanted)
    assert not found, f"{when}: {found}"
