"""Answers are kept: renewed in the background after every kind of change, read by every page."""

import time

import pytest
from sqlalchemy import event, text

from kessik.api.app import create_app
from kessik.core.errors import StoreBusyError
from kessik.services.reading.trial_states import trial_state
from kessik.services.trials import answers
from tests.conftest import BenchHand, TestClient, here
from tests.helpers.cutting import cut_run


@pytest.fixture
def kept(client):
    return client.app.state.server.answers


def asked_at_once(client, address):
    """What a page says now, without waiting for what is being worked out."""
    return TestClient.get(client, address).json()


CHANGES = {
    "a reading": lambda hand, at: hand.read(at["run"], 290, 12),
    "a blade's fact": lambda hand, at: hand.client.patch(
        f"/api/blades/{at['blade']}", json={"hardness_hrc": 60.5}
    ),
    "the trial": lambda hand, at: hand.client.patch(
        f"/api/trials/{hand.trial}", json={"question": "Which?"}
    ),
    "a run": lambda hand, at: hand.start(at["other"]),
    "how its grade is hardened": lambda hand, at: hand.client.put(
        "/api/grades/1.4034", json={"usual_low_hrc": 50, "usual_high_hrc": 51}
    ),
}


@pytest.mark.parametrize("change", CHANGES)
def test_each_change_leaves_one_answer_behind_until_it_is_renewed(client, kept, change):
    hand, other = BenchHand(client), BenchHand(client)
    (blade, edge), (_, second) = hand.make_trial("A", "B")
    other.make_trial("C", "D", name="Carton")
    client.patch(f"/api/blades/{blade}", json={"claimed_grade": "1.4034"})
    run = cut_run(hand, edge, 12)
    kept.settle()
    assert kept.behind() == []
    CHANGES[change](hand, {"run": run, "blade": blade, "other": second})
    assert kept.behind() == [hand.trial]
    assert asked_at_once(client, "/api/today")["working_out"] == 1
    kept.settle()
    assert asked_at_once(client, "/api/today")["working_out"] == 0


def test_the_last_answer_stands_until_the_next_is_there(client, kept):
    hand = BenchHand(client)
    ((_, edge), *_) = hand.make_trial("A", "B")
    page = f"/api/trials/{hand.trial}/verdict"
    first = asked_at_once(client, page)
    assert (first["answer"]["headline"], first["working_out"]) == ("Working it out.", 1)
    cut_run(hand, edge, 12)
    before = client.get(page).json()
    run = before["answer"]["runs"][0]["run"]["id"]
    log = asked_at_once(client, f"/api/runs/{run}")["log"]
    reading = next(e["id"] for e in log if e["kind"] == "reading")
    hand.send(run, "strike", {"target": reading, "reason": "not wiped"})
    assert asked_at_once(client, page) == {**before, "working_out": 1}
    after = client.get(page).json()
    assert after["working_out"] == 0
    assert after["answer"]["runs"][0]["readings"][0]["struck"]


def test_an_open_answer_is_not_shown_of_a_trial_that_is_sealed_by_now(client, kept):
    hand = BenchHand(client)
    (_, edge), (_, second) = hand.make_trial("A", "B")
    first = cut_run(hand, edge, 12)
    kept.settle()
    hand.start(second, verifies_run_id=first)
    shown = asked_at_once(client, f"/api/trials/{hand.trial}/verdict")["answer"]
    assert shown["sealed"]
    assert not {"runs", "ladder"} & set(shown)


def test_a_store_that_is_busy_fails_no_trial_and_a_broken_plan_spoils_no_answer(
    client, kept, monkeypatch
):
    hand = BenchHand(client)
    hand.make_trial("A", "B")

    def raising(error):
        def work(*_given):
            raise error

        return work

    monkeypatch.setattr(answers, "dated_work_of", raising(StoreBusyError("busy")))
    with pytest.raises(StoreBusyError):
        kept.settle()
    assert kept.behind() == [hand.trial]
    monkeypatch.setattr(answers, "dated_work_of", raising(ValueError("no such day")))
    kept.settle()
    assert asked_at_once(client, "/api/today")["failed"] == []
    monkeypatch.setattr(answers, "evidence", raising(StopIteration()))
    other = BenchHand(client)
    other.make_trial("C", "D", name="Carton")
    kept.settle()
    (failed,) = asked_at_once(client, "/api/today")["failed"]
    assert failed["name"] == "Carton"


def test_a_page_that_is_overtaken_while_it_is_read_still_says_that_a_newer_one_comes(
    client, kept, monkeypatch
):
    hand = BenchHand(client)
    hand.make_trial("A", "B")

    def overtaken(db, trial_id):
        kept.settle()
        return trial_state(db, trial_id)

    monkeypatch.setattr(answers, "trial_state", overtaken)
    page = f"/api/trials/{hand.trial}/verdict"
    assert asked_at_once(client, page)["working_out"] == 1
    assert asked_at_once(client, page)["working_out"] == 0


def test_another_version_of_the_analysis_renews_every_answer(client, kept, database):
    hand = BenchHand(client)
    hand.make_trial("A", "B")
    kept.settle()
    with database.write() as session:
        session.execute(text("UPDATE answer SET version = 'older'"))
    assert kept.behind() == [hand.trial]


def test_a_server_renews_by_itself_and_ends_when_it_is_told_to(database):
    with here(create_app(database)) as client:
        hand = BenchHand(client)
        hand.make_trial("A", "B")
        renewing = client.app.state.server.renewing
        for _ in range(100):
            if asked_at_once(client, "/api/today")["working_out"] == 0:
                break
            time.sleep(0.1)
        assert asked_at_once(client, "/api/today")["working_out"] == 0
        assert renewing.is_running
    assert not renewing.is_running


def queries_of(database, action):
    asked = []

    def note(_connection, _cursor, statement, *_rest):
        asked.append(statement)

    event.listen(database.engine, "before_cursor_execute", note)
    try:
        action()
    finally:
        event.remove(database.engine, "before_cursor_execute", note)
    return len([each for each in asked if not each.startswith("BEGIN")])


def test_no_page_asks_more_of_the_store_with_more_trials(client, kept, database):
    counts = []
    for more in (1, 6):
        for n in range(more):
            hand = BenchHand(client)
            ((_, edge), *_) = hand.make_trial(f"A{more}{n}", f"B{more}{n}", name=f"T{more}{n}")
            cut_run(hand, edge, 8)
        kept.settle()
        pages = ["/api/today"]
        pages += [f"/api/trials/{hand.trial}/{page}" for page in ("verdict", "plan")]
        counts.append(
            [queries_of(database, lambda p=page: asked_at_once(client, p)) for page in pages]
        )
    assert counts[0] == counts[1]
    assert counts[0][0] <= 25
