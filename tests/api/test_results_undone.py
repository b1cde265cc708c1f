"""Results that came in together go together when that is undone, and come back out of the bin."""

from urllib.parse import unquote

import pytest
from sqlalchemy import text

from tests.helpers.files_sent import GOOD, post
from tests.helpers.paper import Paper, line
from tests.helpers.sheets import TWO_STAGE, Desk

TABLES = ("trial", "blade", "edge", "run", "event", "method", "measurement", "trial_blade")
SHEET = "Knife;Edge;Fine;Working\nA;3;30;25\nA;4;31;26\nB;3;40;22\nC;1;28;19\n"


class Shop(Paper):
    """A tester who brings results in and takes that back."""

    def __init__(self, client, database):
        super().__init__(client)
        self.database, self.desk = database, Desk(client)

    def rows(self):
        with self.database.read() as session:
            return {
                table: sorted(map(tuple, session.execute(text(f"SELECT * FROM {table}"))), key=repr)
                for table in TABLES
            }

    def undo(self, answer):
        change, _, says = answer.headers["kessik-change"].partition(" ")
        return unquote(says), self.client.post(f"/api/changes/{change}/undone")

    def bring(self, data, **form):
        reading = self.desk.look(data, **form)["reading"]
        answer = self.desk.send("sheet-imports", data, reading=reading, **form)
        assert answer.is_success, answer.text
        return answer

    def binned(self):
        return self.client.get("/api/bin").json()


@pytest.fixture
def shop(client, database):
    made = Shop(client, database)
    made.make_trial("A", "B", school="two_stage_board")
    return made


def paper(shop):
    return shop.keep(line("A", 3, fine="30", working="25"), line("B", 4, fine="40", working="22"))


def sheet_here(shop):
    return shop.bring(SHEET, trial_id=shop.trial)


def sheet_as_a_trial(shop):
    return shop.bring(TWO_STAGE.replace("A;", "X;"), name="Ten years")


def files_of_two_trials(shop):
    blades = "blade,hardness_hrc\nA,58\n"
    two = GOOD.replace("A,", "F,")
    return post(
        shop.client,
        ("raft.series.csv", two),
        ("raft.blades.csv", blades.replace("A,", "F,")),
        ("old.series.csv", two.replace("F,", "G,")),
    )


def blades_alone(shop):
    return post(shop.client, ("shelf.blades.csv", "blade,hardness_hrc\nH,58\n"))


@pytest.mark.parametrize(
    ("act", "says", "holds"),
    [
        (paper, "2 runs saved", ["1 edge"]),
        (sheet_here, "4 runs saved", ["1 blade", "2 edges"]),
        (sheet_as_a_trial, "3 runs saved", ["1 trial", "1 blade", "2 edges"]),
        (files_of_two_trials, "2 runs saved", ["2 trials", "2 blades", "2 edges"]),
    ],
)
def test_they_go_whole_and_come_back_whole(shop, act, says, holds):
    before = shop.rows()
    answer = act(shop)
    assert answer.is_success, answer.text
    after = shop.rows()
    said, undone = shop.undo(answer)
    assert (said, undone.status_code) == (says, 204)
    assert shop.rows() == before
    assert shop.undo(answer)[1].status_code == 204  # twice is once
    (entry,) = shop.binned()
    assert (entry["kind"], entry["holds"]) == ("results", holds)
    assert shop.client.put(f"/api/bin/{entry['id']}/brought-back").is_success
    assert shop.rows() == after


def test_blades_of_a_file_are_taken_back_as_any_act(shop):
    before = shop.rows()
    answer = blades_alone(shop)
    said, undone = shop.undo(answer)
    assert (said, undone.status_code) == ("blade added", 204)
    assert shop.rows() == before
    assert shop.binned() == []


def test_what_they_replaced_comes_back(shop):
    shop.bring(SHEET, trial_id=shop.trial)
    before = shop.rows()
    answer = shop.bring(SHEET.replace("25", "35"), trial_id=shop.trial, on_there="replace")
    assert shop.lives("A", 3)["working"][2] == 65
    (old,) = shop.binned()
    assert (old["name"], old["reason"]) == ("4 runs in Raft rope", "replaced from a sheet")
    back = f"/api/bin/{old['id']}/brought-back"
    refused = shop.client.put(back)
    assert (refused.status_code, refused.json()["field"]) == (409, "bin")
    assert "an edge is cut once" in refused.json()["detail"]
    assert shop.undo(answer)[1].status_code == 204
    assert shop.rows() == before
    (new,) = shop.binned()
    assert new["reason"] == "the import was undone"


def test_what_they_replaced_was_deleted_for_good(shop):
    shop.bring(SHEET, trial_id=shop.trial)
    answer = shop.bring(SHEET.replace("25", "35"), trial_id=shop.trial, on_there="replace")
    before = shop.rows()
    (old,) = shop.binned()
    assert shop.client.delete(f"/api/bin/{old['id']}").is_success
    assert shop.undo(answer)[1].status_code == 409
    assert shop.rows() == before


def test_what_was_built_on_them_keeps_them(shop):
    answer = sheet_here(shop)
    shelf = shop.client.get("/api/shelf").json()["blades"]
    (new,) = (b["blade"]["id"] for b in shelf if b["blade"]["code"] == "C")
    other = "/api/trials/trial-other"
    assert shop.client.put(other, json={"id": "trial-other", "name": "Other"}).is_success
    assert shop.client.put(f"{other}/places/{new}", json={}).is_success
    before = shop.rows()
    refused = shop.undo(answer)[1]
    assert (refused.status_code, refused.json()["field"]) == (409, "change")
    assert "built on it since" in refused.json()["detail"]
    assert shop.rows() == before
    run = shop.client.get(f"/api/trials/{shop.trial}/record").json()["runs"][0]["id"]
    away = {"kind": "run", "owner_id": run}
    assert shop.client.put("/api/bin/bin-00001", json=away).is_success
    assert shop.undo(answer)[1].status_code == 409


def test_a_run_that_verifies_one_of_them_keeps_them(shop):
    answer = sheet_here(shop)
    run = shop.client.get(f"/api/trials/{shop.trial}/record").json()["runs"][0]
    cells = {"fine": "30", "working": "25", "edge": "9", "blade": run["blade"]}
    verifies = {"cells": {**cells, "verifies": f"{run['edge']}"}}
    verifies = {"id": "line-verifies", **verifies}
    body = {"lines": [verifies], "by": "me"}
    kept = shop.client.post(f"/api/trials/{shop.trial}/paper-runs", json=body)
    assert kept.status_code == 200, kept.text
    refused = shop.undo(answer)[1]
    assert refused.status_code == 409
    assert "verifies one of these" in refused.json()["detail"]


def test_a_code_that_was_given_again_meanwhile_is_said(shop):
    answer = sheet_here(shop)
    shop.undo(answer)
    (entry,) = shop.binned()
    shop.add_blade("c")
    back = f"/api/bin/{entry['id']}/brought-back"
    refused = shop.client.put(back)
    assert (refused.status_code, refused.json()["field"]) == (409, "code")
    assert [each["id"] for each in shop.binned()] == [entry["id"]]


def test_a_sheet_sent_twice_replaces_nothing_of_its_own(shop):
    once = {"trial_id": shop.trial, "on_there": "replace", "import_id": "import-0001"}
    reading = shop.desk.look(SHEET, trial_id=shop.trial)["reading"]
    first = shop.desk.bring(SHEET, reading=reading, **once)
    before = shop.rows()
    again = shop.desk.bring(SHEET, reading=reading, **once)
    assert (first["kept"], again["kept"], again["replaced"]) == (4, 0, 0)
    assert shop.rows() == before


def test_results_are_not_taken_away_by_name(shop):
    asked = {"kind": "results", "owner_id": shop.trial}
    assert shop.client.put("/api/bin/bin-00001", json=asked).status_code == 422
