"""Who may ask: this machine, and what it let in from the network; everything else is refused."""

import re

import pytest
from fastapi.testclient import TestClient

from kessik.api.app import create_app

LAN = "192.0.2.10"
PHONE = ("192.0.2.77", 40000)
HTML = {"accept": "text/html,application/xhtml+xml"}


@pytest.fixture
def app(database):
    return create_app(database, lan_address=LAN)


@pytest.fixture
def laptop(app):
    return TestClient(app, base_url="http://127.0.0.1:8737", client=("127.0.0.1", 50000))


@pytest.fixture
def phone(app):
    return TestClient(app, base_url=f"http://{LAN}:8737", client=PHONE)


def paired(laptop, phone):
    shown = laptop.post("/api/pairing/code").json()
    assert phone.get("/pair", params={"code": shown["code"]}).status_code == 200
    return phone.post(
        "/pair", data={"code": shown["code"].lower(), "name": "phone"}, follow_redirects=False
    )


def test_a_device_is_let_in_by_the_code_and_only_once(laptop, phone):
    assert phone.get("/api/today").status_code == 401
    answer = paired(laptop, phone)
    assert (answer.status_code, answer.headers["location"]) == (303, "/")
    cookie = answer.headers["set-cookie"]
    assert re.search("HttpOnly", cookie)
    assert re.search("SameSite=strict", cookie)
    assert phone.get("/api/today").status_code == 200
    (device,) = laptop.get("/api/pairing").json()["devices"]
    assert device["name"] == "phone"
    other = TestClient(phone.app, base_url=f"http://{LAN}:8737", client=("192.0.2.78", 1))
    again = other.post("/pair", data={"code": "23456789", "name": "x"})
    assert (again.status_code, "pairing code is active" in again.text) == (422, True)


def test_a_device_can_be_shut_out_again_at_once_and_a_restart_lets_nobody_fall_out(
    laptop, phone, database
):
    paired(laptop, phone)
    session = phone.cookies["kessik_session"]
    again = TestClient(
        create_app(database, lan_address=LAN), base_url=f"http://{LAN}:8737", client=PHONE
    )
    again.cookies.set("kessik_session", session)
    assert again.get("/api/today").status_code == 200
    (device,) = laptop.get("/api/pairing").json()["devices"]
    assert laptop.delete(f"/api/pairing/devices/{device['id']}").status_code == 204
    assert phone.get("/api/today").status_code == 401


def test_guessing_makes_the_guesser_wait_and_uses_no_code_up(laptop, phone):
    code = laptop.post("/api/pairing/code").json()["code"]
    said = [phone.post("/pair", data={"code": "22222222", "name": "<b>"}).text for _ in range(5)]
    assert "not the code" in said[0]
    assert "<b>" not in said[0], "what was typed comes back as text"
    late = phone.post("/pair", data={"code": code})
    assert (late.status_code, late.headers["retry-after"] > "0") == (
        429,
        True,
    ), "whoever guesses waits"
    honest = TestClient(phone.app, base_url=f"http://{LAN}:8737", client=("192.0.2.79", 1))
    assert honest.post("/pair", data={"code": code}, follow_redirects=False).status_code == 303


@pytest.mark.parametrize("host", ["elsewhere.example", "192.0.2.11", "", "127.0.0.1", "localhost"])
def test_from_the_network_no_other_name_is_answered(laptop, phone, host):
    paired(laptop, phone)
    assert phone.get("/api/today", headers={"host": host}).status_code == 400


def test_at_home_a_name_of_another_site_is_not_answered(laptop):
    assert laptop.get("/api/today", headers={"host": "rebound.example"}).status_code == 400


def test_a_page_of_another_site_may_not_write_through_a_paired_device(laptop, phone):
    paired(laptop, phone)
    trial = {"id": "trial-0001", "name": "x"}
    for origin, status in (
        (f"http://{LAN}:8737", 200),
        (f"http://{LAN}:9999", 403),
        ("http://localhost", 403),
    ):
        assert (
            phone.put("/api/trials/trial-0001", json=trial, headers={"origin": origin}).status_code
            == status
        )


def test_codes_are_made_and_devices_shut_out_at_the_bench_alone(laptop, phone):
    paired(laptop, phone)
    assert phone.get("/api/pairing").status_code == 403
    assert phone.post("/api/pairing/code").status_code == 403


def test_before_it_is_paired_a_device_sees_the_pairing_page_and_no_other(phone):
    for path in ("/", "/runs/some-run", "/index.html", "/assets/x.js"):
        page = phone.get(path, headers=HTML)
        assert (page.status_code, "Pair this device" in page.text) == (401, True)
    assert phone.get("/assets/x.js").status_code == 401


def test_without_lan_nothing_is_answered_and_no_code_is_made(database):
    alone = create_app(database)
    assert TestClient(alone, base_url=f"http://{LAN}", client=PHONE).get("/pair").status_code == 400
    home = TestClient(alone, base_url="http://localhost", client=("127.0.0.1", 1))
    assert home.get("/api/pairing").json() == {"open_to_network": False, "devices": []}
    refused = home.post("/api/pairing/code")
    assert (refused.status_code, "--lan" in refused.json()["detail"]) == (409, True)


def test_the_qr_picture_carries_the_address_and_the_code(laptop):
    shown = laptop.post("/api/pairing/code").json()
    assert shown["address"] == f"http://{LAN}:8737/pair"
    assert shown["qr_svg"].startswith("<svg")


def test_what_cannot_be_taken_back_stays_with_the_laptop_unless_it_is_granted(laptop, phone):
    paired(laptop, phone)
    (device,) = laptop.get("/api/pairing").json()["devices"]
    blade = {"id": "blade-0001", "code": "AV-01"}
    made = laptop.put("/api/blades/blade-0001", json=blade)
    assert phone.delete("/api/blades/blade-0001").status_code == 204, "the bin is no end"
    (entry,) = phone.get("/api/bin").json()
    assert entry["by"] == "phone"
    change = made.headers["kessik-change"].split()[0]
    for method, address in (
        ("PUT", f"/api/bin/{entry['id']}/brought-back"), ("DELETE", f"/api/bin/{entry['id']}"),
        ("POST", f"/api/changes/{change}/undone"), ("POST", "/api/pairing/code"),
        ("DELETE", f"/api/pairing/devices/{device['id']}"), ("POST", "/api/backups"),
        ("PUT", f"/api/pairing/devices/{device['id']}/grants"),
    ):  # fmt: skip
        refused = phone.request(method, address, json={"grants": ["let_in"]})
        assert refused.status_code == 403, address
    assert (
        "grant it there under Devices" in phone.delete(f"/api/bin/{entry['id']}").json()["detail"]
    )
    address = f"/api/pairing/devices/{device['id']}/grants"
    granted = laptop.put(address, json={"grants": ["bring_back", "backups"]})
    assert granted.json()["devices"][0]["grants"] == ["bring_back", "backups"]
    assert phone.put(f"/api/bin/{entry['id']}/brought-back").status_code == 200
    assert phone.get("/api/backups").status_code == 200
    assert phone.post("/api/pairing/code").status_code == 403


def test_a_device_undoes_what_it_did_itself(laptop, phone):
    paired(laptop, phone)
    made = phone.put("/api/blades/blade-0001", json={"id": "blade-0001", "code": "AV-01"})
    change = made.headers["kessik-change"].split()[0]
    assert phone.post(f"/api/changes/{change}/undone").status_code == 204
