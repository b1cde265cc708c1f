"""The rows of a package on their way in: hidden ahead in pieces, then seen in one transaction."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property

from sqlalchemy import text
from sqlalchemy.orm import Session

from kessik.core.packages import RenumberedEdge
from kessik.store.packages.merging import (
    insert_beside,
    insert_rows,
    land_edges,
    new_among,
    refresh,
    replace_trial,
)
from kessik.store.packages.stored_rows import StoredRow, Tables
from kessik.store.queries import arrivals
from kessik.store.queries.hidden_rows import Placeholders, make_placeholders, remove_placeholders
from kessik.store.queries.shelf import next_marks
from kessik.store.queries.testers import (
    KEPT,
    Kept,
    Tester,
    TrialOrigin,
    know_tester,
    note_kept_elsewhere,
    note_origins,
    tester_here,
)

_CODES = text("SELECT code FROM blade WHERE arriving IS NULL")
_MARKS = text("SELECT mark FROM blade")
_GIVE_METHOD = text("UPDATE trial SET method_id = :method WHERE id = :id")
_CUT_HERE = text(
    "SELECT blade_id FROM trial_blade WHERE trial_id NOT IN (SELECT trial_id FROM trial_origin)"
)


@dataclass
class Landing:
    """What of a package is to land: trials that are new, and those that are a newer state of what
    came before; `contents` are sums over each. `renumbered` and `renamed` tell what has another
    number or code here.
    """

    tables: Tables
    tester: Tester
    made_utc: str
    new: frozenset[str]
    newer: frozenset[str]
    contents: Mapping[str, str]
    renumbered: list[RenumberedEdge] = field(default_factory=list)
    renamed: dict[str, str] = field(default_factory=dict)
    aside: Placeholders | None = None
    new_blades: set[str] = field(default_factory=set)
    edges_of_others: list[StoredRow] = field(default_factory=list)
    methods_here: set[str] = field(default_factory=set)

    @property
    def size(self) -> int:
        """How many rows come ahead."""
        return sum(len(rows) for rows in self.ahead.values())

    @cached_property
    def ahead(self) -> Mapping[str, Sequence[StoredRow]]:
        """What comes in pieces: measurements, and runs of new trials with their logs."""
        runs = [run for run in self.tables["run"] if run["trial_id"] in self.new]
        ids = {run["id"] for run in runs}
        events = [event for event in self.tables["event"] if event["run_id"] in ids]
        return {"measurement": self.tables["measurement"], "run": runs, "event": events}


def store_ahead(session: Session, landing: Landing, label: str) -> None:
    """Store methods, and hidden under the label: blades, edges and trials that are not here."""
    landing.aside = make_placeholders(session, label)
    blades = new_among(session, "blade", landing.tables["blade"])
    landing.new_blades = {blade["id"] for blade in blades}
    _code_and_mark(session, landing, blades)
    insert_rows(session, "blade", [{**blade, "arriving": label} for blade in blades])
    _store_edges(session, landing, landing.aside)
    methods = new_among(session, "method", landing.tables["method"])
    new_methods = {method["id"] for method in methods}
    landing.methods_here = {m["id"] for m in landing.tables["method"]} - new_methods
    insert_rows(session, "method", methods)
    trials = [trial for trial in landing.tables["trial"] if trial["id"] in landing.new]
    hidden = [{**trial, "arriving": label, **_without_method(landing, trial)} for trial in trials]
    insert_rows(session, "trial", hidden)


def store_piece(session: Session, landing: Landing, table: str, rows: Sequence[StoredRow]) -> None:
    """Store some rows of what comes ahead."""
    if table == "measurement":
        rows = [row for row in rows if row["blade_id"] in landing.new_blades]
    insert_rows(session, table, rows)


def land(session: Session, landing: Landing) -> None:
    """Whatever belongs to the hidden rows, in one transaction with their being seen."""
    tables, aside = landing.tables, landing.aside
    assert aside is not None  # rows were stored ahead
    _land_edges(session, landing, aside)
    remove_placeholders(session, aside)
    placed = [row for row in tables["trial_blade"] if row["trial_id"] in landing.new]
    insert_rows(session, "trial_blade", placed)
    elsewhere = _new_things(session, landing)
    insert_beside(session, tables)
    _give_methods(session, landing)
    _refresh_blades(session, landing)
    for trial_id in landing.newer:
        replace_trial(session, trial_id, _of_trial(tables, trial_id))
    arrivals.land(session, aside.label)
    _note_origins(session, landing, elsewhere)


def _code_and_mark(session: Session, landing: Landing, blades: Sequence[StoredRow]) -> None:
    """Codes and marks that no other blade here has; a code says whose the blade is where it is
    taken.
    """
    codes = {code for (code,) in session.execute(_CODES)}
    marks = {mark for (mark,) in session.execute(_MARKS)}
    free = iter(next_marks(session, len(blades)))
    for blade in blades:
        if blade["code"] in codes:
            told = f"{blade['code']} ({landing.tester.name})"
            landing.renamed[blade["code"]] = told
            blade["code"] = told
        if blade["mark"] in marks:
            blade["mark"] = next(free)
        codes.add(blade["code"])
        marks.add(blade["mark"])


def _store_edges(session: Session, landing: Landing, aside: Placeholders) -> None:
    """Edges of new blades with them; those of blades that are here wait on the placeholder."""
    edges = new_among(session, "edge", landing.tables["edge"])
    insert_rows(session, "edge", [e for e in edges if e["blade_id"] in landing.new_blades])
    landing.edges_of_others = [e for e in edges if e["blade_id"] not in landing.new_blades]
    waiting = [
        {**edge, "blade_id": aside.blade_id, "number": number}
        for number, edge in enumerate(landing.edges_of_others, 1)
    ]
    insert_rows(session, "edge", waiting)


def _land_edges(session: Session, landing: Landing, aside: Placeholders) -> None:
    codes = {blade["id"]: blade["code"] for blade in landing.tables["blade"]}
    moved = land_edges(session, landing.edges_of_others, aside)
    landing.renumbered += [
        RenumberedEdge(codes[edge["blade_id"]], edge["number"], moved[edge["id"]])
        for edge in landing.edges_of_others
        if edge["id"] in moved
    ]


def _without_method(landing: Landing, trial: StoredRow) -> StoredRow:
    """A method that is here would go with the trial if that were taken back."""
    return {"method_id": None} if trial["method_id"] in landing.methods_here else {}


def _give_methods(session: Session, landing: Landing) -> None:
    for trial in landing.tables["trial"]:
        if trial["id"] in landing.new and trial["method_id"] in landing.methods_here:
            session.execute(_GIVE_METHOD, {"method": trial["method_id"], "id": trial["id"]})


def _refresh_blades(session: Session, landing: Landing) -> None:
    """Blades that only came with packages are as the newest of them has them."""
    newer = {
        row["blade_id"] for row in landing.tables["trial_blade"] if row["trial_id"] in landing.newer
    }
    own = {blade for (blade,) in session.execute(_CUT_HERE)}
    blades = [b for b in landing.tables["blade"] if b["id"] in newer - own - landing.new_blades]
    refresh(session, "blade", blades, ("code", "mark", "arriving"))
    ids = {blade["id"] for blade in blades}
    edges = [edge for edge in landing.tables["edge"] if edge["blade_id"] in ids]
    refresh(session, "edge", edges, ("number",))


def _of_trial(tables: Tables, trial_id: str) -> dict[str, list[StoredRow]]:
    runs = [run for run in tables["run"] if run["trial_id"] == trial_id]
    ids = {run["id"] for run in runs}
    return {
        "trial": [row for row in tables["trial"] if row["id"] == trial_id],
        "trial_blade": [row for row in tables["trial_blade"] if row["trial_id"] == trial_id],
        "run": runs,
        "event": [event for event in tables["event"] if event["run_id"] in ids],
    }


def _new_things(session: Session, landing: Landing) -> dict[Kept, set[str]]:
    """What is not here yet, and stays with whoever sent it."""
    found: dict[Kept, set[str]] = {"trial": set(landing.new), "blade": landing.new_blades}
    for kind in KEPT:
        if kind not in found:
            new = new_among(session, kind, landing.tables[kind])
            found[kind] = {row["id"] for row in new}
    return found


def _note_origins(session: Session, landing: Landing, elsewhere: Mapping[Kept, set[str]]) -> None:
    """Whose trials and things are; those of the tester here are their own."""
    here = tester_here(session)
    if here is not None and here.id == landing.tester.id:
        return
    know_tester(session, landing.tester)
    for kind, ids in elsewhere.items():
        note_kept_elsewhere(session, kind, ids, landing.tester)
    note_origins(
        session,
        {
            trial_id: TrialOrigin(landing.tester.id, landing.made_utc, landing.contents[trial_id])
            for trial_id in (*landing.new, *landing.newer)
        },
    )
