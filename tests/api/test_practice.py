"""The guided practice: in a folder of its own, step by step, and gone without a trace."""

import pytest

STEPS = ["match", "plan", "start"]


@pytest.fixture
def practice(client):
    return client.post("/api/practice").json()


def take(client, kind):
    return client.post(f"/api/practice/steps/{kind}").json()


def test_it_is_gone_through_in_the_real_places_and_leaves_nothing_in_the_real_folder(
    client, practice
):
    trial = f"/practice/api/trials/{practice['trial_id']}"
    assert practice["says"].startswith("P-2: side angle differs by 3.0° from P-1.")
    assert [take(client, kind)["kind"] for kind in STEPS] == ["plan", "start", "count"]
    line_up = client.get(f"{trial}/line-up").json()
    assert line_up["mismatches"] == []
    assert line_up["trial"]["edges_per_blade"] == 3
    run = client.get(f"/practice{_run_of(client, trial)}").json()
    assert run["is_virtual"]
    assert not run["practice"]
    assert client.get("/api/today").json()["trials"] == []
    assert client.get("/api/shelf").json()["blades"] == []
    folder = client.app.state.server.database.folder
    assert (folder / "practice").is_dir()
    client.delete("/api/practice").raise_for_status()
    assert not (folder / "practice").exists()
    assert client.get("/api/practice").json() is None
    assert client.get(f"{trial}/line-up").status_code == 404


def _run_of(client, trial):
    (run,) = client.get(f"{trial}/line-up").json()["runs"]
    return f"/api/runs/{run['id']}"


def test_begun_twice_pressed_twice_and_out_of_order_it_is_one_practice(client, practice):
    assert client.post("/api/practice").json() == practice
    assert take(client, "rest")["kind"] == "match"
    assert [take(client, "match")["kind"] for _ in range(2)] == ["plan", "plan"]
    assert client.post("/api/practice/steps/dance").status_code == 422
    inside = client.post("/practice/api/practice")
    assert inside.status_code == 409
    assert "this is the practice already" in inside.json()["detail"]


def test_a_practice_whose_trial_has_lost_a_blade_is_at_no_step(client, practice):
    blade = client.get(f"/practice/api/trials/{practice['trial_id']}/line-up").json()["blades"][0]
    place = f"/practice/api/trials/{practice['trial_id']}/blades/{blade['id']}"
    client.delete(place).raise_for_status()
    assert client.get("/api/practice").json() is None


def test_without_a_practice_there_is_nothing_to_do(client):
    assert client.get("/api/practice").json() is None
    assert client.post("/api/practice/steps/match").status_code == 404
    assert client.get("/practice/api/today").json()["detail"].startswith("there is no practice")
    assert client.delete("/api/practice").status_code == 204
