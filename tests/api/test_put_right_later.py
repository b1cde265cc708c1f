"""After the stop: entries corrected and put back, runs moved, things taken away and back."""

from uuid import uuid4

import pytest
from sqlalchemy import text

from tests.conftest import BenchHand


@pytest.fixture
def cut(hand):
    """A run of A's edge 3 that was stopped by its rule, and its readings by count."""
    hand.blades = dict(zip("AB", hand.make_trial("A", "B"), strict=True))
    hand.run = hand.start(hand.blades["A"][1])
    at = 0
    for gf in (150, 260, 350, 410, 430):
        hand.read(hand.run, gf, at)
        if hand.client.get(f"/api/runs/{hand.run}").json()["state"]["status"] == "stopped":
            break
        at = hand.cut(hand.run, at=at)
    return hand


def run_of(hand):
    return hand.client.get(f"/api/runs/{hand.run}").json()


def notes(hand):
    answer = hand.client.get(f"/api/trials/{hand.trial}/verdict").json()["answer"]
    return " ".join(answer["notes"])


def patch(hand, run=None, reason="a slip", **changes):
    body = {"trace_id": str(uuid4()), "reason": reason, **changes}
    return hand.client.patch(f"/api/runs/{run or hand.run}", json=body)


def test_a_reading_struck_after_the_stop_is_said_and_can_be_put_back(cut):
    before = run_of(cut)
    assert before["state"]["status"] == "stopped"
    third = next(e for e in before["log"] if e["payload"].get("value") == 350)
    struck = cut.send(cut.run, "strike", {"target": third["id"], "reason": "line slipped"})
    assert struck.status_code == 200
    assert "A, edge 3: corrected after the stop (1 entry)" in notes(cut)
    changer = run_of(cut)["put_right"][third["id"]]
    back = cut.send(cut.run, "correction", {"target": changer, "becomes": None})
    assert back.status_code == 200
    after = run_of(cut)
    assert [c["struck"] for c in after["state"]["checks"]] == [False] * len(
        after["state"]["checks"]
    )
    assert after["put_right"] == {changer: back.event_id}
    assert "corrected after the stop" not in notes(cut)
    again = cut.send(cut.run, "correction", {"target": back.event_id, "becomes": None})
    assert again.status_code == 200
    assert run_of(cut)["put_right"][third["id"]] == changer, "an undo of the undo"


def test_what_is_struck_at_a_desk_leaves_the_run_ended_and_at_the_bench_goes_on(cut):
    last = run_of(cut)["state"]["checks"][-1]["event_id"]
    desk = BenchHand(cut.client)
    struck = desk.send(cut.run, "strike", {"target": last, "reason": "on the heel"})
    assert struck.json()["state"]["status"] == "stopped"
    back = desk.send(cut.run, "correction", {"target": struck.event_id, "becomes": None})
    assert back.json()["state"]["status"] == "stopped"
    again = cut.send(cut.run, "strike", {"target": last, "reason": "on the heel"})
    assert again.json()["state"]["status"] == "cutting"


def test_a_stopped_run_is_reopened_and_goes_on(cut):
    stop = next(e for e in run_of(cut)["log"] if e["kind"] == "stop")
    assert cut.send(cut.run, "correction", {"target": stop["id"], "becomes": None}).is_success
    assert run_of(cut)["state"]["status"] == "cutting"
    assert cut.send(cut.run, "cut", {"amount": 1}, at=4).is_success


def test_a_run_is_moved_to_another_blade_and_back_with_its_trace(cut):
    a, b = cut.blades["A"][1], cut.blades["B"][1]
    assert patch(cut, edge_id=b, reason="").json()["field"] == "reason"
    assert patch(cut, edge_id=b, reason="mixed up on the bench").status_code == 204
    record = cut.client.get(f"/api/trials/{cut.trial}/record").json()
    assert record["runs"][0]["blade"] == "B"
    (trace,) = record["traces"]
    assert trace["says"] == "edge: “A, edge 3” became “B, edge 3”"
    assert trace["reason"] == "mixed up on the bench"
    other = cut.start(a)
    refused = patch(cut, run=other, edge_id=b)
    assert refused.status_code == 409
    assert "carries another run already" in refused.json()["detail"]


def test_a_run_declared_practice_leaves_the_comparison(cut):
    assert patch(cut, practice=True, reason="only warming up").status_code == 204
    assert cut.client.get(f"/api/trials/{cut.trial}/verdict").json()["answer"]["ladder"] == []
    assert patch(cut, practice=False, reason="it was meant").status_code == 204
    assert cut.client.get(f"/api/trials/{cut.trial}/verdict").json()["answer"]["ladder"]


def test_a_run_does_not_move_to_a_trial_that_counts_otherwise(cut):
    other = str(uuid4())
    body = {"id": other, "name": "Cartons"}
    cut.client.put(f"/api/trials/{other}", json=body)
    board = next(
        m for m in cut.client.get("/api/methods").json()["ready"] if m["count_unit"] == "ft"
    )
    sent = {k: v for k, v in board.items() if k not in ("id", "number", "ends_when", "stages_say")}
    method = cut.client.put(f"/api/trials/{other}/method", json={"method": sent})
    if method.status_code == 200:
        cut.client.put(f"/api/trials/{other}/places/{cut.blades['A'][0]}", json={})
        assert "counts cuts, and Cartons counts ft" in patch(cut, trial_id=other).json()["detail"]
    assert patch(cut, trial_id="no-such-trial").status_code == 404


@pytest.mark.parametrize("kind", ["trial", "run", "blade"])
def test_what_is_taken_away_names_what_goes_with_it_and_comes_back_whole(cut, kind):
    owner = {"trial": cut.trial, "run": cut.run, "blade": cut.blades["A"][0]}[kind]
    pages = [f"/api/trials/{cut.trial}/record", f"/api/runs/{cut.run}/log", "/api/shelf"]
    before = [cut.client.get(page).json() for page in pages]
    hangs = cut.client.get(f"/api/dependents/{kind}/{owner}").json()
    expected = {"trial": "1 run", "run": f"{len(before[1])} events", "blade": "1 run"}[kind]
    assert expected in hangs["holds"]
    bin_id = str(uuid4())
    body = {"kind": kind, "owner_id": owner, "reason": "made twice"}
    for _ in range(2):
        assert cut.client.put(f"/api/bin/{bin_id}", json=body).status_code == 200
    assert cut.client.get(f"/api/runs/{cut.run}").status_code == 409, "it says that it is binned"
    (entry,) = cut.client.get("/api/bin").json()
    assert entry["name"] == hangs["name"]
    assert cut.client.put(f"/api/bin/{bin_id}/brought-back").status_code == 200
    assert [cut.client.get(page).json() for page in pages] == before
    assert cut.client.get("/api/bin").json() == []


def test_a_run_waits_for_its_trial_and_a_code_for_its_blade(cut):
    run, trial, blade = (str(uuid4()) for _ in range(3))
    put = cut.client.put
    put(f"/api/bin/{run}", json={"kind": "run", "owner_id": cut.run})
    put(f"/api/bin/{trial}", json={"kind": "trial", "owner_id": cut.trial})
    early = put(f"/api/bin/{run}/brought-back")
    assert early.status_code == 409
    assert "bring that back first" in early.json()["detail"]
    put(f"/api/bin/{blade}", json={"kind": "blade", "owner_id": cut.blades["B"][0]})
    cut.client.put("/api/blades/another-blade", json={"id": "another-blade", "code": "B"})
    taken = put(f"/api/bin/{blade}/brought-back")
    assert taken.status_code == 409
    assert "there is a blade B on the shelf already" in taken.json()["detail"]
    assert put(f"/api/bin/{trial}/brought-back").status_code == 409, "its blade is away, too"


def test_a_trial_comes_back_without_the_blade_that_was_deleted_for_good(cut):
    run, trial, blade = (str(uuid4()) for _ in range(3))
    put = cut.client.put
    put(f"/api/bin/{run}", json={"kind": "run", "owner_id": cut.run})
    put(f"/api/bin/{trial}", json={"kind": "trial", "owner_id": cut.trial})
    put(f"/api/bin/{blade}", json={"kind": "blade", "owner_id": cut.blades["A"][0]})
    assert put(f"/api/bin/{trial}/brought-back").status_code == 409
    assert cut.client.delete(f"/api/bin/{blade}").is_success
    assert put(f"/api/bin/{trial}/brought-back").status_code == 200
    placed = cut.client.get(f"/api/trials/{cut.trial}/line-up").json()["blades"]
    assert [blade["code"] for blade in placed] == ["B"]
    never = put(f"/api/bin/{run}/brought-back")
    assert never.status_code == 409
    assert "deleted for good" in never.json()["detail"]
    assert [entry["id"] for entry in cut.client.get("/api/bin").json()] == [run]


def test_a_soak_comes_back_with_the_coupon_of_a_blade_that_was_deleted_for_good(cut):
    put, blade = cut.client.put, cut.blades["B"][0]
    method = cut.client.get("/api/soak-methods").json()[0]
    coupons = [{"id": "coupon-01", "name": "B", "blade_id": blade}]
    soak = {"name": "Pack", "question": "Which?", "factor": "steel", "method": method}
    assert put("/api/soaks/soak-0001", json={**soak, "coupons": coupons}).is_success
    for bin_id, kind, owner in (("bin-00001", "soak", "soak-0001"), ("bin-00002", "blade", blade)):
        away = {"kind": kind, "owner_id": owner}
        assert put(f"/api/bin/{bin_id}", json=away).is_success
    assert cut.client.delete("/api/bin/bin-00002").is_success
    assert put("/api/bin/bin-00001/brought-back").status_code == 200
    (coupon,) = cut.client.get("/api/soaks/soak-0001").json()["coupons"]
    assert (coupon["id"], coupon["blade_id"]) == ("coupon-01", "")


def test_a_run_does_not_come_back_onto_an_edge_that_was_cut_meanwhile(cut):
    gone = str(uuid4())
    cut.client.put(f"/api/bin/{gone}", json={"kind": "run", "owner_id": cut.run})
    again = cut.start(cut.blades["A"][1])
    refused = cut.client.put(f"/api/bin/{gone}/brought-back")
    assert refused.status_code == 409
    assert "an edge is cut once" in refused.json()["detail"]
    cut.client.put("/api/bin/bin-00002", json={"kind": "run", "owner_id": again})
    assert cut.client.put(f"/api/bin/{gone}/brought-back").status_code == 200


def test_a_run_comes_back_beside_the_one_it_stood_with(cut):
    """A file may hold several runs of one edge: zones, or stages."""
    rows = "blade,edge,run,count,check,value\n" + "".join(
        f"Z,3,{run},{count},force,{gf}\n"
        for run in (1, 2)
        for count, gf in ((0, 150), (4, 300), (8, 410))
    )
    made = cut.client.post("/api/imports", files=[("files", ("two.series.csv", rows))]).json()
    record = f"/api/trials/{made['trials'][0]['id']}/record"
    before = cut.client.get(record).json()["runs"]
    away = {"kind": "run", "owner_id": before[1]["id"]}
    assert cut.client.put("/api/bin/bin-00001", json=away).is_success
    assert cut.client.put("/api/bin/bin-00001/brought-back").status_code == 200
    assert cut.client.get(record).json()["runs"] == before


def test_a_run_comes_back_though_others_were_started_meanwhile(cut, database):
    """The server once numbered its own events anew from where the log ended."""
    before = run_of(cut)["log"]
    gone = str(uuid4())
    cut.client.put(f"/api/bin/{gone}", json={"kind": "run", "owner_id": cut.run})
    cut.start(cut.blades["B"][1])
    started = "UPDATE event SET device_sequence = 1 WHERE device = 'server'"
    with database.write() as session:
        session.execute(text(started))
    assert cut.client.put(f"/api/bin/{gone}/brought-back").status_code == 200
    after = run_of(cut)["log"]
    assert [e["payload"] for e in after] == [e["payload"] for e in before]
    assert cut.client.get("/api/today").is_success
    cut.start(cut.add_blade("C")[1])


def test_a_blade_comes_back_though_another_stands_in_its_place(cut):
    gone = str(uuid4())
    body = {"kind": "blade", "owner_id": cut.blades["B"][0]}
    assert cut.client.put(f"/api/bin/{gone}", json=body).is_success
    cut.add_blade("C")
    assert cut.client.put(f"/api/bin/{gone}/brought-back").status_code == 200
    placed = cut.client.get(f"/api/trials/{cut.trial}/line-up").json()["blades"]
    assert [blade["code"] for blade in placed] == ["A", "C", "B"]


def test_a_trial_is_changed_with_a_trace_and_put_away(cut):
    change = {"name": "Raft rope, spring", "created_on": "2026-03-01", "reason": "a better name"}
    assert cut.client.patch(f"/api/trials/{cut.trial}", json=change).status_code == 200
    record = cut.client.get(f"/api/trials/{cut.trial}/record").json()
    assert "name: “Raft rope” became “Raft rope, spring”" in [t["says"] for t in record["traces"]]
    assert record["trial"]["created_utc"].startswith("2026-03-01")
    away = f"/api/trials/{cut.trial}/archived"
    assert cut.client.put(away, json={"archived": True}).status_code == 204
    assert list(cut.client.get("/api/today").json()["archived"]) == [cut.trial]
    cut.client.put(away, json={"archived": False})
    assert cut.client.get("/api/today").json()["archived"] == {}


def test_a_look_without_stores_nothing_until_it_is_done_with_a_reason(cut):
    second = cut.start(cut.blades["B"][1])
    at = 0
    for gf in (150, 180, 220, 260, 300, 340, 400, 420, 440):
        cut.read(second, gf, at)
        if cut.client.get(f"/api/runs/{second}").json()["state"]["status"] == "stopped":
            break
        at = cut.cut(second, at=at)
    check = cut.client.get(f"/api/runs/{second}").json()["state"]["checks"][7]
    before = cut.client.get(f"/api/runs/{second}/log").json()
    address = f"/api/trials/{cut.trial}"
    body = {"event_ids": [check["event_id"]]}
    seen = cut.client.post(f"{address}/looks-without", json=body).json()
    assert seen["now"]["lives"]["A"] == seen["then"]["lives"]["A"]
    assert seen["now"]["lives"]["B"] != seen["then"]["lives"]["B"]
    alone = cut.client.post(f"{address}/looks-without", json={"run_ids": [second]}).json()
    assert list(alone["then"]["lives"]) == ["A"]
    assert cut.client.get(f"/api/runs/{second}/log").json() == before
    refused = cut.client.post(f"{address}/strikes", json={**body, "reason": " "})
    assert refused.json()["field"] == "reason"
    done = {**body, "run_ids": [cut.run], "reason": "read on the heel"}

    def standing():
        run = cut.client.get(f"/api/runs/{second}").json()["state"]
        (edge,) = cut.client.get(f"/api/blades/{cut.blades['A'][0]}").json()["blade"]["edges"]
        return run["checks"][7]["struck"], edge["overrule"], edge["overrule_reason"]

    for _ in "out", "and out again after an undo":
        struck = cut.client.post(f"{address}/strikes", json=done)
        assert len(struck.json()["strike_ids"]) == 1
        assert standing() == (True, False, "read on the heel")
        change = struck.headers["kessik-change"].split()[0]
        assert cut.client.post(f"/api/changes/{change}/undone").status_code == 204
        assert standing() == (False, None, "")
    kinds = [e["kind"] for e in cut.client.get(f"/api/runs/{second}/log").json()]
    assert (kinds.count("strike"), kinds.count("correction")) == (2, 2)
    strange = cut.client.post(f"{address}/looks-without", json={"event_ids": ["no-such-event"]})
    assert strange.status_code == 404


def test_while_blind_no_trace_gives_a_blade_away_and_what_is_no_number_empties_nothing(hand):
    (_, edge), (_, other) = hand.make_trial("A", "B")
    hand.client.put(f"/api/trials/{hand.trial}/covered", json={"covered": True, "seed": 3})
    run = hand.start(edge)
    assert patch(hand, run=run, edge_id=other, reason="mixed up").status_code == 204
    record = hand.client.get(f"/api/trials/{hand.trial}/record").json()
    assert (record["traces"], record["edges"]) == ([], [])
    assert record["runs"][0]["blade"].startswith("Q")
    assert patch(hand, run=run, block=4).status_code == 204
    assert patch(hand, run=run, block="4x").json()["field"] == "block"
    assert hand.client.get(f"/api/trials/{hand.trial}/record").json()["runs"][0]["block"] == 4
