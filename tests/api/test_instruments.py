"""Instruments over HTTP: kept, plugged in, checked on their reference; what cannot be is said at
its field.
"""

import pytest

from kessik.instruments.stand_ins.others import take_picture
from kessik.instruments.stand_ins.transport import LoopbackLine
from tests.helpers.lines import Told, until

TESTER = {
    "id": "tester-one",
    "kind": "force",
    "name": "Line tester",
    "address": "/dev/no-such-port",
    "range_high": 2000,
}


@pytest.fixture
def kept(client):
    assert client.put("/api/instruments/tester-one", json=TESTER).status_code == 200
    return client


def only(client):
    (instrument,) = client.get("/api/instruments").json()
    return instrument


def test_an_instrument_that_is_not_plugged_in_is_said_so_in_words(kept):
    until(lambda: only(kept)["last_text"])
    assert (only(kept)["is_there"], only(kept)["last_text"]) == (False, "there is no such port now")


def test_it_is_found_once_it_is_plugged_in_and_let_go_once_it_is_put_away(kept):
    line = LoopbackLine()
    kept.put("/api/instruments/tester-one", json={**TESTER, "address": line.address})
    until(lambda: only(kept)["is_there"])
    kept.put(
        "/api/instruments/tester-one", json={**TESTER, "address": line.address, "in_use": False}
    )
    assert only(kept)["is_there"] is False
    assert kept.put("/api/instruments/tester-one/put-away").status_code == 204
    assert kept.get("/api/instruments").json() == []
    late = kept.put("/api/instruments/tester-one/reference-checks/check-0001",
                    json={"id": "check-0001", "readings": [250], "reference": "block"})  # fmt: skip
    assert (late.status_code, late.json()["field"]) == (409, "instrument")
    line.close()


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"name": " "}, "name"),
        ({"address": ""}, "address"),
        ({"range_high": 9000}, "range_high"),
        ({"range_low": 500, "range_high": 400}, "range_high"),
        ({"kind": "rockwell"}, "kind"),
        (
            {"id": "camera-01", "kind": "camera", "address": "/no/such/folder", "range_high": None},
            "address",
        ),
        ({"baud": 3}, "baud"),
        ({"address": "spy:///dev/ttyS0?file=/tmp/emptied"}, "address"),
        ({"address": "loop://"}, "address"),
        ({"address": "/etc/passwd"}, "address"),
        ({"address": "/dev/zero"}, "address"),
        ({"address": "/dev/../etc/passwd"}, "address"),
        ({"address": "socket://127.0.0.1:70000"}, "address"),
        ({"address": "socket://127.0.0.1:22?logging=debug"}, "address"),
        ({"kind": "hammer"}, "kind"),
    ],
)
def test_what_cannot_be_is_refused_at_its_field(kept, change, field):
    if change == {"kind": "rockwell"}:
        change = {"kind": "rockwell", "range_high": 70}
    body = {**TESTER, **change}
    answer = kept.put(f"/api/instruments/{body['id']}", json=body)
    assert 400 <= answer.status_code < 500
    assert answer.json()["field"] == field
    assert only(kept)["name"] == "Line tester"


def check(client, number, *readings):
    body = {
        "id": f"reference-check-{number}",
        "readings": list(readings),
        "reference": "new utility edge",
    }
    return client.put(
        f"/api/instruments/tester-one/reference-checks/reference-check-{number}", json=body
    )


def test_checks_on_the_reference_warn_of_drift_and_are_kept_once(kept):
    for number in range(5):
        assert check(kept, number, 200, 202, 199).json()["drift"] is None or number
    assert only(kept)["drift"]["warns"] is False
    assert check(kept, 4, 500, 500, 500).json()["checks"][-1]["readings"] == [
        200,
        202,
        199,
    ], "the same id is one check"
    found = check(kept, 9, 214, 216, 215).json()
    assert found["drift"]["warns"] is True
    assert "higher than at first" in found["drift"]["words"]
    assert found["checked_today"] is True


@pytest.mark.parametrize("readings", [[], [0.2], [2500], [200.0] * 51])
def test_readings_that_cannot_be_on_the_reference_are_refused(kept, readings):
    answer = check(kept, 1, *readings)
    assert (answer.status_code, answer.json()["field"]) == (422, "readings")
    assert only(kept)["checks"] == []


def test_a_picture_of_a_look_is_kept_and_shown(client, tmp_path):
    server, folder = client.app.state.server, tmp_path / "camera"
    told = Told(server.desk, server.bench.live)
    folder.mkdir()
    camera = {"id": "camera-01", "kind": "camera", "name": "Lamp camera", "address": str(folder)}
    assert client.put("/api/instruments/camera-01", json=camera).status_code == 200
    until(lambda: told.whats("there"))
    taken = take_picture(folder, "apex.png")
    until(lambda: told.whats("picture"))
    picture = told.whats("picture")[0].picture
    answer = client.get(f"/api/pictures/{picture}")
    assert (answer.content, answer.headers["content-type"]) == (taken.read_bytes(), "image/png")
    for nowhere in ("0" * 64, "..%2f..%2fkessik.sqlite3", "short"):
        assert client.get(f"/api/pictures/{nowhere}").status_code in (404, 422)
