"""Runs of a sheet come into a trial that is there already all at once, or not at all."""

from itertools import count
from uuid import uuid4

import pytest

from kessik.core.errors import CancelledError, ConflictError
from kessik.interchange.named_files import NamedFile
from kessik.interchange.raw_sheets import read_sheet
from kessik.services.clock import now
from kessik.services.paper import sheet_import
from kessik.services.paper.runs import Entered
from kessik.services.paper.sheet_plans import Sheet, Target
from kessik.services.paper.sheets import preview
from kessik.services.work import ImportWork
from tests.conftest import BenchHand
from tests.helpers.pieces import rows_of_all_tables

# A's edge 3 waits on the shelf, its edge 4 is new, and so is the blade C.
SHEET = "Knife;Edge;Fine;Working\nA;3;30;25\nA;4;31;26\nB;3;40;22\nC;1;28;19\n"


class Trial(BenchHand):
    """A trial with a sheet to come into it, one run a piece."""

    def __init__(self, client, database, monkeypatch):
        super().__init__(client)
        self.database, self.patch = database, monkeypatch
        (_, self.edge), (_, self.other) = self.make_trial("A", "B", school="two_stage_board")
        monkeypatch.setattr(sheet_import, "_EVENTS_AT_ONCE", 1)

    def bring(self, between=lambda n: None, work=None):
        """Bring the sheet in; between two pieces something else happens."""
        pieces = count()
        self.patch.setattr(sheet_import, "let_taps_through", lambda: between(next(pieces)))
        raw, target = read_sheet(NamedFile("old.csv", SHEET.encode())), Target(self.trial)
        entered = Entered("", "", now())
        reading = preview(self.database, raw, None, target, entered).reading
        sheet = Sheet(raw, reading, entered, str(uuid4()))
        return sheet_import.bring_in(self.database, sheet, target, work=work)

    def blades(self):
        return [b["blade"]["code"] for b in self.client.get("/api/shelf").json()["blades"]]

    def record(self):
        runs = self.client.get(f"/api/trials/{self.trial}/record").json()["runs"]
        return sorted((run["blade"], run["edge"]) for run in runs)


@pytest.fixture
def trial(client, database, monkeypatch):
    return Trial(client, database, monkeypatch)


def test_nobody_sees_a_run_before_all_are_there(trial):
    seen = []
    made = trial.bring(lambda n: seen.append((trial.record(), len(trial.blades()))))
    assert seen == [([], 2)] * 5  # the blades, and each run
    assert made.kept == 4
    assert trial.record() == [("A", 3), ("A", 4), ("B", 3), ("C", 1)]
    assert trial.blades() == ["A", "B", "C"]


@pytest.mark.parametrize("after", [0, 3])
def test_what_is_cancelled_leaves_nothing(trial, database, after):
    before, work = rows_of_all_tables(database), ImportWork()
    with pytest.raises(CancelledError):
        trial.bring(lambda n: work.cancel() if n == after else None, work)
    assert rows_of_all_tables(database) == before
    assert trial.bring().kept == 4


def test_an_edge_that_is_cut_meanwhile_is_said_and_nothing_is_brought_in(trial, database):
    before = rows_of_all_tables(database)
    with pytest.raises(ConflictError, match="meanwhile; check the rows again"):
        trial.bring(lambda n: n == 2 and trial.start(trial.edge))
    after = rows_of_all_tables(database)
    assert after == {**before, "run": before["run"] + 1, "event": after["event"]}
    assert trial.record() == [("A", 3)]
