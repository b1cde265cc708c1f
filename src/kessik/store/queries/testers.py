"""Whose data this is, who sent packages, and which trials came from whom."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from typing import Literal
from uuid import uuid4

from sqlalchemy import delete, select
from sqlalchemy.orm import Session

from kessik.core.shelf.identity import SameBlade
from kessik.store.tables import (
    KeptElsewhereRow,
    SameBladeRow,
    TesterRow,
    TrialBladeRow,
    TrialOriginRow,
)

Kept = Literal["trial", "blade", "soak", "lot", "assay_batch"]
KEPT: tuple[Kept, ...] = ("trial", "blade", "soak", "lot", "assay_batch")


@dataclass(frozen=True)
class Tester:
    """Whoever cuts: of this folder, or of packages; told apart by id, not by name."""

    id: str
    name: str
    is_here: bool = False


@dataclass(frozen=True)
class TrialOrigin:
    """The package that a trial came in, and a sum over what it held."""

    tester_id: str
    made_utc: str
    content: str


def tester_here(session: Session) -> Tester | None:
    """Whose folder this is; None before it was ever asked."""
    row = session.scalars(select(TesterRow).where(TesterRow.is_here)).first()
    return _tester(row) if row else None


def name_tester_here(session: Session, name: str) -> Tester:
    """Name whose folder this is; the id stays for good."""
    row = session.scalars(select(TesterRow).where(TesterRow.is_here)).first()
    if row is None:
        row = TesterRow(id=str(uuid4()), name=name, is_here=True)
        session.add(row)
    row.name = name
    session.flush()
    return _tester(row)


def all_testers(session: Session) -> dict[str, Tester]:
    """Every tester by id."""
    return {row.id: _tester(row) for row in session.scalars(select(TesterRow))}


def adopt(session: Session, tester: Tester) -> None:
    """A folder that nobody was named for becomes the tester's own."""
    if tester_here(session) is None:
        session.add(TesterRow(id=tester.id, name=tester.name, is_here=True))
        session.flush()


def know_tester(session: Session, tester: Tester) -> None:
    """Keep who sent a package, by the name said last; whose folder this is stays who it is."""
    row = session.get(TesterRow, tester.id)
    if row is None:
        session.add(TesterRow(id=tester.id, name=tester.name, is_here=False))
    elif not row.is_here:
        row.name = tester.name
    session.flush()


def origins(session: Session) -> dict[str, TrialOrigin]:
    """Where trials that came in packages are from, by the ids of the trials."""
    return {
        row.trial_id: TrialOrigin(row.tester_id, row.made_utc, row.content)
        for row in session.scalars(select(TrialOriginRow))
    }


def kept_elsewhere(session: Session) -> dict[Kept, dict[str, str]]:
    """Who has what came in packages, by kind and id: testers by name."""
    asked = select(KeptElsewhereRow.kind, KeptElsewhereRow.owner_id, TesterRow.name).join(
        TesterRow, TesterRow.id == KeptElsewhereRow.tester_id
    )
    rows = session.execute(asked).tuples().all()
    return {kind: {owner: name for of, owner, name in rows if of == kind} for kind in KEPT}


def blades_elsewhere(session: Session, blades: Iterable[str]) -> set[str]:
    """Those of the blades that others have, as far as nobody here cut with them."""
    others = set(blades)
    if not others:
        return others
    own = select(TrialBladeRow.blade_id).where(
        TrialBladeRow.trial_id.not_in(select(TrialOriginRow.trial_id))
    )
    return others - set(session.scalars(own))


def note_kept_elsewhere(session: Session, kind: Kept, ids: Iterable[str], tester: Tester) -> None:
    """Note what a tester has."""
    for each in ids:
        session.merge(KeptElsewhereRow(kind=kind, owner_id=each, tester_id=tester.id))
    session.flush()


def note_origins(session: Session, found: Mapping[str, TrialOrigin]) -> None:
    """Note where trials came from, by their ids: hundreds at once hold nobody up."""
    rows = [(trial, each.tester_id, each.made_utc, each.content) for trial, each in found.items()]
    if rows:
        session.connection().exec_driver_sql(
            "INSERT OR REPLACE INTO trial_origin (trial_id, tester_id, made_utc, content)"
            " VALUES (?, ?, ?, ?)",
            rows,
        )


def same_blades(session: Session) -> list[SameBlade]:
    """What was said of blades that may be one."""
    rows = session.scalars(select(SameBladeRow).order_by(SameBladeRow.said_utc))
    return [SameBlade(row.one_id, row.other_id, row.is_same) for row in rows]


def say_same(session: Session, said: SameBlade, now_utc: str) -> None:
    """Keep the tester's word on two blades."""
    one, other = sorted((said.one, said.other))
    session.merge(SameBladeRow(one_id=one, other_id=other, is_same=said.is_same, said_utc=now_utc))
    session.flush()


def forget_same(session: Session, one: str, other: str) -> None:
    """Forget what was said of two blades, so that it is asked again."""
    first, second = sorted((one, other))
    session.execute(
        delete(SameBladeRow).where(SameBladeRow.one_id == first, SameBladeRow.other_id == second)
    )


def _tester(row: TesterRow) -> Tester:
    return Tester(row.id, row.name, row.is_here)
