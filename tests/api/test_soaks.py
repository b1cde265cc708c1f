"""Soaks over the wire: begun, tended, looked at, measured in pictures, answered; and bad input."""

import csv
import io

import icalendar
import numpy as np
import pytest
from PIL import Image

from kessik.instruments.virtual_bench.soaked_blade import (
    OUTLINE,
    WHITE_POINT,
    SoakedSide,
    photograph,
)
from tests.helpers.soaking import Soaking, at, new_id

MEASURING = {"outline": [list(c) for c in OUTLINE], "white_point": list(WHITE_POINT)}


@pytest.fixture
def soaking(client):
    return Soaking(client)


def area(value):
    return {"rust_percent": value, "rust_low": 0.9 * value, "rust_high": 1.1 * value}


def test_a_paper_record_is_answered_as_by_hand(soaking):
    for name, left, right in (("A", 1.2, 0.9), ("B", 1.0, 1.4), ("D", 22, 31)):
        for side, value in (("left", left), ("right", right)):
            soaking.ok(soaking.look(name, side, "as_found", **area(2 * value)))
            soaking.ok(soaking.look(name, side, **area(value)))
    sheet = soaking.sheet()
    assert sheet["headline"] == "Least rust first: A and B together, then D."
    places = {s["coupon_id"]: s["place"] for s in sheet["answer"]["standings"]}
    assert [places[soaking.coupons[name]] for name in "ABD"] == [1, 1, 3]
    first = next(look for look in sheet["looks"] if look["stage"] == "wiped")
    assert first["ratings"] == ["ISO 10289: 5", "ASTM D610: 5", "ISO 4628-3: Ri 4"]
    assert [c["superficial"][:5] for c in sheet["answer"]["courses"]] == ["1.1 %", "1.2 %", "26 %,"]


def test_a_grade_and_counted_spots_are_intervals(soaking):
    graded = soaking.ok(soaking.look("A", grade=7))
    assert (graded["rust_low"], graded["rust_high"], graded["rust_percent"]) == (0.25, 0.5, None)
    spots = {"count": 12, "size_mm": 1, "side_cm2": 22}
    counted = soaking.ok(soaking.look("B", spots=spots))
    assert counted["rust_low"] < 0.43 < counted["rust_high"]
    assert counted["how"] == "spots"


def test_rust_is_measured_in_a_picture_and_can_be_measured_again(soaking):
    (kept,) = soaking.ok(soaking.picture())
    assert kept["taken_at"] == "2026-05-04T10:00:00"
    proposed = soaking.ok(soaking.client.get(f"/api/pictures/{kept['hash']}/outline"))
    assert len(proposed["outline"]) > 10
    tried = soaking.ok(soaking.client.post(f"/api/pictures/{kept['hash']}/rust", json=MEASURING))
    look_id = new_id()
    look = soaking.ok(soaking.look("A", look_id=look_id, picture=kept["hash"], measuring=MEASURING))
    assert look["rust_percent"] == pytest.approx(tried["rust_percent"])
    assert look["how"] == "photo"
    address = f"/api/soaks/{soaking.id}/looks/{look_id}"
    again = soaking.ok(soaking.client.get(f"{address}/measuring"))["measuring"]
    once_more = soaking.client.post(f"/api/pictures/{kept['hash']}/rust", json=again).json()
    assert once_more["rust_percent"] == look["rust_percent"]
    assert soaking.client.get(f"{address}/strip").content[:2] == b"\xff\xd8"


def test_an_outline_is_carried_over_and_what_is_new_is_told(soaking):
    (first,) = soaking.ok(soaking.picture(photograph(SoakedSide(5, 1.0))))
    (second,) = soaking.ok(soaking.picture(photograph(SoakedSide(5, 4.0, moved_px=(7, -5)))))
    look_id = new_id()
    said = {"look_id": look_id, "picture": first["hash"], "measuring": MEASURING}
    soaking.ok(soaking.look("A", stage="as_found", hours=6, **said))
    address = f"/api/pictures/{second['hash']}"
    carried = soaking.ok(soaking.client.get(f"{address}/outline", params={"look_id": look_id}))
    moved = np.array(carried["outline"]) - np.array(OUTLINE)
    assert np.abs(moved - (7, -5)).max() < 2.5
    body = {"outline": carried["outline"], "white_point": carried["white_point"]}
    params = {"earlier_look": look_id}
    rust = soaking.ok(soaking.client.post(f"{address}/rust", json=body, params=params))
    assert rust["new_percent"] == pytest.approx(rust["rust_percent"] - 1.0, abs=0.8)
    assert rust["colour_step"] < 1.0


def test_the_brush_settles_and_the_slider_counts(soaking):
    (kept,) = soaking.ok(soaking.picture())
    address = f"/api/pictures/{kept['hash']}/rust"
    plain = soaking.ok(soaking.client.post(address, json=MEASURING))
    stroke = {"kind": "rust", "width_px": 20, "points": [[400, 200], [500, 200]]}
    brushed = soaking.client.post(address, json={**MEASURING, "strokes": [stroke]}).json()
    assert brushed["rust_percent"] > plain["rust_percent"] + 1
    wiped = {**stroke, "kind": "clean", "width_px": 900, "points": [[600, 170]]}
    cleaned = soaking.client.post(address, json={**MEASURING, "strokes": [stroke, wiped]}).json()
    assert cleaned["rust_percent"] == 0
    areas = [each["percent"] for each in plain["by_threshold"]]
    assert areas == sorted(areas, reverse=True)


def test_late_and_paused_are_recorded_at_their_true_hour(soaking):
    act = {"kind": "measured", "ph": 6.9, "salt_percent": 5, "temperature_c": 18, **at(0.5)}
    address = f"/api/soaks/{soaking.id}/acts/{new_id()}"
    assert soaking.ok(soaking.client.put(address, json=act))["clock_h"] == pytest.approx(0.5)
    assert soaking.client.put(address, json=act).status_code == 200
    assert soaking.client.put(address, json={**act, "ph": 3}).status_code == 409
    soaking.ok(soaking.client.put(f"{address}/struck", json={"reason": "the probe was dry"}))
    assert soaking.sheet()["acts"][0]["struck"] == "the probe was dry"
    due = soaking.client.get("/api/today").json()["due"]
    assert any("Brine: inspect, due since" in each["says"] for each in due)
    calendar = soaking.client.get(f"/api/soaks/{soaking.id}/calendar.ics").content
    events = icalendar.Calendar.from_ical(calendar).walk("VEVENT")
    assert [str(event["summary"]) for event in events] == ["Brine: inspect at 14 h"]


def test_looks_go_out_and_come_back_the_same(soaking):
    soaking.ok(soaking.look("A", **area(1.2)))
    soaking.ok(soaking.look("D", grade=2, pits=4, deepest_pit_mm=0.1))
    text = soaking.client.get(f"/api/soaks/{soaking.id}/looks.csv").text
    other = Soaking(soaking.client)
    for _ in range(2):
        files = {"file": ("a.looks.csv", text.encode())}
        made = soaking.client.post(f"/api/soaks/{other.id}/look-imports", files=files)
        assert made.json() == {"looks": 2}
    assert len(other.sheet()["looks"]) == 2
    back = other.client.get(f"/api/soaks/{other.id}/looks.csv").text
    assert [row[:-1] for row in csv.reader(back.splitlines())] == [
        row[:-1] for row in csv.reader(text.splitlines())
    ]
    broken = text.replace("wiped", "polished", 1)
    files = {"file": ("a.looks.csv", broken.encode())}
    refused = soaking.client.post(f"/api/soaks/{other.id}/look-imports", files=files)
    assert refused.status_code == 422
    assert refused.json()["faults"][0]["column"] == "stage"


def test_looks_come_in_with_other_files_by_the_name_of_their_soak(soaking):
    soaking.ok(soaking.look("A", **area(1.2)))
    text = soaking.client.get(f"/api/soaks/{soaking.id}/looks.csv").text
    twin = Soaking(soaking.client)
    renamed = {"name": "Brine again"}
    soaking.ok(soaking.client.patch(f"/api/soaks/{twin.id}", json=renamed))
    both = text + text.splitlines()[1].replace("Brine", "Brine again", 1) + "\n"

    def bring(content):
        files = [("files", ("a.looks.csv", content.encode()))]
        return soaking.client.post("/api/imports", files=files)

    faulty = bring(both.replace("Brine again,A", "Nowhere,A").replace("Brine,A", "Brine,Z"))
    assert faulty.status_code == 422
    assert twin.sheet()["looks"] == []
    notes = soaking.ok(bring(both))["notes"]
    assert notes == ["inspections saved in Brine: 1", "inspections saved in Brine again: 1"]
    assert len(twin.sheet()["looks"]) == 1


def test_the_page_of_a_blade_tells_its_rust_with_the_conditions(client):
    blade = new_id()
    made = {"id": blade, "code": "AV-01", "claimed_grade": "1.4034"}
    assert client.put(f"/api/blades/{blade}", json=made).status_code == 200
    soaking = Soaking(client)
    coupons = soaking.body["coupons"]
    coupons[0] |= {"blade_id": blade, "name": "AV-01", "flat_finish": "satin"}
    soaking.ok(client.patch(f"/api/soaks/{soaking.id}", json={"coupons": coupons}))
    soaking.ok(soaking.look("A", **area(1.2)))
    soaking.ok(soaking.look("D", **area(25)))
    (line,) = client.get(f"/api/blades/{blade}/soaks").json()
    assert line["place_says"] == "1st, of 2"
    assert "5 % salt" in line["conditions"]
    assert "satin, dry" in line["conditions"]
    trial = new_id()
    soaking.ok(client.put(f"/api/trials/{trial}", json={"id": trial, "name": "Rope"}))
    soaking.ok(client.put(f"/api/trials/{trial}/places/{blade}", json={}))
    (beside,) = client.get(f"/api/trials/{trial}/soaks").json()
    assert beside["soaks"] == [line]
    gone = client.delete(f"/api/blades/{blade}")
    assert gone.status_code == 409
    assert "is in a soak" in gone.json()["detail"]


def broken_pictures():
    whole = photograph(SoakedSide(5, 3.0))
    tiny = io.BytesIO()
    Image.new("RGB", (2, 2)).save(tiny, "PNG")
    bomb = io.BytesIO()
    Image.new("1", (20_000, 20_000)).save(bomb, "PNG")
    return {
        "truncated": whole[: len(whole) // 2],
        "text": b"soak,coupon\n",
        "empty": b"",
        "bomb": bomb.getvalue(),
    }, tiny.getvalue()


def test_broken_pictures_are_refused_and_nothing_is_lost(soaking):
    broken, tiny = broken_pictures()
    for name, data in broken.items():
        refused = soaking.picture(data or b"\x00")
        assert refused.status_code == 422, name
        assert refused.json()["detail"]
    (kept,) = soaking.ok(soaking.picture(tiny))
    refused = soaking.client.post(f"/api/pictures/{kept['hash']}/rust", json=MEASURING)
    assert refused.status_code == 422
    assert refused.json()["field"] == "outline"
    assert soaking.client.get(f"/api/pictures/{kept['hash']}/outline").status_code == 422
    assert soaking.sheet()["looks"] == []


def test_a_sideways_picture_is_measured_upright(soaking):
    upright = Image.open(io.BytesIO(photograph(SoakedSide(5, 3.0))))
    exif = Image.Exif()
    exif[0x0112] = 6
    turned = io.BytesIO()
    upright.rotate(90, expand=True).save(turned, "JPEG", quality=95, exif=exif)
    (kept,) = soaking.ok(soaking.picture(turned.getvalue()))
    assert (kept["width_px"], kept["height_px"]) == upright.size
    rust = soaking.ok(soaking.client.post(f"/api/pictures/{kept['hash']}/rust", json=MEASURING))
    assert rust["rust_percent"] == pytest.approx(3.0, rel=0.2)


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"outline": []}, "outline"),
        ({"outline": [[9000, 9000], [9100, 9000], [9100, 9100]]}, "outline"),
        ({"white_point": [5000, 10]}, "white_point"),
        ({"white_point": [120, 170]}, "white_point"),
        ({"threshold": 2}, "threshold"),
    ],
)
def test_choices_that_cannot_be_are_refused_at_their_field(soaking, change, field):
    (kept,) = soaking.ok(soaking.picture())
    address = f"/api/pictures/{kept['hash']}/rust"
    refused = soaking.client.post(address, json={**MEASURING, **change})
    assert refused.status_code == 422
    assert refused.json()["field"] == field


def test_looks_that_cannot_be_are_refused(soaking):
    soaking.ok(soaking.look("A", **area(1)))
    for refused, field in (
        (soaking.look("A", hours=14.2, **area(2)), "stage"),
        (soaking.look("A", hours=-1, **area(2)), "at"),
        (soaking.look("A", stage="rinsed", hours=40, **area(2)), "at"),
        (soaking.look("B", rust_percent=2, rust_low=3, rust_high=4), "rust_percent"),
        (soaking.look("B", measuring=MEASURING), "picture"),
    ):
        assert refused.status_code == 422
        assert refused.json()["field"] == field
    gone = [c for c in soaking.body["coupons"] if c["name"] != "A"]
    refused = soaking.client.patch(f"/api/soaks/{soaking.id}", json={"coupons": gone})
    assert refused.status_code == 409
    assert len(soaking.sheet()["looks"]) == 1


def test_a_large_soak_opens_whole(client):
    """8 blades, 10 looks, 2 sides, 2 stages and more: every look is there."""
    soaking = Soaking(client)
    for hours in range(1, 11):
        for name in "ABD":
            for side in ("left", "right"):
                for stage in ("as_found", "rinsed", "wiped", "scoured"):
                    soaking.ok(soaking.look(name, side, stage, hours, **area(hours)))
    sheet = soaking.sheet()
    assert len(sheet["looks"]) == 240
    assert len(sheet["answer"]["courses"][0]["points"]) == 80


def test_one_part_of_a_picture_is_read_as_one_coupon(soaking):
    (kept,) = soaking.ok(soaking.picture())
    said = {"picture": kept["hash"], "measuring": MEASURING}
    soaking.ok(soaking.look("A", **said))
    refused = soaking.look("B", **said)
    assert (refused.status_code, refused.json()["field"]) == (422, "coupon_id")
    assert "was read as A already" in refused.json()["detail"]


def test_a_soak_that_would_make_a_hundred_thousand_dues_is_refused_in_a_sentence(soaking):
    spray = {"kind": "sprayed", "every_h": 0.05}
    method = {**soaking.body["method"], "hours": 20_000, "look_h": [14], "tending": [spray]}
    address = f"/api/soaks/{soaking.id}"
    refused = soaking.client.patch(address, json={"method": method})
    assert (refused.status_code, refused.json()["field"]) == (422, "tending")
    assert "makes 400,001 rounds and interventions" in refused.json()["detail"]
    hourly = {**soaking.body["method"], "tending": [{"kind": "sprayed", "every_h": 1}]}
    soaking.ok(soaking.client.patch(address, json={"method": hourly}))
    longer = {"kind": "prolonged", "amount": 20_000, **at(2)}
    refused = soaking.client.put(f"{address}/acts/{new_id()}", json=longer)
    assert (refused.status_code, refused.json()["field"]) == (422, "amount")
    assert len(soaking.sheet()["duties"]) == 15


@pytest.mark.parametrize("name", ["Brine\nEND:VCALENDAR", "Brine\r\nX-Evil: 1", "Brine\u2028two"])
def test_a_name_of_several_lines_is_refused(soaking, name):
    refused = soaking.client.patch(f"/api/soaks/{soaking.id}", json={"name": name})
    assert (refused.status_code, refused.json()["field"]) == (422, "name")
