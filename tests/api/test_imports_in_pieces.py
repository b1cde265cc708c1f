"""An import is seen whole or not at all, lets taps through, and can be cancelled; nothing of it
stays then.
"""

import threading
import time
from datetime import UTC, datetime
from uuid import uuid4

import pytest
from sqlalchemy import text

from kessik.core.errors import CancelledError
from kessik.core.limits import most
from kessik.interchange.named_files import NamedFile
from kessik.services.arriving import delete_left_behind
from kessik.services.clock import now
from kessik.services.files import imports
from kessik.services.files.imports import import_files
from kessik.services.work import STORES, ImportWork
from tests.helpers.files_sent import post
from tests.helpers.pieces import HEADER, MANY, rows_of_all_tables


def test_nobody_sees_a_trial_before_all_of_it_is_there(client, database, monkeypatch):
    seen = []
    append = imports.bench_log.append_rows

    def watched(session, rows):
        seen.append(
            (client.get("/api/today").json()["trials"], client.get("/api/shelf").json()["blades"])
        )
        append(session, rows)

    monkeypatch.setattr(imports.bench_log, "append_rows", watched)
    assert post(client, ("raft.series.csv", MANY)).status_code == 200
    assert len(seen) >= 6
    assert all(look == ([], []) for look in seen)
    assert len(client.get("/api/today").json()["trials"]) == 1


@pytest.mark.parametrize("after", [0, 3])
def test_what_is_cancelled_or_fails_leaves_nothing(database, monkeypatch, after):
    before = rows_of_all_tables(database)
    work, pieces = ImportWork(), iter(range(100))
    append = imports.bench_log.append_rows

    def cancelling(session, rows):
        append(session, rows)
        if next(pieces) == after:
            work.cancel()

    monkeypatch.setattr(imports.bench_log, "append_rows", cancelling)
    files = [NamedFile("raft.series.csv", MANY.encode())]
    with pytest.raises(CancelledError):
        import_files(database, files, now(), imports.MatchingRule(), imports.Method(), work=work)
    assert rows_of_all_tables(database) == before


def test_an_import_is_watched_and_cancelled_over_the_wire(client, database, monkeypatch):
    begun, go_on = threading.Event(), threading.Event()
    append = imports.bench_log.append_rows

    def slow(session, rows):
        append(session, rows)
        begun.set()
        go_on.wait(10)

    monkeypatch.setattr(imports.bench_log, "append_rows", slow)
    import_id, answers = str(uuid4()), []
    sending = threading.Thread(
        target=lambda: answers.append(post(client, ("raft.series.csv", MANY), import_id=import_id))
    )
    sending.start()
    assert begun.wait(10)
    far = client.get(f"/api/imports/{import_id}").json()
    assert (far["stage"], far["of"]) == (STORES, 1200)
    assert client.delete(f"/api/imports/{import_id}").status_code == 204
    go_on.set()
    sending.join(20)
    assert (answers[0].status_code, answers[0].json()["title"]) == (409, "Cancelled")
    assert client.get("/api/today").json()["trials"] == []
    assert client.get(f"/api/imports/{import_id}").status_code == 404


def test_the_same_import_sent_twice_is_one(client):
    import_id = str(uuid4())
    first, again = (
        post(client, ("raft.series.csv", MANY), import_id=import_id).json() for _ in range(2)
    )
    assert first["trials"][0]["id"] == again["trials"][0]["id"]
    assert len(client.get("/api/today").json()["trials"]) == 1


def test_what_a_killed_server_left_is_removed_by_the_next(database):
    before = rows_of_all_tables(database)
    with database.write() as session:
        row = (
            "INSERT INTO blade (id, code, mark, owner, price, loan_from, loan_due, loan_returned,"
            " heat_treatment, origin, note, other, arriving) VALUES ('left', 'X', 7, '', '', '',"
            " '', '', '{}', '', '', '{}', '2026-01-01T00:00:00+00:00|gone')"
        )
        session.execute(text(row))
    delete_left_behind(database, datetime.now(UTC))
    assert rows_of_all_tables(database) == before


def test_taps_go_on_while_a_file_comes_in(hand, client):
    (_, edge), _ = hand.make_trial("A", "B")
    run = hand.start(edge)
    sending = threading.Thread(target=lambda: post(client, ("raft.series.csv", MANY * 1)))
    sending.start()
    taps = 0
    while sending.is_alive() and taps < 200:
        hand.cut(run, 1, at=taps)
        taps += 1
    sending.join(30)
    assert client.get(f"/api/runs/{run}").json()["state"]["count"] == taps > 0


@pytest.mark.parametrize(
    ("name", "content", "words"),
    [
        ("rows.series.csv", HEADER + "A,1,1,force,150\n" * 50_001, "50001 rows; up to 50000"),
        (
            "columns.series.csv",
            ",".join(f"c{n}" for n in range(10_000)) + "\nA\n",
            "this line has 10000 cells; up to 200 can be read",
        ),
        (
            "cell.series.csv",
            HEADER + "A" * 5000 + ",1,1,force,150\n",
            "5000 characters is out of range",
        ),
        (
            "rank.series.csv",
            "blade,count,check,value\nA,1,rank,500\n",
            "a rank of 500 is out of range: give 1 to 100",
        ),
        (
            "depth.series.csv",
            "blade,count,check,value\nA,1,depth,5000\n",
            "a depth of 5000 mm is out of range",
        ),
        (
            "edge.series.csv",
            "blade,edge,count,check,value\nA,9223372036854775808,1,force,150\n",
            "10000 or less",
        ),
        (
            "year.series.csv",
            "blade,count,check,value,time\nA,1,force,150,0001-01-01T00:00:00+00:00\n",
            "a year of 1",
        ),
        ("day.blades.csv", "blade,loan_due\nA,9999-12-31\n", "a year of 9999 is out of range"),
        (
            "many.blades.csv",
            "blade\n" + "".join(f"B{n}\n" for n in range(5000)),
            "5000 blades is out of range",
        ),
        (
            "nul.series.csv",
            "blade,count,check,value,note\nA,1,force,150,a\x01b\n",
            "a character that is not text",
        ),
    ],
)
def test_the_bounds_of_a_file_and_what_the_bench_would_refuse(client, name, content, words):
    answer = post(client, (name, content))
    assert answer.status_code == 422
    assert any(words in fault["message"] for fault in answer.json()["faults"]), answer.json()[
        "faults"
    ][:3]


def test_of_very_many_faults_the_first_hundred_are_told_and_the_number(client):
    answer = post(client, ("faults.series.csv", HEADER + "A,x,y,z,w\n" * 40_000))
    problem = answer.json()
    assert (len(problem["faults"]), problem["fault_count"]) == (most("faults_listed"), 160_000)
    assert len(answer.content) < 30_000
    assert "160000 faults found" in problem["detail"]


def test_a_thousand_words_of_method_file_are_no_matter(client):
    nested = "[" * 100_000 + "]" * 100_000
    answer = post(client, ("raft.series.csv", MANY), ("raft.method.json", nested))
    assert answer.status_code == 422
    start = time.monotonic()
    assert client.get("/api/today").status_code == 200
    assert time.monotonic() >= start
