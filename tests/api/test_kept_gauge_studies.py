"""Gauge studies kept with their date, drift against the last, and taken over by plans."""

import math

import numpy as np
import pytest

from kessik.core.gauge.kept import KeptStudy, drift, scatter_percent
from kessik.core.gauge.study import GaugeReading
from kessik.core.moments import Moment
from kessik.core.protocols.methods import Method
from tests.helpers.cutting import cut_run


def readings(sd, seed, parts=(150.0, 220.0, 300.0, 400.0), repeats=6):
    rng = np.random.default_rng(seed)
    return [
        {"part": str(n), "operator": "Rhea", "value": float(value * math.exp(rng.normal(0, sd)))}
        for n, value in enumerate(parts, 1)
        for _ in range(repeats)
    ]


def study(sd, seed, **rest):
    body = {"instrument": "Line tester", "unit": "gf", "readings": readings(sd, seed)}
    return {**body, **rest}


def kept(sd, seed, day):
    own = tuple(GaugeReading(**each) for each in readings(sd, seed))
    return KeptStudy("s", "Line tester", "force", "gf", own, Moment(f"{day}T08:00:00+00:00", 0))


def test_the_reading_scatter_of_a_study_is_that_of_its_readings():
    found = scatter_percent(kept(0.04, 3, "2026-05-04"))
    cells = np.log([r["value"] for r in readings(0.04, 3)]).reshape(4, 6)
    assert found == pytest.approx(100 * math.sqrt(cells.var(axis=1, ddof=1).mean()), abs=0.05)


def test_a_gauge_that_became_worse_is_told_from_chance():
    first, worse, alike = (
        kept(sd, seed, f"2026-05-0{seed}") for sd, seed in ((0.03, 4), (0.09, 5), (0.03, 6))
    )
    found = drift(worse, first)
    assert found.is_real
    assert found.ratio > 2
    assert not drift(alike, first).is_real


def test_a_study_is_kept_once_beside_the_one_before(client):
    client.put("/api/gauge-studies/study-001", json=study(0.03, 4)).raise_for_status()
    again = client.put("/api/gauge-studies/study-001", json=study(0.03, 4)).json()
    assert again["drift"] == ""
    later = client.put("/api/gauge-studies/study-002", json=study(0.09, 5)).json()
    assert later["drift"].endswith(": it became worse.")
    assert later["use"].startswith("readings scatter by ")
    changed = client.put("/api/gauge-studies/study-001", json=study(0.05, 9))
    assert changed.status_code == 409
    assert [each["id"] for each in client.get("/api/gauge-studies").json()] == [
        "study-002",
        "study-001",
    ]
    client.delete("/api/gauge-studies/study-002").raise_for_status()
    assert client.delete("/api/gauge-studies/study-002").status_code == 404


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"instrument": " "}, "name the instrument"),
        ({"readings": readings(0.03, 1)[:1]}, "a gauge study needs two readings"),
        ({"readings": [{"part": "1", "operator": "R", "value": v} for v in (0, 3)]}, "above 0"),
        ({"measures": "weight"}, "this has to be 'force', 'hardness'"),
        ({"readings": readings(0.0, 1), "in_use": True}, "every repeat reads the same"),
        ({"readings": readings(0.9, 1), "in_use": True}, "a reading scatter"),
    ],
)
def test_what_is_no_study_is_refused_in_words(client, change, says):
    refused = client.put("/api/gauge-studies/study-001", json={**study(0.03, 1), **change})
    assert refused.status_code == 422
    assert says in refused.json()["detail"]


def force_check(method):
    return next(each for each in method["checks"] if each["kind"] == "force")


def test_a_ready_method_comes_with_the_newest_study_in_use(client):
    def known():
        return client.get("/api/methods").json()

    assert known()["gauge"] is None
    client.put("/api/gauge-studies/study-003", json=study(0.09, 5, in_use=True))
    client.put("/api/gauge-studies/study-001", json=study(0.03, 4, in_use=True))
    client.put("/api/gauge-studies/study-002", json=study(0.09, 5))
    used = [each["id"] for each in client.get("/api/gauge-studies").json() if each["in_use"]]
    assert used == ["study-001"], "one of a kind is reckoned with"
    found = known()
    assert found["gauge"]["percent"] == pytest.approx(3.0, abs=1.0)
    assert found["gauge"]["says"].startswith("Line tester, studied on 20")
    ready = next(each for each in found["ready"] if each["school"] == "force_limit_rope")
    assert force_check(ready)["scatter_percent"] == found["gauge"]["percent"]
    assert ready["checked"].endswith(f"readings scatter by {found['gauge']['percent']:g} %")
    paper = next(each for each in found["ready"] if each["school"] == "paper_stop_rope")
    assert [each["scatter_percent"] for each in paper["checks"]] == [None]


def test_lives_and_plans_of_a_trial_follow_its_gauge(client, hand):
    (_, a), (_, b) = hand.make_trial("A", "B", schedule="every", every=4)
    cut_run(hand, a, 30)
    cut_run(hand, b, 40)
    trial = f"/api/trials/{hand.trial}"
    method = client.get(f"{trial}/line-up").json()["trial"]["method"]
    sent = {name: value for name, value in method.items() if name in Method.__dataclass_fields__}

    def by_a_gauge_of(percent):
        force_check(sent)["scatter_percent"] = percent
        client.put(f"{trial}/method", json={"method": sent}).raise_for_status()
        answer = client.get(f"{trial}/verdict").json()["answer"]
        assert {run["left_out"] for run in answer["runs"]} == {""}, "no run is set apart for it"
        life = answer["runs"][0]["lives"]["dull"]
        width = life["high"] / life["low"]
        return width, client.get(f"{trial}/plan").json()["shows_percent"]

    (fine, fine_plan), (usual, plan), (coarse, coarse_plan) = map(by_a_gauge_of, (3, None, 12))
    assert 1 < fine < usual < coarse
    assert fine_plan < plan < coarse_plan


def test_plans_reckon_with_a_study_of_lives(client, hand):
    hand.make_trial("A", "B")
    plan = f"/api/trials/{hand.trial}/plan"
    usual = client.get(plan).json()
    lives = [{"part": p, "operator": "R", "value": v} for p in "AB" for v in (20.0, 30.0, 40.0)]
    body = {"instrument": "hand", "measures": "lives", "unit": "cuts", "readings": lives}
    client.put("/api/gauge-studies/study-003", json={**body, "in_use": True}).raise_for_status()
    rough = client.get(plan).json()
    assert rough["repeats_learned"] == usual["repeats_learned"] + 4
    assert rough["edge_spread_percent"] > 2 * usual["edge_spread_percent"]
