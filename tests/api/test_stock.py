"""Lots: runs book what they take, corrections stay in the record, a lot does not change inside a
block unseen.
"""

from uuid import uuid4

import pytest

from tests.helpers.cutting import cut_run


def lot(hand, kind="rope", unit="m", amount=10.0, **rest):
    made = str(uuid4())
    body = {
        "id": made,
        "kind": kind,
        "name": f"{kind} {made[:4]}",
        "unit": unit,
        "bought_amount": amount,
        **rest,
    }
    answer = hand.client.put(f"/api/lots/{made}", json=body)
    assert answer.status_code == 200, answer.text
    return made


def known(hand, lot_id):
    return next(found for found in hand.client.get("/api/lots").json() if found["id"] == lot_id)


def plan(hand, **body):
    return hand.client.put(f"/api/trials/{hand.trial}/plan", json=body)


def test_a_run_books_its_rope_and_its_line_and_practice_books_nothing(hand):
    (_, a), (_, b) = hand.make_trial("A", "B", schedule="every", every=2)
    rope, line = lot(hand, price=100, currency="kr"), lot(hand, "test_line", amount=5.0)
    plan(
        hand,
        medium_lot_id=rope,
        check_lot_id=line,
        pace={"advance_mm": 30, "offcut_m": 0.4, "line_mm": 100},
    )
    hand.start(b, practice=True)
    run = hand.start(a)
    assert known(hand, rope)["used"] == 0, "an offcut falls with the first cut"
    at = hand.cut(run, 4)
    hand.read(run, 180, at)
    assert known(hand, rope)["left"] == pytest.approx(10 - 4 * 0.03 - 0.4)
    assert known(hand, line)["left"] == pytest.approx(5 - 0.1)
    hand.send(
        run,
        "strike",
        {"target": hand.client.get(f"/api/runs/{run}").json()["log"][-1]["id"], "reason": "slip"},
    )
    assert known(hand, line)["left"] == pytest.approx(5 - 0.1), (
        "a reading struck out has used its line all the same"
    )
    found = hand.client.get(f"/api/trials/{hand.trial}/plan").json()
    assert [n["use"] for n in found["needs"]] == ["medium", "check"]
    assert found["needs"][0]["price"] == pytest.approx(10 * found["needs"][0]["needed"])


def test_a_correction_is_kept_once_and_low_stock_waits_in_today(hand):
    line = lot(hand, "test_line", amount=2.0)
    path = f"/api/lots/{line}/corrections/{uuid4()}"
    for _ in range(2):
        assert hand.client.put(path, json={"amount": 1.8, "reason": "knotted"}).json()[
            "left"
        ] == pytest.approx(0.2)
    assert any(
        d["kind"] == "stock" and "0.2 m left" in d["says"]
        for d in hand.client.get("/api/today").json()["due"]
    )
    refused = hand.client.put(
        f"/api/lots/{line}/corrections/{uuid4()}", json={"amount": 1, "reason": " "}
    )
    assert (refused.status_code, refused.json()["field"]) == (422, "reason")


def test_a_plan_names_the_lot_that_runs_short_and_is_kept(hand):
    hand.make_trial("A", "B")
    line = lot(hand, "test_line", amount=1.0)
    said = plan(hand, check_lot_id=line, edges_per_blade=4).json()["shortfalls"]
    assert any(s.startswith(known(hand, line)["name"] + " is short by") for s in said)
    wrong = plan(hand, medium_lot_id=line)
    assert (wrong.status_code, wrong.json()["field"]) == (422, "medium_lot_id")
    assert hand.client.get(f"/api/trials/{hand.trial}/plan").json()["plan"]["check_lot_id"] == line


def test_another_lot_inside_a_block_is_refused_or_marked_and_between_blocks_gives_a_factor(hand):
    (blade, a), (_, b) = hand.make_trial("A", "B", schedule="every", every=2)
    old, new = lot(hand), lot(hand)
    plan(hand, medium_lot_id=old)
    cut_run(hand, a, 30)
    plan(hand, medium_lot_id=new)
    run = str(uuid4())
    body = {"id": run, "edge_id": b}
    refused = hand.client.put(f"/api/trials/{hand.trial}/runs/{run}", json=body)
    assert (refused.status_code, refused.json()["field"]) == (409, "medium_lot_id")
    assert "block 1 was begun on" in refused.json()["detail"]
    insisted = hand.client.put(
        f"/api/trials/{hand.trial}/runs/{run}", json={**body, "insist_on_lot": True}
    ).json()
    assert "block 1 was begun on" in insisted["lot_change"]
    again = str(uuid4())
    hand.client.put(f"/api/blades/{blade}/edges/{again}", json={"id": again, "number": 4})
    cut_run(hand, again, 24)
    found = hand.client.get(f"/api/trials/{hand.trial}/verdict").json()["answer"]
    assert any("block 1 was begun on" in note for note in found["notes"])
    (factor,) = found["lot_factors"]
    assert "No result is corrected by it" in factor
    assert known(hand, new)["name"] in factor


@pytest.mark.parametrize(
    ("change", "field"),
    [({"name": " "}, "name"), ({"unit": "kg"}, "unit"), ({"price": -1}, "price")],
)
def test_a_lot_that_cannot_be_is_refused_at_its_field(hand, change, field):
    made = str(uuid4())
    body = {"id": made, "kind": "rope", "name": "hemp", "unit": "m", **change}
    answer = hand.client.put(f"/api/lots/{made}", json=body)
    assert (answer.status_code, answer.json()["field"]) == (422, field)
    assert hand.client.get("/api/lots").json() == []
