"""Damage is recognised when a folder is opened, said in a plain line, and nothing is
overwritten.
"""

import shutil
import sqlite3

import pytest

from kessik.core.errors import (
    StoreDamagedError,
    StoreFullError,
    StoreNewerError,
    StoreReadOnlyError,
)
from kessik.store import backups, health
from kessik.store.database import DATABASE_NAME, Database
from kessik.store.failures import storage_error
from kessik.store.queries import bench_log, trials
from kessik.store.restoring import restore


@pytest.fixture
def folder(built_demo, tmp_path):
    """A folder with content, closed."""
    own = shutil.copytree(built_demo, tmp_path / "data")
    Database(own).close()
    return own


def zeroed(data):
    at = len(data) // 2 // 4096 * 4096
    return data[:at] + b"\0" * 4096 + data[at + 4096 :]


DAMAGE = {
    "a zeroed page": zeroed,
    "flipped bits": lambda data: (
        data[:8192] + bytes(byte ^ 0xFF for byte in data[8192:16384]) + data[16384:]
    ),
    "a cut end": lambda data: data[: len(data) * 2 // 3],
    "an empty file": lambda _data: b"",
    "another file": lambda _data: b"this was a shopping list\n" * 300,
}


@pytest.mark.parametrize("damage", DAMAGE.values(), ids=DAMAGE.keys())
def test_a_damaged_database_is_told_with_the_way_back_and_not_touched(folder, damage):
    path = folder / DATABASE_NAME
    backup = backups.back_up(path, "by-hand")
    spoiled = damage(path.read_bytes())
    path.write_bytes(spoiled)
    with pytest.raises(StoreDamagedError) as told:
        Database(folder)
    assert "damaged" in told.value.message
    assert f"kessik restore {backup} --data {folder}" in told.value.message
    assert "\n" not in told.value.message
    assert path.read_bytes() == spoiled, "nothing is overwritten"
    kept = restore(folder, backup)
    assert (kept / DATABASE_NAME).read_bytes() == spoiled, "what was there is kept aside"
    again = Database(folder)
    with again.read() as session:
        assert len(trials.all_trials(session)) == 37
    again.close()


def test_what_can_still_be_read_is_counted(folder):
    path = folder / DATABASE_NAME
    path.write_bytes(DAMAGE["a cut end"](path.read_bytes()))
    with pytest.raises(StoreDamagedError, match=r"can still be read|Nothing of it can be read"):
        Database(folder)
    assert set(health.readable_rows(path)) == {"trial", "blade", "run", "event"}


def test_a_changed_digit_is_noticed_and_spoils_its_event_alone(folder):
    with sqlite3.connect(folder / DATABASE_NAME) as link:
        (run,) = link.execute("SELECT run_id FROM event WHERE kind = 'reading' LIMIT 1").fetchone()
        link.execute(
            "UPDATE event SET payload = replace(payload, '\"value\":1', '\"value\":9') WHERE"
            " position = (SELECT min(position) FROM event WHERE kind = 'reading' AND run_id = ? AND"
            " payload LIKE '%\"value\":1%')",
            [run],
        )
    database = Database(folder)
    with database.read() as session:
        unread = [
            e
            for e in bench_log.events_of(session, run)
            if hasattr(e.payload, "why") and e.kind == "reading"
        ]
    assert [e.payload.why for e in unread] == [
        "it was changed since it was stored: its check sum does not fit"
    ]
    database.close()
    assert health.spoiled_events(folder / DATABASE_NAME) == [unread[0].position]


def test_a_trial_that_cannot_be_read_leaves_the_others(folder):
    with sqlite3.connect(folder / DATABASE_NAME) as link:
        link.execute("UPDATE trial SET plan = '{broken' WHERE id = (SELECT min(id) FROM trial)")
    database = Database(folder)
    with database.read() as session:
        assert len(trials.all_trials(session)) == 36
        (spoiled,) = trials.spoiled_trials(session)
    assert "cannot be read" in spoiled.why
    database.close()


def test_a_spoiled_backup_changes_nothing(folder, tmp_path):
    before = (folder / DATABASE_NAME).read_bytes()
    half = tmp_path / "half.sqlite3"
    half.write_bytes(before[: len(before) // 2])
    with pytest.raises(StoreDamagedError, match="nothing was changed"):
        restore(folder, half)
    assert (folder / DATABASE_NAME).read_bytes() == before


def test_data_of_a_newer_kessik_is_left_alone(folder):
    with sqlite3.connect(folder / DATABASE_NAME) as link:
        link.execute("UPDATE alembic_version SET version_num = '9999'")
    with pytest.raises(StoreNewerError, match="newer Kessik"):
        Database(folder)


def test_a_full_disk_a_read_only_folder_and_a_busy_store_are_three_sentences(folder):
    full = sqlite3.connect(folder / DATABASE_NAME, isolation_level=None)
    full.execute("PRAGMA max_page_count = 1")  # SQLite's own way to have no room left
    with pytest.raises(sqlite3.OperationalError) as no_room:
        full.execute("CREATE TABLE filler AS SELECT zeroblob(100000) AS x")
    full.close()
    read_only = sqlite3.connect(f"{(folder / DATABASE_NAME).as_uri()}?mode=ro", uri=True)
    with pytest.raises(sqlite3.OperationalError) as refused:
        read_only.execute("DELETE FROM event")
    read_only.close()
    told = [storage_error(error.value) for error in (no_room, refused)] + [
        storage_error(OSError(28, "no space"))
    ]
    assert [type(each) for each in told] == [StoreFullError, StoreReadOnlyError, StoreFullError]
    assert told[0].message != told[1].message


def test_a_copy_of_the_one_file_holds_everything_once_it_is_closed(database):
    for n in range(50):
        with database.write() as session:
            session.connection().exec_driver_sql(
                f"INSERT INTO grade (name, standing, source) VALUES ('g{n}', '', '')"
            )
    database.close()
    assert not (database.folder / f"{DATABASE_NAME}-wal").exists()
    with sqlite3.connect(database.folder / DATABASE_NAME) as copy:
        assert copy.execute("SELECT count(*) FROM grade").fetchone() == (50,)
