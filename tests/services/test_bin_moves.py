"""Into the bin and back in pieces: what changes meanwhile goes along, what a kill leaves is seen by
nobody.
"""

import pytest
from sqlalchemy import text

from kessik.core.errors import ConflictError
from kessik.core.moments import Moment
from kessik.services.record import bin as the_bin
from kessik.services.record import bin_moves

NOW = Moment("2026-05-04T08:00:00+00:00")
TABLES = ("trial", "trial_blade", "blade", "edge", "run", "event", "measurement", "archived")


class Killed(BaseException):
    """The server died here."""


@pytest.fixture
def raft(hand, database):
    """A trial with runs on two blades, one of them cut in another trial as well."""
    hand.database = database
    hand.blades = dict(zip("AB", hand.make_trial("A", "B"), strict=True))
    hand.runs = [hand.start(edge) for _, edge in hand.blades.values()]
    for run in hand.runs:
        hand.read(run, 150, 0)
        hand.cut(run, at=0)
    return hand


def rows(database):
    with database.read() as session:
        return {
            table: sorted(map(tuple, session.execute(text(f"SELECT * FROM {table}"))), key=repr)
            for table in TABLES
        }


def into_bin(hand, kind="trial", owner=None):
    return the_bin.move_to_bin(hand.database, f"bin-{kind}", kind, owner or hand.trial, "", NOW)


def no_removal(monkeypatch):
    """A kill right after what matters was committed."""
    monkeypatch.setattr(bin_moves, "remove_arrival", lambda *_: None)


@pytest.mark.parametrize("kind", ["trial", "blade", "run"])
def test_what_a_kill_leaves_hidden_is_seen_by_nobody_and_gone_before_it_comes_back(
    raft, monkeypatch, kind
):
    before = rows(raft.database)
    with monkeypatch.context() as killed:
        no_removal(killed)
        into_bin(raft, kind, {"blade": raft.blades["A"][0], "run": raft.runs[0]}.get(kind))
    assert len(rows(raft.database)["run"]) == 2, "its rows are still there"
    assert raft.client.get(f"/api/runs/{raft.runs[0]}").status_code == 409
    assert raft.send(raft.runs[0], "cut", {"amount": 1}, at=9).status_code == 409
    if kind == "run":
        again = raft.start(raft.blades["A"][1])
        assert again, "its edge is free again"
        the_bin.move_to_bin(raft.database, "other", "run", again, "", NOW)
    the_bin.restore(raft.database, f"bin-{kind}")
    after = rows(raft.database)
    assert after == before


def test_a_restore_that_was_killed_halfway_leaves_it_in_the_bin_whole(raft, monkeypatch):
    before = rows(raft.database)
    into_bin(raft)
    with monkeypatch.context() as killed:
        no_removal(killed)
        with (
            pytest.raises(Killed),
            bin_moves.coming_back(raft.database, "bin-trial"),
        ):
            raise Killed
    assert raft.client.get(f"/api/runs/{raft.runs[0]}").status_code == 409
    assert raft.client.get("/api/today").json()["trials"] == []
    the_bin.restore(raft.database, "bin-trial")
    assert rows(raft.database) == before


def test_what_is_cut_while_it_is_read_goes_along(raft):
    with bin_moves.leaving(raft.database, "trial", {"id": raft.trial}) as move:
        assert raft.send(raft.runs[1], "cut", {"amount": 3}, at=1).status_code == 200
        before = rows(raft.database)
        with raft.database.write() as session:
            move(session, the_bin.InBin("late", "trial", raft.trial, "Raft", (), "", NOW.utc))
    the_bin.restore(raft.database, "late")
    assert rows(raft.database) == before


def test_a_run_that_goes_on_elsewhere_keeps_its_trial(raft):
    run, (blade, edge) = raft.runs[0], raft.blades["A"]
    assert raft.send(run, "stop", {"by": "tester", "reason": "enough"}, at=1).status_code == 200
    assert raft.send(run, "strop", {"strokes": 10}, at=1).status_code == 200
    other = type(raft)(raft.client)
    other.make_trial()
    place = f"/api/trials/{other.trial}/blades/{blade}"
    assert other.client.put(place, json={"id": blade, "code": "A"}).status_code == 200
    other.start(edge, after_strop_of=run)
    with pytest.raises(ConflictError, match="built on it since"):
        into_bin(raft)
    assert raft.client.get(f"/api/runs/{run}").status_code == 200
