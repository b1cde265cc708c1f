"""Blades and edges files, in and out of the shelf: everything comes back, known blades are brought
up to date.
"""

import io
import zipfile

import pytest

from kessik.core.comparison.matching import MatchingRule
from kessik.core.errors import RefusedFileError
from kessik.core.moments import Moment
from kessik.core.protocols.methods import Method
from kessik.interchange.named_files import NamedFile
from kessik.services.files.imports import import_files
from kessik.services.files.shelf_rows import blades_csv, edges_csv
from kessik.store.database import Database
from kessik.store.queries import shelf

NOW = Moment("2026-05-04T08:00:00+00:00", 120)
BLADES = """blade,claimed_grade,hardness_hrc,hardness_standing,grind,profile,stock_mm,edge_length_mm,coating,heat_treatment,owner,price,note,loan_due,hook
AV-01,1.4034,57.4,measured_here,flat,straight,3,96,none,1040 °C oil,Corran Forge,310 kr,on the raft,2026-06-01,left
AV-02,1.4112,61,claimed,hollow,belly,2.8,96,,,,,,,
"""  # noqa: E501 - a file as it is
EDGES = """blade,edge,side_angle_deg,micro_bevel_side_deg,thickness_behind_edge_mm,last_abrasive_um,last_abrasive_kind,regime,minutes,steel_removed_mm,settled,note,start_gf
AV-01,3,15,,0.36,1,strop,bench set,12,0.25,yes,,150
AV-01,4,15.2,20,0.38,1,strop,bench set,11,0.25,,fine,
"""  # noqa: E501 - a file as it is


def take(database, now=NOW, **files):
    named = [NamedFile(f"shelf.{kind}.csv", text.encode()) for kind, text in files.items()]
    return import_files(database, named, now, MatchingRule(), Method())


def on_shelf(database):
    with database.read() as session:
        return {blade.code: blade for blade in shelf.all_blades(session)}


def test_the_shelf_goes_out_and_comes_back_the_same(database, tmp_path):
    assert take(database, blades=BLADES, edges=EDGES).blades == ("AV-01", "AV-02")
    first = list(on_shelf(database).values())
    again = Database(tmp_path / "again")
    take(again, blades=blades_csv(first), edges=edges_csv(first))
    second = list(on_shelf(again).values())
    assert (blades_csv(second), edges_csv(second)) == (blades_csv(first), edges_csv(first))
    assert on_shelf(again)["AV-01"].other == {"hook": "left"}, "unknown columns stay with their row"
    assert on_shelf(again)["AV-01"].edge(3).overrule_reason == "as in the file"
    again.close()


def test_a_known_blade_is_brought_up_to_date_and_keeps_what_was_known(database):
    take(database, blades=BLADES, edges=EDGES)
    newer = "blade,hardness_hrc,hardness_standing,price\nav-02,58.1,measured_here,640 kr\n"
    later = Moment("2026-05-05T08:00:00+00:00", 120)
    take(
        database,
        later,
        blades=newer,
        edges="blade,edge,thickness_behind_edge_mm\nAV-02,5,0.4\nAV-01,4,0.41\n",
    )
    blades = on_shelf(database)
    assert len(blades) == 2
    changed = blades["AV-02"]
    assert (changed.value("hardness_hrc"), changed.price, changed.used("grind").words) == (
        58.1,
        "640 kr",
        "hollow",
    )
    assert sorted(m.value for m in changed.measurements if m.quantity == "hardness_hrc") == [
        58.1,
        61,
    ]
    assert changed.edge(5).value("thickness_behind_edge_mm") == 0.4
    assert blades["AV-01"].edge(4).value("thickness_behind_edge_mm") == 0.41
    take(database, blades=newer)
    assert len(on_shelf(database)["AV-02"].measurements) == len(changed.measurements), (
        "the same again adds nothing"
    )


@pytest.mark.parametrize(
    ("files", "faults"),
    [
        (
            {"blades": "blade,hardness_hrc,grind\nA,91,flat\n,58,\nA,58,\n"},
            ["shelf.blades.csv:2: hardness_hrc: 91 HRC is out of range: give 70 HRC or less",
             "shelf.blades.csv:3: blade: this cell is empty and must not be",
             "shelf.blades.csv:4: blade: the blade code A is listed twice, first on line 2"],
        ),
        (
            {"edges": "blade,edge,side_angle_deg,loan\nGhost,1,15,\n"},
            ["shelf.edges.csv:2: blade: no blade Ghost is on the shelf or in a blades file"
             " beside this one"],
        ),
        (
            {"blades": "blade,loan_due\nA,soon\n",
                "edges": "blade,edge,thickness_behind_edge_mm\nA,1,0.01\n"},
            ["shelf.blades.csv:2: loan_due: “soon” is not a day like 2026-05-04",
             "shelf.edges.csv:2: thickness_behind_edge_mm: 0.01 mm is out of range: give 0.05 mm"
             " or more"],
        ),
    ],
)  # fmt: skip  # a table is read by its rows
def test_every_fault_is_listed_and_nothing_is_taken(database, files, faults):
    with pytest.raises(RefusedFileError) as refused:
        take(database, **files)
    assert [str(fault) for fault in refused.value.faults] == faults
    assert on_shelf(database) == {}


def test_the_page_hands_the_shelf_out_as_files(client, database):
    take(database, blades=BLADES, edges=EDGES)
    with zipfile.ZipFile(io.BytesIO(client.get("/api/shelf/files").content)) as archive:
        assert archive.namelist() == ["shelf.blades.csv", "shelf.edges.csv"]
        assert archive.read("shelf.edges.csv").decode().count("AV-01") == 2
