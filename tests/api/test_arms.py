"""One knife with two finishes, from the line-up to the verdict and through its files."""

import csv
import io
import zipfile

import pytest

from tests.conftest import BenchHand
from tests.helpers.answers import answer_of

LIVES = {"coarse": 12.0, "polished": 20.0}


@pytest.fixture
def knife(hand):
    """A trial of one blade in two arms; its edges by arm, two each, none cut yet."""
    hand.make_trial(every=2, factor="edge_finish", edges_per_blade=2)
    hand.blade, first = hand.add_blade("K1", claimed_grade="1.4116")
    placed = hand.client.put(
        f"/api/trials/{hand.trial}/places/{hand.blade}", json={"arms": list(LIVES)}
    )
    assert placed.status_code == 200
    hand.first = first
    return hand


def prepare(hand, edge, arm):
    sent = {"id": edge, "arm": arm, "side_angle_deg": 15, "micro_bevel_side_deg": 0}
    answer = hand.client.put(f"/api/blades/{hand.blade}/edges/{edge}", json=sent)
    assert answer.status_code == 200, answer.text


def cut_all(hand):
    for place, arm in enumerate([*LIVES, *LIVES]):
        edge = f"edge-{place}-of-K1"
        prepare(hand, edge, arm)
        run, at = hand.start(edge), 0.0
        while True:
            gf = round((100 + 60 * (arm == "coarse")) + 260 * (at / LIVES[arm]) ** 0.8)
            state = hand.read(run, gf, at)
            if state["status"] == "stopped":
                break
            if not state["confirmation_wanted"]:
                at = hand.cut(run, 2, at)


def test_the_blade_cancels_and_the_answer_speaks_of_the_finish(knife):
    cut_all(knife)
    found = answer_of(knife.client, knife.trial)
    (pair,) = found["comparisons"]
    assert {pair["a"], pair["b"]} == set(LIVES)
    assert found["headline"].startswith("To dull, polished outlasts coarse by")
    assert "4 runs of 2 arms of K1" in found["standing"]
    line_up = knife.client.get(f"/api/trials/{knife.trial}/line-up").json()
    assert [(b["code"], b["own_code"]) for b in line_up["blades"]] == [
        ("coarse", "K1"),
        ("polished", "K1"),
    ]
    assert "hardness" not in " ".join(line_up["pending"])
    assert {r["block"] for r in runs_written(knife).values()} == {"1", "2"}


def runs_written(hand, trial=None):
    files = files_of(hand.client, trial or hand.trial)
    text = next(text for name, text in files.items() if name.endswith(".runs.csv"))
    return {row["edge"]: row for row in csv.DictReader(io.StringIO(text))}


def files_of(client, trial):
    with zipfile.ZipFile(io.BytesIO(client.get(f"/api/trials/{trial}/files").content)) as archive:
        return {name: archive.read(name).decode() for name in archive.namelist()}


def test_arms_survive_their_files(knife):
    cut_all(knife)
    files = [("files", item) for item in files_of(knife.client, knife.trial).items()]
    again = knife.client.post("/api/imports", files=files).json()["trials"][0]["id"]
    before, after = (answer_of(knife.client, trial) for trial in (knife.trial, again))
    for name in ("ratio", "low", "high", "a", "b"):
        assert after["comparisons"][0][name] == pytest.approx(before["comparisons"][0][name])
    told = [{e: row["arm"] for e, row in runs_written(knife, t).items()} for t in (None, again)]
    assert told[0] == told[1]
    assert set(told[0].values()) == set(LIVES)


def test_an_edge_that_was_prepared_as_no_arm_asks_which(knife):
    run = {"id": "run-of-no-arm", "edge_id": knife.first}
    refused = knife.client.put(f"/api/trials/{knife.trial}/runs/run-of-no-arm", json=run)
    assert (refused.status_code, refused.json()["field"]) == (409, "arm")
    assert "say at edge 3 which of them" in refused.json()["detail"]
    prepare(knife, knife.first, "coarse")
    knife.start(knife.first)


def test_codes_cover_arms_and_then_no_arm_is_added(knife):
    prepare(knife, knife.first, "coarse")
    covered = knife.client.put(f"/api/trials/{knife.trial}/covered", json={"covered": True})
    assert covered.status_code == 200
    run = knife.start(knife.first)
    shown = knife.client.get(f"/api/runs/{run}").json()
    assert shown["blade"]["code"] in {"Q1", "Q2"}
    assert "coarse" not in str(shown)
    refused = knife.client.put(
        f"/api/trials/{knife.trial}/places/{knife.blade}", json={"arms": [*LIVES, "oiled"]}
    )
    assert (refused.status_code, refused.json()["field"]) == (409, "arms")


def test_the_plan_says_what_one_blade_saves(knife):
    plan = knife.client.get(f"/api/trials/{knife.trial}/plan").json()
    assert plan["one_blade"].startswith("All arms are on K1")
    assert {place["blade"] for place in plan["order"]} == set(LIVES)
    two = BenchHand(knife.client)
    two.make_trial("A", "B")
    assert knife.client.get(f"/api/trials/{two.trial}/plan").json()["one_blade"] == ""
