"""Toughness, hours wet without a soak, and an analyser's reference alloy, over the wire."""

from uuid import uuid4

import pytest

VALUE = {"test": "charpy_plain", "joules": 24, "specimen": "10 x 10 x 55 mm"}


def new_id():
    return str(uuid4())


@pytest.fixture
def blade(client):
    made = new_id()
    body = {"id": made, "code": "AV-06", "claimed_grade": "1.2436"}
    assert client.put(f"/api/blades/{made}", json=body).status_code == 200
    return made


def test_a_toughness_is_kept_once_beside_those_of_its_own_test_and_can_be_excluded(client, blade):
    own, other = new_id(), new_id()
    for _ in range(2):
        kept = client.put(f"/api/toughness/{own}", json={"blade_id": blade, **VALUE})
        assert kept.status_code == 200
    of_grade = {**VALUE, "joules": 11, "grade": "1.2379", "standing": "literature", "source": "x"}
    assert client.put(f"/api/toughness/{other}", json=of_grade).status_code == 200
    page = client.get("/api/toughness", params={"blade_id": blade}).json()
    assert [value["says"] for value in page["values"]] == ["24 J"]
    assert page["beside"] == [
        "Beside it, Charpy, without a notch on the same specimen: 1.2379 11 J."
    ]
    assert client.put(f"/api/toughness/{own}", json={**of_grade}).status_code == 409
    client.put(f"/api/toughness/{other}/struck", json={"reason": "another steel"})
    assert client.get("/api/toughness", params={"blade_id": blade}).json()["beside"] == []


@pytest.mark.parametrize(
    ("wrong", "field"),
    [({"specimen": ""}, "specimen"), ({"joules": 0}, "joules"), ({"joules": 5000}, "joules"),
     ({"hardness_hrc": 90}, "hardness_hrc"), ({"low_j": 30}, "low_j"), ({"grade": "none"}, "grade"),
     ({"standing": "literature"}, "source"), ({"on": "soon"}, "on")],
)  # fmt: skip
def test_a_toughness_that_cannot_be_is_refused_at_its_field(client, blade, wrong, field):
    owner = {} if "grade" in wrong else {"blade_id": blade}
    refused = client.put(f"/api/toughness/{new_id()}", json={**owner, **VALUE, **wrong})
    assert refused.json()["field"] == field
    assert refused.status_code in (404, 422)


def test_energies_are_reckoned_from_a_curve_and_from_a_pendulum(client):
    rows = "".join(f"{0.1 * n:.1f};{50 * n}\n" for n in range(21))
    file = ("a.curve.csv", f"deflection_mm;force_n\n{rows}".encode())
    found = client.post("/api/energy-of-curve", files={"file": file}).json()
    assert found["joules"] == pytest.approx(1.0)
    assert found["says"] == "1 J, 0.986 to 1.01 J"
    swung = {"mass_kg": 20, "from_mm": 1500, "to_mm": 1400}
    assert client.get("/api/energy-of-pendulum", params=swung).json()["joules"] == pytest.approx(
        19.6, abs=0.02
    )
    up = client.get("/api/energy-of-pendulum", params={**swung, "to_mm": 1600})
    assert (up.status_code, up.json()["field"]) == (422, "to_mm")
    text = ("a.curve.csv", b"deflection_mm,force_n\n0,ten\n")
    assert client.post("/api/energy-of-curve", files={"file": text}).status_code == 422


def test_hours_wet_without_a_soak_stand_on_the_blades_page(client, blade):
    address = f"/api/blades/{blade}/exposures"
    made = new_id()
    body = {"hours": 6, "medium": "wet stone", "seen": "none"}
    assert client.put(f"{address}/{made}", json=body).status_code == 200
    assert [each["says"] for each in client.get(address).json()] == ["6 h, wet stone: no rust"]
    for wrong, field in (({"hours": 0}, "hours"), ({"medium": " "}, "medium")):
        refused = client.put(f"{address}/{new_id()}", json={**body, **wrong})
        assert (refused.status_code, refused.json()["field"]) == (422, field)
    client.put(f"/api/exposures/{made}/struck", json={"reason": "another blade"})
    assert client.get(address).json()[0]["struck"] == "another blade"


def test_care_is_dated_and_due_again_in_today(client, blade):
    address = f"/api/blades/{blade}/care"
    first, second = new_id(), new_id()
    clean = {"kind": "cleaned", "on": "2026-05-04", "used": "vinegar", "took_off": "patina"}
    assert client.put(f"{address}/{first}", json=clean).json()["says"] == (
        "cleaned with vinegar; it took off patina"
    )
    oil = {"kind": "oiled", "on": "2020-03-01", "used": "camellia oil", "again_days": 90}
    kept = client.put(f"{address}/{second}", json=oil).json()
    assert (kept["says"], kept["due_says"]) == (
        "oiled with camellia oil", "due again 2020-05-30"
    )  # fmt: skip
    (due,) = [d for d in client.get("/api/today").json()["due"] if d["kind"] == "care"]
    assert due["says"].startswith("Oil AV-06 again with camellia oil, ")
    assert due["overdue"]
    client.put(f"{address}/{new_id()}", json={**oil, "on": "2021-01-01", "again_days": None})
    assert not [d for d in client.get("/api/today").json()["due"] if d["kind"] == "care"]
    for wrong, field in (
        ({"on": ""}, "on"), ({"on": "2026-02-30"}, "on"), ({"again_days": 0}, "again_days"),
        ({"kind": "cleaned", "used": " "}, "used"),
    ):  # fmt: skip
        refused = client.put(f"{address}/{new_id()}", json={**oil, **wrong})
        assert (refused.status_code, refused.json()["field"]) == (422, field)


def test_a_blade_with_such_notes_goes_to_the_bin_and_comes_back_with_them(client, blade):
    client.put(f"/api/toughness/{new_id()}", json={"blade_id": blade, **VALUE})
    note = {"hours": 6, "medium": "rain"}
    client.put(f"/api/blades/{blade}/exposures/{new_id()}", json=note)
    assert client.delete(f"/api/blades/{blade}").status_code == 204
    (entry,) = client.get("/api/bin").json()
    assert client.put(f"/api/bin/{entry['id']}/brought-back").status_code in (200, 204)
    assert len(client.get(f"/api/blades/{blade}/exposures").json()) == 1
    found = client.get("/api/toughness", params={"blade_id": blade}).json()
    assert len(found["values"]) == 1


def test_an_analyser_that_is_off_is_said_at_its_batch_and_at_its_blades(client, blade):
    batch = new_id()
    cr = {"element": "Cr", "percent": 12.5, "plus_minus_percent": 0.1}
    reference = {
        "alloy": "check block 3",
        "certified": [cr],
        "readings": [{**cr, "percent": 11.4}],
    }
    body = {"name": "Spring post", "blade_ids": [blade], "reference": reference}
    kept = client.put(f"/api/batches/{batch}", json=body)
    said = (
        "On check block 3 the analyser reads Cr 11.4 % for 12.5 %: more than its errors explain."
        " Find out why before trusting this batch."
    )
    assert kept.json()["alloy_says"] == said
    shot = {"name": "1", "readings": [cr], "surface": "bare", "batch_id": batch}
    assert client.put(f"/api/blades/{blade}/shots/{new_id()}", json=shot).status_code == 200
    assert said in client.get(f"/api/blades/{blade}/assay").json()["notes"]
    bare = {**reference, "certified": [{"element": "Cr", "percent": 12.5}]}
    refused = client.patch(f"/api/batches/{batch}", json={"reference": bare})
    assert refused.json()["field"] == "reference.certified.0.plus_minus_percent"
    client.patch(f"/api/batches/{batch}", json={"reference": None})
    assert client.get("/api/assays").json()["batches"][0]["alloy_says"] == ""
