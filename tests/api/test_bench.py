"""The bench over HTTP: events once and in order, checks planned, stages and stops declared by the
server alone.
"""

import io
import time
import zipfile
from uuid import uuid4

import pytest


@pytest.fixture
def run(hand):
    (_, edge), _ = hand.make_trial("A", "B", schedule="every", every=2)
    return hand.start(edge)


def test_a_whole_run(hand, run):
    state = hand.plan(run)
    assert (state["check_due"], state["readings_wanted"]) == (True, 2), "the fresh edge first"
    hand.read(run, 150, 0)
    hand.read(run, 154, 0)
    assert hand.plan(run)["plan"]["next_count"] == 2
    at = 0.0
    for gf in (240, 310, 350, 470):
        at = hand.cut(run, 2, at)
        state = hand.read(run, gf, at)
        state = hand.plan(run)
    assert state["stages"] == {"keen": 4}
    assert state["confirmation_wanted"]
    state = hand.read(run, 480, at)
    assert state["status"] == "stopped"
    assert state["stopped_by"] == "rule"
    assert state["stages"] == {"keen": 4, "dull": 8}
    whole = hand.client.get(f"/api/runs/{run}").json()
    assert "dull: 7" in whole["found"] or "dull: 8" in whole["found"]
    assert [e["kind"] for e in whole["log"]].count("stop") == 1
    assert all(
        a["position"] < b["position"] for a, b in zip(whole["log"], whole["log"][1:], strict=False)
    )


def resting_edge(hand, run):
    """Cut an edge that stays just under 400 gf, up to two readings in a row just above it."""
    at = 0.0
    hand.read(run, 150, at)
    for gf in (300, 350, 372, 381, 388, 391):
        at = hand.cut(run, 2, at)
        assert hand.read(run, gf, at)["status"] == "cutting"
    at = hand.cut(run, 2, at)
    hand.read(run, 412, at)
    state = hand.read(run, 406, at)
    assert (state["status"], state["stages"].get("dull")) == ("cutting", None)
    state = hand.plan(run)
    assert (state["check_due"], state["readings_wanted"]) == (True, 2)
    assert "may be resting under it" in state["plan"]["why"]
    return at


@pytest.mark.parametrize(("more", "status"), [((409, 404), "stopped"), ((391, 383), "cutting")])
def test_an_edge_that_may_be_resting_is_read_twice_more_before_it_is_called_dull(
    hand, run, more, status
):
    at = resting_edge(hand, run)
    for gf in more:
        state = hand.read(run, gf, at)
        if state["status"] == "stopped":
            break
    assert (state["status"], "dull" in state["stages"]) == (status, status == "stopped")


def test_who_cuts_on_instead_lets_the_next_check_decide(hand, run):
    at = hand.cut(run, 2, resting_edge(hand, run))
    hand.read(run, 452, at)
    assert hand.read(run, 445, at)["status"] == "stopped"


def test_the_same_event_twice_is_one_event(hand, run):
    event_id, body = str(uuid4()), hand.event("cut", {"amount": 1})
    first = hand.client.put(f"/api/runs/{run}/events/{event_id}", json=body).json()
    again = hand.client.put(f"/api/runs/{run}/events/{event_id}", json=body).json()
    assert (first["duplicate"], again["duplicate"]) == (False, True)
    assert first["position"] == again["position"]
    assert again["state"]["count"] == 1


def test_one_id_with_other_content_or_one_sequence_twice_is_a_conflict(hand, run):
    event_id, body = str(uuid4()), hand.event("cut", {"amount": 1})
    hand.client.put(f"/api/runs/{run}/events/{event_id}", json=body)
    other = hand.client.put(
        f"/api/runs/{run}/events/{event_id}", json={**body, "payload": {"amount": 2}}
    )
    assert (other.status_code, other.json()["field"]) == (409, "id")
    same_sequence = hand.client.put(f"/api/runs/{run}/events/{uuid4()}", json=body)
    assert (same_sequence.status_code, same_sequence.json()["field"]) == (409, "device_sequence")
    assert hand.client.get(f"/api/runs/{run}").json()["state"]["count"] == 1


def test_a_slip_of_the_finger_does_not_end_the_run_for_good(hand, run):
    at = hand.cut(run, 2)
    hand.read(run, 4000, at)
    slip = hand.send(run, "reading", {"check": "force", "value": 4100, "unit": "gf"}, at=at)
    assert slip.json()["state"]["status"] == "stopped"
    back = hand.send(run, "correction", {"target": slip.event_id, "becomes": {"value": 210}}, at=at)
    state = back.json()["state"]
    assert state["status"] == "cutting"
    assert state["stages"] == {}
    assert hand.send(run, "cut", {"amount": 1}, at=at).status_code == 200


def test_after_the_stop_nothing_more_is_cut(hand, run):
    hand.send(run, "stop", {"by": "tester", "reason": "hand is tired"})
    seen = hand.client.get(f"/api/runs/{run}").json()["state"]["position"]
    refused = hand.send(run, "cut", {"amount": 1}, seen=seen)
    assert refused.status_code == 409
    assert "start another run" in refused.json()["detail"]


def test_only_the_server_declares_stages(hand, run):
    answer = hand.client.put(
        f"/api/runs/{run}/events/{uuid4()}", json=hand.event("stage", {"stage": "dull", "count": 1})
    )
    assert answer.status_code == 422


def test_an_edge_is_cut_once(hand):
    ((_, edge),) = hand.make_trial("A")
    hand.start(edge)
    again = str(uuid4())
    answer = hand.client.put(
        f"/api/trials/{hand.trial}/runs/{again}", json={"id": again, "edge_id": edge}
    )
    assert answer.status_code == 409
    assert "sharpen the blade" in answer.json()["detail"]
    hand.start(edge, practice=True)


def test_a_practice_run_reads_the_virtual_bench_and_stays_out(hand):
    (_, a), (_, b) = hand.make_trial("A", "B")
    run = hand.start(a, practice=True, practice_seed=3)
    news = []
    hand.client.app.state.server.bench.live.tell = lambda topic, message: news.append(message)

    def pull():
        before = len(news)
        assert hand.client.post(f"/api/runs/{run}/virtual-reading").status_code == 204
        for _ in range(400):
            found = [n for n in news[before:] if getattr(n, "what", "") == "reading"]
            if found:
                assert found[0].run_id == run, "it is told for this run alone"
                return found[0].value
            time.sleep(0.005)
        raise AssertionError("no reading came")

    first = pull()
    assert pull() == first, "asked again at the same place, it shows the same"
    assert 80 < first < 260
    hand.read(run, first, 0)
    hand.cut(run, 12)
    assert pull() > first * 1.15, "a cut edge reads duller"
    verdict = hand.client.get(f"/api/trials/{hand.trial}/verdict").json()["answer"]
    assert verdict["runs"] == []
    real = hand.start(b)
    assert hand.client.post(f"/api/runs/{real}/virtual-reading").status_code == 409


def test_the_zone_must_lie_on_the_edge(hand):
    hand.make_trial()
    _, edge = hand.add_blade("A", edge_length_mm=96)
    for zone in (
        {"zone_from_mm": 80, "zone_to_mm": 40},
        {"zone_from_mm": 20, "zone_to_mm": 120},
        {"zone_from_mm": 20},
    ):
        run = str(uuid4())
        answer = hand.client.put(
            f"/api/trials/{hand.trial}/runs/{run}", json={"id": run, "edge_id": edge, **zone}
        )
        assert (answer.status_code, answer.json()["field"]) == (422, "zone_to_mm")
    run = hand.start(edge, zone_from_mm=16, zone_to_mm=80)
    assert hand.client.get(f"/api/runs/{run}").json()[
        "exposure_per_cut_mm2_per_mm"
    ] == pytest.approx(12.57, abs=0.01)


def test_a_replay_shows_what_the_tester_was_told(hand, run):
    hand.plan(run)
    hand.read(run, 150, 0)
    hand.plan(run)
    hand.read(run, 152, 0)
    hand.plan(run)
    hand.plan(run)
    told = [
        e["payload"]["next_count"]
        for e in hand.client.get(f"/api/runs/{run}").json()["log"]
        if e["kind"] == "check_planned"
    ]
    assert told == [0, 2], "once for each time the plan changed"


def test_a_spoiled_cut_is_named_beside_the_answer_and_in_the_file(hand, run):
    hand.plan(run)
    hand.read(run, 150, 0)
    hand.read(run, 150, 0)
    at = hand.cut(run, 3)
    assert hand.send(run, "spoiled", {"cause": "staple"}, at=at).status_code == 200
    assert hand.send(run, "spoiled", {"cause": "cat"}, at=at).json()["field"] == "cause"
    hand.send(run, "stop", {"by": "tester", "reason": "edge ruined"}, at=at)
    notes = hand.client.get(f"/api/trials/{hand.trial}/verdict").json()["answer"]["notes"]
    assert (
        "A, edge 3: 1 spoiled cut, at 3 (staple); check the edge there first: the life may be"
        " short by damage." in notes
    )
    archive = zipfile.ZipFile(
        io.BytesIO(hand.client.get(f"/api/trials/{hand.trial}/files").content)
    )
    assert b"spoiled at 3 (staple)" in archive.read("raft-rope.runs.csv")
