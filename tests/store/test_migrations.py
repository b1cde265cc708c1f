"""Data made by an older Kessik: backed up, brought over, and nothing of it lost."""

import json
from contextlib import closing
from sqlite3 import connect

import pytest
from sqlalchemy import create_engine, text

from kessik.core.protocols.methods import force_limit_rope
from kessik.store.backups import FOLDER_NAME as BACKUPS_NAME
from kessik.store.database import DATABASE_NAME, Database, migrate
from kessik.store.queries import bench_log, shelf, trials

OLD = """
INSERT INTO trial VALUES ('t1','Raft','','steel','same_hardness','{}',300,400,'adaptive',1,2,'',32,'2026-05-01T08:00:00+00:00',120,'bench');
INSERT INTO blade VALUES ('b1','A','1.4034',57.5,'measured_here',55,58,96,'kept','{"stock_mm":3.0,"grind":"flat","owner":"Corran Forge","price":"310 kr","heat_treatment":"1040 °C","shelf":"left"}');
INSERT INTO blade VALUES ('b2','B',NULL,61.0,'claimed',NULL,NULL,NULL,'','{}');
INSERT INTO trial_blade VALUES ('t1','b1',0),('t1','b2',1);
INSERT INTO edge VALUES ('e1','b1',3,15.0,NULL,0.36,'','{"last_abrasive_um":1.0,"last_abrasive_kind":"strop","minutes":22,"settled":false,"nick":"none"}');
INSERT INTO edge VALUES ('e2','b2',1,NULL,20.0,NULL,'','{}');
INSERT INTO run VALUES ('r1','t1','e1',1,0,NULL,'cuts',12,76,NULL,'2026-05-02T08:00:00+00:00',120,'{}');
"""  # noqa: E501 - rows of the older tables, one a line


@pytest.fixture
def old_folder(tmp_path):
    engine = create_engine(f"sqlite:///{tmp_path / DATABASE_NAME}")
    migrate(engine, "0001")
    with engine.begin() as connection:
        for statement in OLD.strip().split(";\n"):
            connection.execute(text(statement.rstrip(";").replace(":", r"\:")))
    engine.dispose()
    return tmp_path


def test_older_facts_become_the_first_measurements(old_folder):
    database = Database(old_folder)
    with database.read() as session:
        a, b = trials.blades_of(session, "t1")
        trial = trials.find_trial(session, "t1")
        (run,) = bench_log.runs_of(session, "t1")
    assert (a.value("hardness_hrc"), a.used("hardness_hrc").standing) == (57.5, "measured_here")
    assert (b.value("hardness_hrc"), b.used("hardness_hrc").standing) == (61.0, "claimed")
    assert (a.edge_length_mm, a.value("stock_mm"), a.used("grind").words) == (96.0, 3.0, "flat")
    assert (a.owner, a.price, a.heat_treatment.note, a.other) == (
        "Corran Forge",
        "310 kr",
        "1040 °C",
        {"shelf": "left"},
    )
    assert (a.mark, b.mark) == (0, 1), "marks stay what the places in the trial were"
    edge = a.edge(3)
    assert (edge.value("side_angle_deg"), edge.value("thickness_behind_edge_mm"), edge.minutes) == (
        15.0,
        0.36,
        22,
    )
    assert (edge.steps[0].size_um, edge.overrule, edge.overrule_reason) == (
        1.0,
        False,
        "as in the file",
    )
    assert edge.other == {"nick": "none"}
    assert b.edge(1).value("micro_bevel_side_deg") == 20.0
    assert trial.settled_rule.kind == "every_edge", (
        "a trial begun before the rule goes on as it was"
    )
    assert trial.method == force_limit_rope(300, 400), (
        "limits and schedule are the first version of its method"
    )
    assert (run.method_id, trial.method_number) == (trial.method_id, 1), (
        "which its runs were cut under"
    )
    assert (run.after_strop_of, run.compares, trial.cautions_seen_utc) == (None, True, None)
    database.close()


def test_a_copy_is_kept_before_anything_changes_and_only_then(old_folder):
    Database(old_folder).close()
    (backup,) = (old_folder / BACKUPS_NAME).iterdir()
    assert "from-0001" in backup.name
    with closing(connect(backup)) as copy:
        assert copy.execute("SELECT hardness_hrc FROM blade WHERE id = 'b1'").fetchone() == (57.5,)
        assert copy.execute("PRAGMA integrity_check").fetchone() == ("ok",)
        assert (
            json.loads(copy.execute("SELECT other FROM blade WHERE id = 'b1'").fetchone()[0])[
                "shelf"
            ]
            == "left"
        )
    Database(old_folder).close()
    assert len(list((old_folder / BACKUPS_NAME).glob("*.sqlite3"))) == 1


def test_a_new_folder_needs_no_copy(tmp_path):
    database = Database(tmp_path)
    with database.read() as session:
        assert shelf.all_blades(session) == []
    assert not (tmp_path / BACKUPS_NAME).exists()
    database.close()
