"""Trials sent from folder to folder: number for number, all or nothing, and never mixed up."""

import json
import shutil
import zipfile
from dataclasses import replace
from pathlib import Path

import frictionless
import jsonschema
import pytest
from sqlalchemy import text

from kessik.api.views.answers import pages
from kessik.core.errors import NotAllowedNowError, RefusedFileError, UnknownError
from kessik.core.moments import Moment
from kessik.core.packages import PackageBrought
from kessik.core.shelf.identity import SameBlade
from kessik.core.standings.board import StandingsQuestion
from kessik.core.words.due import due_words
from kessik.core.words.packages import brought_sentences
from kessik.interchange.package_json import FILE_NAME
from kessik.services.packages import identities
from kessik.services.packages.bringing import bring_package
from kessik.services.packages.writing import PackageWish, name_maker, write_package
from kessik.services.standings.boards import read_field, work_out
from kessik.services.today import what_waits
from kessik.services.trials.answers import Answers
from kessik.store.database import Database
from kessik.store.packages.schema import package_schema
from kessik.store.queries.trials import all_trials
from tests.helpers.packages import other_ids, rewritten

NOW = Moment("2026-09-01T08:00:00+00:00", 120)
DUE = "2026-09-10"
LATER = Moment("2026-10-01T08:00:00+00:00", 120)


pytestmark = pytest.mark.usefixtures("packages_opened_here")


@pytest.fixture
def demo(built_demo, tmp_path):
    with Database(shutil.copytree(built_demo, tmp_path / "demo"), hurried=True) as database:
        yield database


@pytest.fixture
def other(tmp_path):
    with Database(tmp_path / "other", hurried=True) as database:
        yield database


def sent(database, path, name="Rhea", now=NOW, *, of="Rope log 2026", **wish):
    """A package of the trials whose names begin so."""
    name_maker(database, name)
    with database.read() as session:
        ids = tuple(t.id for t in all_trials(session) if t.name.startswith(of))
    write_package(database, PackageWish(ids, **wish), path, now)
    return path


def verdicts(database, of=None):
    """The verdicts of trials, of all where none are named."""
    answers = Answers(database, pages())
    with database.read() as session:
        ids = [t.id for t in all_trials(session) if of is None or t.id in of]
    for trial_id in ids:
        answers.renew(trial_id)
    return {trial_id: answers.page("verdict", trial_id)[0] for trial_id in ids}


def ladder(database, of=None, **asked):
    """Where each arm stands by the answers of trials that were worked out, of all where none are
    named.
    """
    with database.read() as session:
        field = read_field(session)
    if of is not None:
        field = replace(field, lives={id_: field.lives[id_] for id_ in field.lives if id_ in of})
    found = work_out(field, StandingsQuestion(**asked))
    return {rung.arm: (rung.ratio, rung.place) for rung in found.rungs}


def came(brought: PackageBrought):
    return {trial.came for trial in brought.trials}


def test_everything_comes_back_number_for_number(demo, other, tmp_path):
    package = sent(demo, tmp_path / "all.kessik.zip", with_pictures=True)
    brought = bring_package(other, package, package.name, is_mine=True)
    assert came(brought) == {"new"}
    found = verdicts(other)
    assert found == verdicts(demo, found)
    assert ladder(other) == ladder(demo, found)
    assert came(bring_package(other, package, package.name)) == {"same"}
    back = sent(other, tmp_path / "back.kessik.zip")
    assert rows_in(back) == rows_in(package)


def test_others_can_read_it(demo, tmp_path, monkeypatch):
    package = sent(demo, tmp_path / "all.kessik.zip")
    with zipfile.ZipFile(package) as archive:
        archive.extractall(tmp_path / "open")
    monkeypatch.chdir(tmp_path / "open")
    report = frictionless.Package("datapackage.json").validate()
    assert report.valid, report.flatten(["title", "message"])[:5]
    records = json.loads(Path(FILE_NAME).read_text(encoding="utf-8"))
    jsonschema.validate(records, package_schema())


def test_an_older_package_changes_nothing_and_a_newer_one_brings_up_to_date(demo, other, tmp_path):
    older = sent(demo, tmp_path / "older.kessik.zip")
    with demo.write() as session:
        session.execute(text("UPDATE trial SET question = 'Asked anew?'"))
    newer = sent(demo, tmp_path / "newer.kessik.zip", now=LATER)
    bring_package(other, older, "older")
    assert came(bring_package(other, newer, "newer")) == {"newer"}
    assert came(bring_package(other, older, "older")) == {"older"}
    found = verdicts(other)
    assert found == verdicts(demo, found)
    with other.write() as session:
        session.execute(text("UPDATE trial SET question = 'Changed here.'"))
    brought = bring_package(other, newer, "newer")
    assert came(brought) == {"changed_here"}
    assert "left as it is here" in brought_sentences(brought)[0]


def test_what_is_left_out_is_nowhere(demo, tmp_path):
    with demo.write() as session:
        session.execute(
            text("UPDATE blade SET owner = 'Corran Hidden', price = '777 kr', note = 'Secret nick'")
        )
    package = sent(demo, tmp_path / "p.kessik.zip", hidden=("owners", "prices", "notes"))
    with zipfile.ZipFile(package) as archive:
        told = "".join(archive.read(name).decode("utf-8", "replace") for name in archive.namelist())
    assert all(word not in told for word in ("Corran Hidden", "777 kr", "Secret nick"))


def test_two_testers_with_blades_of_one_code_are_not_mixed(demo, other, tmp_path):
    """The other tester has a copy of the folder, cut with other blades under the same codes."""
    mine = sent(demo, tmp_path / "mine.kessik.zip", "Rhea")
    bring_package(other, mine, "mine", is_mine=True)
    theirs = rewritten(mine, tmp_path / "theirs.kessik.zip", other_ids)
    brought = bring_package(other, theirs, "theirs")
    assert came(brought) == {"new"}
    assert brought.renamed
    own = {trial.id for trial in brought.trials}
    verdicts(other)
    with other.read() as session:
        mine_alone = read_field(session)
    alone = {life.arm for t, lives in mine_alone.lives.items() if t not in own for life in lives}
    both = ladder(other)
    assert len(both) == 2 * len(alone), "no blade of theirs is taken for one of mine"
    found = identities.identities_of(other)
    assert {q.one.code for q in found.questions} == {q.other.code for q in found.questions}
    question = found.questions[0]
    one, two = question.one.blade.id, question.other.blade.id
    for each in found.questions:
        ids = each.one.blade.id, each.other.blade.id
        identities.say_same(other, SameBlade(*ids, is_same=True), NOW)
    assert identities.identities_of(other).questions == ()
    assert ladder(other).keys() == alone
    with other.read() as session:
        found_board = work_out(read_field(session), StandingsQuestion())
    assert {each.tester for each in found_board.by_tester} == {"", "another"}
    identities.ask_again(other, one, two)
    assert len(ladder(other)) == len(alone) + 1, "split again"


def test_loans_are_seen_by_both_and_other_work_of_theirs_stays_theirs(demo, other, tmp_path):
    """Rhea lent one blade to Ada and has one of hers; Ada brings in what Rhea sends."""
    with demo.write() as session:
        for code, column, due in (("AV-01", "lent_to", DUE), ("AV-02", "loan_from", DUE)):
            session.execute(
                text(f"UPDATE blade SET {column} = 'Ada', loan_due = :due WHERE code = :code"),
                {"code": code, "due": due},
            )
    name_maker(other, "Ada")
    bring_package(other, sent(demo, tmp_path / "p.kessik.zip", "Rhea"), "p")
    assert [due_words(due.what) for due in what_waits(other, NOW)] == [
        "Return AV-01 to Rhea, in 9 days",
        "AV-02 comes back from Rhea, in 9 days",
    ]
    assert {due_words(due.what) for due in what_waits(demo, NOW)} >= {
        "AV-01 comes back from Ada, in 9 days",
        "Return AV-02 to Ada, in 9 days",
    }


def rows_in(package):
    """How many rows of each table a package holds."""
    with zipfile.ZipFile(package) as archive:
        tables = json.loads(archive.read(FILE_NAME))["tables"]
    return {table: len(rows) for table, rows in tables.items()}


def records_changed(change):
    """A change of the records alone."""

    def changed(name, data):
        if name != FILE_NAME:
            return data
        found = json.loads(data)
        change(found)
        return json.dumps(found).encode()

    return changed


HOSTILE = {
    "a newer Kessik": lambda f: f["head"].update(revision="9999"),
    "cannot be stored": lambda f: f["tables"]["run"][0].update(number="many"),
    "refer to rows that are not there": lambda f: f["tables"]["run"][0].update(edge_id="gone"),
    "no package has": lambda f: f["tables"].update(paired_device=[{"id": "x"}]),
    "other columns": lambda f: f["tables"]["blade"][0].update(extra="; DROP TABLE blade"),
    "changed since they were stored": lambda f: f["tables"]["event"][0].update(count_at=7.0),
    "give the blade a code": lambda f: f["tables"]["blade"][0].update(code=" "),
    "cannot be shown": lambda f: f["tables"]["blade"][0].update(note="a\u0000b"),
    "no record of Kessik's": lambda f: f["tables"]["method"][0].update(body="rope"),
    "does not say who sent it": lambda f: f["head"].update(tester=""),
}


@pytest.mark.parametrize("said", HOSTILE)
def test_a_package_that_is_not_as_kessik_makes_it_brings_nothing(demo, other, tmp_path, said):
    package = sent(demo, tmp_path / "p.kessik.zip")
    bad = rewritten(package, tmp_path / "bad.kessik.zip", records_changed(HOSTILE[said]))
    with pytest.raises(RefusedFileError, match=said):
        bring_package(other, bad, "bad.kessik.zip")
    with other.read() as session:
        assert all_trials(session) == []


def test_a_package_that_was_cut_short_or_touched_says_so(demo, other, tmp_path):
    package = sent(demo, tmp_path / "p.kessik.zip")
    short = tmp_path / "short.kessik.zip"
    short.write_bytes(package.read_bytes()[:-4000])
    with pytest.raises(RefusedFileError, match="no whole package"):
        bring_package(other, short, "short")
    touched = rewritten(
        package,
        tmp_path / "touched.kessik.zip",
        lambda name, data: data + b" " if name.endswith("runs.csv") else data,
        told=False,
    )
    with pytest.raises(RefusedFileError, match=r"trials\.runs\.csv in it was changed"):
        bring_package(other, touched, "touched")
    with pytest.raises(RefusedFileError, match="no whole package"):
        bring_package(other, Path(__file__), "no zip")


def test_a_package_says_whose_it_is_and_of_what(demo, other, tmp_path):
    with pytest.raises(NotAllowedNowError, match="who sends"):
        write_package(demo, PackageWish(), tmp_path / "p", NOW)
    name_maker(demo, "Rhea")
    with pytest.raises(UnknownError):
        write_package(demo, PackageWish(("no-such-trial",)), tmp_path / "p", NOW)
    name_maker(other, "Mira")
    with pytest.raises(NotAllowedNowError, match="no trial here"):
        write_package(other, PackageWish(), tmp_path / "p", NOW)
