"""Copies of the data: by a rule, with their pictures, on a second disk; and what goes wrong."""

import errno
from contextlib import contextmanager
from datetime import UTC, datetime, timedelta

import pytest
from filelock import FileLock

from kessik.core.errors import (
    OutOfRangeError,
    StoreBusyError,
    StoreDamagedError,
    StoreFullError,
)
from kessik.core.words.due import due_words
from kessik.services.clock import now
from kessik.services.pictures.storing import keep_picture
from kessik.services.record.bin import delete_expired
from kessik.services.today import what_waits
from kessik.services.upkeep import copies, upkeep
from kessik.store import backups, health, seen_days
from kessik.store.backups import BackupRule
from kessik.store.contents import holds
from kessik.store.photo_files import photo_path
from kessik.store.restoring import restore
from tests.helpers.pictures import picture

TODAY = datetime(2026, 5, 20, 8, tzinfo=UTC)


@contextmanager
def _making(folder):
    """Another program is making a copy."""
    with FileLock(folder / "kessik.backup.lock"):
        yield


def made(folder, *days_ago, reason=backups.DAILY):
    """Copies of some days, as names alone: what is kept goes by them."""
    place = folder / backups.FOLDER_NAME
    place.mkdir(exist_ok=True)
    for days in days_ago:
        stamp = (TODAY - timedelta(days=days)).strftime("%Y%m%dT%H%M%S")
        (place / f"{reason}-{stamp}.sqlite3").write_bytes(b"")


def test_the_rule_keeps_days_and_weeks_and_never_a_copy_before_an_upgrade(tmp_path):
    made(tmp_path, *range(60))
    made(tmp_path, 50, reason="before-migration-from-0011")
    made(tmp_path, 55, reason="by-hand")
    backups.delete_old(tmp_path)
    left = backups.all_copies(tmp_path)
    daily = [(TODAY - copy.made).days for copy in left if copy.reason == backups.DAILY]
    assert daily[:7] == list(range(7))
    assert len(daily) == 11
    weeks = {copy.made.isocalendar()[:2] for copy in left if (TODAY - copy.made).days in daily[7:]}
    assert len(weeks) == 4
    assert {copy.reason for copy in left} == {"daily", "before-migration-from-0011", "by-hand"}


def test_a_copy_carries_its_pictures_and_stands_on_the_second_disk_too(database, tmp_path):
    shown = keep_picture(database, picture(60), TODAY.isoformat())
    second = tmp_path / "second disk"
    second.mkdir()
    copies.change_rule(database, BackupRule(7, 4, str(second)))
    copy = upkeep.make_copy(database, backups.BY_HAND)
    assert (second / copy.name).read_bytes() == copy.read_bytes()
    fresh = tmp_path / "new machine"
    restore(fresh, second / copy.name)
    assert health.missing_pictures(fresh / "kessik.sqlite3") == []
    photo_path(fresh, shown.hash).unlink()
    assert health.missing_pictures(fresh / "kessik.sqlite3") == [shown.hash]
    assert holds(second / copy.name).trials == 0


def test_a_second_disk_that_is_gone_is_said_since_when_and_brought_up_when_it_is_back(
    database, tmp_path
):
    second = tmp_path / "second disk"
    second.mkdir()
    copies.change_rule(database, BackupRule(7, 4, str(second)))
    second.rename(tmp_path / "away")
    upkeep.look_after(database)
    upkeep.look_after(database)
    (due,) = what_waits(database, now())
    assert due_words(due.what).startswith(f"No backup on the second disk since {now().utc[:10]}: ")
    assert len(backups.all_copies(database.folder)) == 1, "the copy here is made all the same"
    (tmp_path / "away").rename(second)
    upkeep.look_after(database)
    assert what_waits(database, now()) == []
    assert [path.name for path in second.glob("*.sqlite3")] == [
        copy.path.name for copy in backups.all_copies(database.folder)
    ]


def test_copies_from_the_future_count_for_nothing_and_stay(tmp_path):
    made(tmp_path, *range(10), -4000, -4001)
    assert backups.is_daily_due(tmp_path, TODAY + timedelta(days=2))
    assert not backups.is_daily_due(tmp_path, TODAY + timedelta(hours=2))
    backups.delete_old(tmp_path, TODAY)
    left = sorted((TODAY - copy.made).days for copy in backups.all_copies(tmp_path))
    assert left[:2] == [-4001, -4000]
    assert left[2:9] == list(range(7))


def test_a_clock_that_jumps_deletes_nothing_from_the_bin(hand, database):
    hand.make_trial("A")
    (trial,) = hand.client.get("/api/today").json()["trials"]
    binned = {"kind": "trial", "owner_id": trial["trial"]["id"], "reason": ""}
    assert hand.client.put("/api/bin/bin-entry-1", json=binned).status_code == 200
    for days in (0, 3650, 1, 3651):
        seen_days.see(database.folder, TODAY.date() + timedelta(days=days))
        delete_expired(database)
    assert len(hand.client.get("/api/bin").json()) == 1
    for days in range(31):
        seen_days.see(database.folder, datetime.now(UTC).date() + timedelta(days=1 + days))
    delete_expired(database)
    assert hand.client.get("/api/bin").json() == []


def test_nothing_that_fails_ends_upkeep_and_leftovers_of_killed_copies_go(database, monkeypatch):
    (database.folder / backups.FOLDER_NAME).mkdir()
    left = database.folder / backups.FOLDER_NAME / "daily-20260101T000000.partial"
    left.write_bytes(b"half")
    monkeypatch.setattr(upkeep, "delete_unused", lambda *_: 1 / 0)
    upkeep.look_after(database)
    assert len(backups.all_copies(database.folder)) == 1
    assert not left.exists()


def test_one_copy_at_a_time(database):
    with _making(database.folder), pytest.raises(StoreBusyError, match="being made already"):
        upkeep.make_copy(database, backups.BY_HAND)
    assert backups.last_failure(database.folder) is None


@pytest.mark.parametrize(
    ("rule", "field"),
    [
        (BackupRule(0, 4), "daily"),
        (BackupRule(7, 99), "weekly"),
        (BackupRule(7, 4, "/no/such/folder"), "second_folder"),
        (BackupRule(7, 4, "relative"), "second_folder"),
        (BackupRule(7, 4, "/"), "second_folder"),
    ],
)
def test_a_rule_that_cannot_be_is_refused_at_its_field(database, rule, field):
    with pytest.raises(OutOfRangeError) as refused:
        copies.change_rule(database, rule)
    assert refused.value.field == field
    assert copies.copies_of(database).rule == BackupRule()


def test_a_full_disk_is_said_on_today_until_a_copy_is_made(database, monkeypatch):
    def full(*_):
        raise OSError(errno.ENOSPC, "No space left on device")

    with monkeypatch.context() as patched:
        patched.setattr(backups, "copy_database", full)
        with pytest.raises(StoreFullError):
            upkeep.make_copy(database, backups.DAILY)
    assert backups.all_copies(database.folder) == []
    (due,) = what_waits(database, now())
    assert due.what.why.startswith("the disk is full")
    upkeep.make_copy(database, backups.DAILY)
    assert what_waits(database, now()) == []


def test_a_truncated_copy_is_refused_and_nothing_is_overwritten(database, tmp_path):
    copy = upkeep.make_copy(database, backups.BY_HAND)
    half = tmp_path / "half.sqlite3"
    half.write_bytes(copy.read_bytes()[: copy.stat().st_size // 2])
    other = tmp_path / "other"
    restore(other, copy)
    before = (other / "kessik.sqlite3").read_bytes()
    with pytest.raises(StoreDamagedError):
        restore(other, half)
    assert (other / "kessik.sqlite3").read_bytes() == before
    assert holds(half).wrong
