"""Bad files through the API: a problem that names every fault, never a 500, and nothing stored."""

import pytest

from tests.helpers.files_sent import GOOD, HEADER, post


@pytest.mark.parametrize(
    ("name", "content", "words"),
    [
        ("empty.series.csv", b"", "the file is empty"),
        ("columns.series.csv", b"blade,check\nA,force\n", "this column is missing"),
        ("blade.series.csv", (HEADER + ",0,force,150\n").encode(), "this cell is empty"),
        ("negative.series.csv", (HEADER + "A,-3,force,150\n").encode(), "give 0 or more"),
        ("text.series.csv", (HEADER + "A,two,force,150\n").encode(), "is not a number"),
        ("zero.series.csv", (HEADER + "A,0,force,0\n").encode(), "0 gf is out of range"),
        (
            "order.series.csv",
            (HEADER + "A,5,force,150\nA,4,force,150\n").encode(),
            "stands after 5",
        ),
        ("latin.series.csv", HEADER.encode() + "Ä,0,force,150\n".encode("latin-1"), "is not UTF-8"),
        ("nan.series.csv", (HEADER + "A,0,force,nan\n").encode(), "is not a number"),
        ("picture.csv", b"\x89PNG\r\n\x1a\n\x00\x00", "is not UTF-8"),
    ],
)
def test_a_file_that_cannot_be_taken(client, name, content, words):
    answer = post(client, (name, content))
    assert answer.status_code == 422
    assert answer.headers["content-type"] == "application/problem+json"
    problem = answer.json()
    assert problem["field"] == "file"
    assert "nothing was imported" in problem["detail"]
    assert any(
        words in fault["message"] and fault["file"] == name and fault["line"] >= 1
        for fault in problem["faults"]
    )
    assert client.get("/api/today").json()["trials"] == []


def test_one_bad_file_among_good_ones_stops_them_all(client):
    blades = "blade,hardness_hrc\nA,58\nA,59\n"
    answer = post(client, ("good.series.csv", GOOD), ("good.blades.csv", blades))
    assert answer.status_code == 422
    assert client.get("/api/today").json()["trials"] == []


def test_good_files_make_a_trial_and_say_how_they_were_read(client):
    blades = (
        "blade;claimed_grade;hardness_hrc;hardness_standing;shelf\n"
        "A;1.4034;57,5;measured_here;left\n"
    )
    answer = post(client, ("raft.series.csv", GOOD), ("raft.blades.csv", blades))
    assert answer.status_code == 200
    made = answer.json()
    assert [t["name"] for t in made["trials"]] == ["raft"]
    assert "raft.blades.csv: read with semicolons and decimal commas" in made["notes"]
    assert "raft.blades.csv: columns stored but not used: shelf" in made["notes"]
    found = client.get(f"/api/trials/{made['trials'][0]['id']}/line-up").json()
    assert found["blades"][0]["hardness_hrc"] == 57.5
    assert found["next_step"]["kind"] == "add_blades"


def test_the_same_file_twice_makes_two_trials_and_touches_neither(client):
    first = post(client, ("raft.series.csv", GOOD)).json()["trials"][0]["id"]
    before = client.get(f"/api/trials/{first}/verdict").json()["answer"]
    post(client, ("raft.series.csv", GOOD.replace("404", "480")))
    assert client.get(f"/api/trials/{first}/verdict").json()["answer"]["runs"] == before["runs"]
    assert len(client.get("/api/today").json()["trials"]) == 2


@pytest.mark.parametrize(
    ("form", "field"),
    [
        ({"keen_gf": "500"}, "keen_gf"),
        ({"dull_gf": "x"}, "dull_gf"),
        ({"factor": "luck"}, "factor"),
    ],
)
def test_bad_settings_of_an_import(client, form, field):
    answer = post(client, ("raft.series.csv", GOOD), **form)
    assert (answer.status_code, answer.json()["field"]) == (422, field)


def test_a_file_beyond_all_bounds_is_refused_before_it_is_read(client):
    answer = post(client, ("large.series.csv", HEADER.encode() + b"A,0,force,150\n" * 3_600_000))
    assert (answer.status_code, answer.json()["field"]) == (413, "file")
    assert "at most 42 MB" in answer.json()["detail"]


def test_a_form_without_files(client):
    assert client.post("/api/imports").status_code == 422
