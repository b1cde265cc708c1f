"""What the store promises: on disk before it is said, migrated from empty, and whole after a
kill.
"""

import os
import signal
from uuid import uuid4

import httpx2
import pytest
from alembic.autogenerate import compare_metadata
from alembic.migration import MigrationContext
from sqlalchemy import text

from kessik.store.database import Database
from kessik.store.tables import Base
from tests.serving import free_port, start_server


def test_the_log_is_written_through_to_the_disk(tmp_path):
    with Database(tmp_path / "data") as database:
        for session in (database.read, database.write):
            with session() as opened:
                assert opened.execute(text("PRAGMA synchronous")).scalar() == 2, "2 is FULL"
                assert opened.execute(text("PRAGMA journal_mode")).scalar() == "wal"
                assert opened.execute(text("PRAGMA foreign_keys")).scalar() == 1


def test_the_migrations_make_exactly_the_tables(database):
    with database.engine.connect() as connection:
        assert compare_metadata(MigrationContext.configure(connection), Base.metadata) == []


def test_tables_refuse_values_of_another_kind(database):
    with (
        database.engine.connect() as connection,
        pytest.raises(Exception, match="cannot store TEXT value in REAL"),
    ):
        connection.execute(
            text(
                "INSERT INTO grade (name, usual_low_hrc, standing, source) "
                "VALUES ('1.4034', 'hard', '', '')"
            )
        )


def test_opening_twice_changes_nothing(tmp_path):
    first = Database(tmp_path)
    first.close()
    again = Database(tmp_path)
    with again.read() as session:
        assert session.execute(text("SELECT version_num FROM alembic_version")).scalars().all() == [
            "0019"
        ]
    again.close()


def test_no_acknowledged_cut_is_lost_when_the_server_is_killed(tmp_path):
    port = free_port()
    base = f"http://127.0.0.1:{port}/api"
    trial, blade, edge, run, device = (str(uuid4()) for _ in range(5))
    server = start_server(tmp_path, port)
    with httpx2.Client(timeout=60) as link:
        link.put(f"{base}/trials/{trial}", json={"id": trial, "name": "kill"})
        edges = [{"id": edge, "number": 1}]
        link.put(
            f"{base}/trials/{trial}/blades/{blade}", json={"id": blade, "code": "A", "edges": edges}
        )
        assert (
            link.put(
                f"{base}/trials/{trial}/runs/{run}", json={"id": run, "edge_id": edge}
            ).status_code
            == 200
        )
    events = [(str(uuid4()), n) for n in range(1, 61)]
    acknowledged = set()
    for kill_after in (7, 19, 34):
        with httpx2.Client(timeout=60) as link:
            for event_id, n in events[:kill_after]:
                body = {
                    "kind": "cut",
                    "device": device,
                    "device_sequence": n,
                    "last_seen_position": 1,
                    "count_at": n - 1,
                    "client_time": "2026-05-04T10:00:00+02:00",
                    "payload": {"amount": 1},
                }
                # everything is sent again from the start, as a device does that heard no answer
                answer = link.put(f"{base}/runs/{run}/events/{event_id}", json=body)
                assert answer.status_code == 200
                acknowledged.add(event_id)
        os.kill(server.pid, signal.SIGKILL)
        server.wait()
        server = start_server(tmp_path, port)
    try:
        log = httpx2.get(f"{base}/runs/{run}", timeout=60).json()
        cuts = [e["id"] for e in log["log"] if e["kind"] == "cut"]
        assert log["state"]["count"] == 34
        assert set(cuts) == acknowledged
        assert len(cuts) == len(set(cuts))
    finally:
        server.kill()
        server.wait()
