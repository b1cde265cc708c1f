"""Plans over HTTP: tried out without being kept, kept even where they cannot be met, and said by
how much.
"""

import pytest

from kessik.core.protocols.methods import Method
from tests.helpers.cutting import cut_run


def path(hand, rest=""):
    return f"/api/trials/{hand.trial}/plan{rest}"


def test_trying_out_keeps_nothing_and_more_edges_cost_more_and_show_more(hand):
    hand.make_trial("A", "B")
    kept = hand.client.get(path(hand)).json()
    assert kept["plan"]["edges_per_blade"] == 2
    tried = hand.client.post(path(hand, "/try"), json={"edges_per_blade": 6}).json()
    assert tried["cost"]["medium_m"] > kept["cost"]["medium_m"]
    assert tried["shows_percent"] < kept["shows_percent"]
    assert len(tried["order"]) == 12
    assert tried["by_edges"] == kept["by_edges"]
    assert hand.client.get(path(hand)).json() == kept


def test_a_plan_that_runs_short_says_by_how_much_and_is_kept(hand):
    hand.make_trial("A", "B")
    body = {
        "edges_per_blade": 3,
        "line_left_m": 2,
        "rope_left_m": 500,
        "prediction": "B, by a fifth",
    }
    kept = hand.client.put(path(hand), json=body).json()
    short = kept["cost"]["line_m"] - 2
    assert any(s.startswith(f"test line is short by {short:.1f} m") for s in kept["shortfalls"])
    assert not any(s.startswith("rope") for s in kept["shortfalls"])
    again = hand.client.get(path(hand)).json()
    assert (again["plan"]["prediction"], again["plan"]["line_left_m"]) == ("B, by a fifth", 2)
    assert (
        hand.client.get(f"/api/trials/{hand.trial}/line-up").json()["trial"]["edges_per_blade"] == 3
    )


def test_blades_without_an_edge_and_lone_blades_and_lone_edges_are_said(hand):
    hand.make_trial()
    assert "no blade is in the trial yet" in hand.client.get(path(hand)).json()["shortfalls"]
    hand.add_blade("A", edges=[])
    said = hand.client.get(path(hand)).json()["shortfalls"]
    assert "A has no edge ready to cut" in said
    assert "a comparison needs a second blade" in said
    hand.add_blade("B")
    said = hand.client.post(path(hand, "/try"), json={"edges_per_blade": 1}).json()["shortfalls"]
    assert any("proves little" in s for s in said)


@pytest.mark.parametrize("school", ["force_limit_rope", "paper_stop_rope"])
def test_a_schedule_is_taken_as_it_was_foretold(hand, school):
    hand.make_trial("A", "B")
    ready = hand.client.get("/api/methods").json()["ready"]
    method = next(each for each in ready if each["school"] == school)
    fields = Method.__dataclass_fields__
    address = f"/api/trials/{hand.trial}/method"
    sent = {name: value for name, value in method.items() if name in fields}
    hand.client.put(address, json={"method": sent}).raise_for_status()
    foretold = hand.client.get(path(hand)).json()["schedules"]
    taken = next(each for each in foretold if each["name"] == "every 4 cuts")
    hand.client.put(address, json={"method": taken["method"]}).raise_for_status()
    now = {each["name"]: each for each in hand.client.get(path(hand)).json()["schedules"]}
    assert now["every 4 cuts"] == {**taken, "chosen": True}


def test_what_was_cut_is_learned_from(hand):
    (_, a), _ = hand.make_trial("A", "B", schedule="every", every=2)
    before = hand.client.get(path(hand)).json()
    cut_run(hand, a, 40)
    after = hand.client.get(path(hand)).json()
    blade = next(b for b in after["blades"] if b["code"] == "A")
    assert blade["life_from"] == "from its own runs"
    assert blade["expected"]["life"] == pytest.approx(40, rel=0.15)
    assert (blade["still_to_cut"], blade["waits"]) == (1, False)
    assert before["blades"][0]["still_to_cut"] == 2


def test_a_prediction_is_fixed_by_the_first_cut(hand):
    (_, a), _ = hand.make_trial("A", "B")
    hand.client.put(path(hand), json={"prediction": "A first"})
    hand.start(a)
    refused = hand.client.put(path(hand), json={"prediction": "B, of course"})
    assert (refused.status_code, refused.json()["field"]) == (422, "prediction")
    assert (
        hand.client.put(
            path(hand), json={"prediction": "A first", "edges_per_blade": 4}
        ).status_code
        == 200
    )


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"expected_life": 0.2}, "expected_life"),
        ({"wanted_percent": 0}, "wanted_percent"),
        ({"line_left_m": -1}, "line_left_m"),
        ({"pace": {"advance_mm": 0}}, "advance_mm"),
        ({"order_kind": "abba"}, "order_kind"),
    ],
)
def test_figures_that_cannot_be_are_refused_at_their_field(hand, body, field):
    hand.make_trial("A", "B", "C")
    answer = hand.client.post(path(hand, "/try"), json=body)
    assert (answer.status_code, answer.json()["field"]) == (422, field)


def test_the_order_follows_its_seed(hand):
    hand.make_trial("A", "B", "C", "D")

    def order(seed):
        body = {"edges_per_blade": 4, "order_kind": "shuffle", "seed": seed}
        return [p["blade"] for p in hand.client.post(path(hand, "/try"), json=body).json()["order"]]

    assert order(5) == order(5)
    assert len({tuple(order(seed)) for seed in range(6)}) > 1
