"""Methods over HTTP: ready ones, copies, versions that runs keep, and what is not compared for
it.
"""

import io
import zipfile

import pytest

from tests.helpers.cutting import cut_run


def plain(method):
    own = {"id", "number", "ends_when", "checked", "stage_words", "all_cautions", "check_rows"}
    return {name: value for name, value in method.items() if name not in own}


def put(hand, method, **rest):
    return hand.client.put(f"/api/trials/{hand.trial}/method", json={"method": method, **rest})


@pytest.fixture
def cut_once(hand):
    (_, a), (_, b) = hand.make_trial("A", "B", schedule="every", every=2)
    cut_run(hand, a, 30)
    cut_run(hand, b, 40)
    trial = hand.client.get(f"/api/trials/{hand.trial}/line-up").json()["trial"]
    return plain(trial["method"])


def in_force(hand):
    return hand.client.get(f"/api/trials/{hand.trial}/line-up").json()["trial"]["method"]


def verdict(hand):
    return hand.client.get(f"/api/trials/{hand.trial}/verdict").json()["answer"]


def test_a_method_nobody_cut_under_is_changed_in_place(hand):
    hand.make_trial("A", "B")
    changed = put(hand, {**plain(in_force(hand)), "surface": "cork"}).json()["method"]
    assert (changed["number"], changed["surface"]) == (1, "cork")
    assert len(hand.client.get(f"/api/trials/{hand.trial}/methods").json()) == 1


def test_a_run_keeps_its_version_and_harmless_changes_pool(hand, cut_once):
    before = verdict(hand)
    put(hand, {**cut_once, "every": 4.0, "note": "sparser from now on"})
    assert in_force(hand)["number"] == 2
    versions = hand.client.get(f"/api/trials/{hand.trial}/methods").json()
    assert [(v["number"], v["every"]) for v in versions] == [(1, 2.0), (2, 4.0)]
    run = hand.client.get(f"/api/runs/{before['runs'][0]['run']['id']}").json()
    assert run["method"]["every"] == 2.0
    after = verdict(hand)
    assert after["headline"] == before["headline"]
    assert after["ladder"] == before["ladder"]


def test_versions_that_differ_in_what_matters_are_not_compared_and_it_is_said(hand, cut_once):
    put(hand, {**cut_once, "surface": "steel plate"})
    found = verdict(hand)
    assert {r["left_out"] for r in found["runs"]} == {
        "cut under version 1 of the method, which differs in surface: softwood against steel plate"
    }
    assert (found["comparisons"], found["with_all"]) == ([], "")
    assert found["headline"] == "No edge that was cut counts under the rule."
    assert {b["blade"] for b in found["ladder"]} == {"A", "B"}, "what they did stays to be seen"
    archive = zipfile.ZipFile(
        io.BytesIO(hand.client.get(f"/api/trials/{hand.trial}/files").content)
    )
    files = [("files", (name, archive.read(name))) for name in archive.namelist()]
    made = hand.client.post("/api/imports", files=files).json()["trials"][0]["id"]
    again = hand.client.get(f"/api/trials/{made}/verdict").json()["answer"]
    assert [r["left_out"] for r in again["runs"]] == [r["left_out"] for r in found["runs"]], (
        "files carry the versions"
    )


def test_going_back_to_a_version_is_that_version_again(hand, cut_once):
    first = in_force(hand)["id"]
    put(hand, {**cut_once, "surface": "steel plate"})
    put(hand, cut_once, from_method_id=first)
    assert in_force(hand)["id"] == first
    assert all(not r["left_out"] for r in verdict(hand)["runs"])


def test_a_method_of_ones_own_is_there_for_other_trials(hand):
    hand.make_trial("A", "B")
    own = put(hand, {**plain(in_force(hand)), "name": "Ours, on cork", "surface": "cork"}).json()[
        "method"
    ]
    known = hand.client.get("/api/methods").json()
    assert len(known["ready"]) == 9
    assert [m["name"] for m in known["own"]] == ["Ours, on cork"]
    other = type(hand)(hand.client)
    other.make_trial()
    taken = put(other, plain(own), from_method_id=own["id"]).json()["method"]
    assert (taken["id"], taken["number"]) == (own["id"], 1)
    changed = put(other, {**plain(own), "surface": "felt"}).json()["method"]
    assert changed["number"] == 2, "the line goes on"
    assert in_force(hand)["surface"] == "cork", "and leaves the first trial as it was"


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"stages": []}, "ends"),
        ({"schedule": "ends"}, "schedule"),
        ({"piece": 0}, "piece"),
        ({"checks": [{"kind": "taste"}]}, "checks"),
        ({"surfaec": "cork"}, "method.surfaec"),
    ],
)
def test_a_method_that_cannot_be_is_refused_at_its_field_and_the_old_one_stays(hand, change, field):
    hand.make_trial("A", "B")
    before = in_force(hand)
    answer = put(hand, {**plain(before), **change})
    assert (answer.status_code, answer.json()["field"]) == (422, field)
    assert in_force(hand) == before


def test_a_method_file_that_is_no_method_is_refused_with_its_place(hand):
    series = ("files", ("x.series.csv", b"blade,count,check,value\nA,0,force,150\n"))
    empty, bad = b'"versions": []', b'"versions": [{"number": 1, "method": {"ends": []}}]'
    for text in (
        b"{",
        b"{}",
        *(b'{"kessik_method": 1, "in_force": 1, ' + rest + b"}" for rest in (empty, bad)),
    ):
        answer = hand.client.post(
            "/api/imports", files=[series, ("files", ("x.method.json", text))]
        )
        assert answer.status_code == 422
        assert answer.json()["faults"][0]["file"] == "x.method.json"
    assert hand.client.get("/api/today").json()["trials"] == []
