"""The assay over the wire: batches, shots in every way, verdicts, own grades."""

import csv
import io
from uuid import uuid4

import openpyxl
import pytest

from kessik.interchange.shots_csv import read_shots
from kessik.services.devices.shots import keep_shots
from tests.helpers.cutting import cut_run

HEAD = "blade,shot,element,percent,plus_minus\n"
LOW_ALLOY = {"Cr": 5.2, "Mo": 1.0, "V": 0.23, "Mn": 0.55, "Si": 0.3, "Fe": 91.6}
STAINLESS = {"Cr": 16.9, "Mo": 0.5, "Mn": 0.5, "Si": 0.5, "Fe": 80.5}


def new_id():
    return str(uuid4())


@pytest.fixture
def blade(client):
    made = new_id()
    body = {"id": made, "code": "AV-06", "claimed_grade": "1.2436"}
    assert client.put(f"/api/blades/{made}", json=body).status_code == 200
    return made


def readings(percent):
    return [
        {"element": s, "percent": p, "plus_minus_percent": round(0.02 + 0.004 * p, 3)}
        for s, p in percent.items()
    ]


def shoot(client, blade, percent, shots=3, **said):
    for number in range(shots):
        body = {"name": str(number), "readings": readings(percent), "surface": "bare"}
        made = client.put(f"/api/blades/{blade}/shots/{new_id()}", json={**body, **said})
        assert made.status_code == 200, made.json()


def assay(client, blade):
    return client.get(f"/api/blades/{blade}/assay").json()


def file_of(*rows):
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(["blade", "shot", "element", "percent", "plus_minus", "surface", "normalised"])
    writer.writerows(rows)
    return {"files": ("a.shots.csv", out.getvalue().encode())}


def test_a_blade_is_shot_and_its_claim_excluded_with_what_would_fit(client, blade):
    before = assay(client, blade)
    assert before["line"]["verdict"] == "not_shot"
    chromium = {"element": "Cr", "low_percent": 11.0, "high_percent": 13.0}
    assert any(chromium.items() <= slot.items() for slot in before["claim_slots"])
    shoot(client, blade, LOW_ALLOY, normalised="no")
    found = assay(client, blade)
    assert found["claim_slots"][0] == before["claim_slots"][0], "excluded, and still drawn"
    assert found["line"]["word"] == "excluded"
    assert found["line"]["gauge"]["element"] == "Cr"
    assert found["candidates"][0]["is_in"]
    assert {"1.2363", "SKD12", "A2"} >= {c["grade"] for c in found["candidates"] if c["is_in"]}
    assert client.get("/api/assays").json()["headline"] == "1 blade shot: 1 excluded."


def test_the_same_shot_twice_is_one_and_a_struck_one_stays_in_sight(client, blade):
    shot = new_id()
    body = {"name": "1", "readings": readings(LOW_ALLOY), "surface": "bare"}
    for _ in range(2):
        assert client.put(f"/api/blades/{blade}/shots/{shot}", json=body).status_code == 200
    path = f"/api/blades/{blade}/shots/{shot}/struck"
    assert client.put(path, json={"reason": "slipped"}).json()["struck"] == "slipped"
    found = assay(client, blade)
    assert (len(found["shots"]), found["line"]["shots"]) == (1, 0)
    assert found["line"]["verdict"] == "not_shot"
    assert client.put(path, json={"reason": ""}).status_code == 200
    assert assay(client, blade)["line"]["shots"] == 1


@pytest.mark.parametrize(
    ("wrong", "field"),
    [
        ([{"element": "Cr", "percent": -1, "plus_minus_percent": 0.1}], "readings.0.percent"),
        ([{"element": "Xx", "percent": 1, "plus_minus_percent": 0.1}], "readings.0.element"),
        ([{"element": "Cr", "percent": 12}], "readings.0.plus_minus"),
        ([], "readings"),
    ],
)
def test_what_a_shot_cannot_be_is_refused_at_its_field(client, blade, wrong, field):
    body = {"name": "1", "readings": wrong}
    refused = client.put(f"/api/blades/{blade}/shots/{new_id()}", json=body)
    assert (refused.status_code, refused.json()["field"]) == (422, field)
    assert assay(client, blade)["shots"] == []


def test_a_file_with_faults_is_told_by_line_and_nothing_of_it_is_kept(client, blade):
    faulty = file_of(
        ("AV-06", 1, "Cr", "5,2", "0,05", "bare", "no"),
        ("AV-06", 1, "Cr", "5,3", "0,05", "bare", "no"),
        ("AV-07", 1, "Quux", "1,0", "", "", ""),
        ("AV-07", 1, "Fe", "107,0", "0,1", "", ""),
    )
    refused = client.post("/api/shot-imports", files=faulty).json()
    told = {(f["line"], f["column"]) for f in refused["faults"]}
    assert {(3, "element"), (4, "element"), (4, "plus_minus"), (5, "percent")} <= told
    assert assay(client, blade)["shots"] == []
    assert [b["blade"]["code"] for b in client.get("/api/shelf").json()["blades"]] == ["AV-06"]


def test_a_file_brings_shots_and_new_blades_into_a_batch_once(client, blade):
    batch = new_id()
    assert client.put(f"/api/batches/{batch}", json={"name": "Spring post"}).status_code == 200
    good = file_of(
        *(("av-06", 1, s, p, 0.05, "bare", "no") for s, p in LOW_ALLOY.items()),
        *(("AV-07", 1, s, p, 0.1, "bare", "no") for s, p in STAINLESS.items()),
    )
    for _ in range(2):
        taken = client.post("/api/shot-imports", files=good, data={"batch_id": batch}).json()
        assert taken["shots"] == 2
    place = client.get("/api/assays").json()
    assert [(b["code"], b["shots"]) for b in place["blades"]] == [("AV-06", 1), ("AV-07", 1)]
    assert len(place["batches"][0]["blade_ids"]) == 2
    assert client.get(f"/api/batches/{batch}/shots.csv").text.count("\n") == 1 + 11


def test_an_own_grade_makes_a_verdict_undecidable_and_taking_it_back_mends_it(client, blade):
    client.patch(f"/api/blades/{blade}", json={"claimed_grade": "1.2363"})
    shoot(client, blade, LOW_ALLOY, normalised="no")
    assert assay(client, blade)["line"]["verdict"] == "consistent"
    twin = {"element": "Cr", "low_percent": 4.8, "high_percent": 5.5}
    ranges = [twin, {"element": "C", "low_percent": 0.5, "high_percent": 0.6}]
    ranges += [
        {"element": "Mo", "low_percent": 0.9, "high_percent": 1.2},
        {"element": "V", "low_percent": 0.15, "high_percent": 0.35},
        {"element": "Mn", "low_percent": 0.4, "high_percent": 0.8},
        {"element": "Si", "low_percent": 0.1, "high_percent": 0.4},
        {"element": "P", "high_percent": 0.03},
        {"element": "S", "high_percent": 0.03},
    ]
    made = client.put("/api/grades/Voe Special", json={"ranges": ranges})
    assert made.status_code == 200, made.json()
    found = assay(client, blade)
    assert found["line"]["verdict"] == "undecidable"
    assert found["not_separable_from"] == ["Voe Special"]
    assert "Carbon would separate it from Voe Special" in found["settled_by"][0]
    assert client.delete("/api/grades/Voe Special").status_code == 204
    assert assay(client, blade)["line"]["verdict"] == "consistent"


@pytest.mark.parametrize(
    ("ranges", "field"),
    [
        ([{"element": "Cr", "low_percent": 13, "high_percent": 11}], "ranges.0.min_percent"),
        ([{"element": "Cr"}, {"element": "cr"}], "ranges.1.element"),
        (
            [{"element": "C", "low_percent": 60}, {"element": "Cr", "low_percent": 60}],
            "ranges.0.min_percent",
        ),
    ],
)
def test_what_a_grade_cannot_be(client, ranges, field):
    refused = client.put("/api/grades/Mine", json={"ranges": ranges})
    assert (refused.status_code, refused.json()["field"]) == (422, field)


def test_grades_come_from_files_all_or_nothing_and_one_name_is_one_grade(client):
    def bring(text):
        return client.post("/api/grade-imports", files={"files": ("g.grades.csv", text.encode())})

    wrong = "grade;element;min_percent;max_percent\nX1;Cr;13,0;11,0\nx 1;V;1;2\nX1;Quux;1;2\n"
    faults = {(f["line"], f["column"]) for f in bring(wrong).json()["faults"]}
    assert faults == {(2, "min_percent"), (3, "grade"), (4, "element")}
    taken = bring("grade,element,min_percent\nX210CrW12,Cr,11\n")
    assert (taken.status_code, taken.json()["field"]) == (409, "name")
    assert bring("grade,element,min_percent,max_percent\nX1,Cr,11,13\nX1,V,3,4\n").json()[
        "grades"
    ] == ["X1"]
    text = client.get("/api/grades.csv").text
    assert bring(text).status_code == 200, "what goes out comes in"


def test_confirming_is_one_act_and_the_verdict_stops_saying_unconfirmed(client, blade):
    shoot(client, blade, LOW_ALLOY, normalised="no")
    assert "unconfirmed" in assay(client, blade)["line"]["sentence"]
    done = client.put("/api/grade-confirmations/1.2436", json={"source": "EN ISO 4957:2018"})
    assert {r["standing"] for r in done.json()["ranges"]} == {"standard"}
    assert "unconfirmed" not in assay(client, blade)["line"]["sentence"]


def test_the_stand_in_shoots_what_it_is_told_the_blade_is_made_of(client, blade):
    for _ in range(3):
        asked = {"name": new_id()[:4], "grade": "1.2363", "seconds": 30, "normalise": True}
        path = f"/api/blades/{blade}/stand-in-shots/{new_id()}"
        shot = client.put(path, json=asked).json()
        assert shot["analyser"].startswith("simulated")
        assert not {"C", "N"} & {r["element"] for r in shot["readings"]}
    assert assay(client, blade)["line"]["verdict"] == "excluded"
    through = {"name": "c", "grade": "1.2363", "through_coating": True}
    client.put(f"/api/blades/{blade}/stand-in-shots/{new_id()}", json=through)
    assert assay(client, blade)["line"]["on_coating"] == 1
    slow = {"name": "d", "grade": "1.2363", "seconds": 9999}
    refused = client.put(f"/api/blades/{blade}/stand-in-shots/{new_id()}", json=slow)
    assert (refused.status_code, refused.json()["field"]) == (422, "seconds")


def test_the_batch_is_handed_over_as_a_workbook_whose_text_stays_text(client, blade):
    client.patch(f"/api/blades/{blade}", json={"code": "=1+1"})
    shoot(client, blade, LOW_ALLOY, normalised="no")
    batch = new_id()
    client.put(f"/api/batches/{batch}", json={"name": "Frühling", "blade_ids": [blade]})
    sent = client.get(f"/api/batches/{batch}/sheet.xlsx")
    book = openpyxl.load_workbook(io.BytesIO(sent.content))
    assert book.sheetnames == ["Verdicts", "Evidence", "Means", "Shots"]
    cell = book["Verdicts"]["A2"]
    assert (cell.value, cell.data_type) == ("=1+1", "s")
    assert book["Verdicts"]["C2"].value == "excluded"
    assert client.get(f"/api/batches/{batch}").json()["blades"][0]["line"]["verdict"] == "excluded"


def test_an_excluded_claim_is_a_mismatch_and_an_away_one_pending(hand):
    hand.make_trial(schedule="every", every=2)
    ids = {code: hand.add_blade(code, claimed_grade="1.2436")[0] for code in ("A", "F")}
    client = hand.client

    def steel():
        cells = client.get(f"/api/trials/{hand.trial}/line-up").json()["cells"]
        return {c["blade"]: (c["state"], c["says"]) for c in cells if c["variable"] == "grade"}

    assert {state for state, _ in steel().values()} == {"factor"}
    away = {"name": "Post", "blade_ids": [ids["A"]], "sent_on": "2026-05-04"}
    client.put(f"/api/batches/{new_id()}", json=away)
    assert steel()["A"] == ("pending", "steel is at the analyser")
    shoot(client, ids["F"], LOW_ALLOY, normalised="no")
    state, says = steel()["F"]
    assert state == "confounded"
    assert "excludes 1.2436, which it is sold as; 1.2363 would fit" in says
    client.delete(f"/api/blades/{ids['F']}")


def test_two_sheets_side_by_side_say_what_is_unequal(client, blade):
    other = new_id()
    body = {"id": other, "code": "AV-01", "claimed_grade": "1.4034", "hardness_hrc": 57}
    client.put(f"/api/blades/{other}", json={**body, "hardness_standing": "claimed"})
    hot = {"austenitising_c": 1080, "tempers_c": [200]}
    cool = {"austenitising_c": 1020, "sub_zero_c": -80, "tempers_c": [520]}
    for blade_id, treatment in ((blade, hot), (other, cool)):
        client.patch(f"/api/blades/{blade_id}", json={"heat_treatment": treatment})
    found = client.get(f"/api/side-by-side?first={blade}&second={other}").json()
    said = " ".join(found["warnings"])
    for part in (
        "1080 and at 1020 °C",
        "below zero",
        "200 and at 520 °C",
        "AV-06: tempered at 200",
    ):
        assert part in said
    assert found["standing"].startswith("Both columns are what makers claim")
    assert {d["element"] for d in found["differs"]} >= {"C", "W", "Cr"}


def test_an_unknown_claim_is_said_and_the_shelf_is_searched_all_the_same(client, blade):
    client.patch(f"/api/blades/{blade}", json={"claimed_grade": "Voe Wonder"})
    shoot(client, blade, LOW_ALLOY, normalised="no")
    said = assay(client, blade)["line"]["sentence"]
    assert said.startswith("No grade on the shelf is called “Voe Wonder”.")
    assert "only 1.2363" in said


def test_a_life_far_below_its_grades_usual_offers_the_assay(hand):
    hand.make_trial(schedule="every", every=2)
    ids = {}
    for code, life in (("A", 30), ("B", 32), ("C", 10)):
        ids[code], edge = hand.add_blade(code, claimed_grade="1.2436")
        cut_run(hand, edge, life)
    path = f"/api/trials/{hand.trial}"
    assert hand.client.get(f"{path}/verdict").json()["working_out"] == 0
    (offer,) = hand.client.get(f"{path}/assay-offers").json()
    assert offer["blade_id"] == ids["C"]
    assert "where 1.2436 usually gives about 31" in offer["says"]
    shoot(hand.client, ids["C"], LOW_ALLOY, normalised="no")
    assert hand.client.get(f"{path}/assay-offers").json() == [], "it was shot"


def test_composition_stands_against_lives_one_point_a_blade_and_claims_count_for_nothing(hand):
    hand.make_trial(schedule="every", every=2)
    sold = {"A": ("1.4034", 12, 13.4), "B": ("1.2436", 30, 12.0), "C": ("1.4112", 20, None)}
    for code, (grade, life, chromium) in sold.items():
        blade, edge = hand.add_blade(code, claimed_grade=grade, hardness_hrc=58)
        cut_run(hand, edge, life)
        if chromium:
            shoot(hand.client, blade, {"Cr": chromium, "Fe": 80.0}, normalised="no")
    hand.client.get(f"/api/trials/{hand.trial}/verdict")
    found = hand.client.get("/api/performance?against=Cr").json()
    counts = {p["code"]: p["counts"] for p in found["points"]}
    assert counts == {"A": True, "B": True, "C": False}
    assert found["says"].startswith("2 blades of known chromium: too few")
    assert found["points"][0]["low"] < found["points"][0]["y"] < found["points"][0]["high"]


def test_shots_and_grades_come_in_by_the_common_door_too_and_all_or_nothing(client):
    shots = file_of(("AV-09", 1, "Cr", 12, 0.1, "bare", "no"))["files"]
    grades = "g.grades.csv", b"grade,element,max_percent\nVoe,Cr,13\n"

    def bring(*files):
        return client.post("/api/imports", files=[("files", file) for file in files])

    spoiled = "g.grades.csv", b"grade,element,max_percent\nVoe,Qq,13\n"
    assert bring(shots, spoiled).json()["faults"][0]["column"] == "element"
    assert client.get("/api/assays").json()["blades"] == []
    found = bring(shots, grades).json()
    assert found["blades"] == ["AV-09"]
    assert "grades saved: Voe" in found["notes"]
    assert bring(shots, ("x.series.csv", b"blade,count,check\n")).status_code == 422


def test_shots_from_the_analysers_folder_are_taken_into_a_batch_and_wait_no_more(client, database):
    text = HEAD + "AV-09,1,Cr,12,0.1\nAV-09,1,V,0.2,0.02\n"
    table = read_shots("a.shots.csv", text.encode())
    keep_shots(database, "xrf-0001", "a.shots.csv", table, "2026-05-04T00:00:00+00:00")
    (file,) = client.get("/api/assays").json()["waiting"]
    batch = new_id()
    body = {"name": "Post", "analyser": "X1", "operator": "Operator 2", "back_on": "2026-05-03"}
    client.put(f"/api/batches/{batch}", json=body)
    path = f"/api/waiting-shots/{file['id']}/taken"
    assert client.post(f"{path}?batch_id={batch}").json()["new_codes"] == ["AV-09"]
    place = client.get("/api/assays").json()
    assert (place["waiting"], place["blades"][0]["shots"]) == ([], 1)
    shot = assay(client, place["blades"][0]["id"])["shots"][0]
    assert (shot["on"], shot["analyser"], shot["operator"]) == ("2026-05-03", "X1", "Operator 2")
    assert client.post(path).status_code == 404, "once"
