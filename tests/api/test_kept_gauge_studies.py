"""Gauge studies kept with their date, drift against the last, and taken over by plans."""

import math

import numpy as np
import pytest

from kessik.core.gauge.kept import KeptStudy, drift, scatter_of_ln
from kessik.core.gauge.study import GaugeReading
from kessik.core.moments import Moment


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
    found = scatter_of_ln(kept(0.04, 3, "2026-05-04"))
    cells = np.log([r["value"] for r in readings(0.04, 3)]).reshape(4, 6)
    assert found == pytest.approx(math.sqrt(cells.var(axis=1, ddof=1).mean()))


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
        ({"measures": "weight"}, "Input should be"),
    ],
)
def test_what_is_no_study_is_refused_in_words(client, change, says):
    refused = client.put("/api/gauge-studies/study-001", json={**study(0.03, 1), **change})
    assert refused.status_code == 422
    assert says in refused.json()["detail"]


def test_plans_reckon_with_the_newest_study_in_use(client, hand):
    hand.make_trial("A", "B")
    plan = f"/api/trials/{hand.trial}/plan"
    usual = client.get(plan).json()
    assert usual["reading_scatter_percent"] == pytest.approx(7.0)
    assert usual["scatter_studied_on"] == ""
    client.put("/api/gauge-studies/study-001", json=study(0.03, 4, in_use=True))
    client.put("/api/gauge-studies/study-002", json=study(0.09, 5))
    own = client.get(plan).json()
    assert own["reading_scatter_percent"] == pytest.approx(3.0, abs=1.0)
    assert own["scatter_studied_on"]
    lives = [{"part": p, "operator": "R", "value": v} for p in "AB" for v in (20.0, 30.0, 40.0)]
    body = {"instrument": "hand", "measures": "lives", "unit": "cuts", "readings": lives}
    client.put("/api/gauge-studies/study-003", json={**body, "in_use": True}).raise_for_status()
    rough = client.get(plan).json()
    assert rough["repeats_learned"] == own["repeats_learned"] + 4
    assert rough["edge_spread_percent"] > 2 * own["edge_spread_percent"]
