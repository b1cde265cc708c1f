"""The bin: what is taken away leaves its tables as the rows that it was."""

import base64
import json
import zlib
from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass
from typing import Any

from sqlalchemy import LargeBinary, delete, select, text
from sqlalchemy.orm import Session, defer

from kessik.core.bin import Binned, InBin
from kessik.core.errors import ConflictError
from kessik.store.actor import ACTOR
from kessik.store.tables import Base, BinRow

_RUNS_OF_TRIAL = "(SELECT id FROM run WHERE trial_id = :id)"
_RUNS_OF_BLADE = (
    "(SELECT run.id FROM run JOIN edge ON edge.id = run.edge_id WHERE edge.blade_id = :id)"
)
_RESULTS = "IN (SELECT value FROM json_each(:{}))"
OWNED: Mapping[Binned, Sequence[tuple[str, str]]] = {
    "run": (("event", "run_id = :id"), ("run", "id = :id")),
    "trial": (
        ("event", f"run_id IN {_RUNS_OF_TRIAL}"),
        ("run", "trial_id = :id"),
        ("trial_blade", "trial_id = :id"),
        ("archived", "kind = 'trial' AND owner_id = :id"),
        ("trial", "id = :id"),
    ),
    "blade": (
        ("event", f"run_id IN {_RUNS_OF_BLADE}"),
        ("run", f"id IN {_RUNS_OF_BLADE}"),
        ("measurement", "blade_id = :id"),
        ("assay_shot", "blade_id = :id"),
        ("toughness", "blade_id = :id"),
        ("field_exposure", "blade_id = :id"),
        ("assay_blade", "blade_id = :id"),
        ("trial_blade", "blade_id = :id"),
        ("edge", "blade_id = :id"),
        ("blade", "id = :id"),
    ),
    "lot": (("lot_correction", "lot_id = :id"), ("lot", "id = :id")),
    "method": (
        ("archived", "kind = 'method' AND owner_id = :id"),
        ("method", "line_id = :id"),
    ),
    "soak": (
        ("soak_look", "soak_id = :id"),
        ("soak_act", "soak_id = :id"),
        ("soak_coupon", "soak_id = :id"),
        ("soak", "id = :id"),
    ),
    "results": (
        ("event", f"run_id {_RESULTS.format('runs')}"),
        ("run", f"id {_RESULTS.format('runs')}"),
        (
            "trial_blade",
            f"trial_id = :id AND blade_id {_RESULTS.format('placed')}"
            f" OR trial_id {_RESULTS.format('trials')}",
        ),
        (
            "measurement",
            f"edge_id {_RESULTS.format('edges')} OR blade_id {_RESULTS.format('blades')}",
        ),
        ("edge", f"id {_RESULTS.format('edges')}"),
        ("blade", f"id {_RESULTS.format('blades')}"),
        ("trial", f"id {_RESULTS.format('trials')}"),
        ("method", f"id {_RESULTS.format('methods')}"),
    ),
}
"""What goes with a thing, in the order in which rows can leave their tables."""
_SHOWS = ("event", "blade", "soak_look", "soak")
BYTES = "base64:"


@dataclass(frozen=True)
class Results:
    """Results that came together, into a trial or with `trials` of their own: ids of what came with
    them.
    """

    trial_id: str
    runs: Sequence[str]
    edges: Sequence[str] = ()
    placed: Sequence[str] = ()
    blades: Sequence[str] = ()
    trials: Sequence[str] = ()
    methods: Sequence[str] = ()


def take_results_away(session: Session, entry: InBin, results: Results) -> None:
    """Move results into the bin together; ConflictError where a run of them is elsewhere by now, or
    something hangs on what came with them.
    """
    ids = asdict(results)
    of = {"id": results.trial_id, **{what: json.dumps(ids[what]) for what in ids}}
    own = text(
        "SELECT count(*) FROM run WHERE id IN (SELECT value FROM json_each(:runs))"
        " AND (trial_id = :id OR trial_id IN (SELECT value FROM json_each(:trials)))"
    )
    still = session.execute(own, of).scalar_one()
    _move(session, entry, of)
    if still != len(results.runs) or session.execute(text("PRAGMA foreign_key_check")).first():
        raise ConflictError(
            "something of it was changed or built on since; take away by hand what is not wanted",
            field="change",
        )


def move_to_bin(session: Session, entry: InBin) -> None:
    """Move a thing, whole, out of its tables into the bin."""
    _move(session, entry, {"id": entry.owner_id})


def _move(session: Session, entry: InBin, of: Mapping[str, str]) -> None:
    session.execute(text("PRAGMA defer_foreign_keys = ON"))
    rows = {table: _rows(session, table, where, of) for table, where in OWNED[entry.kind]}
    coupons: list[str] = []
    if entry.kind == "blade":
        found = session.execute(
            text("SELECT id FROM soak_coupon WHERE blade_id = :id"), {"id": entry.owner_id}
        )
        coupons = [row[0] for row in found]
        session.execute(
            text("UPDATE soak_coupon SET blade_id = NULL WHERE blade_id = :id"),
            {"id": entry.owner_id},
        )
    held = {"rows": rows, "coupons": coupons, "beside": _beside(session, rows.get("run", []))}
    content = json.dumps(held, separators=(",", ":")).encode()
    session.add(
        BinRow(
            id=entry.id,
            kind=entry.kind,
            owner_id=entry.owner_id,
            name=entry.name,
            holds=list(entry.holds),
            reason=entry.reason,
            binned_utc=entry.binned_utc,
            by_device=entry.by or ACTOR.get(),
            content=zlib.compress(content),
        )
    )
    session.flush()
    for table, where in OWNED[entry.kind]:
        session.execute(text(f"DELETE FROM {table} WHERE {where}"), of)


def _beside(session: Session, runs: Sequence[Mapping[str, Any]]) -> list[str]:
    """The ids of runs that stay on the edges of these."""
    found = session.execute(
        text(
            "SELECT id FROM run WHERE edge_id IN (SELECT value FROM json_each(:edges))"
            " AND id NOT IN (SELECT value FROM json_each(:runs))"
        ),
        {
            "edges": json.dumps([run["edge_id"] for run in runs]),
            "runs": json.dumps([run["id"] for run in runs]),
        },
    )
    return [run_id for (run_id,) in found]


def all_binned(session: Session) -> list[InBin]:
    """What lies in the bin, the newest first."""
    found = select(BinRow).options(defer(BinRow.content)).order_by(BinRow.binned_utc.desc())
    return [_entry(row) for row in session.scalars(found)]


def find_binned(session: Session, bin_id: str) -> InBin | None:
    row = session.get(BinRow, bin_id)
    return _entry(row) if row else None


def entry_with_run(session: Session, run_id: str) -> InBin | None:
    """The entry of the bin that a run lies in; None where it lies in none."""
    found = select(BinRow).where(BinRow.kind.in_(("trial", "run", "blade", "results")))
    for row in session.scalars(found.order_by(BinRow.binned_utc.desc())):
        if any(run["id"] == run_id for run in content_of(row)["rows"].get("run", ())):
            return _entry(row)
    return None


def delete_for_good(session: Session, bin_id: str) -> None:
    """Let a thing go for good, and what it showed of pictures."""
    row = session.get_one(BinRow, bin_id)
    rows = content_of(row)["rows"]
    owners = [each["id"] for table in _SHOWS for each in rows.get(table, [])]
    for owner in owners:
        session.execute(text("DELETE FROM picture_use WHERE owner_id = :id"), {"id": owner})
    session.execute(delete(BinRow).where(BinRow.id == bin_id))


def content_of(row: BinRow) -> dict[str, Any]:
    """The rows of a thing by their tables, the coupons that named it, and the runs that stayed
    beside its own; a bin filled by an older Kessik does not tell those.
    """
    return dict(json.loads(zlib.decompress(row.content)))


def _entry(row: BinRow) -> InBin:
    kind: Binned = row.kind  # type: ignore[assignment]  # checked on entry
    holds = tuple(row.holds)
    return InBin(
        row.id, kind, row.owner_id, row.name, holds, row.reason, row.binned_utc, row.by_device
    )


def _rows(session: Session, table: str, where: str, of: Mapping[str, str]) -> list[dict[str, Any]]:
    """Rows as SQLite holds them; thousands may go at once, so no row object is made of each."""
    columns = Base.metadata.tables[table].columns
    names = [column.name for column in columns]
    listed = ", ".join(f'"{name}"' for name in names)
    found = session.connection().exec_driver_sql(
        f"SELECT {listed} FROM {table} WHERE {where} ORDER BY rowid", dict(of)
    )
    rows = [dict(zip(names, row, strict=True)) for row in found.cursor.fetchall()]
    for name in (column.name for column in columns if isinstance(column.type, LargeBinary)):
        for row in rows:
            row[name] = _as_json(row[name])
    return rows


def _as_json(value: Any) -> Any:  # noqa: ANN401 - whatever a column holds
    if isinstance(value, bytes):
        return BYTES + base64.b64encode(value).decode()
    return value
