"""Bad input at the bench: each has its answer, and none loses what was stored."""

import pytest

from kessik.core.protocols.events import EVENT_KINDS


@pytest.fixture
def run(hand):
    (_, edge), _ = hand.make_trial("A", "B", schedule="every", every=4)
    return hand.start(edge)


def stored(hand, run):
    log = hand.client.get(f"/api/runs/{run}").json()
    return log["state"]["count"], [(c["count"], c["force_gf"]) for c in log["state"]["checks"]]


@pytest.mark.parametrize(
    ("kind", "payload", "field"),
    [
        ("reading", {"check": "force", "value": -3}, "value"),
        ("reading", {"check": "force", "value": 0}, "value"),
        ("reading", {"check": "force", "value": 5001}, "value"),
        ("reading", {"check": "force", "value": "212"}, "value"),
        ("reading", {"check": "force"}, "value"),
        ("reading", {"check": "effort", "value": 11}, "value"),
        ("reading", {"check": "force", "value": 200, "stage": "strop"}, "run"),
        ("outcome", {"check": "paper", "outcome": "maybe"}, "outcome"),
        ("outcome", {"check": "inspect", "outcome": "rust"}, "outcome"),
        ("cut", {"amount": 0}, "amount"),
        ("cut", {"amount": 2000}, "amount"),
        ("strop", {"strokes": 10}, "run"),
        ("strop", {"strokes": 0}, "strokes"),
        ("accept", {"targets": []}, "targets"),
        ("accept", {"targets": ["no-such-cut"]}, "targets"),
        ("strike", {"target": "no-such-event", "reason": "slipped"}, "target"),
        ("abandon", {"reason": " "}, "reason"),
        ("stage", {"stage": "keen", "count": 3}, "kind"),
        ("sharpen", {}, "kind"),
    ],
)
def test_what_cannot_be_is_refused_at_its_field_and_nothing_moves(hand, run, kind, payload, field):
    hand.cut(run, 2)
    hand.read(run, 180, 2)
    before = stored(hand, run)
    answer = hand.send(run, kind, payload, at=2)
    assert 400 <= answer.status_code < 500
    assert answer.json()["field"] == field
    assert stored(hand, run) == before


def test_a_reading_told_late_stands_at_its_own_count(hand, run):
    hand.cut(run, 8)
    hand.read(run, 260, 8)
    hand.read(run, 190, 4)
    assert stored(hand, run) == (
        8,
        [(4, 190), (8, 260)],
    ), "a phone that was away tells of an earlier check"


def test_an_event_for_a_stopped_run_is_taken_only_of_a_device_that_could_not_know(hand, run):
    hand.cut(run, 2)
    position = hand.send(run, "stop", {"by": "tester", "reason": "edge ruined"}, at=2).json()[
        "position"
    ]
    aware = hand.send(run, "cut", {"amount": 1}, at=2, seen=position)
    assert (aware.status_code, aware.json()["field"]) == (409, "run")
    assert (
        hand.send(run, "cut", {"amount": 1}, at=2, seen=position - 1).json()["state"]["count"] == 3
    )
    assert hand.client.get(f"/api/runs/{run}").json()["state"]["status"] == "stopped"


def test_a_clock_hours_off_moves_nothing_and_a_time_that_is_none_is_refused(hand, run):
    for hours, n in (("01", 0), ("23", 1), ("07", 2)):
        body = hand.event("cut", {"amount": 1}, at=n) | {
            "client_time": f"2026-05-04T{hours}:00:00+02:00"
        }
        assert (
            hand.client.put(f"/api/runs/{run}/events/clock-event-{n}", json=body).status_code == 200
        )
    log = hand.client.get(f"/api/runs/{run}").json()["log"]
    assert [e["count_at"] for e in log if e["kind"] == "cut"] == [
        0,
        1,
        2,
    ], "the log keeps the order it was told in"
    assert [e["client_time"][11:13] for e in log if e["kind"] == "cut"] == [
        "01",
        "23",
        "07",
    ], "and what was said"
    for time in ("noon", "2026-05-04T10:00:00", ""):
        answer = hand.client.put(
            f"/api/runs/{run}/events/clock-event-9",
            json=hand.event("cut", {"amount": 1}) | {"client_time": time},
        )
        assert (answer.status_code, answer.json()["field"]) == (422, "client_time")


def test_an_id_used_twice_with_other_content_is_a_conflict_and_the_first_stays(hand, run):
    first = hand.event("cut", {"amount": 1})
    path = f"/api/runs/{run}/events/twice-used-id"
    assert hand.client.put(path, json=first).json()["duplicate"] is False
    assert hand.client.put(path, json=first).json()["duplicate"] is True
    other = hand.client.put(path, json={**first, "payload": {"amount": 5}})
    assert (other.status_code, other.json()["field"]) == (409, "id")
    again = hand.client.put(f"/api/runs/{run}/events/another-id-1", json=first)
    assert (again.status_code, again.json()["field"]) == (409, "device_sequence")
    assert stored(hand, run)[0] == 1


def test_every_kind_of_event_is_known_to_the_contract_or_the_servers_own(hand):
    contract = hand.client.get("/api/openapi.json").json()
    put = contract["paths"]["/api/runs/{run_id}/events/{event_id}"]["put"]["requestBody"]
    union = put["content"]["application/json"]["schema"]
    assert set(EVENT_KINDS) - set(union["discriminator"]["mapping"]) == {
        "start",
        "stage",
        "check_planned",
    }
