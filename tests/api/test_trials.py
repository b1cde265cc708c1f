"""Trials over HTTP: the line-up, what to do next, and faults as problem details that name their
field.
"""

from uuid import uuid4

import pytest

PROBLEM = "application/problem+json"


def line_up(hand):
    return hand.client.get(f"/api/trials/{hand.trial}/line-up").json()


def cell(found, blade, variable):
    return next(c for c in found["cells"] if (c["blade"], c["variable"]) == (blade, variable))


def with_edge(**facts):
    return {"edges": [{"id": str(uuid4()), "number": 3, "side_angle_deg": 15, **facts}]}


def test_from_nothing_to_a_line_up(hand):
    assert hand.client.get("/api/today").json() == {
        "trials": [],
        "failed": [],
        "due": [],
        "archived": {},
        "working_out": 0,
    }
    hand.make_trial()
    hand.add_blade(
        "A", claimed_grade="1.4034", hardness_hrc=57.5, **with_edge(thickness_behind_edge_mm=0.36)
    )
    hand.add_blade(
        "B", claimed_grade="1.4112", hardness_hrc=58.0, **with_edge(thickness_behind_edge_mm=0.72)
    )
    found = line_up(hand)
    assert found["says"].startswith("B is not a fair test of steel")
    assert cell(found, "B", "thickness_behind_edge_mm")["state"] == "confounded"
    assert cell(found, "A", "hardness_hrc")["state"] == "matched"
    assert found["next_step"]["kind"] == "start_run"
    (today,) = hand.client.get("/api/today").json()["trials"]
    assert today["headline"] == "No reading has been taken yet."


def test_ways_out_of_a_mismatch(hand):
    hand.make_trial()
    hand.add_blade("A", **with_edge(thickness_behind_edge_mm=0.36))
    blade, _ = hand.add_blade("B", **with_edge(thickness_behind_edge_mm=0.72))
    trial = f"/api/trials/{hand.trial}"
    hand.client.patch(trial, json={"tolerances": {"thickness_behind_edge_mm": 0.4}})
    assert cell(line_up(hand), "B", "thickness_behind_edge_mm")["state"] == "matched"
    hand.client.patch(trial, json={"tolerances": {}, "factor": "geometry"})
    assert cell(line_up(hand), "B", "thickness_behind_edge_mm")["state"] == "factor"
    assert hand.client.delete(f"{trial}/blades/{blade}").status_code == 204
    assert [b["code"] for b in line_up(hand)["blades"]] == ["A"]


def test_facts_are_changed_and_emptied(hand):
    (blade, edge), _ = hand.make_trial("A", "B")
    path = f"/api/trials/{hand.trial}/blades/{blade}"
    assert (
        hand.client.patch(
            path, json={"hardness_hrc": 60.5, "hardness_standing": "measured_elsewhere"}
        ).status_code
        == 200
    )
    assert cell(line_up(hand), "A", "hardness_hrc")["value"] == 60.5
    hand.client.patch(path, json={"hardness_hrc": None, "code": None})
    assert cell(line_up(hand), "A", "hardness_hrc")["state"] == "pending"
    edge_body = {"id": edge, "number": 3, "side_angle_deg": 17.5}
    assert hand.client.put(f"{path}/edges/{edge}", json=edge_body).status_code == 200
    assert cell(line_up(hand), "A", "side_angle_deg")["value"] == 17.5


def test_making_a_trial_twice_is_making_it_once(hand):
    hand.make_trial("A")
    hand.make_trial()
    assert len(line_up(hand)["blades"]) == 1


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"name": "  "}, "name"),
        ({"rope_diameter_mm": -3}, "rope_diameter_mm"),
        ({"factor": "colour"}, "factor"),
        ({"nmae": "x"}, "nmae"),
    ],
)
def test_bad_settings_name_their_field(hand, change, field):
    body = {"id": hand.trial, "name": "Raft rope", **change}
    answer = hand.client.put(f"/api/trials/{hand.trial}", json=body)
    assert answer.status_code == 422
    assert answer.headers["content-type"] == PROBLEM
    assert answer.json()["field"] == field
    assert answer.json()["detail"]


@pytest.mark.parametrize(
    ("facts", "status", "field"),
    [
        ({"code": "A"}, 409, "code"),
        ({"code": " "}, 422, "code"),
        ({"code": "C", "hardness_hrc": 150}, 422, "hardness_hrc"),
        (
            {"code": "C", "usual_hardness_low_hrc": 62, "usual_hardness_high_hrc": 60},
            422,
            "usual_hardness_low_hrc",
        ),
        (
            {"code": "C", "edges": [{"id": "edge-one", "number": 3, "side_angle_deg": 95}]},
            422,
            "side_angle_deg",
        ),
        ({"code": "C", "edges": [{"id": "edge-one", "number": 0}]}, 422, "edges.0.number"),
    ],
)
def test_bad_blades_name_their_field_and_leave_nothing_behind(hand, facts, status, field):
    hand.make_trial("A")
    blade = str(uuid4())
    answer = hand.client.put(
        f"/api/trials/{hand.trial}/blades/{blade}", json={"id": blade, **facts}
    )
    assert (answer.status_code, answer.json()["field"]) == (status, field)
    assert [b["code"] for b in line_up(hand)["blades"]] == ["A"]


def test_unknown_things_are_404_and_broken_bodies_400(hand):
    assert hand.client.get(f"/api/trials/{uuid4()}/verdict").status_code == 404
    assert hand.client.get(f"/api/runs/{uuid4()}").json()["detail"] == "there is no such run"
    assert hand.client.get("/api/nothing").headers["content-type"] == PROBLEM
    broken = hand.client.put(
        f"/api/trials/{hand.trial}", content=b"{", headers={"content-type": "application/json"}
    )
    assert broken.status_code == 400
    assert broken.headers["content-type"] == PROBLEM


def test_another_host_is_refused(client):
    assert client.get("/api/today", headers={"host": "evil.example"}).status_code == 400


def test_a_page_of_another_site_may_not_write(hand):
    hand.make_trial("A")
    path, body = f"/api/trials/{hand.trial}", {"name": "Taken over"}
    refused = hand.client.patch(path, json=body, headers={"origin": "https://elsewhere.example"})
    assert (refused.status_code, refused.headers["content-type"]) == (403, PROBLEM)
    assert line_up(hand)["trial"]["name"] == "Raft rope"
    assert (
        hand.client.patch(path, json=body, headers={"origin": "http://127.0.0.1:8737"}).status_code
        == 200
    )


def test_the_verdict_carries_curves_ladder_and_words(hand):
    files = []
    for blade, life in (("A", 14), ("B", 24)):
        files += [
            f"{blade},{e},{n},force,{150 + 250 * (n / life) ** 0.6:.0f}"
            for e in (1, 2)
            for n in range(0, life + 3)
        ]
    text = "blade,edge,count,check,value\n" + "\n".join(files) + "\n"
    made = hand.client.post("/api/imports", files=[("files", ("raft.series.csv", text))]).json()[
        "trials"
    ][0]
    found = hand.client.get(f"/api/trials/{made['id']}/verdict").json()["answer"]
    assert found["headline"].startswith("To dull, B outlasts A by")
    assert [rung["blade"] for rung in found["ladder"]] == ["B", "A"]
    band = found["runs"][0]["band"]
    assert all(
        low <= middle <= high
        for low, middle, high in zip(
            band["low_gf"], band["middle_gf"], band["high_gf"], strict=True
        )
    )
    assert found["runs"][0]["lives"]["dull"]["words"].startswith("13.9 cuts")
    assert found["comparisons"][0]["scope"] == "these blades"
    archive = hand.client.get(f"/api/trials/{made['id']}/files")
    assert archive.headers["content-type"] == "application/zip"
