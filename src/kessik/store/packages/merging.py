"""What a package brings beside what is here: row by row, by ids that no two things share."""

import json
from collections.abc import Collection, Iterable, Mapping, Sequence
from hashlib import sha256
from typing import Any

from sqlalchemy import text
from sqlalchemy.orm import Session

from kessik.store.packages.stored_rows import StoredRow, Tables, read_rows, values_of
from kessik.store.queries.hidden_rows import Placeholders
from kessik.store.queries.restoring_rows import with_free_sequences
from kessik.store.tables import Base

OF_TRIAL: Mapping[str, str] = {
    "trial": "id = :id",
    "trial_blade": "trial_id = :id",
    "run": "trial_id = :id",
    "event": "run_id IN (SELECT id FROM run WHERE trial_id = :id)",
}
"""What makes a trial what it is, by table."""
BESIDE = (
    "recipe", "lot", "lot_correction", "grade", "measurement", "field_exposure", "care",
    "toughness", "assay_batch", "assay_blade", "assay_shot", "soak", "soak_coupon", "soak_act",
    "soak_look", "picture", "picture_use", "trace", "archived",
)  # fmt: skip  # what lands at the end, in an order in which it can
_HERE_ALONE: Mapping[str, frozenset[str]] = {
    "trial": frozenset({"arriving"}),
    "event": frozenset({"position", "device_sequence", "last_seen_position", "check_sum"}),
}
"""Columns in which the same thing may differ from folder to folder."""


def key_columns(table: str) -> list[str]:
    """The columns that name a row."""
    if table == "event":  # its position is a folder's own
        return ["id"]
    return [column.name for column in Base.metadata.tables[table].primary_key.columns]


def trial_rows(session: Session, trial_id: str) -> dict[str, list[StoredRow]]:
    """What makes a trial what it is, without what differs from folder to folder."""
    found = {}
    for table, where in OF_TRIAL.items():
        of = where.replace("= :id", "IN (SELECT value FROM json_each(:id))")
        rows = read_rows(session, table, of, {"id": [trial_id]})
        left_out = _HERE_ALONE.get(table, frozenset())
        kept = [{k: v for k, v in row.items() if k not in left_out} for row in rows]
        found[table] = sorted(kept, key=lambda row: json.dumps(row, sort_keys=True))
    return found


def content_sum(rows: Mapping[str, Sequence[StoredRow]]) -> str:
    """A sum over what makes a trial what it is."""
    return sha256(json.dumps(rows, sort_keys=True).encode()).hexdigest()


def there(session: Session, table: str, rows: Iterable[StoredRow]) -> set[tuple[Any, ...]]:
    """The keys of those rows that are here already."""
    names = key_columns(table)
    wanted = json.dumps([[row[name] for name in names] for row in rows])
    listed = ", ".join(f'{table}."{name}"' for name in names)
    same = " AND ".join(
        f"{table}.\"{n}\" = json_extract(wanted.value, '$[{at}]')" for at, n in enumerate(names)
    )
    found = session.execute(
        text(f"SELECT {listed} FROM json_each(:wanted) AS wanted JOIN {table} ON {same}"),
        {"wanted": wanted},
    )
    return {tuple(row) for row in found}


def new_among(session: Session, table: str, rows: Sequence[StoredRow]) -> list[StoredRow]:
    """Those of some rows that are not here."""
    here = there(session, table, rows)
    return [row for row in rows if key_of(table, row) not in here]


def key_of(table: str, row: Mapping[str, Any]) -> tuple[Any, ...]:
    """What names a row."""
    return tuple(row[name] for name in key_columns(table))


def insert_rows(session: Session, table: str, rows: Sequence[Mapping[str, Any]]) -> None:
    """Insert rows as a package has them; events get the next places of this folder's log."""
    if not rows:
        return
    if table == "event":
        rows = with_free_sequences(session, rows)
    columns = [c.name for c in Base.metadata.tables[table].columns]
    if table == "event":
        columns.remove("position")
    listed = ", ".join(f'"{name}"' for name in columns)
    marks = ", ".join("?" * len(columns))
    session.connection().exec_driver_sql(
        f"INSERT INTO {table} ({listed}) VALUES ({marks})",
        [values_of(table, row, columns) for row in rows],
    )


def refresh(
    session: Session, table: str, rows: Sequence[StoredRow], keeps: Collection[str]
) -> None:
    """Bring rows that are here to what a newer package says, but for columns of this folder's."""
    if not rows:
        return
    columns = [c.name for c in Base.metadata.tables[table].columns if c.name not in (*keeps, "id")]
    session.connection().exec_driver_sql(
        f"UPDATE {table} SET {', '.join(f'{name} = ?' for name in columns)} WHERE id = ?",
        [(*values_of(table, row, columns), row["id"]) for row in rows],
    )


def insert_beside(session: Session, tables: Tables) -> None:
    """Insert what is new of all that hangs on trials and blades; what was excluded there is
    excluded here.
    """
    for table in BESIDE:
        rows = list(tables.get(table, ()))
        new = new_among(session, table, rows)
        insert_rows(session, table, _unnamed_here(session, new) if table == "recipe" else new)
        if "struck" in Base.metadata.tables[table].columns:
            struck = [(row["struck"], row["id"]) for row in rows if row["struck"]]
            if struck:
                session.connection().exec_driver_sql(
                    f"UPDATE {table} SET struck = ? WHERE id = ? AND struck = ''", struck
                )


def _unnamed_here(session: Session, recipes: Sequence[StoredRow]) -> list[StoredRow]:
    """Recipes whose names nobody uses here; edges tell their steps without them, too."""
    names = {name for (name,) in session.execute(text("SELECT name FROM recipe"))}
    return [recipe for recipe in recipes if recipe["name"] not in names]


def land_edges(session: Session, edges: Sequence[StoredRow], aside: Placeholders) -> dict[str, int]:
    """Move edges of blades that are here from the placeholder onto them; by id the numbers of those
    whose own number is taken by another sharpening.
    """
    moved: dict[str, int] = {}
    for edge in edges:
        taken = {
            number
            for (number,) in session.execute(
                text("SELECT number FROM edge WHERE blade_id = :blade"), {"blade": edge["blade_id"]}
            )
        }
        number = edge["number"] if edge["number"] not in taken else max(taken) + 1
        if number != edge["number"]:
            moved[edge["id"]] = number
        session.execute(
            text(
                "UPDATE edge SET blade_id = :blade, number = :number"
                " WHERE id = :id AND blade_id = :aside"
            ),
            {
                "blade": edge["blade_id"],
                "number": number,
                "id": edge["id"],
                "aside": aside.blade_id,
            },
        )
    return moved


def replace_trial(session: Session, trial_id: str, rows: Mapping[str, Sequence[StoredRow]]) -> None:
    """Put a newer state of a trial in the place of the one that is here."""
    of = {"id": trial_id}
    for table in ("event", "run", "trial_blade"):
        session.execute(text(f"DELETE FROM {table} WHERE {OF_TRIAL[table]}"), of)
    (trial,) = rows["trial"]
    columns = [name for name in trial if name not in ("id", "arriving")]
    session.connection().exec_driver_sql(
        f"UPDATE trial SET {', '.join(f'{name} = ?' for name in columns)} WHERE id = ?",
        [(*values_of("trial", trial, columns), trial_id)],
    )
    for table in ("trial_blade", "run", "event"):
        insert_rows(session, table, rows[table])
