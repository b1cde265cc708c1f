"""At the start and on every command: one plain line and exit 1, never a traceback."""

import os
import signal
import sqlite3
import sys
from collections import namedtuple

import pytest

from kessik.cli.main import main
from kessik.store.database import DATABASE_NAME, Database
from tests.serving import Served, free_port

Told = namedtuple("Told", "returncode stdout stderr")


@pytest.fixture
def run(capsys, monkeypatch, tmp_path):
    """A command as the shell would start it, in this process: Python's start takes longer."""
    monkeypatch.chdir(tmp_path)

    def run(*words):
        monkeypatch.setattr(sys, "argv", ["kessik", *words])
        try:
            main()
            code = 0
        except SystemExit as end:
            code = end.code
        return Told(code or 0, *capsys.readouterr())

    return run


def newer(folder):
    with sqlite3.connect(folder / DATABASE_NAME) as link:
        link.execute("UPDATE alembic_version SET version_num = '9999'")


def cut_short(folder):
    path = folder / DATABASE_NAME
    path.write_bytes(path.read_bytes()[:20_000])


def emptied(folder):
    (folder / DATABASE_NAME).write_bytes(b"")


@pytest.mark.parametrize(
    ("spoil", "words"), [(newer, "newer Kessik"), (cut_short, "damaged"), (emptied, "is empty")]
)
def test_a_folder_that_cannot_be_served_is_told_in_one_line(run, tmp_path, spoil, words):
    Database(tmp_path).close()
    spoil(tmp_path)
    for command in (("serve", "--port", str(free_port())), ("export", "Raft"), ("backup",)):
        told = run(*command, "--data", str(tmp_path))
        assert (told.returncode, told.stdout) == (1, "")
        assert words in told.stderr
        assert len(told.stderr.strip().splitlines()) == 1


def test_a_folder_that_is_a_file(run, tmp_path):
    file = tmp_path / "data"
    file.write_text("a shopping list")
    for folder in (file, file / "inside"):
        told = run("serve", "--data", str(folder))
        assert (told.returncode, "is not a folder" in told.stderr) == (1, True), told.stderr
        assert "Traceback" not in told.stderr


def test_a_database_held_by_another_program_is_said_to_be_busy(run, tmp_path):
    Database(tmp_path).close()
    other = sqlite3.connect(tmp_path / DATABASE_NAME, isolation_level=None)
    other.execute("PRAGMA locking_mode = EXCLUSIVE")
    other.execute("BEGIN EXCLUSIVE")
    told = run("serve", "--data", str(tmp_path), "--port", str(free_port()))
    other.close()
    assert (told.returncode, "another program holds" in told.stderr) == (1, True), told.stderr
    assert len(told.stderr.strip().splitlines()) == 1


def test_a_second_server_is_told_who_holds_the_folder(run, tmp_path):
    first = Served(tmp_path / "data")
    try:
        first.hand().client.get("/api/today")  # it is up
        told = run("serve", "--data", str(first.folder), "--port", str(free_port()))
        assert told.returncode == 1
        assert first.address in told.stderr
        assert str(first.process.pid) in told.stderr
        restored = run("restore", str(first.folder / DATABASE_NAME), "--data", str(first.folder))
        assert (restored.returncode, "stop it first" in restored.stderr) == (1, True)
    finally:
        first.kill()
    told = run("check", "--data", str(first.folder), "--json")
    assert (told.returncode, '"whole": true' in told.stdout) == (0, True)


@pytest.mark.parametrize("how", [signal.SIGTERM, signal.SIGHUP, signal.SIGINT])
def test_a_server_that_is_told_to_end_leaves_everything_in_the_one_file(tmp_path, how):
    served = Served(tmp_path / "data")
    hand = served.hand()
    (_, edge), _ = hand.make_trial("A", "B")
    run_id = hand.start(edge)
    hand.cut(run_id, 30)
    os.kill(served.process.pid, how)
    served.process.wait(20)
    assert not (served.folder / f"{DATABASE_NAME}-wal").exists()
    with sqlite3.connect(served.folder / DATABASE_NAME) as alone:
        assert alone.execute("SELECT count(*) FROM event WHERE kind = 'cut'").fetchone() == (30,)


@pytest.mark.parametrize("command", [("analyse",), ("next-check",), ("import",)])
@pytest.mark.parametrize("file", ["/nowhere/at.all", "/", "/dev/zero"])
def test_a_file_that_is_none(run, command, file):
    told = run(*command, file)
    assert (told.returncode, "cannot be opened" in told.stderr) == (1, True), told.stderr
