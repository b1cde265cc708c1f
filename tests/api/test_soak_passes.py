"""Sides graded again without names, phases and earlier soaks, over the wire."""

import io

import pytest
from PIL import Image

from kessik.instruments.virtual_bench.soaked_blade import (
    OUTLINE,
    WHITE_POINT,
    SoakedSide,
    photograph,
)
from tests.helpers.soaking import Soaking, at, new_id

GRADES = {"A": 8, "B": 6, "D": 3}


@pytest.fixture
def soaking(client):
    found = Soaking(client)
    for name, grade in GRADES.items():
        for side in ("left", "right"):
            found.ok(found.look(name, side, grade=grade, seen_by="Ida"))
    found.ok(
        client.put(
            f"/api/soaks/{found.id}/acts/{new_id()}",
            json={"kind": "ended", "said": "done", **at(14.5)},
        )
    )
    return found


def test_a_pass_tells_no_name_and_gives_the_agreement_of_two_raters(soaking):
    """By hand: the second rater gives each of six sides one grade less, 1.0 grades apart."""
    pass_id, client = new_id(), soaking.client
    address = f"/api/soaks/{soaking.id}/passes/{pass_id}"
    opened = soaking.ok(client.get(address))
    assert len(opened["places"]) == 6
    assert not any(name in str(opened) for name in soaking.coupons.values())
    lies = {each["number"]: each["name"] for each in client.get(f"{address}/laid-out/names").json()}
    for number, name in lies.items():
        body = {"grade": GRADES[name[0]] - 1, "seen_by": "Oda"}
        opened = soaking.ok(client.put(f"{address}/{number}", json=body))
    assert all(place["is_done"] for place in opened["places"])
    said = "Graded by Ida and Oda: 6 sides, 1.0 grades apart on average (weighted kappa 0.89)."
    assert opened["agreements"] == [said]
    sheet = soaking.sheet()
    assert said in sheet["answer"]["reasons"]
    assert sum(bool(look["blind"]) for look in sheet["looks"]) == 6


def test_a_pass_goes_out_with_the_looks_and_comes_in_again(soaking):
    pass_id = new_id()
    address = f"/api/soaks/{soaking.id}/passes/{pass_id}"
    for number in (1, 2):
        body = {"grade": 5, "seen_by": "Ida"}
        soaking.ok(soaking.client.put(f"{address}/{number}", json=body))
    text = soaking.client.get(f"/api/soaks/{soaking.id}/looks.csv").content
    fresh = Soaking(soaking.client)
    file = {"file": ("Brine.looks.csv", text)}
    taken = soaking.ok(soaking.client.post(f"/api/soaks/{fresh.id}/look-imports", files=file))
    assert taken["looks"] == 8
    assert sum(look["blind"] == pass_id for look in fresh.sheet()["looks"]) == 2


def test_one_rater_again_is_another_inspection_and_a_grade_given_again_replaces_its_first(soaking):
    pass_id = new_id()
    address = f"/api/soaks/{soaking.id}/passes/{pass_id}/1"
    for grade in (5, 7):
        soaking.ok(soaking.client.put(address, json={"grade": grade, "seen_by": "Ida"}))
    (again,) = [look for look in soaking.sheet()["looks"] if look["blind"]]
    assert (again["rust_low"], again["rust_high"]) == (0.25, 0.5)
    wrong = soaking.client.put(f"{address}9", json={"grade": 7})
    assert (wrong.status_code, wrong.json()["field"]) == (422, "number")


def test_a_pictured_side_is_shown_without_what_was_found_on_it(soaking):
    (kept,) = soaking.ok(soaking.picture(photograph(SoakedSide(5, 3.0))))
    measuring = {"outline": [list(c) for c in OUTLINE], "white_point": list(WHITE_POINT)}
    said = {"picture": kept["hash"], "measuring": measuring, "seen_by": "a camera"}
    soaking.ok(soaking.look("A", "left", **said))
    address = f"/api/soaks/{soaking.id}/passes/{new_id()}"
    opened = soaking.ok(soaking.client.get(address))
    (shown,) = [place["number"] for place in opened["places"] if place["has_picture"]]
    with Image.open(io.BytesIO(soaking.client.get(f"{address}/{shown}/picture").content)) as image:
        assert image.width > 3 * image.height, "the blade alone"
    other = next(place["number"] for place in opened["places"] if not place["has_picture"])
    assert soaking.client.get(f"{address}/{other}/picture").status_code == 404


def test_a_round_of_one_side_cannot_be_graded_again(client):
    alone = Soaking(client)
    alone.ok(alone.look("A", grade=5))
    refused = client.get(f"/api/soaks/{alone.id}/passes/{new_id()}")
    assert (refused.status_code, refused.json()["field"]) == (409, "round")


def test_phases_are_kept_answered_apart_and_refused_at_their_field(client):
    soaking = Soaking(client)
    phases = [
        {"medium": "fresh water", "until_h": 6},
        {"medium": "brine", "until_h": 14, "salt_percent": 3.5},
    ]
    method = {**soaking.body["method"], "phases": phases, "look_h": [6, 14]}
    address = f"/api/soaks/{soaking.id}"
    soaking.ok(client.patch(address, json={"method": method}))
    for hours, areas in ((6.1, (0.1, 0.1, 2)), (14, (0.1, 3, 20))):
        for name, area in zip("ABD", areas, strict=True):
            soaking.ok(soaking.look(name, hours=hours, rust_percent=area))
    sheet = soaking.sheet()
    fresh, brine = sheet["answer"]["phases"]
    assert fresh["says"] == "Least rust first: A and B together, then D."
    assert brine["says"] == "Least rust first: A, then B, then D."
    assert brine["came"][soaking.coupons["B"]].endswith("of it came here")
    assert [found["medium"] for found in sheet["rounds"]] == ["fresh water", "brine"]
    assert any(duty["says"] == "begin the next phase: brine" for duty in sheet["duties"])
    late = [phases[0], {**phases[1], "until_h": 20}]
    refused = client.patch(address, json={"method": {**method, "phases": late}})
    assert (refused.status_code, refused.json()["field"]) == (422, "phases")
    assert soaking.sheet()["how"]["phases"][1]["until_h"] == 14


def test_steels_of_earlier_soaks_place_a_new_one_and_stand_in_for_blades_in_the_table(client):
    for steels in (("1.4116", "1.2363", "1.2842"), ("1.4116", "1.4034", "1.2842")):
        soak = Soaking(client)
        coupons = [
            {**coupon, "id": new_id(), "steel": steel}
            for coupon, steel in zip(soak.body["coupons"], steels, strict=True)
        ]
        soak.coupons = {coupon["name"]: coupon["id"] for coupon in coupons}
        soak.ok(client.patch(f"/api/soaks/{soak.id}", json={"coupons": coupons}))
        for name, area in zip("ABD", (0.1, 2.0 if "1.2363" in steels else 0.4, 30), strict=True):
            for side in ("left", "right"):
                soak.ok(soak.look(name, side, rust_percent=area))
    says = client.get(f"/api/soaks/{soak.id}/among").json()["says"]
    assert says[0] == "1.4116 and 1.4034 rust less than 1.2363."
    table = client.get("/api/soaks-side-by-side").json()
    assert table["by_steel"]
    assert table["says"].startswith("No blade was in two of these soaks, so the rows are steels.")
    assert [row["blade"] for row in table["rows"]] == ["1.2363", "1.2842", "1.4034", "1.4116"]
    for each in client.get("/api/soaks").json():
        whole = client.get(f"/api/soaks/{each['id']}").json()
        coupons = [{**coupon, "is_same_piece": True} for coupon in whole["coupons"]]
        for coupon in coupons:
            for name in ("called", "mark"):
                del coupon[name]
        assert (
            client.patch(f"/api/soaks/{each['id']}", json={"coupons": coupons}).status_code == 200
        )
    linked = client.get("/api/soaks-side-by-side").json()
    assert not linked["by_steel"]
    assert [row["blade"] for row in linked["rows"]] == ["A", "B", "D"]
