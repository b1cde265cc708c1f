"""What to do next in a trial, and a verdict that follows every fact as it comes in."""

import pytest

from tests.conftest import BenchHand
from tests.helpers.cutting import cut_run


def next_step(hand):
    return hand.client.get(f"/api/trials/{hand.trial}/line-up").json()["next_step"]


@pytest.fixture
def trial(hand):
    hand.make_trial(schedule="every", every=2, edges_per_blade=1)
    edges = {}
    for code in "AB":
        _, edges[code] = hand.add_blade(code, claimed_grade=f"1.40{ord(code)}")
    return edges


def test_blades_first(client):
    alone = BenchHand(client)
    alone.make_trial("A")
    assert next_step(alone)["kind"] == "add_blades"


def test_from_the_first_cut_to_the_verdict(hand, trial):
    assert next_step(hand)["says"] == "Cut A, run 1"
    run = hand.start(trial["A"])
    hand.cut(run, 3)
    step = next_step(hand)
    assert (step["kind"], step["says"], step["run_id"]) == (
        "go_on",
        "Go on with A, edge 3, at 3 cuts",
        run,
    )
    hand.send(run, "stop", {"by": "tester", "reason": "rope ran out"})
    assert next_step(hand)["says"] == "Cut B, run 1"
    cut_run(hand, trial["B"], 12)
    assert next_step(hand)["kind"] == "read_verdict"


def test_an_abandoned_run_counts_for_nothing(hand, trial):
    run = hand.start(trial["A"])
    hand.read(run, 150, 0)
    assert hand.send(run, "abandon", {}).status_code == 422, "a reason is asked for"
    hand.send(run, "abandon", {"reason": "edge chipped on a staple"})
    assert next_step(hand)["says"] == "Cut A, run 1"
    assert hand.client.get(f"/api/trials/{hand.trial}/verdict").json()["answer"]["runs"] == []


def test_the_scope_grows_when_the_last_fact_comes_in(hand):
    hand.make_trial(schedule="every", every=2)
    blades = {}
    for code, life in (("A", 10), ("B", 30)):
        edge = {
            "id": f"edge-of-{code}",
            "number": 3,
            "side_angle_deg": 15,
            "micro_bevel_side_deg": 0,
            "thickness_behind_edge_mm": 0.36,
        }
        blades[code], _ = hand.add_blade(
            code, claimed_grade=f"1.40{ord(code)}", hardness_hrc=58, edges=[edge]
        )
        cut_run(hand, f"edge-of-{code}", life)
    path = f"/api/trials/{hand.trial}"

    def comparison():
        return next(
            c
            for c in hand.client.get(f"{path}/verdict").json()["answer"]["comparisons"]
            if c["stage"] == "dull"
        )

    assert (comparison()["verdict"], comparison()["scope"]) == ("longer", "the steel")
    hand.client.patch(f"{path}/blades/{blades['B']}", json={"hardness_standing": "claimed"})
    assert (comparison()["scope"], comparison()["pending"]) == (
        "these blades",
        ["hardness of B is only claimed"],
    )
    hand.client.patch(
        f"{path}/blades/{blades['B']}",
        json={"hardness_standing": "measured_elsewhere", "hardness_hrc": 62},
    )
    assert comparison()["verdict"] == "confounded"
    hand.client.patch(path, json={"factor": "hardness"})
    assert comparison()["verdict"] == "confounded", "two steels say nothing of hardness"
    for blade in blades.values():
        hand.client.patch(f"{path}/blades/{blade}", json={"claimed_grade": "1.4034"})
    assert comparison()["verdict"] == "longer"
    assert comparison()["scope"] == "hardness in this steel"


def test_a_verdict_follows_a_reading_struck_out_long_after(hand, trial):
    run = cut_run(hand, trial["A"], 12)
    path = f"/api/trials/{hand.trial}/verdict"
    before = hand.client.get(path).json()["answer"]["runs"][0]
    log = hand.client.get(f"/api/runs/{run}").json()["log"]
    first = next(e["id"] for e in log if e["kind"] == "reading")
    hand.send(run, "strike", {"target": first, "reason": "read before the edge was wiped"})
    after = hand.client.get(path).json()["answer"]["runs"][0]
    assert after["readings"][0]["struck"]
    assert after["start_gf"] > before["start_gf"]


def test_today_shows_every_trial_newest_first(hand):
    hand.make_trial("A", "B")
    other = BenchHand(hand.client)
    other.make_trial("C", "D", name="Carton")
    trials = hand.client.get("/api/today").json()["trials"]
    assert [t["trial"]["name"] for t in trials] == ["Carton", "Raft rope"]
    assert [[b["code"] for b in t["blades"]] for t in trials] == [["C", "D"], ["A", "B"]]
