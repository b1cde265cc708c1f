"""Sessions kept and scored, and the rater's error taken over by soaks."""

import pytest

from kessik.store.queries import trainings


def session(client, training_id, kind="rust", seed=5, answers=None):
    body = {"kind": kind, "seed": seed, "answers": answers or ["4"] * 10}
    return client.put(f"/api/trainings/{training_id}", json=body)


def test_a_session_is_kept_once_and_its_score_stays(client):
    first = session(client, "session-0001").json()
    assert first["of"] == 10
    assert "of 10 right, typically" in first["says"]
    assert session(client, "session-0001").json()["right"] == first["right"]
    other = session(client, "session-0001", answers=["5"] * 10)
    assert other.status_code == 409
    record = client.get("/api/trainers").json()
    assert [len(each["sessions"]) for each in record["trainers"]] == [0, 0, 1, 0, 0, 0]
    assert record["eye"] == "10 pictures graded; after 20 your own error is offered for your soaks."


def test_a_round_is_judged_with_its_truth_told_after(client):
    asked = client.get("/api/trainers/foresee/rounds/1", params={"seed": 3}).json()
    assert asked["readings"]
    assert "life" not in asked
    told = client.post("/api/trainers/foresee/rounds/1", json={"seed": 3, "answer": "1"}).json()
    assert not told["is_right"]
    assert told["says"].startswith("It passed after ")
    picture = client.get("/api/trainers/rust/rounds/2/picture", params={"seed": 3})
    assert picture.headers["content-type"] == "image/jpeg"


@pytest.mark.parametrize(
    ("kind", "answers"), [("rust", ["x"] * 10), ("count", ["4"] * 9), ("dance", ["4"] * 10)]
)
def test_what_cannot_be_a_session_is_refused(client, kind, answers):
    refused = session(client, "session-0002", kind, answers=answers)
    assert refused.status_code == 422
    assert client.get("/api/trainers").json()["trainers"][2]["sessions"] == []


def test_the_raters_error_becomes_that_of_their_soaks_only_if_they_agree(client, database):
    refused = client.put("/api/rater-error", json={"agrees": True})
    assert refused.status_code == 409
    assert "grade 20 pictures first" in refused.json()["detail"]
    for number in range(2):
        session(client, f"session-000{number}", seed=number)
    with database.read() as opened:
        assert trainings.rater_error(opened) is None
    record = client.put("/api/rater-error", json={"agrees": True}).json()
    assert record["has_agreed"]
    assert record["agreed"].startswith("Soaks reckon with your error, ")
    with database.read() as opened:
        assert trainings.rater_error(opened).rounds == 20
    again = client.put("/api/rater-error", json={"agrees": False}).json()
    assert "the usual error of a rating, 0.7 grades" in again["agreed"]
