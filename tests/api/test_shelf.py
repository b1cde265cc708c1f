"""The shelf over HTTP: measurements that stay, edges by recipe, archive and delete, and refusals at
their field.
"""

import io
from uuid import uuid4

import numpy as np
import pytest
from PIL import Image


@pytest.fixture
def blade(client):
    return put_blade(client, "AV-02", edge_length_mm=96)


def put_blade(client, code, **facts):
    blade = str(uuid4())
    answer = client.put(f"/api/blades/{blade}", json={"id": blade, "code": code, **facts})
    assert answer.status_code == 200, answer.text
    return blade


def put_edge(client, blade, edge=None, **facts):
    edge = edge or str(uuid4())
    answer = client.put(f"/api/blades/{blade}/edges/{edge}", json={"id": edge, **facts})
    return edge, answer


def measure(client, blade, quantity, value=None, **rest):
    body = {"id": str(uuid4()), "quantity": quantity, "value": value, **rest}
    return client.put(f"/api/blades/{blade}/measurements/{body['id']}", json=body)


def page(client, blade):
    return client.get(f"/api/blades/{blade}").json()


def test_a_claim_does_not_displace_a_measurement_and_nothing_is_erased(client, blade):
    measure(
        client, blade, "hardness_hrc", 58.0, on="2026-05-01", instrument="bench Rockwell tester"
    )
    measure(client, blade, "hardness_hrc", 62.0, standing="claimed", on="2026-06-01")
    measure(client, blade, "hardness_hrc", 58.4, on="2026-05-20")
    own = [
        m for m in page(client, blade)["blade"]["measurements"] if m["quantity"] == "hardness_hrc"
    ]
    assert [(m["value"], m["in_use"]) for m in own] == [(58.4, True), (58.0, False), (62.0, False)]
    client.put(f"/api/measurements/{own[0]['id']}/struck", json={"reason": "indenter chipped"})
    assert page(client, blade)["blade"]["hardness_hrc"] == 58.0
    client.put(f"/api/measurements/{own[0]['id']}/struck", json={"reason": ""})
    assert page(client, blade)["blade"]["hardness_hrc"] == 58.4


def test_readings_of_a_day_make_a_hardness(client, blade):
    details = {
        "readings": [57.0, 57.4, 57.2],
        "block_nominal_hrc": 60,
        "block_readings": [59.6, 59.6],
    }
    assert measure(client, blade, "hardness_hrc", details=details).json()["value"] == pytest.approx(
        57.6
    )
    kept = next(
        m for m in page(client, blade)["blade"]["measurements"] if m["quantity"] == "hardness_hrc"
    )
    assert kept["hardness"]["correction_hrc"] == pytest.approx(0.4)
    assert kept["hardness"]["warnings"] == []


def test_the_same_measurement_twice_is_one_and_another_under_its_id_is_refused(client, blade):
    body = {"id": str(uuid4()), "quantity": "stock_mm", "value": 3.0}
    path = f"/api/blades/{blade}/measurements/{body['id']}"
    assert client.put(path, json=body).status_code == 200
    assert client.put(path, json=body).status_code == 200
    assert client.put(path, json={**body, "value": 4.0}).status_code == 409
    assert [
        m["value"]
        for m in page(client, blade)["blade"]["measurements"]
        if m["quantity"] == "stock_mm"
    ] == [3.0]


@pytest.mark.parametrize(
    ("quantity", "value", "of_edge"),
    [
        ("side_angle_deg", 4.9, True),
        ("side_angle_deg", 45.1, True),
        ("thickness_behind_edge_mm", 0.04, True),
        ("thickness_behind_edge_mm", 3.1, True),
        ("hardness_hrc", 19, False),
        ("hardness_hrc", 71, False),
    ],
)
def test_what_cannot_be_is_refused_at_the_field_with_what_would_be_right(
    client, blade, quantity, value, of_edge
):
    edge, _ = put_edge(client, blade)
    answer = measure(client, blade, quantity, value, **({"edge_id": edge} if of_edge else {}))
    assert (answer.status_code, answer.json()["field"]) == (422, quantity)
    assert "give " in answer.json()["detail"]


def test_a_fact_goes_where_it_belongs(client, blade):
    edge, _ = put_edge(client, blade)
    assert measure(client, blade, "side_angle_deg", 15).json()["field"] == "edge_id"
    assert measure(client, blade, "stock_mm", 3, edge_id=edge).json()["field"] == "edge_id"
    assert measure(client, blade, "side_angle_deg", 15, edge_id=str(uuid4())).status_code == 404
    assert measure(client, blade, "weight_g", 80).json()["field"] == "quantity"


def test_stations_make_a_thickness_and_may_not_lie_beyond_the_edge(client, blade):
    edge, _ = put_edge(client, blade)
    stations = [{"position_mm": 16, "value_mm": 0.34}, {"position_mm": 80, "value_mm": 0.42}]
    measure(client, blade, "thickness_behind_edge_mm", edge_id=edge, details={"stations": stations})
    (kept,) = page(client, blade)["blade"]["edges"]
    assert kept["thickness_behind_edge_mm"] == pytest.approx(0.38)
    assert kept["stations"]["uneven"]
    far = {"stations": [{"position_mm": 97, "value_mm": 0.36}]}
    answer = measure(client, blade, "thickness_behind_edge_mm", edge_id=edge, details=far)
    assert "beyond the edge of 96 mm" in answer.json()["detail"]


def test_thickness_goes_stale_and_is_expected_to_have_grown(client, blade):
    measure(client, blade, "primary_grind_side_deg", 2.0)
    put_edge(client, blade, thickness_behind_edge_mm=0.36)
    edge, answer = put_edge(client, blade)
    assert "how much steel went since is not known" in answer.json()["expected_thickness"]
    _, answer = put_edge(client, blade, edge, steel_removed_mm=0.5)
    assert (
        "about 0.39 mm expected now" in answer.json()["expected_thickness"]
    )  # 0.36 + 2 × 0.5 × tan 2°
    measure(client, blade, "thickness_behind_edge_mm", 0.40, edge_id=edge)
    assert page(client, blade)["blade"]["edges"][-1]["expected_thickness"] == ""


@pytest.mark.parametrize(
    ("facts", "field"),
    [
        ({"zones": [{"from_mm": 12, "to_mm": 97}]}, "zones"),
        ({"zones": [{"from_mm": 0, "to_mm": 40}, {"from_mm": 30, "to_mm": 60}]}, "zones"),
        ({"steps": [{"abrasive": "stone", "strokes_per_side": -3}]}, "steps.0.strokes_per_side"),
        ({"minutes": -1}, "minutes"),
        ({"damage": [{"position_mm": 120, "kind": "chip"}]}, "damage"),
        ({"overrule": True}, "overrule_reason"),
    ],
)
def test_an_edge_that_cannot_be_is_refused_and_nothing_is_kept(client, blade, facts, field):
    _, answer = put_edge(client, blade, **facts)
    assert (answer.status_code, answer.json()["field"]) == (422, field)
    assert page(client, blade)["blade"]["edges"] == []


def test_what_is_not_sent_of_an_edge_stays(client, blade):
    zones = [{"from_mm": 0, "to_mm": 40}, {"from_mm": 30, "to_mm": 60}]
    edge, _ = put_edge(
        client, blade, zones=zones, zones_overlap=True, minutes=12, side_angle_deg=15
    )
    put_edge(client, blade, edge, trouble="burr clung")
    (kept,) = page(client, blade)["blade"]["edges"]
    assert (kept["minutes"], kept["trouble"], len(kept["zones"]), kept["side_angle_deg"]) == (
        12,
        "burr clung",
        2,
        15,
    )
    assert client.delete(f"/api/blades/{blade}/edges/{edge}").status_code == 204
    assert page(client, blade)["blade"]["edges"] == []


def test_one_recipe_for_all_blades_of_a_trial_in_one_act(hand):
    (a, _), (b, _) = hand.make_trial("A", "B")
    recipe = {
        "id": str(uuid4()),
        "name": "Bench set",
        "steps": [{"abrasive": "stone", "strokes_per_side": 30}],
    }
    assert hand.client.put(f"/api/recipes/{recipe['id']}", json=recipe).status_code == 200
    body = {"recipe_id": recipe["id"], "edge_ids": {a: str(uuid4()), b: str(uuid4())}}
    for _ in range(2):
        made = hand.client.post(f"/api/trials/{hand.trial}/preparations", json=body).json()
        assert [(m["number"], m["departures"]) for m in made] == [(4, []), (4, [])]
    steps = [{"abrasive": "stone", "strokes_per_side": 45}]
    put_edge(hand.client, b, body["edge_ids"][b], steps=steps)
    standings = page(hand.client, b)["edge_standings"]
    assert standings[-1]["departures"] == ["step 1: strokes a side 45 instead of 30"]
    again = {**recipe, "id": str(uuid4())}
    assert hand.client.put(f"/api/recipes/{again['id']}", json=again).json()["field"] == "name"
    stranger = {**body, "edge_ids": {put_blade(hand.client, "C"): str(uuid4())}}
    assert (
        hand.client.post(f"/api/trials/{hand.trial}/preparations", json=stranger).status_code == 404
    )


def test_a_blade_with_runs_is_archived_not_deleted_and_comes_back(hand):
    ((a, edge),) = hand.make_trial("A")
    hand.start(edge)
    refused = hand.client.delete(f"/api/blades/{a}")
    assert (refused.status_code, "archive it instead" in refused.json()["detail"]) == (409, True)
    hand.client.put(f"/api/blades/{a}/archived", json={"archived": True})
    assert page(hand.client, a)["blade"]["archived_utc"]
    other = put_blade(hand.client, "A")
    back = hand.client.put(f"/api/blades/{a}/archived", json={"archived": False})
    assert back.json()["field"] == "code", "its code was given away meanwhile"
    assert hand.client.delete(f"/api/blades/{other}").status_code == 204
    assert hand.client.put(f"/api/blades/{a}/archived", json={"archived": False}).status_code == 200


def test_a_blade_keeps_its_mark_in_every_trial(hand, client):
    (a, _), (b, _) = hand.make_trial("A", "B")
    other = str(uuid4())
    client.put(f"/api/trials/{other}", json={"id": other, "name": "Carton"})
    placed = client.put(f"/api/trials/{other}/places/{b}", json={"role": "high_reference"}).json()
    assert (placed["mark"], placed["place"], placed["role"]) == (1, 0, "high_reference")
    marks = [s["blade"]["mark"] for s in client.get("/api/shelf").json()["blades"]]
    assert marks == [0, 1]
    client.delete(f"/api/blades/{a}")
    assert put_blade(client, "C") != a
    assert sorted(s["blade"]["mark"] for s in client.get("/api/shelf").json()["blades"]) == [0, 1]


def test_which_edges_count_is_fixed_by_the_first_cut_and_overruled_with_a_reason(hand):
    (a, edge), (b, _) = hand.make_trial("A", "B", settled_edge_number=4)
    path = f"/api/trials/{hand.trial}"
    found = hand.client.get(f"{path}/line-up").json()
    cell = next(c for c in found["cells"] if c["variable"] == "settled_edge")
    assert (cell["state"], "fatigued steel" in cell["says"]) == ("confounded", True)
    assert hand.client.patch(path, json={"settled_edge_number": 5}).status_code == 200
    hand.start(edge)
    refused = hand.client.patch(path, json={"settled_kind": "every_edge"})
    assert (refused.status_code, refused.json()["field"]) == (409, "settled_kind")
    put_edge(hand.client, a, edge, overrule=True, overrule_reason="ground deep at the forge")
    found = hand.client.get(f"{path}/line-up").json()
    assert {c["blade"]: c["state"] for c in found["cells"] if c["variable"] == "settled_edge"}[
        "A"
    ] == "matched"
    assert b


def test_a_trial_holds_loosely_what_its_tester_says(hand):
    (a, _), (b, _) = hand.make_trial("A", "B")
    path = f"/api/trials/{hand.trial}"
    measure(hand.client, a, "grip", words="oak")
    measure(hand.client, b, "grip", words="cord")
    says = hand.client.get(f"{path}/line-up").json()["says"]
    assert says.startswith("B is not a fair test of steel: grip is cord, not oak")
    hand.client.patch(path, json={"let_go": ["grip"]})
    found = hand.client.get(f"{path}/line-up").json()
    assert all(c["variable"] != "grip" for c in found["cells"])
    assert next(v for v in found["variables"] if v["name"] == "grip")["held"] is False
    refused = hand.client.patch(path, json={"let_go": ["mood"]})
    assert (refused.status_code, refused.json()["field"]) == (422, "let_go")
    refused = hand.client.patch(path, json={"tolerances": {"final_abrasive_um": 0.5}})
    assert (refused.status_code, refused.json()["field"]) == (422, "tolerances")


def test_the_shelfs_range_of_a_grade_is_what_usual_means(hand):
    (a, _), _ = hand.make_trial("A", "B", hardness_reading="as_usually_hardened")
    hand.client.patch(f"/api/blades/{a}", json={"claimed_grade": "1.2990", "hardness_hrc": 60})

    def state():
        cells = hand.client.get(f"/api/trials/{hand.trial}/line-up").json()["cells"]
        return next(
            c["state"] for c in cells if (c["blade"], c["variable"]) == ("A", "hardness_hrc")
        )

    assert state() == "pending"
    hand.client.put("/api/grades/1.2990", json={"usual_low_hrc": 59, "usual_high_hrc": 61})
    assert state() == "matched"
    refused = hand.client.put(
        "/api/grades/1.2990", json={"usual_low_hrc": 62, "usual_high_hrc": 61}
    )
    assert refused.json()["field"] == "usual_low_hrc"


def test_today_names_loans_and_hardness_that_wait(hand, client):
    (a, _), _ = hand.make_trial("A", "B")
    client.patch(f"/api/blades/{a}", json={"loan_from": "Corran Forge", "loan_due": "2020-01-02"})
    measure(client, a, "hardness_hrc", 58)
    due = client.get("/api/today").json()["due"]
    assert [(d["kind"], d["overdue"]) for d in due] == [("loan", True), ("hardness", False)]
    assert "overdue" in due[0]["says"]
    assert due[1]["says"] == "Hardness of B is not known"
    client.patch(f"/api/blades/{a}", json={"loan_returned": "2020-01-01"})
    assert [d["kind"] for d in client.get("/api/today").json()["due"]] == ["hardness"]
    refused = client.patch(f"/api/blades/{a}", json={"loan_due": "2020-13-45"})
    assert (refused.status_code, refused.json()["field"]) == (422, "loan_due")


def picture(kind="PNG"):
    out = io.BytesIO()
    Image.fromarray(np.full((20, 30, 3), 120, np.uint8)).save(out, kind)
    return out.getvalue()


def test_a_picture_is_kept_once_and_given_back_as_it_was(client, blade):
    for _ in range(2):
        sent = {"photo": ("blade.png", picture()), "caption": (None, "as it came")}
        kept = client.post(f"/api/blades/{blade}/photos", files=sent).json()
    assert client.get(f"/api/pictures/{kept['hash']}").content == picture()
    assert [p["caption"] for p in page(client, blade)["photos"]] == ["as it came"]
    assert client.delete(f"/api/blades/{blade}/photos/{kept['hash']}").status_code == 204
    assert page(client, blade)["photos"] == []


@pytest.mark.parametrize("data", [b"", b"not a picture", picture()[:40], picture("GIF")])
def test_what_is_no_picture_is_refused(client, blade, data):
    answer = client.post(f"/api/blades/{blade}/photos", files={"photo": ("x.png", data)})
    assert answer.status_code == 422
    assert "JPEG, PNG and WebP" in answer.json()["faults"][0]["message"]


def test_a_run_keeps_out_of_the_control_and_a_second_zone_of_an_edge_may_be_cut(hand):
    ((a, edge),) = hand.make_trial("A")
    hand.client.patch(f"/api/blades/{a}", json={"edge_length_mm": 96})
    put_edge(
        hand.client,
        a,
        edge,
        zones=[{"from_mm": 0, "to_mm": 70}, {"from_mm": 76, "to_mm": 96, "use": "control"}],
    )

    def start(**zone):
        run = str(uuid4())
        body = {"id": run, "edge_id": edge, **zone}
        return hand.client.put(f"/api/trials/{hand.trial}/runs/{run}", json=body)

    assert "say which zone is cut" in start().json()["detail"]
    assert "is a control" in start(zone_from_mm=40, zone_to_mm=80).json()["detail"]
    assert start(zone_from_mm=0, zone_to_mm=30).status_code == 200
    assert start(zone_from_mm=25, zone_to_mm=60).status_code == 409
    assert start(zone_from_mm=30, zone_to_mm=60).status_code == 200


def test_an_edge_cut_in_one_trial_is_used_up_for_every_other(hand, client):
    ((a, edge),) = hand.make_trial("A")
    other = str(uuid4())
    client.put(f"/api/trials/{other}", json={"id": other, "name": "Carton"})
    client.put(f"/api/trials/{other}/places/{a}", json={})

    def start(**rest):
        run = str(uuid4())
        return client.put(
            f"/api/trials/{other}/runs/{run}", json={"id": run, "edge_id": edge, **rest}
        )

    assert client.get(f"/api/trials/{other}/line-up").json()["used_up"] == []
    assert client.get(f"/api/trials/{other}/plan").json()["blades"][0]["waits"]
    hand.start(edge)
    assert client.get(f"/api/trials/{other}/line-up").json()["used_up"] == [edge]
    assert not client.get(f"/api/trials/{other}/plan").json()["blades"][0]["waits"]
    refused = start()
    assert (refused.status_code, refused.json()["field"]) == (409, "edge_id")
    assert start(practice=True).status_code == 200, "practice wears nothing"


@pytest.mark.parametrize(
    ("path", "expected"),
    [
        (
            "bevel?thickness_mm=0.4&side_angle_deg=17",
            {"included_deg": 34, "thickness_thou": 15.748},
        ),
        ("length?thou=15", {"mm": 0.381}),
        ("hardness?hrc=60", {"hv": 697}),
        ("exposure?edge_length_mm=64&diameter_mm=32", {"exposure_mm2_per_mm": 12.566}),
        (
            "exposure?edge_length_mm=60&diameter_mm=32&cuts=18&reference_mm=80",
            {"cuts_at_reference": 24},
        ),
        ("abrasive?scale=fepa_p&grit=1000", {"size_um": 18.3}),
        ("growth?height_lost_mm=0.5&primary_grind_side_deg=2", {"value": 0.0349}),
        ("convex?thickness_mm=0.5&height_mm=1", {"value": 14.036}),
    ],
)
def test_the_reckoner_answers_with_formula_limits_and_source(client, path, expected):
    found = client.get(f"/api/reckoner/{path}").json()
    for name, value in expected.items():
        assert found[name] == pytest.approx(value, rel=1e-3)
    assert all(found["footing"].values())


@pytest.mark.parametrize(
    ("path", "field"),
    [
        ("hardness?hrc=19", "hrc"),
        ("bevel?thickness_mm=0.4&face_width_mm=0.1", "face_width_mm"),
        ("abrasive?scale=jis&grit=99999", "grit"),
        ("exposure?edge_length_mm=0&diameter_mm=32", "edge_length_used_mm"),
        ("length", "mm"),
    ],
)
def test_the_reckoner_refuses_at_the_field(client, path, field):
    answer = client.get(f"/api/reckoner/{path}")
    assert (answer.status_code, answer.json()["field"]) == (422, field)


def test_what_is_told_of_a_blade_is_kept_apart_from_what_is_measured(client, blade):
    told = {
        "owner": "Corran Forge",
        "price": "640 kr",
        "note": "the obvious upgrade",
        "heat_treatment": {
            "austenitising_c": 1050,
            "quench": "oil",
            "tempers_c": [180, 180],
            "standing": "claimed",
        },
    }
    client.patch(f"/api/blades/{blade}", json=told)
    kept = page(client, blade)["blade"]
    assert (kept["owner"], kept["price"], kept["note"]) == (
        "Corran Forge",
        "640 kr",
        "the obvious upgrade",
    )
    assert kept["heat_treatment"]["tempers_c"] == [180, 180]
    assert kept["heat_treatment"]["sub_zero_c"] is None
    client.patch(f"/api/blades/{blade}", json={"price": "590 kr"})
    assert page(client, blade)["blade"]["heat_treatment"]["austenitising_c"] == 1050, (
        "what is not sent stays"
    )


def test_own_abrasives_stand_beside_compounds_and_grades_beside_common_practice(client):
    made = str(uuid4())
    body = {"id": made, "name": "grey stone of the yard", "kind": "slate", "size_um": 12}
    assert client.put(f"/api/abrasives/{made}", json=body).status_code == 200
    client.put("/api/grades/1.4034", json={"usual_low_hrc": 54, "usual_high_hrc": 56})
    found = client.get("/api/shelf").json()
    assert [a["name"] for a in found["abrasives"]] == ["grey stone of the yard"]
    assert any(c["size_um"] == 1.0 and c["kind"] == "diamond" for c in found["compounds"])
    grades = client.get("/api/grades").json()["grades"]
    own = {g["name"]: g for g in grades}
    assert (own["1.4034"]["own"], own["1.4034"]["usual_high_hrc"]) == (True, 56)
    assert (own["1.3344"]["own"], own["1.3344"]["standing"]) == (False, "guessed")
    assert len(grades) == len(own)
    assert (
        client.put(f"/api/abrasives/{made}", json={**body, "size_um": -1}).json()["field"]
        == "size_um"
    )
    assert client.delete(f"/api/abrasives/{made}").status_code == 204
    assert client.get("/api/shelf").json()["abrasives"] == []


def test_damage_on_an_edge_starts_the_count_of_settled_edges_anew(client, blade):
    third, _ = put_edge(client, blade, number=3)
    put_edge(client, blade, third, damage=[{"position_mm": 41, "kind": "chip"}])
    put_edge(client, blade)
    states = [s["settled"]["state"] for s in page(client, blade)["edge_standings"]]
    assert states == ["settled", "not_yet"]
    put_edge(client, blade, third, damage=[{"position_mm": 41, "kind": "glint"}])
    states = [s["settled"]["state"] for s in page(client, blade)["edge_standings"]]
    assert states == ["settled", "settled"], "a glint is no damage"


def test_the_line_up_asks_for_references_and_names_what_is_taken_as_equal(hand):
    (a, _), (b, _) = hand.make_trial("A", "B")
    path = f"/api/trials/{hand.trial}"
    found = hand.client.get(f"{path}/line-up").json()
    assert [words.split(" is ")[0] for words in found["references"]] == [
        "No low reference",
        "No high reference",
    ]
    assert {"grip", "coating", "edge finish"} <= set(found["taken_as_equal"])
    hand.client.put(f"{path}/places/{a}", json={"role": "low_reference"})
    measure(hand.client, a, "grip", words="oak")
    measure(hand.client, b, "grip", words="Oak")
    found = hand.client.get(f"{path}/line-up").json()
    assert [words.split(" is ")[0] for words in found["references"]] == ["No high reference"]
    assert "grip" not in found["taken_as_equal"]
    assert next(c["state"] for c in found["cells"] if c["variable"] == "grip") == "matched"


def test_start_readings_of_a_fresh_edge_are_their_mean_on_the_log_scale(client, blade):
    edge, _ = put_edge(client, blade)
    kept = measure(client, blade, "start_gf", edge_id=edge, details={"readings": [100, 225]}).json()
    assert kept["value"] == pytest.approx(150)
    refused = measure(client, blade, "start_gf", edge_id=edge, details={"readings": [150, 5000]})
    assert (refused.status_code, refused.json()["field"]) == (422, "start_gf")
