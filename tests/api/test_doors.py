"""The doors: who gets in, what a body may be, and what no address and no file of this machine is
told.
"""

import io
import json
import socket
import struct
import threading
import time
from datetime import UTC, datetime

import pytest
from fastapi.testclient import TestClient
from PIL import Image

from kessik.api.app import create_app
from kessik.api.read_timeouts import HEAD_WITHIN_S, PatientProtocol
from kessik.services.live import run_topic
from kessik.services.pictures.storing import delete_unused
from tests.conftest import here
from tests.serving import ServedHere

LAN = "192.0.2.2"
TRIAL = {"id": "door-trial", "name": "Raft"}
JSON = {"Content-Type": "application/json"}


def put(client, content=None, **headers):
    return client.put(
        "/api/trials/door-trial", content=content or json.dumps(TRIAL), headers=JSON | headers
    )


@pytest.mark.parametrize(
    "headers",
    [
        {"Origin": "http://127.0.0.1:9999"},
        {"Origin": "http://localhost:8737"},
        {"Origin": "https://127.0.0.1:8737.example.org"},
        {"Origin": "chrome-extension://abcdefghijklmnop"},
        {"Origin": "null"},
        {"Sec-Fetch-Site": "cross-site"},
        {"Sec-Fetch-Site": "same-site"},
        {"Origin": "http://127.0.0.1:8737", "Sec-Fetch-Site": "cross-site"},
    ],
)
def test_a_write_is_taken_from_this_very_origin_or_from_no_browser(client, headers):
    assert put(client, **headers).status_code == 403
    assert client.get("/api/today").json()["trials"] == []
    assert put(client).status_code == 200
    assert (
        put(client, Origin="http://127.0.0.1:8737", **{"Sec-Fetch-Site": "same-origin"}).status_code
        == 200
    )


@pytest.mark.parametrize(
    "kind", ["text/plain", "application/x-www-form-urlencoded", "", "multipart/form-data"]
)
def test_a_body_is_json_or_it_is_not_read(client, kind):
    answer = client.put(
        "/api/trials/door-trial", content=json.dumps(TRIAL), headers={"Content-Type": kind}
    )
    assert answer.status_code == 415
    assert client.post("/api/imports", content=b"x", headers=JSON).status_code == 415


@pytest.mark.parametrize("host", ["testserver", "kessik.example.org", "127.0.0.1.example.org", ""])
def test_no_other_name_reaches_it(database, host):
    app = create_app(database)
    client = TestClient(app, base_url="http://127.0.0.1:8737", client=("127.0.0.1", 50000))
    assert client.get("/api/today", headers={"Host": host}).status_code == 400
    stranger = TestClient(app, base_url="http://127.0.0.1:8737", client=("192.0.2.9", 50000))
    assert stranger.get("/api/today").status_code == 400


@pytest.mark.parametrize(
    "path", ["//api/pairing", "/%00", "/" + "a" * 300, "/api/%00", "/..%2f..%2fetc/passwd", "/a\\b"]
)
def test_odd_addresses_are_not_found(client, path):
    assert client.get(path).status_code in (200, 404)
    assert "root:" not in client.get(path).text


def test_pages_say_what_they_may_load_and_who_may_frame_them(client):
    for path in ("/", "/api/today", "/pair", "/api/nothing"):
        headers = client.get(path).headers
        assert "default-src 'self'" in headers["content-security-policy"]
        assert "frame-ancestors 'none'" in headers["content-security-policy"]
        assert headers["x-frame-options"] == "DENY"
        assert headers["x-content-type-options"] == "nosniff"
        assert "referrer-policy" in headers


def test_a_body_beyond_its_bounds_or_nested_too_deep_is_refused(client):
    large = put(client, json.dumps({**TRIAL, "question": "x" * 1_100_000}))
    assert (large.status_code, large.json()["title"]) == (413, "Too large")
    deep = put(client, '{"id":' + "[" * 100_000)
    assert deep.status_code in (400, 422)
    surrogate = put(client, '{"id": "door-trial", "name": "\\ud800"}')
    assert (surrogate.status_code, surrogate.json()["field"]) == (422, "name")
    digits = put(client, '{"id": "door-trial", "name": "x", "edges_per_blade": ' + "9" * 400 + "}")
    assert (digits.status_code, digits.json()["field"]) == (422, "edges_per_blade")


@pytest.mark.parametrize(
    ("path", "body", "field"),
    [
        ("/api/abrasives/abrasive-1", {"id": "abrasive-1", "name": "grit", "kind": "s",
            "size_um": 1e-308}, "size_um"),
        ("/api/blades/blade-door", {"id": "blade-door", "code": "A", "loan_due": "9999-12-31"},
            "loan_due"),
        ("/api/blades/blade-door", {"id": "blade-door", "code": "A", "loan_due": "2026-02-31"},
            "loan_due"),
        ("/api/blades/blade-door", {"id": "blade-door", "code": "A", "edges": [{"id": "e1234567",
            "number": 2**63}]},
         "number"),
    ],
)  # fmt: skip  # a table is read by its rows
def test_numbers_and_days_beyond_this_world_are_refused_at_their_field(client, path, body, field):
    answer = client.put(path, json=body)
    assert answer.status_code == 422, answer.text
    assert answer.json()["field"].split(".")[-1] == field


def picture(**saved):
    made = io.BytesIO()
    Image.effect_noise((120, 90), 60).convert("RGB").save(made, **saved)
    return made.getvalue()


def with_gps():
    exif = Image.Exif()
    exif[0x0112], exif[0x0132] = 6, "2026:05:04 10:00:00"
    exif.get_ifd(0x8825)[2] = (60.0, 9.0, 21.5)
    return exif


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP"])
def test_a_picture_keeps_its_turn_and_loses_its_place_and_goes_when_it_is_deleted(
    client, database, kind
):
    client.put("/api/blades/blade-door", json={"id": "blade-door", "code": "A"})
    sent = picture(format=kind, exif=with_gps())
    assert Image.open(io.BytesIO(sent)).getexif().get_ifd(0x8825), "the place was in it"
    post = client.post("/api/blades/blade-door/photos", files={"photo": ("a.jpg", sent)})
    assert post.status_code == 200, post.text
    kept = client.get(f"/api/pictures/{post.json()['hash']}").content
    found = Image.open(io.BytesIO(kept))
    assert found.getexif().get_ifd(0x8825) == {}
    assert struct.pack(">I", 9) not in kept[: len(kept) // 4] or found.getexif().get(0x0112) in (
        6,
        None,
    )
    if kind != "WEBP":
        assert found.getexif()[0x0112] == 6, "how it is turned is kept"
    assert list(found.getdata()) == list(Image.open(io.BytesIO(sent)).getdata()), (
        "not a pixel is coded anew"
    )
    client.delete(f"/api/blades/blade-door/photos/{post.json()['hash']}")
    assert client.get(f"/api/pictures/{post.json()['hash']}").status_code == 404
    delete_unused(database, datetime.now(UTC))
    assert [path for path in (database.folder / "photos").rglob("*") if path.is_file()] == []


@pytest.mark.parametrize("kind", ["JPEG", "PNG", "WEBP"])
def test_a_picture_that_breaks_off_is_none(client, kind):
    client.put("/api/blades/blade-door", json={"id": "blade-door", "code": "A"})
    whole = picture(format=kind)
    for share in (0.1, 0.5, 0.9):
        half = whole[: int(len(whole) * share)]
        answer = client.post("/api/blades/blade-door/photos", files={"photo": ("a.jpg", half)})
        assert (answer.status_code, answer.json()["title"]) == (422, "The file was refused")


def test_where_an_instrument_is_plugged_in_is_said_on_this_machine_alone(database, tmp_path):
    app = create_app(database, lan_address=LAN)
    laptop = here(app)
    phone = TestClient(app, base_url=f"http://{LAN}:8737", client=("192.0.2.77", 40000))
    phone.post("/pair", data={"code": laptop.post("/api/pairing/code").json()["code"]})
    camera = {"id": "camera-01", "kind": "camera", "name": "Lamp", "address": str(tmp_path)}
    answers = [
        phone.put("/api/instruments/camera-01", json=camera | {"address": there})
        for there in (str(tmp_path), "/no/such/folder")
    ]
    assert [(a.status_code, a.json()["detail"]) for a in answers] == [
        (403, answers[0].json()["detail"])
    ] * 2
    assert laptop.put("/api/instruments/camera-01", json=camera).status_code == 200
    (seen,) = phone.get("/api/instruments").json()
    assert seen["address"] == "", "a device of the network is not told which folders there are"
    assert (
        phone.put(
            "/api/instruments/camera-01", json=camera | {"address": "", "in_use": False}
        ).status_code
        == 200
    )
    app.state.server.close()


def test_only_so_many_instruments_are_plugged_in_at_once(client, database):
    def plug(n):
        body = {
            "id": f"tester-{n:03}",
            "kind": "force",
            "name": f"T{n}",
            "address": f"/dev/ttyKessik{n}",
        }
        return client.put(f"/api/instruments/tester-{n:03}", json=body)

    answers = [plug(n) for n in range(60)]
    assert [a.status_code for a in answers].count(200) == 12
    assert (answers[-1].status_code, answers[-1].json()["field"]) == (422, "in_use")
    lines = [
        thread for thread in threading.enumerate() if thread.name.startswith("line /dev/ttyKessik")
    ]
    assert len(lines) == 12


def test_a_device_that_is_shut_out_hears_no_more(tmp_path, database):
    served = ServedHere(tmp_path / "lan")
    try:
        app = served.server.config.app
        server = app.state.server
        pairing = server.pairing
        pairing.address = LAN
        token = pairing.pair(pairing.new_code(), "phone", "192.0.2.77")
        with socket.create_connection(("127.0.0.1", served.port)) as link:
            # to the gate it is a device of the network, by its name; loopback stands for the wire
            ask = (
                f"GET /api/instruments/follow HTTP/1.1\r\nHost: {LAN}\r\nCookie:"
                f" kessik_session={token}\r\n\r\n"
            )
            link.sendall(ask.encode())
            link.settimeout(10)
            assert b"200 OK" in link.recv(4096)
            (device,) = pairing.devices()
            pairing.delete_device(device.id)
            heard = b""
            while chunk := link.recv(4096):
                heard += chunk
                if heard.endswith(b"0\r\n\r\n"):
                    break
            server.bench.live.tell(run_topic("x"), 1)
        assert heard.endswith(b"0\r\n\r\n"), "the stream was ended"
    finally:
        served.kill()


def test_a_request_that_does_not_come_whole_is_given_up(tmp_path, monkeypatch):
    monkeypatch.setattr("kessik.api.read_timeouts.HEAD_WITHIN_S", 0.3)
    assert HEAD_WITHIN_S >= 5, "a slow line has its time"
    served = ServedHere(tmp_path / "slow", http=PatientProtocol)
    try:
        links = [socket.create_connection(("127.0.0.1", served.port)) for _ in range(50)]
        for link in links:
            link.sendall(b"GET /api/today HTTP/1.1\r\nHost: 127.0.0.1\r\nX-Half: ")
        deadline = time.monotonic() + 10
        while served.server.server_state.connections and time.monotonic() < deadline:
            time.sleep(0.05)
        assert len(served.server.server_state.connections) == 0
        for link in links:
            link.close()
    finally:
        served.kill()
