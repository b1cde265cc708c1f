"""Blind: neither the bench nor the answer gives a blade away until it is uncovered; a verification
hides the first.
"""

from uuid import uuid4

import pytest
from icalendar import Calendar

from kessik.services.clock import local_day, now
from tests.helpers.cutting import cut_run


def covered(hand, yes, seed=3):
    return hand.client.put(f"/api/trials/{hand.trial}/covered", json={"covered": yes, "seed": seed})


def verdict(hand):
    return hand.client.get(f"/api/trials/{hand.trial}/verdict").json()["answer"]


@pytest.fixture
def pair(hand):
    return hand.make_trial("AV-91", "AV-92", schedule="every", every=2)


def test_the_bench_shows_a_code_and_only_the_next_check_and_the_answer_waits(hand, pair):
    codes = covered(hand, True).json()["codes"]
    assert sorted(codes.values()) == ["Q1", "Q2"]
    run = hand.start(pair[0][1])
    hand.plan(run)
    seen = hand.client.get(f"/api/runs/{run}").json()
    assert seen["blade"]["code"] == codes["AV-91"]
    assert (seen["state"]["plan"]["band_low"], seen["state"]["plan"]["why"]) == (None, "")
    assert seen["state"]["plan"]["next_count"] == 0
    hand.send(run, "abandon", {"reason": "for the test"})
    cut_run(hand, pair[1][1], 30)
    hidden = verdict(hand)
    assert hidden["headline"] == hidden["sealed"] != ""
    assert set(hidden) == {"trial", "headline", "sealed", "prediction", "next_step"}
    (entry,) = hand.client.get("/api/today").json()["trials"]
    assert (entry["runs"], entry["lives"]) == ([], {})
    assert "AV-9" not in entry["next_step"]["says"]
    beside = hand.client.get(f"/api/trials/{hand.trial}/line-up").json()["runs"]
    page = hand.client.get(f"/api/blades/{pair[1][0]}").json()["runs"]
    assert {(r["count"], r.get("worn_share", 0)) for r in (*beside, *page)} == {(0, 0)}, (
        "no score beside a name"
    )
    plan = hand.client.get(f"/api/trials/{hand.trial}/plan").json()
    assert not any("its own" in b["life_from"] for b in plan["blades"]), (
        "what was cut does not show through the plan"
    )


def test_nothing_a_bench_can_ask_for_gives_a_covered_blade_away(hand, pair):
    telling = {"claimed_grade": "1.4112", "owner": "Corran Forge", "price": "81 crowns"}
    for blade, _ in pair:
        hand.client.patch(f"/api/blades/{blade}", json={**telling, "note": "the thin one"})
    covered(hand, True)
    cut_run(hand, pair[0][1], 30)
    run = hand.start(pair[1][1])
    hand.read(run, 150, 0)
    paths = hand.client.app.openapi()["paths"]
    asked = [
        path.format(run_id=run, trial_id=hand.trial)
        for path, methods in paths.items()
        if "get" in methods
        and (path.startswith("/api/runs/") or path.endswith("/verdict"))
        and not path.endswith("/follow")
    ]
    assert len(asked) >= 6
    said = [hand.client.get(path).text for path in asked]
    said.append(hand.client.post(f"/api/runs/{run}/plan").text)
    said.append(hand.send(run, "cut", {"amount": 1}).text)
    for text in said:
        for word in ("AV-9", "Corran", "crowns", "1.4112", "thin one"):
            assert word not in text
    assert hand.client.get(f"/api/runs/{run}").json()["blade"]["mark"] is None


def test_uncovering_has_a_time_and_is_not_undone(hand, pair):
    covered(hand, True)
    cut_run(hand, pair[0][1], 30)
    assert covered(hand, False).json()["unblinded_utc"]
    found = verdict(hand)
    assert found["runs"][0]["blade"] == "AV-91"
    again = covered(hand, True).json()
    assert (again["is_blind"], again["unblinded_utc"]) == (False, found["trial"]["unblinded_utc"])


def test_a_trial_cut_with_open_eyes_cannot_be_made_blind(hand, pair):
    hand.start(pair[0][1])
    assert covered(hand, True).status_code == 409


def test_a_verification_run_hides_the_first_result_until_it_stops(hand, pair):
    (blade, first), _ = pair
    cut_run(hand, first, 30)
    (earlier,) = verdict(hand)["runs"]
    second = str(uuid4())
    hand.client.put(f"/api/blades/{blade}/edges/{second}", json={"id": second, "number": 4})
    run = hand.start(second, verifies_run_id=earlier["run"]["id"])
    assert hand.client.get(f"/api/runs/{run}").json()["sealed"]
    assert "runs" not in verdict(hand)
    hand.send(run, "stop", {"by": "tester", "reason": ""})
    assert len(verdict(hand)["runs"]) == 2


def test_dated_work_goes_into_the_calendar_and_into_today(hand, pair):
    today = local_day(now()).isoformat()
    hand.client.put(
        f"/api/trials/{hand.trial}/plan", json={"edges_per_blade": 2, "starts_on": today}
    )
    text = hand.client.get(f"/api/trials/{hand.trial}/calendar.ics")
    assert text.headers["content-type"].startswith("text/calendar")
    events = Calendar.from_ical(text.content).walk("VEVENT")
    said = [str(event["summary"]) for event in events]
    assert any(s.startswith("Prepare the edges of AV-9") for s in said)
    assert any(s.startswith("Cut again ") for s in said)
    assert events[0].decoded("dtstart").isoformat() == today
    assert len({str(event["uid"]) for event in events}) == len(events)
    due = [d for d in hand.client.get("/api/today").json()["due"] if d["kind"] == "work"]
    assert due[0]["says"].endswith("today")
    covered(hand, True)
    blind = Calendar.from_ical(
        hand.client.get(f"/api/trials/{hand.trial}/calendar.ics").content
    ).walk("VEVENT")
    assert not any("AV-9" in str(event["summary"]) for event in blind)
    refused = hand.client.put(f"/api/trials/{hand.trial}/plan", json={"starts_on": "2026-02-31"})
    assert (refused.status_code, refused.json()["field"]) == (422, "starts_on")
