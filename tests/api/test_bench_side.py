"""What stands beside the count: the hand's pace, the break, the stock; and nothing more than may be
seen when blind.
"""

from datetime import datetime, timedelta
from uuid import uuid4

import pytest

NOON = datetime.fromisoformat("2026-05-04T12:00:00+02:00")


@pytest.fixture
def run(hand):
    (_, edge), _ = hand.make_trial("A", "B", schedule="every", every=4)
    return hand.start(edge)


def cut_at(hand, run, n, minutes):
    body = hand.event("cut", {"amount": 1}, at=n) | {
        "client_time": (NOON + timedelta(minutes=minutes)).isoformat()
    }
    assert hand.client.put(f"/api/runs/{run}/events/{uuid4()}", json=body).status_code == 200


def news(hand, run):
    return hand.client.get(f"/api/runs/{run}").json()


def test_a_long_stretch_ends_in_a_hint_and_a_break_ends_the_stretch(hand, run):
    for n in range(26):
        cut_at(hand, run, n, 2.0 * n)
    pace = news(hand, run)["pace"]
    assert (pace["per_minute"], pace["minutes_without_break"]) == (0.5, 50)
    assert pace["hint"] == "50 minutes without a break; rest the hand"
    pause = hand.event("pause") | {"client_time": (NOON + timedelta(minutes=51)).isoformat()}
    hand.client.put(f"/api/runs/{run}/events/{uuid4()}", json=pause)
    resting = news(hand, run)
    assert (resting["state"]["status"], resting["paused_since"]) == (
        "paused",
        "2026-05-04T12:51:00+02:00",
    )
    cut_at(hand, run, 26, 60)
    rested = news(hand, run)
    assert (
        rested["pace"]["hint"],
        rested["pace"]["cuts_without_break"],
        rested["paused_since"],
    ) == ("", 1, None)


def test_stock_left_is_told_with_how_many_more_cuts_it_lasts(hand):
    (_, edge), _ = hand.make_trial("A", "B", schedule="every", every=4)
    lot = str(uuid4())
    rope = {"id": lot, "kind": "rope", "name": "Rope, lot 7", "unit": "m", "bought_amount": 10}
    assert hand.client.put(f"/api/lots/{lot}", json=rope).status_code == 200
    assert (
        hand.client.put(f"/api/trials/{hand.trial}/plan", json={"medium_lot_id": lot}).status_code
        == 200
    )
    run = hand.start(edge)
    hand.cut(run, 1)  # the end that is lost to the clamp goes with the first cut
    (before,) = hand.client.get(f"/api/runs/{run}/stock").json()
    hand.cut(run, 4, at=1)
    (after,) = hand.client.get(f"/api/runs/{run}/stock").json()
    assert after["name"] == "Rope, lot 7"
    assert before["counts_left"] - after["counts_left"] == pytest.approx(4)
    practice = hand.start(edge, practice=True)
    assert hand.client.get(f"/api/runs/{practice}/stock").json() == []


def test_a_blind_bench_is_told_where_to_check_and_never_why(hand):
    (_, a), _ = hand.make_trial("A", "B", schedule="adaptive")
    covered = hand.client.put(
        f"/api/trials/{hand.trial}/covered", json={"covered": True, "seed": 3}
    )
    assert covered.status_code == 200
    run = hand.start(a)
    hand.plan(run)
    for gf, at in ((150, 0), (152, 0), (170, 1), (210, 3)):
        if at:
            hand.cut(run, 1 if at == 1 else 2, at=0)
        state = hand.read(run, gf, at)
        hand.plan(run)
    assert state["plan"] is None or state["plan"]["why"] == ""
    acknowledged = hand.send(run, "note", {"text": "steady"}, at=3).json()["state"]
    assert (acknowledged["plan"]["why"], acknowledged["plan"]["band_low"]) == ("", None)
    seen = news(hand, run)
    planned = [e["payload"] for e in seen["log"] if e["kind"] == "check_planned"]
    assert planned
    assert all(set(p) == {"next_count", "readings", "check"} for p in planned)
    assert seen["card"]["checks_at"] == [acknowledged["plan"]["next_count"]]
    assert b"expected" not in hand.client.get(f"/api/runs/{run}/log.csv").content
