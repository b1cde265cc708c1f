"""Every school, really: planned, cut live as the bench asks, written to files, read again, analysed
to the same.
"""

import io
import zipfile

import pytest

from kessik.core.protocols.schools import BY_SCHOOL
from kessik.core.words.methods import ends_when
from tests.conftest import BenchHand

# how an edge of life 1 answers, by the share of its life that is used up
PASS_FAIL = {"hair_sample": 0.4, "shave": 0.4, "inspect": 0.2, "paper": 1.0}
LIFE = {"two_stage_board": 60, "push_cut_board": 30, "paper_stop_rope": 40}


class Bench(BenchHand):
    """A hand that does what the screen asks, with an edge that falls evenly."""

    def cut_to_the_end(self, run, life):
        wobble = 0
        while True:
            state = self.plan(run)
            if state["status"] in ("stopped", "abandoned"):
                return state
            count = state["count"]
            if not state["check_due"]:
                piece = self.client.get(f"/api/runs/{run}").json()["method"]["piece"]
                (
                    self.cut(run, at=count)
                    if piece == 1
                    else self.send(run, "cut", {"amount": piece}, at=count)
                )
                continue
            wobble += 1
            self.look(run, state, count, count / life, 1 + 0.02 * (wobble % 3 - 1))

    def look(self, run, state, count, used, wobble):
        place = {"position_mm": state["asked_at_mm"]} if state["asked_at_mm"] is not None else {}
        asked = state["asked"]
        if asked in PASS_FAIL:
            lost = used >= PASS_FAIL[asked]
            said = (
                ("glint" if lost else "clean") if asked == "inspect" else "fail" if lost else "pass"
            )
            if asked == "paper" and 0.7 <= used < 1.0:
                said = "doubt"
            self.judge(run, said, count, asked, **place)
            return
        value = {
            "force": (150 + 250 * used) * wobble,
            "effort": min(2 + 12 * count / self.sharp, 10),
            "depth": (9.0 - 0.1 * count) * self.sharp / 10,
        }[asked]
        unit = "gf" if asked == "force" else "mm" if asked == "depth" else None
        payload = {"check": asked, "value": round(value, 2), "unit": unit, **place}
        assert self.send(run, "reading", payload, at=count).status_code == 200


def told(verdict):
    """What an answer says, without ids and times."""
    return {
        "headline": verdict["headline"],
        "lives": {b["blade"]: b["lives"] for b in verdict["ladder"]},
        "figures": {b["blade"]: b["figures"] for b in verdict["figure_blades"]},
        "runs": [
            [r["blade"], r["lives"], r["figures"], r["start_gf"], r["end_gf"]]
            for r in verdict["runs"]
        ],
        "pairs": [[p["stage"], p["ratio"], p["low"], p["high"]] for p in verdict["comparisons"]],
        "by_figure": [
            [p["stage"], p["ratio"], p["low"], p["high"]] for p in verdict["figure_comparisons"]
        ],
        "efforts": verdict["efforts"],
    }


@pytest.mark.parametrize("school", BY_SCHOOL)
def test_a_school_is_planned_cut_written_and_read_again_with_the_same_numbers(client, school):
    hand = Bench(client)
    method = BY_SCHOOL[school]
    edges = hand.make_trial("A", "B", school=school, edges_per_blade=1)
    plan = client.get(f"/api/trials/{hand.trial}/plan").json()
    assert plan["cost"]["runs"] == 2
    assert plan["cost"]["hours"] > 0
    for (_, edge), scale in zip(edges, (1.0, 1.5), strict=True):
        hand.sharp = 10 * scale
        run = hand.start(edge)
        state = hand.cut_to_the_end(run, LIFE.get(school, 24) * scale)
        assert state["stopped_by"] == "rule"
        ended = client.get(f"/api/runs/{run}").json()
        assert ended["log"][-1]["payload"]["reason"] == ends_when(method)
        assert ended["found"]
        assert set(state["stages"]) == {stage.name for stage in method.stages}
    verdict = client.get(f"/api/trials/{hand.trial}/verdict").json()["answer"]
    assert verdict["ladder"] or verdict["figure_blades"], (
        "a school that answers nothing is a label in a list"
    )
    archive = zipfile.ZipFile(io.BytesIO(client.get(f"/api/trials/{hand.trial}/files").content))
    files = [("files", (name, archive.read(name))) for name in archive.namelist()]
    made = client.post("/api/imports", files=files).json()["trials"][0]
    assert made["method"]["ends_when"] == ends_when(method)
    again = client.get(f"/api/trials/{made['id']}/verdict").json()["answer"]
    assert told(again) == told(verdict)
    assert {b["blade"] for b in again["ladder"] + again["figure_blades"]} == {"A", "B"}


def test_blades_that_take_turns_layer_by_layer_hand_over_to_each_other(hand):
    (_, thick), (_, thin) = hand.make_trial("A", "B", school="geometry_layers")
    first = hand.start(thick)
    path = f"/api/runs/{first}/other-blade"
    assert hand.client.get(f"/api/runs/{first}").json()["alternates"]
    turn = hand.client.get(path).json()
    assert (turn["run_id"], turn["edge_id"], turn["says"]) == (None, thin, "B, its first layer")
    second = hand.start(thin)
    assert hand.client.get(path).json()["run_id"] == second
    assert hand.client.get(f"/api/runs/{second}/other-blade").json()["run_id"] == first
    hand.send(second, "stop", {"by": "tester", "reason": "the board ran out"})
    assert hand.client.get(path).json() is None
