"""Odd events: every kind once known to break a run for good is refused at its field, or an old log
with it opens.
"""

import json
import sqlite3
from uuid import uuid4

import pytest

from kessik.store.check_sums import check_sum
from kessik.store.database import DATABASE_NAME
from tests.helpers.odd_events import ODD, UNREADABLE


@pytest.fixture
def run(hand):
    (_, edge), _ = hand.make_trial("A", "B", schedule="every", every=4)
    run = hand.start(edge)
    hand.cut(run, 3)
    hand.read(run, 180, 3)
    return run


def pages(hand, run):
    """Every page that reads a run."""
    trial = hand.trial
    return (
        f"/api/runs/{run}", f"/api/runs/{run}/log", f"/api/runs/{run}/log.csv",
        f"/api/runs/{run}/news", "/api/today",
        f"/api/trials/{trial}/verdict", f"/api/trials/{trial}/line-up", f"/api/trials/{trial}/plan",
        f"/api/trials/{trial}/files", "/api/shelf", "/api/lots",
    )  # fmt: skip  # addresses, several a line


@pytest.mark.parametrize(("kind", "payload", "field"), ODD)
def test_an_odd_event_is_refused_at_its_field_and_every_page_stands(
    hand, run, kind, payload, field
):
    body = json.dumps(hand.event(kind, payload, at=3)).encode("utf-8", "surrogatepass")
    path = f"/api/runs/{run}/events/{uuid4()}"
    answer = hand.client.put(path, content=body, headers={"Content-Type": "application/json"})
    assert 400 <= answer.status_code < 500
    assert answer.json()["field"] == field
    for page in pages(hand, run):
        assert hand.client.get(page).status_code == 200, page


@pytest.mark.parametrize("count_at", [1e-300, 1e300, -1, "three"])
def test_a_count_that_cannot_be_is_refused(hand, run, count_at):
    body = hand.event("cut", {"amount": 1}) | {"count_at": count_at}
    answer = hand.client.put(f"/api/runs/{run}/events/{uuid4()}", json=body)
    assert (answer.status_code, answer.json()["field"]) == (422, "count_at")


def test_infinity_and_a_time_in_the_year_1_are_refused(hand, run):
    body = json.dumps(hand.event("reading", {"check": "dose_end", "value": 1})).replace(
        '"value": 1', '"value": Infinity'
    )
    path = f"/api/runs/{run}/events/{uuid4()}"
    answer = hand.client.put(path, content=body, headers={"Content-Type": "application/json"})
    assert answer.status_code == 400
    late = hand.event("cut", {"amount": 1}) | {"client_time": "0001-01-01T00:00:00+14:00"}
    assert hand.client.put(path, json=late).json()["field"] == "client_time"


def put_into_the_log(database, run, kind, payload):
    """An event as an older Kessik would have stored it."""
    row = [
        f"old-{uuid4()}",
        run,
        kind,
        "old-device",
        uuid4().int % 10**9,
        0,
        3.0,
        "2026-05-04T10:00:00+02:00",
        payload,
    ]
    with sqlite3.connect(database.folder / DATABASE_NAME) as link:
        link.execute(
            "INSERT INTO event (id, run_id, kind, device, device_sequence, last_seen_position,"
            " count_at, client_time, payload, server_utc, check_sum) VALUES (?, ?, ?, ?, ?, ?, ?,"
            " ?, ?, '', ?)",
            [*row, check_sum(*row)],
        )
    return row[0]


@pytest.mark.parametrize(("kind", "payload"), UNREADABLE)
def test_an_old_log_that_holds_it_opens_and_names_it(hand, run, database, kind, payload):
    odd = put_into_the_log(database, run, kind, payload)
    for page in pages(hand, run):
        assert hand.client.get(page).status_code == 200, page
    found = hand.client.get(f"/api/runs/{run}").json()
    assert (found["state"]["count"], found["state"]["not_understood"]) == (3, 1)
    (named,) = [e for e in found["log"] if e["not_understood"]]
    assert named["id"] == odd
    assert "not understood" in hand.client.get(f"/api/runs/{run}/log.csv").text
    hand.cut(run, 1, at=3)
    hand.read(run, 200, 4)
    assert (
        hand.send(run, "strike", {"target": odd, "reason": "nobody knows it"}, at=4).status_code
        == 200
    )
    assert hand.client.get(f"/api/runs/{run}").json()["state"]["not_understood"] == 0
