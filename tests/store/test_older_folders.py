"""A data folder of every older schema, made by the Kessik of its day, opens whole, odd events and
all.
"""

import lzma
import sqlite3
from pathlib import Path

import pytest

from kessik.api.app import create_app
from kessik.core.trials.verdict import judged
from kessik.services.reading.trial_states import state_of_trial
from kessik.services.trials.verdicts import evidence
from kessik.store.database import DATABASE_NAME, Database
from kessik.store.queries import bench_log, shelf, soaks, trials
from tests.conftest import here
from tests.helpers.odd_events import UNREADABLE
from tests.helpers.older_folders import FOLDERS

CONTENT = {
    "0001": (1, 4, 8),
    "0002": (2, 6, 10),
    "0003": (2, 6, 10),
    "0004": (10, 6, 30),
    "0005": (10, 6, 34),
    "0006": (10, 6, 34),
    "0007": (10, 6, 34),
    "0008": (10, 6, 34),
    "0009": (10, 6, 34),
    "0010": (10, 6, 34),
    "0011": (10, 6, 34),
    "0012": (10, 6, 34),
    "0013": (12, 6, 46),
    "0014": (12, 6, 46),
    "0015": (12, 6, 46),
    "0016": (12, 6, 46),
    "0017": (12, 6, 46),
    "0018": (12, 6, 46),
}
"""Trials, blades and runs in each."""


@pytest.fixture
def folder(request, tmp_path):
    (tmp_path / DATABASE_NAME).write_bytes(lzma.decompress(request.param.read_bytes()))
    return tmp_path


@pytest.mark.parametrize("folder", FOLDERS, ids=lambda path: path.name[:4], indirect=True)
def test_it_opens_whole_and_every_event_is_understood(folder, request, routes):
    database = Database(folder)
    with database.read() as session:
        found = trials.all_trials(session)
        runs = bench_log.all_runs(session)
        logs = bench_log.events_by_run(session, [run.id for run in runs])
        blades = shelf.all_blades(session)
        states = [state_of_trial(session, trial.id) for trial in found]
    number = request.node.callspec.id[:4]
    assert (len(found), len(blades), len(runs)) == CONTENT[number]
    for run, state in [(r.run, r.state) for trial in states for r in trial.runs]:
        assert state.not_understood == ()
        assert state.count > 0 or not any(event.kind == "cut" for event in logs[run.id])
    app = create_app(database, renews=False)
    app.router.routes = routes
    with here(app) as client:
        for trial in states:
            run = trial.runs[0].run
            assert client.get(f"/api/runs/{run.id}").json()["state"]["not_understood"] == 0
    for trial in found[:2]:
        with database.read() as session:
            known = evidence(session, trial.id)
        assert judged(known).trial.id == trial.id
    database.close()


@pytest.mark.parametrize("folder", FOLDERS[4:5], ids=["0005"], indirect=True)
def test_every_odd_event_that_an_older_kessik_took_is_named_and_spoils_nothing(folder):
    with sqlite3.connect(folder / DATABASE_NAME) as link:
        (run,) = link.execute(
            "SELECT run_id FROM event WHERE kind = 'reading' ORDER BY position LIMIT 1"
        ).fetchone()
        (before,) = link.execute("SELECT count(*) FROM event WHERE run_id = ?", [run]).fetchone()
        for n, (kind, payload) in enumerate(UNREADABLE):
            row = (
                f"odd-{n:05}",
                run,
                kind,
                "odd-device",
                n + 1,
                0,
                3.0,
                "2026-05-04T10:00:00+02:00",
                payload,
            )
            link.execute(
                "INSERT INTO event (id, run_id, kind, device, device_sequence, last_seen_position,"
                " count_at, client_time, payload, server_utc) VALUES (?, ?, ?, ?, ?, ?, ?, ?,"
                " ?, '')",
                row,
            )
    database = Database(folder)
    with here(create_app(database)) as client:
        log = client.get(f"/api/runs/{run}/log").json()
        named = {event["id"] for event in log if event["not_understood"]}
        odd = {f"odd-{n:05}" for n, (kind, _) in enumerate(UNREADABLE) if kind != "correction"}
        assert odd <= named, "a correction of nothing says nothing; all else is named"
        assert len(log) == before + len(UNREADABLE)
        today = client.get("/api/today").json()
        assert (len(today["trials"]), today["failed"]) == (10, [])
    database.close()


def test_there_is_one_of_every_schema_before_this_one():
    versions = Path(__file__).parents[2] / "src/kessik/store/migrations/versions"
    known = sorted(path.name[:4] for path in versions.glob("0*.py"))
    assert [path.name[:4] for path in FOLDERS] == known[:-1]
    assert sorted(CONTENT) == known[:-1]


@pytest.mark.parametrize("folder", FOLDERS[13:14], ids=["0014"], indirect=True)
def test_doubts_of_a_picture_that_were_kept_as_words_are_its_doubts(folder):
    with sqlite3.connect(folder / DATABASE_NAME) as link:
        by_how = "SELECT soak_id, id FROM soak_look WHERE json_extract(said, '$.how') = ? LIMIT 1"
        soak, photo = link.execute(by_how, ["photo"]).fetchone()
        _, grade = link.execute(by_how, ["grade"]).fetchone()
        said = "UPDATE soak_look SET said = json_set(said, '$.said', ?) WHERE id = ?"
        link.executemany(said, [("no_card burnt", photo), ("ISO 10289 grade 6", grade)])
    database = Database(folder)
    with database.read() as session:
        looks = {look.id: look for look in soaks.looks_by_soak(session, [soak])[soak]}
        _, graded, _ = soaks.find_look(session, grade)
    assert (looks[photo].doubts, looks[photo].said) == (("no_card", "burnt"), "")
    assert (graded.doubts, graded.said) == ((), "ISO 10289 grade 6")
    database.close()
