"""The bin: what is deleted leaves its tables as the rows that it was."""

from collections.abc import Mapping

from sqlalchemy import delete, select, text
from sqlalchemy.orm import Session, defer

from kessik.core.bin import Binned, InBin
from kessik.core.errors import ConflictError
from kessik.store.actor import ACTOR
from kessik.store.queries.bin_contents import (
    OWNED,
    Gathered,
    Results,
    content_of,
    gather,
    is_as_gathered,
)
from kessik.store.queries.foreign_keys import broken_keys, tables_hanging_on
from kessik.store.queries.hidden_rows import HIDDEN, hide, is_built_on, make_placeholders
from kessik.store.tables import BinRow

_SHOWS = ("event", "blade", "soak_look", "soak")
_BUILT_ON = "something else was built on it since; delete that first"
_VERIFIED = "a later run verifies one of these; delete that run first"
_MOVED = "a run of it was moved or deleted since; delete by hand what is not wanted"


def move_to_bin(session: Session, entry: InBin, gathered: Gathered, label: str) -> None:
    """Move a thing, as it was gathered, out of what is seen into the bin; its runs and edges stay
    hidden under a label until they are removed in pieces. ConflictError where a run that stays
    goes on from one of them, or something else hangs on what goes.
    """
    kind, parameters = gathered.kind, gathered.parameters
    if not is_as_gathered(session, gathered):
        gathered = gather(session, kind, parameters)
    session.execute(text("PRAGMA defer_foreign_keys = ON"))
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
            content=gathered.packed,
        )
    )
    session.flush()
    if kind == "blade":
        alone = text("UPDATE soak_coupon SET blade_id = NULL WHERE blade_id = :id")
        session.execute(alone, parameters)
    _clear(session, kind, parameters, label)


def check_together(session: Session, results: Results) -> None:
    """ConflictError where a run of results that came together is elsewhere by now, or is verified
    by one that stays.
    """
    own = text(
        "SELECT count(*) FROM run WHERE id IN (SELECT value FROM json_each(:runs))"
        " AND (trial_id = :id OR trial_id IN (SELECT value FROM json_each(:trials)))"
    )
    if session.execute(own, results.parameters()).scalar_one() != len(results.runs):
        raise ConflictError(_MOVED, field="change")
    verifying = text(
        "SELECT 1 FROM run WHERE verifies_run_id IN (SELECT value FROM json_each(:runs))"
        " AND id NOT IN (SELECT value FROM json_each(:runs)) LIMIT 1"
    )
    if session.execute(verifying, results.parameters()).first():
        raise ConflictError(_VERIFIED, field="change")


def _clear(session: Session, kind: Binned, of: Mapping[str, str], label: str) -> None:
    """Let what is seen be without a thing."""
    owned = dict(OWNED[kind])
    there = make_placeholders(session, label) if "run" in owned else None
    gone = [table for table in owned if table not in (*HIDDEN, "event")]
    if there:
        _forget_methods(session, owned, of)
        for table in HIDDEN:
            if table in owned:
                hide(session, there, table, owned[table], of)
    for table in gone:
        session.execute(text(f"DELETE FROM {table} WHERE {owned[table]}"), of)
    if (there and is_built_on(session, there)) or broken_keys(session, tables_hanging_on(gone)):
        raise ConflictError(_BUILT_ON, field="change")


def _forget_methods(session: Session, owned: Mapping[str, str], of: Mapping[str, str]) -> None:
    """Where its methods go with it, its runs wait for the end without them."""
    if "method" in owned:
        own = f"UPDATE run SET method_id = NULL WHERE ({owned['run']}) AND method_id IN"
        session.execute(text(f"{own} (SELECT id FROM method WHERE {owned['method']})"), of)


def all_binned(session: Session) -> list[InBin]:
    """What lies in the bin, the newest first."""
    found = select(BinRow).options(defer(BinRow.content)).order_by(BinRow.binned_utc.desc())
    return [_entry(row) for row in session.scalars(found)]


def find_binned(session: Session, bin_id: str) -> InBin | None:
    row = session.get(BinRow, bin_id, options=[defer(BinRow.content)])
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


def _entry(row: BinRow) -> InBin:
    kind: Binned = row.kind  # type: ignore[assignment]  # checked on entry
    holds = tuple(row.holds)
    return InBin(
        row.id, kind, row.owner_id, row.name, holds, row.reason, row.binned_utc, row.by_device
    )
