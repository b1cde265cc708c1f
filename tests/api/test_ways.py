"""Two blades of one life may differ all the way there, and the answer says so."""

import numpy as np
import pytest

from kessik.core.sharpness.curves import CurveBand
from kessik.core.sharpness.work import mean_reading_gf
from tests.helpers.answers import answer_of


def curve(force_gf, to=20.0):
    counts = np.linspace(0, to, 73)
    force = np.asarray(force_gf(counts), float)
    return CurveBand(counts, force, force, force)


def test_the_mean_reading_is_that_of_the_curve_to_the_count():
    straight = curve(lambda n: 150 + 10 * n)
    assert mean_reading_gf([straight], 20) == pytest.approx(250)
    assert mean_reading_gf([straight], 10) == pytest.approx(200)
    assert mean_reading_gf([straight, curve(lambda n: 300 + 0 * n)], 10) == pytest.approx(250)
    # by hand, ∫ 100 + n² over 0 to 20: 100 + 20² / 3
    assert mean_reading_gf([curve(lambda n: 100 + n**2)], 20) == pytest.approx(233.3, rel=1e-3)


def cut_along(hand, edge, exponent):
    run, at = hand.start(edge), 0.0
    while True:
        state = hand.read(run, round(150 + 250 * (at / 20) ** exponent), at)
        if state["status"] == "stopped":
            return
        if not state["confirmation_wanted"]:
            at = hand.cut(run, 2, at)


def test_blades_that_last_alike_are_told_apart_by_the_way_there(hand):
    (_, early), (_, late) = hand.make_trial("A", "B", every=2)
    cut_along(hand, early, 0.35)
    cut_along(hand, late, 1.6)
    found = answer_of(hand.client, hand.trial)
    assert found["comparisons"][0]["verdict"] == "not_enough_evidence"
    assert found["ways"][0].startswith(("A and B are not separated", "B and A are not separated"))
    assert "B is the keener" in found["ways"][0]
    of_a = [words for words in found["ways"][1:] if words.startswith("A ")]
    assert len(of_a) == 2, "its work on the way, and how it went after keen"
    assert of_a[1].startswith("A after keen")


def test_a_life_on_one_edge_length_stands_beside_the_life_as_counted(hand):
    """By hand: 20 cuts on 40 mm cost each millimetre as much as 40 cuts on 80 mm, n · 80 / 40."""
    (_, long), (_, short) = hand.make_trial("A", "B", every=2, scale_edge_length=True)
    for edge, to_mm in ((long, 80), (short, 40)):
        run, at = hand.start(edge, zone_from_mm=0, zone_to_mm=to_mm), 0.0
        state = {"status": "cutting", "confirmation_wanted": False}
        while state["status"] != "stopped":
            state = hand.read(run, round(150 + 250 * (at / 20) ** 0.9), at)
            at = at if state["confirmation_wanted"] else hand.cut(run, 2, at)
    found = answer_of(hand.client, hand.trial)
    first, second = found["ladder"]
    assert (first["blade"], second["blade"]) == ("B", "A"), "in the order of the scaled lives"
    on_80 = float(first["on_one_length"]["dull"].split()[0])
    assert first["on_one_length"]["dull"].endswith("on 80 mm of edge")
    assert on_80 == pytest.approx(2 * first["lives"]["dull"]["estimate"], abs=0.6)
    assert second["on_one_length"] == {}


def test_bench_and_answer_give_one_number_for_one_run(hand):
    (blade, first), _ = hand.make_trial("A", "B", every=2)
    runs = []
    for edge, life in ((first, 14), ("edge-two-of-A", 16)):
        hand.client.put(f"/api/blades/{blade}/edges/{edge}", json={"id": edge})
        run, at, ended = hand.start(edge), 0.0, False
        while not ended:
            state = hand.read(run, round(150 + 250 * (at / life) ** 0.7), at)
            at = at if state["confirmation_wanted"] else hand.cut(run, 2, at)
            ended = state["status"] == "stopped"
        runs.append(run)
    told = {
        r["run"]["id"]: r["lives"]["dull"]["words"]
        for r in answer_of(hand.client, hand.trial)["runs"]
    }
    for run in runs:
        found = hand.client.get(f"/api/runs/{run}").json()["found"]
        assert f"dull: {told[run]}" in found
        assert "the spread between edges is not included" in found


def test_the_line_up_counts_what_the_runs_show_as_the_answer_does(hand):
    (_, long), (_, short) = hand.make_trial("A", "B", every=2)
    for edge, to_mm in ((long, 80), (short, 40)):
        run = hand.start(edge, zone_from_mm=0, zone_to_mm=to_mm)
        hand.read(run, 150, 0)
        hand.read(run, 200, hand.cut(run, 2))
    line_up = hand.client.get(f"/api/trials/{hand.trial}/line-up").json()
    answer = answer_of(hand.client, hand.trial)
    for cells in (line_up["cells"], answer["cells"]):
        (own,) = [c for c in cells if (c["variable"], c["blade"]) == ("edge_length_mm", "B")]
        assert (own["state"], own["shown"]) == ("confounded", "40 mm")


def test_how_long_blades_stay_under_any_force_is_answered_beside_the_limits_of_the_method(hand):
    (_, edge), _ = hand.make_trial("A", "B", schedule="every", every=4)
    run = hand.start(edge)
    at = 0
    for gf in (150, 200, 250, 300, 350, 410, 420):
        hand.read(run, gf, at)
        at = hand.cut(run, 4, at) if gf < 410 else at
    path = f"/api/trials/{hand.trial}/lives-under"
    lives = hand.client.get(path, params={"limit_gf": 275}).json()["lives"]
    assert lives["A"].startswith("10 cuts"), "halfway between 250 gf at 8 and 300 gf at 12"
    refused = hand.client.get(path, params={"limit_gf": -1})
    assert (refused.status_code, refused.json()["field"]) == (422, "limit_gf")
