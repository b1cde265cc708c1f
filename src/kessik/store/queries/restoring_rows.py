"""What lies in the bin comes back as the rows that it was: what there are thousands of in pieces
that nobody sees, then all of it in one short transaction.
"""

import json
from collections import defaultdict
from collections.abc import Iterator, Mapping, Sequence, Set
from contextlib import contextmanager
from dataclasses import dataclass, replace
from typing import Any

from sqlalchemy import select, text
from sqlalchemy.exc import IntegrityError
from sqlalchemy.orm import Session

from kessik.core.bin import Binned
from kessik.core.errors import ConflictError, UnknownError
from kessik.store.check_sums import SUMMED, check_sum
from kessik.store.queries.bench_log import take_sequence
from kessik.store.queries.bin_contents import OWNED, content_of, stored_value
from kessik.store.queries.foreign_keys import parents_of
from kessik.store.queries.hidden_rows import HIDDEN, Placeholders, remove_placeholders
from kessik.store.tables import Base, BinRow

_Row = Mapping[str, Any]
_KEPT_WITHOUT: Mapping[str, Set[str]] = {"soak_coupon": {"blade_id"}}
"""A coupon stays in its soak when its blade is gone."""
_IS_SEEN: Mapping[str, str] = {
    "trial": "arriving IS NULL",
    "blade": "arriving IS NULL",
    "edge": "blade_id IN (SELECT id FROM blade WHERE arriving IS NULL)",
    "run": "trial_id IN (SELECT id FROM trial WHERE arriving IS NULL)",
}
_IN_PIECES = ("trial", "blade", "edge", "run", "event")
_AT_ONCE = 250
_TAKEN = "its place was taken meanwhile: something of the same name or number is there"
_NOT_THERE = "it is not in the bin; it may be back already"


@dataclass(frozen=True)
class Packed:
    """A thing in the bin, with its rows by their tables."""

    bin_id: str
    kind: Binned
    owner_id: str
    rows: Mapping[str, Sequence[_Row]]
    coupons: Sequence[str]
    beside: Sequence[str] | None

    def ids(self, table: str) -> set[str]:
        """The ids of its rows of a table."""
        return {row["id"] for row in self.rows.get(table, ())}


@dataclass(frozen=True)
class Back:
    """The ids of runs that came back to edges that had stayed, and of those that stood beside them
    before, where that is known.
    """

    runs: frozenset[str]
    beside: frozenset[str] | None


def unpack(session: Session, bin_id: str) -> Packed:
    """What can come back of a thing in the bin: all but what belongs to something deleted for good.

    UnknownError where it is not in the bin; ConflictError where what it belongs to is not there.
    """
    row = session.get(BinRow, bin_id)
    if row is None:
        raise UnknownError(_NOT_THERE, field="bin")
    kind: Binned = row.kind  # type: ignore[assignment]  # checked on entry
    content = content_of(row)
    coupons, beside = content["coupons"], content.get("beside")
    packed = Packed(bin_id, kind, row.owner_id, content["rows"], coupons, beside)
    return replace(packed, rows=_with_parents(session, packed))


def _with_parents(session: Session, packed: Packed) -> Mapping[str, Sequence[_Row]]:
    """The rows that belong to what is there or comes with them."""
    found: dict[str, Sequence[_Row]] = {}
    for table, _ in reversed(OWNED[packed.kind]):
        found[table] = _belonging(session, packed, table, found)
    if not found["run" if packed.kind == "results" else packed.kind]:
        raise ConflictError(
            "what it belonged to was deleted for good, and it cannot come back", field="bin"
        )
    return found


def _belonging(
    session: Session, packed: Packed, table: str, coming: Mapping[str, Sequence[_Row]]
) -> list[_Row]:
    rows = packed.rows.get(table, ())
    parents = parents_of(table)
    there: dict[str, set[str]] = {}
    for parent in set(parents.values()):
        named = {row.get(name) for name, of in parents.items() if of == parent for row in rows}
        with_them = {row["id"] for row in coming.get(parent, ())}
        there[parent] = with_them | _seen(session, parent, named - with_them)
    found: list[_Row] = []
    for row in rows:
        lost = {n: of for n, of in parents.items() if row.get(n) and row[n] not in there[of]}
        if any(row[name] in _waiting(session, packed.bin_id, of) for name, of in lost.items()):
            raise ConflictError(
                "what it belongs to is in the bin, too; bring that back first", field="bin"
            )
        if set(lost) <= _KEPT_WITHOUT.get(table, set()):
            found.append({**row, **dict.fromkeys(lost)})
            there.get(table, set()).add(row.get("id", ""))  # a run may go on from one before it
    return found


def _seen(session: Session, table: str, ids: Set[str | None]) -> set[str]:
    """Those of ids that are in a table, and seen."""
    where = f"id IN (SELECT value FROM json_each(:ids)) AND {_IS_SEEN.get(table, 'TRUE')}"
    named = json.dumps([each for each in ids if each])
    found = session.execute(text(f"SELECT id FROM {table} WHERE {where}"), {"ids": named})
    return {own_id for (own_id,) in found}


def _waiting(session: Session, but: str, table: str) -> set[str]:
    """The ids of a table's rows that lie in the bin, but for one entry."""
    others = session.scalars(select(BinRow).where(BinRow.id != but))
    rows = [each for row in others for each in content_of(row)["rows"].get(table, ())]
    return {each["id"] for each in rows}


@dataclass(frozen=True)
class Hiding:
    """How rows stand hidden until they land: with their own trials and blades, or on
    placeholders.
    """

    there: Placeholders
    trials: Set[str]
    blades: Set[str]
    methods: Set[str]

    @classmethod
    def of(cls, packed: Packed, there: Placeholders) -> "Hiding":
        return cls(there, packed.ids("trial"), packed.ids("blade"), packed.ids("method"))

    def waiting(self, table: str, row: _Row) -> tuple[str, ...]:
        """The columns of a row that get their values once it lands."""
        if table == "trial":
            return "method_id", "arriving"
        if table == "blade":
            return ("arriving",)
        if table == "edge":
            return () if row["blade_id"] in self.blades else ("blade_id", "number")
        if table != "run":
            return ()
        placed = () if row["trial_id"] in self.trials else ("trial_id", "number")
        return (*placed, "method_id") if row["method_id"] in self.methods else placed

    def hidden(self, table: str, row: _Row, number: int) -> _Row:
        """A row as it stands meanwhile, with a number that no other on the placeholder has."""
        meanwhile = {
            "arriving": self.there.label,
            "trial_id": self.there.trial_id,
            "blade_id": self.there.blade_id,
            "method_id": None,
            "number": number,
        }
        return {**row, **{name: meanwhile[name] for name in self.waiting(table, row)}}


def hidden_pieces(packed: Packed, there: Placeholders) -> Iterator[tuple[str, list[_Row]]]:
    """Trials, blades, edges, runs and events as they stand hidden, a few of a table at a time."""
    hiding = Hiding.of(packed, there)
    for table in _IN_PIECES:
        rows = packed.rows.get(table, ())
        for first in range(0, len(rows), _AT_ONCE):
            some = enumerate(rows[first : first + _AT_ONCE], first + 1)
            yield table, [hiding.hidden(table, row, number) for number, row in some]


def store_piece(session: Session, table: str, rows: Sequence[_Row]) -> None:
    """Store a piece; ConflictError where an id of it was taken meanwhile."""
    with _refusing_taken():
        _insert(session, table, with_free_sequences(session, rows) if table == "event" else rows)


def land(session: Session, packed: Packed, there: Placeholders) -> Back:
    """Put a thing back as it was, once its pieces are stored.

    UnknownError where it is not in the bin any more; ConflictError where its place was taken
    meanwhile.
    """
    row = session.get(BinRow, packed.bin_id)
    if row is None:
        raise UnknownError(_NOT_THERE, field="bin")
    with _refusing_taken():
        _put_back(session, packed, Hiding.of(packed, there))
    remove_placeholders(session, there)
    for coupon in packed.coupons:
        session.execute(
            text("UPDATE soak_coupon SET blade_id = :blade WHERE id = :id"),
            {"blade": packed.owner_id, "id": coupon},
        )
    session.delete(row)
    session.flush()
    beside = None if packed.beside is None else frozenset(packed.beside)
    edges = packed.ids("edge")
    runs = {run["id"] for run in packed.rows.get("run", ()) if run["edge_id"] not in edges}
    return Back(frozenset(runs), beside)


def _put_back(session: Session, packed: Packed, hiding: Hiding) -> None:
    for table, _ in reversed(OWNED[packed.kind]):
        own = packed.rows[table]
        if table == "run":
            own = _with_free_numbers(session, own, hiding.trials)
        if table in HIDDEN:
            _place(session, table, own, hiding)
        elif table == "trial_blade":
            for each in own:
                _insert(session, table, [_in_a_free_place(session, each)])
        elif table != "event":
            _insert(session, table, own)


def _place(session: Session, table: str, rows: Sequence[_Row], hiding: Hiding) -> None:
    """Give hidden rows what they waited for."""
    by_columns: dict[tuple[str, ...], list[_Row]] = defaultdict(list)
    for row in rows:
        by_columns[hiding.waiting(table, row)].append(row)
    by_columns.pop((), None)
    for names, some in by_columns.items():
        session.connection().exec_driver_sql(
            f"UPDATE {table} SET {', '.join(f'{name} = ?' for name in names)} WHERE id = ?",
            [(*(row.get(name) for name in names), row["id"]) for row in some],
        )


@contextmanager
def _refusing_taken() -> Iterator[None]:
    try:
        yield
    except IntegrityError as taken:
        raise ConflictError(_TAKEN, field="bin") from taken


def _insert(session: Session, table: str, rows: Sequence[_Row]) -> None:
    """Rows as they were kept; columns that the table has no more are left out."""
    if not rows:
        return
    known = set(Base.metadata.tables[table].columns.keys())
    names = [name for name in rows[0] if name in known]
    columns = ", ".join(f'"{name}"' for name in names)
    session.connection().exec_driver_sql(
        f"INSERT INTO {table} ({columns}) VALUES ({', '.join('?' * len(names))})",
        [tuple(stored_value(row[name]) for name in names) for row in rows],
    )


def _in_a_free_place(session: Session, row: _Row) -> _Row:
    """A blade's place in a trial: its own, or the next one where another blade stands there now."""
    found = session.execute(
        text("SELECT place FROM trial_blade WHERE trial_id = :trial"), {"trial": row["trial_id"]}
    )
    taken = {place for (place,) in found}
    return row if row["place"] not in taken else {**row, "place": max(taken) + 1}


def _with_free_numbers(session: Session, rows: Sequence[_Row], own: Set[str]) -> list[_Row]:
    """Runs by their own numbers on their edges, or the next ones where others have those now; in
    trials of their own there are no others.
    """
    runs = [run for run in rows if run["trial_id"] not in own]
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
    numbered = [run for run in rows if run["trial_id"] in own]
    for run in runs:
        there = taken[run["trial_id"], run["edge_id"]]
        number = run["number"] if run["number"] not in there else max(there) + 1
        there.add(number)
        numbered.append({**run, "number": number})
    return numbered


def with_free_sequences(session: Session, events: Sequence[_Row]) -> list[_Row]:
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
    numbered: list[_Row] = []
    for event in events:
        if (event["device"], event["device_sequence"]) in taken:
            event = _numbered_anew(event, take_sequence(session))
        numbered.append(event)
    return numbered


def _numbered_anew(event: _Row, sequence: int) -> _Row:
    moved = {**event, "device_sequence": sequence}
    if event["check_sum"] is not None:
        summed = {name: moved[name] for name in SUMMED[1:]}
        moved["check_sum"] = check_sum(moved["id"], **summed)
    return moved
