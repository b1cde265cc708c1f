"""What lies in the bin comes back as the rows that it was."""

import base64
import json
from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import select, text
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from kessik.core.bin import Binned
from kessik.core.errors import ConflictError
from kessik.store.check_sums import SUMMED, check_sum
from kessik.store.queries.bench_log import take_sequence
from kessik.store.queries.binning import BYTES, OWNED, content_of
from kessik.store.tables import Base, BinRow

_Broken = tuple[str, int, str, int]
"""A row that belongs to one that is not there: its table and number, the other's table, and which
of its keys says so.
"""

_KEPT_WITHOUT = ("soak_coupon", "blade_id")
"""A coupon stays in its soak when its blade is gone."""


@dataclass(frozen=True)
class Back:
    """The ids of runs that came back, and of those that stood beside them before, where that is
    known.
    """

    runs: frozenset[str]
    beside: frozenset[str] | None


def restore(session: Session, bin_id: str) -> Back:
    """Put a thing back as it was, without what belongs to something deleted for good.

    ConflictError where its place was taken meanwhile, or what it belongs to is not there.
    """
    row = session.get_one(BinRow, bin_id)
    kind: Binned = row.kind  # type: ignore[assignment]  # checked on entry
    content = content_of(row)
    session.execute(text("PRAGMA defer_foreign_keys = ON"))
    before = _broken(session)
    try:
        _put_back(session, row, content["rows"], kind)
    except IntegrityError as taken:
        raise ConflictError(
            "its place was taken meanwhile: something of the same name or number is there",
            field="bin",
        ) from taken
    for coupon in content["coupons"]:
        session.execute(
            text("UPDATE soak_coupon SET blade_id = :blade WHERE id = :id"),
            {"blade": row.owner_id, "id": coupon},
        )
    session.delete(row)
    session.flush()
    if _let_go(session, before) and not _came(session, kind, content["rows"]):
        raise ConflictError(
            "what it belonged to was deleted for good, and it cannot come back", field="bin"
        )
    beside = content.get("beside")
    return Back(
        frozenset(run["id"] for run in content["rows"].get("run", ())),
        None if beside is None else frozenset(beside),
    )


def _put_back(session: Session, row: BinRow, rows: Mapping[str, Any], kind: Binned) -> None:
    for table, _ in reversed(OWNED[kind]):
        own = rows.get(table, [])
        if table == "trial_blade":
            own = [_in_a_free_place(session, each) for each in own]
        elif table == "run":
            own = _with_free_numbers(session, own)
        elif table == "event":
            own = _with_free_sequences(session, own)
        _insert(session, table, own)


def _let_go(session: Session, before: set[_Broken]) -> bool:
    """Let rows go that belong to what was deleted for good; whether there were any. ConflictError
    where what they belong to waits in the bin.
    """
    is_any = False
    while broken := _broken(session) - before:
        waiting = _waiting(session)
        found = [(row, *_missing(session, row)) for row in broken]
        if any(missing in waiting[row[2]] for row, _, missing in found):
            raise ConflictError(
                "what it belongs to is in the bin, too; bring that back first", field="bin"
            )
        for (table, number, _, _), column, _ in found:
            is_kept = (table, column) == _KEPT_WITHOUT
            act = f"UPDATE {table} SET {column} = NULL" if is_kept else f"DELETE FROM {table}"
            session.execute(text(f"{act} WHERE rowid = :number"), {"number": number})
        is_any = True
    return is_any


def _broken(session: Session) -> set[_Broken]:
    found = session.execute(text("PRAGMA foreign_key_check"))
    return {(table, number, parent, key) for table, number, parent, key in found}


def _missing(session: Session, broken: _Broken) -> tuple[str, str]:
    """The column that says what a row belongs to, and its id."""
    table, number, _, key = broken
    keys = session.execute(text(f"PRAGMA foreign_key_list({table})"))
    column = next(each[3] for each in keys if each[0] == key)
    found = session.execute(text(f"SELECT {column} FROM {table} WHERE rowid = :n"), {"n": number})
    return column, str(found.scalar_one())


def _waiting(session: Session) -> Mapping[str, set[str]]:
    """The ids of what lies in the bin, by their tables."""
    found: dict[str, set[str]] = defaultdict(set)
    for row in session.scalars(select(BinRow)):
        for table, rows in content_of(row)["rows"].items():
            found[table].update(each["id"] for each in rows if "id" in each)
    return found


def _came(session: Session, kind: Binned, rows: Mapping[str, Any]) -> bool:
    """Whether the thing itself is there now."""
    table = "run" if kind == "results" else kind
    there = text(f"SELECT 1 FROM {table} WHERE id = :id")
    return any(session.execute(there, {"id": each["id"]}).first() for each in rows[table])


def _insert(session: Session, table: str, rows: Sequence[Mapping[str, Any]]) -> None:
    """Rows as they were kept; columns that the table has no more are left out."""
    if not rows:
        return
    known = set(Base.metadata.tables[table].columns.keys())
    names = [name for name in rows[0] if name in known]
    columns = ", ".join(f'"{name}"' for name in names)
    session.connection().exec_driver_sql(
        f"INSERT INTO {table} ({columns}) VALUES ({', '.join('?' * len(names))})",
        [tuple(_from_json(row[name]) for name in names) for row in rows],
    )


def _in_a_free_place(session: Session, row: Mapping[str, Any]) -> Mapping[str, Any]:
    """A blade's place in a trial: its own, or the next one where another blade stands there now."""
    found = session.execute(
        text("SELECT place FROM trial_blade WHERE trial_id = :trial"), {"trial": row["trial_id"]}
    )
    taken = {place for (place,) in found}
    return row if row["place"] not in taken else {**row, "place": max(taken) + 1}


def _with_free_numbers(session: Session, runs: Sequence[Mapping[str, Any]]) -> list[Any]:
    """Runs by their own numbers on their edges, or the next ones where others have those now."""
    edges = json.dumps([run["edge_id"] for run in runs])
    found = session.execute(
        text(
            "SELECT trial_id, edge_id, number FROM run"
            " WHERE edge_id IN (SELECT value FROM json_each(:edges))"
        ),
        {"edges": edges},
    )
    taken: dict[tuple[str, str], set[int]] = defaultdict(set)
    for trial, edge, number in found:
        taken[trial, edge].add(number)
    numbered = []
    for run in runs:
        there = taken[run["trial_id"], run["edge_id"]]
        number = run["number"] if run["number"] not in there else max(there) + 1
        there.add(number)
        numbered.append({**run, "number": number})
    return numbered


def _with_free_sequences(session: Session, events: Sequence[Mapping[str, Any]]) -> list[Any]:
    """Events with sequence numbers that no other of their device has. Before they were told by the
    log's own numbers, the server gave those of a run in the bin once more.
    """
    devices = json.dumps(sorted({event["device"] for event in events}))
    found = session.execute(
        text(
            "SELECT device, device_sequence FROM event"
            " WHERE device IN (SELECT value FROM json_each(:devices))"
        ),
        {"devices": devices},
    )
    taken = {(device, sequence) for device, sequence in found}
    numbered = []
    for event in events:
        if (event["device"], event["device_sequence"]) in taken:
            event = _numbered_anew(event, take_sequence(session))
        numbered.append(event)
    return numbered


def _numbered_anew(event: Mapping[str, Any], sequence: int) -> dict[str, Any]:
    moved = {**event, "device_sequence": sequence}
    if event["check_sum"] is not None:
        summed = {name: moved[name] for name in SUMMED[1:]}
        moved["check_sum"] = check_sum(moved["id"], **summed)
    return moved


def _from_json(value: Any) -> Any:  # noqa: ANN401 - whatever a column holds
    if isinstance(value, str) and value.startswith(BYTES):
        return base64.b64decode(value.removeprefix(BYTES))
    return value
