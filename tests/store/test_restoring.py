"""A restore is all or nothing, and trusts nothing: hostile copies, spoiled pictures, and kills."""

import lzma
import multiprocessing
import os
import shutil
import sqlite3
from contextlib import closing
from pathlib import Path

import pytest

from kessik.core.errors import StoreDamagedError, UnknownError
from kessik.core.shelf.blades import Blade
from kessik.services.clock import now
from kessik.services.pictures.storing import keep_picture
from kessik.services.shelf.blades import make_blade
from kessik.services.upkeep import upkeep
from kessik.store import backups
from kessik.store.database import DATABASE_NAME, Database
from kessik.store.photo_files import photo_path
from kessik.store.restoring import restore
from kessik.store.swapping import is_interrupted
from kessik.store.vetting import heal_pictures, spoiled_pictures, vet
from tests.helpers.older_folders import FOLDERS
from tests.helpers.pictures import picture


@pytest.fixture
def copy(database, tmp_path):
    """A copy of a folder with one blade and one picture, on another disk."""
    make_blade(database, Blade("blade-01", "AV-01"))
    keep_picture(database, picture(60), now().utc)
    made = upkeep.make_copy(database, backups.BY_HAND)
    elsewhere = tmp_path / "other disk"
    shutil.copytree(made.parent, elsewhere)
    return elsewhere / made.name


@pytest.fixture
def folder(tmp_path):
    """A folder with another blade, to bring the copy into."""
    with Database(tmp_path / "there") as there:
        make_blade(there, Blade("blade-02", "AV-02"))
    return tmp_path / "there"


def codes(folder):
    with Database(folder) as opened, opened.read() as session:
        return [row[0] for row in session.connection().exec_driver_sql("SELECT code FROM blade")]


@pytest.mark.parametrize("older", FOLDERS[::3], ids=lambda path: path.name[:4])
def test_data_of_every_age_are_taken(older, tmp_path):
    path = tmp_path / "old.sqlite3"
    path.write_bytes(lzma.decompress(older.read_bytes()))
    vet(path, older)


HOSTILE = {
    "trigger": "CREATE TRIGGER t AFTER INSERT ON blade BEGIN DELETE FROM trial; END",
    "view": "CREATE VIEW v AS SELECT 1",
    "strange table": "CREATE TABLE mine (x)",
    "changed table": "ALTER TABLE blade ADD COLUMN mine TEXT",
    "lost table": "DROP TABLE archived",
    "lost owner": "INSERT INTO toughness VALUES ('t', 'nobody', '', '{}', '', '')",
    "way out": "UPDATE picture SET hash = '../../../../etc/passwd'",
    "no revision": "DROP TABLE alembic_version",
}


@pytest.mark.parametrize("wrong", HOSTILE)
def test_what_kessik_would_not_have_written_is_refused_and_nothing_is_changed(wrong, copy, folder):
    with closing(sqlite3.connect(copy, isolation_level=None)) as link:
        link.execute(HOSTILE[wrong])
    before = sorted(path.name for path in folder.iterdir())
    with pytest.raises(StoreDamagedError, match="nothing was changed"):
        restore(folder, copy)
    assert codes(folder) == ["AV-02"]
    assert {path.name for path in folder.iterdir()} >= set(before)
    assert not list(folder.glob("replaced-*"))


def test_a_database_of_something_else_is_refused(folder, tmp_path):
    other = tmp_path / "other.sqlite3"
    with closing(sqlite3.connect(other)) as link:
        link.execute("CREATE TABLE mine (x)")
    with pytest.raises(StoreDamagedError, match="no data of Kessik's"):
        restore(folder, other)
    assert codes(folder) == ["AV-02"]


def test_a_picture_that_is_no_sum_has_no_file(tmp_path):
    with pytest.raises(UnknownError):
        photo_path(tmp_path, "../../../etc/passwd")


def test_a_picture_with_another_content_is_refused_or_healed_from_a_whole_one(copy, folder):
    (kept,) = (copy.parent / "photos").glob("??/*")
    whole = kept.read_bytes()
    kept.write_bytes(whole[:-1] + b"x")
    with pytest.raises(StoreDamagedError, match="were changed since they were kept"):
        restore(folder, copy)
    assert codes(folder) == ["AV-02"]
    kept.write_bytes(whole)
    restore(folder, copy)
    assert codes(folder) == ["AV-01"]
    own = photo_path(folder, kept.name)
    own.write_bytes(b"spoiled")
    assert spoiled_pictures(folder / DATABASE_NAME) == [kept.name]
    shutil.copytree(copy.parent / "photos", folder / "backups" / "photos")
    assert heal_pictures(folder, [kept.name]) == [kept.name]
    assert own.read_bytes() == whole


MOVES = ("rename", "replace", "unlink", "mkdir")


def _killed_at(step, folder, copy):
    """Restore in this process, and end it before its so manieth move of a file."""
    done = 0

    def counting(move):
        def counted(*arguments, **named):
            nonlocal done
            done += 1
            if done == step:
                os._exit(9)
            return move(*arguments, **named)

        return counted

    for name in MOVES:
        setattr(Path, name, counting(getattr(Path, name)))
    os.link = counting(os.link)
    restore(folder, copy)
    os._exit(0)


@pytest.mark.parametrize("has_log", [False, True])
def test_killed_at_any_move_it_is_the_former_data_or_the_restored_and_said(
    has_log, copy, folder, tmp_path
):
    fork = multiprocessing.get_context("fork")
    for step in range(1, 60):
        trial = tmp_path / f"step {step}"
        shutil.copytree(folder, trial)
        if has_log:
            open_log(trial)
        child = fork.Process(target=_killed_at, args=(step, trial, copy))
        child.start()
        child.join()
        was_begun = is_interrupted(trial)
        with Database(trial) as opened:
            assert bool(opened.found_at_start) == was_begun
        wanted = ["AV-02", "AV-03"] if has_log else ["AV-02"]
        assert codes(trial) in (wanted, ["AV-01"]), f"killed at move {step}"
        if child.exitcode == 0:
            assert codes(trial) == ["AV-01"]
            (aside,) = trial.glob("replaced-*")
            assert codes(aside) == wanted
            return
        shutil.rmtree(trial)
    raise AssertionError("it never came to its end")


def open_log(folder):
    """Leave a blade in the log, as a server does that was killed."""
    child = multiprocessing.get_context("fork").Process(target=_cut_and_die, args=(folder,))
    child.start()
    child.join()
    assert (folder / f"{DATABASE_NAME}-wal").stat().st_size > 0


def _cut_and_die(folder):
    make_blade(Database(folder), Blade("blade-03", "AV-03"))
    os._exit(9)
