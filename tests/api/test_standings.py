"""Standings over the API: kept, renewed by what changed, and made into a trial."""

from datetime import UTC, datetime, timedelta
from uuid import uuid4

import pytest

from kessik.core.moments import Moment
from kessik.services.standings import boards
from tests.helpers.paper import Paper, line


@pytest.fixture
def paper(client):
    paper = Paper(client)
    paper.make_trial("A", "B", school="force_limit_rope")
    paper.kept(*(line(code, n, dull=at) for code, n, at in (
        ("A", 3, "18-20"), ("A", 4, "20-22"), ("B", 3, "30-33"), ("B", 4, "33-36"),
    )))  # fmt: skip
    return paper


def standings(client, **asked):
    answer = client.get("/api/standings", params=asked)
    assert answer.status_code == 200, answer.text
    return answer.json()


def settled(client, **asked):
    """The answer once it was worked out, as the process beside the server does."""
    standings(client, **asked)
    client.app.state.server.boards.settle()
    found = standings(client, **asked)
    assert not found["is_behind"]
    return found


def test_the_first_answer_is_on_its_way_and_then_kept(client, paper):
    first = standings(client)
    assert first == {
        "answer": None,
        "refused": "",
        "is_behind": True,
        "trials_done": 1,
        "trials": 1,
    }
    found = settled(client)["answer"]
    assert found["headline"].startswith("B is first of 2")
    b, a = found["rungs"]
    assert (b["code"], a["code"]) == ("B", "A")
    assert b["ratio"] / a["ratio"] == pytest.approx(1.65, rel=0.05)


def test_a_change_renews_it_and_the_last_one_is_shown_meanwhile(client, paper):
    settled(client)
    paper.kept(line("A", 5, dull="60-66"))
    shown = standings(client)
    assert shown["is_behind"]
    assert sum(len(rung["trials"]) for rung in shown["answer"]["rungs"]) == 2
    assert "5 edges" in " ".join(settled(client)["answer"]["basis"])


def test_what_nobody_looks_at_any_more_is_not_renewed(client, paper, monkeypatch):
    settled(client)
    paper.kept(line("A", 5, dull="60-66"))
    client.get("/api/today")
    later = Moment((datetime.now(UTC) + timedelta(hours=1)).isoformat(timespec="milliseconds"), 0)
    monkeypatch.setattr(boards, "now", lambda: later)
    client.app.state.server.boards.settle()
    assert standings(client)["is_behind"]  # and now somebody has looked
    assert not settled(client)["is_behind"]


def test_nothing_to_compare_is_said_in_words(client):
    found = settled(client)
    assert found["answer"] is None
    assert found["refused"].startswith("no two trials hold lives")


def test_lives_that_need_agree_in_nothing_are_one_class(client, paper):
    (like,) = settled(client, agree="none")["answer"]["classes"]
    assert like["like"] == []


def test_a_question_that_is_none_is_refused_at_its_field(client, paper):
    answer = client.get("/api/standings", params={"agree": "colour"})
    assert (answer.status_code, answer.json()["field"]) == (422, "agree")


def test_a_proposed_cut_becomes_one_trial_with_both_blades(client, paper):
    arms = [rung["arm"] for rung in settled(client)["answer"]["rungs"]]
    pair = {"asking": "pair", "first": arms[0], "second": arms[1]}
    (cut, *_) = settled(client, **pair)["answer"]["advice"]["cuts"]
    body = {"id": str(uuid4()), **cut["trial"]}
    for _ in range(2):
        made = client.post("/api/standings/trials", json=body)
        assert made.status_code == 200, made.text
    line_up = client.get(f"/api/trials/{body['id']}/line-up").json()
    assert {blade["code"] for blade in line_up["blades"]} == {"A", "B"}
    assert line_up["trial"]["edges_per_blade"] == cut["trial"]["edges_per_blade"]


def test_a_trial_in_the_bin_takes_no_part(client, paper):
    settled(client)
    gone = {"kind": "trial", "owner_id": paper.trial, "reason": "by mistake"}
    assert client.put(f"/api/bin/{uuid4()}", json=gone).status_code == 200
    assert settled(client)["answer"] is None


def test_references_of_earlier_trials_stand_on_the_scale_of_this_one(client):
    earlier = Paper(client)
    (low, _), (link, _) = earlier.make_trial("R", "A", school="force_limit_rope")
    place = f"/api/trials/{earlier.trial}/places/{low}"
    assert client.put(place, json={"role": "low_reference"}).status_code == 200
    earlier.kept(*(line(code, n, dull=at) for code, n, at in (
        ("R", 3, "10-11"), ("R", 4, "10-11"), ("A", 3, "20-22"), ("A", 4, "20-22"),
    )))  # fmt: skip
    now = Paper(client)
    now.make_trial("B", school="force_limit_rope")
    place = f"/api/trials/{now.trial}/places/{link}"
    assert client.put(place, json={"role": ""}).status_code == 200
    now.kept(*(line(code, n, dull=at) for code, n, at in (
        ("A", 5, "40-44"), ("A", 6, "40-44"), ("B", 3, "30-33"),
    )))  # fmt: skip
    client.get(f"/api/trials/{now.trial}/verdict")
    (found,) = client.get(f"/api/standings/references/{now.trial}").json()
    assert (found["code"], found["says"]) == ("R", "the low reference, from earlier trials")
    assert found["estimate"] == pytest.approx(21, rel=0.05)
    assert found["low"] < 21 < found["high"]
    assert client.get(f"/api/standings/references/{earlier.trial}").json() == []
