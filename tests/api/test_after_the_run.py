"""After the stop: stropped back, cut again, and what the verdict says of upkeep; the log to take
along.
"""

import csv
import io
import zipfile
from uuid import uuid4

import pytest


@pytest.fixture
def ended(hand):
    (blade, edge), _ = hand.make_trial("A", "B", schedule="every", every=4)
    run = hand.start(edge)
    hand.read(run, 150, 0)
    at = hand.cut(run, 20)
    hand.read(run, 410, at)
    assert hand.read(run, 420, at)["status"] == "stopped"
    return run, edge, blade


def strop(hand, run, strokes, *readings):
    assert hand.send(run, "strop", {"strokes": strokes}, at=20, seen=10_000).status_code == 200
    for gf in readings:
        reading = {"check": "force", "value": gf, "unit": "gf", "stage": "strop"}
        assert hand.send(run, "reading", reading, at=20, seen=10_000).status_code == 200


def test_the_share_regained_is_told_and_the_runs_own_checks_stay_as_they_were(hand, ended):
    run, _, _ = ended
    strop(hand, run, 10, 260, 264)
    strop(hand, run, 10, 230)
    found = hand.client.get(f"/api/runs/{run}").json()
    assert [t["strokes"] for t in found["strop_back"]] == [10, 20]
    assert [round(t["share"], 2) for t in found["strop_back"]] == [0.58, 0.70]
    assert len(found["state"]["checks"]) == 3
    (kept,) = hand.client.get(f"/api/trials/{hand.trial}/verdict").json()["answer"]["upkeep"]
    assert (
        kept["stones"]
        == "edge 3: the strop returned it to under 300 gf once; stones were not needed yet"
    )


def test_a_stropped_edge_is_cut_again_as_a_run_of_its_own_that_compares_nothing(hand, ended):
    run, edge, _ = ended
    again = str(uuid4())
    path, body = (
        f"/api/trials/{hand.trial}/runs/{again}",
        {"id": again, "edge_id": edge, "after_strop_of": run},
    )
    assert hand.client.put(path, json=body).json()["detail"].startswith("strop it back first")
    strop(hand, run, 10, 240)
    assert hand.client.put(path, json=body).status_code == 200
    at = hand.cut(again, 8)
    hand.read(again, 410, at)
    hand.read(again, 430, at)
    reading = {"check": "force", "value": 350, "unit": "gf", "stage": "strop"}
    assert hand.send(again, "strop", {"strokes": 10}, at=8, seen=10_000).status_code == 200
    assert hand.send(again, "reading", reading, at=8, seen=10_000).status_code == 200
    verdict = hand.client.get(f"/api/trials/{hand.trial}/verdict").json()["answer"]
    assert [r["run"]["id"] for r in verdict["runs"]] == [run]
    assert (
        "the strop did once, then no longer returned it to under 300 gf; stones are due"
        in verdict["upkeep"][0]["stones"]
    )
    third = str(uuid4())
    twice = hand.client.put(f"/api/trials/{hand.trial}/runs/{third}", json={**body, "id": third})
    assert (twice.status_code, twice.json()["field"]) == (409, "after_strop_of")


def test_strop_back_survives_the_files(hand, ended):
    run, _, _ = ended
    strop(hand, run, 10, 260, 264)
    strop(hand, run, 15, 230)
    before = hand.client.get(f"/api/trials/{hand.trial}/verdict").json()["answer"]
    archive = zipfile.ZipFile(
        io.BytesIO(hand.client.get(f"/api/trials/{hand.trial}/files").content)
    )
    files = [("files", (name, archive.read(name))) for name in archive.namelist()]
    (made,) = hand.client.post("/api/imports", files=files).json()["trials"]
    after = hand.client.get(f"/api/trials/{made['id']}/verdict").json()["answer"]
    for kept in (*after["upkeep"], *before["upkeep"]):
        kept.pop("mark")  # the imported blade is another on the shelf
    assert after["upkeep"] == before["upkeep"]
    assert [r["lives"] for r in after["runs"]] == [r["lives"] for r in before["runs"]]


def test_the_log_is_a_table_that_names_what_was_corrected(hand, ended):
    run, _, _ = ended
    log = hand.client.get(f"/api/runs/{run}").json()["log"]
    first = next(e for e in log if e["kind"] == "reading")
    correction = {"target": first["id"], "becomes": {"value": 155}}
    position = hand.send(run, "correction", correction, at=20, seen=10_000).json()["position"]
    answer = hand.client.get(f"/api/runs/{run}/log.csv")
    assert 'filename="a-edge-3-run-1.log.csv"' in answer.headers["content-disposition"]
    rows = list(csv.DictReader(io.StringIO(answer.content.decode("utf-8-sig"))))
    (corrected,) = [r for r in rows if r["changed_by"]]
    assert (corrected["kind"], corrected["changed_by"]) == ("reading", str(position))
    assert '"value": 150' in corrected["said"]


def test_cautions_are_put_away_for_one_trial_and_come_back(hand):
    hand.make_trial("A", "B")
    path = f"/api/trials/{hand.trial}/cautions"
    assert hand.client.put(path, json={"seen": True}).json()["cautions_seen"] is True
    assert hand.client.put(path, json={"seen": False}).json()["cautions_seen"] is False


def test_a_sealed_bench_card_falls_back_on_a_fixed_schedule_and_tells_the_next_check_only(
    hand, ended
):
    run, _, blade = ended
    edge = str(uuid4())
    hand.client.put(f"/api/blades/{blade}/edges/{edge}", json={"id": edge, "number": 4})
    again = hand.start(edge, verifies_run_id=run)
    hand.plan(again)
    assert len(hand.client.get(f"/api/runs/{again}").json()["card"]["checks_at"]) == 1
    plain = hand.start(hand.add_blade("C")[1])
    hand.plan(plain)
    card = hand.client.get(f"/api/runs/{plain}").json()["card"]
    assert card["checks_at"][:4] == [0, 4, 8, 12]
    assert card["confirm_above_gf"] == 400


def test_stropping_back_works_by_paper_as_by_force(hand):
    (_, edge), _ = hand.make_trial("A", "B", school="paper_stop_rope")
    run = hand.start(edge)
    for said in ("pass", "pass"):
        hand.judge(run, said, 0)
    at = hand.cut(run, 5)
    for said in ("fail", "fail"):
        state = hand.judge(run, said, at)
    assert state["status"] == "stopped"
    tried = {"check": "paper", "outcome": "pass", "stage": "strop"}
    early = hand.send(run, "outcome", tried, at=at, seen=10_000)
    assert early.json()["detail"].startswith("say how many strokes")
    assert hand.send(run, "strop", {"strokes": 10}, at=at, seen=10_000).status_code == 200
    for said in ("pass", "fail"):
        answer = hand.send(run, "outcome", {**tried, "outcome": said}, at=at, seen=10_000)
        assert answer.status_code == 200
    found = hand.client.get(f"/api/runs/{run}").json()
    assert found["abilities_back"] == ["After 10 strokes “slices held paper” in part: 1 of 2 tries"]
    assert found["state"]["stages"] == {"rough": 5, "working": 5}, "the life stays as it was"
    (kept,) = hand.client.get(f"/api/trials/{hand.trial}/verdict").json()["answer"]["upkeep"]
    assert kept["abilities"][0].startswith("Edge 3. After 10 strokes")
