"""Soaks, coupons, acts and looks."""

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import asdict, replace
from typing import Any

from sqlalchemy import delete, select, update
from sqlalchemy.orm import Session

from kessik.core.corrosion.measuring import Measuring
from kessik.core.corrosion.soaks import Act, Coupon, Look, Soak
from kessik.core.moments import Moment
from kessik.store.queries.records import from_plain, record_of, row_values
from kessik.store.tables import CouponRow, LookRow, SoakActRow, SoakRow

_COLUMNS = {"id", "at", "struck", "clock_h", "coupon_id"}


def soak_of_coupon(session: Session, coupon_id: str) -> str | None:
    """The id of the soak that a coupon is in."""
    return session.scalar(select(CouponRow.soak_id).where(CouponRow.id == coupon_id))


def all_soaks(session: Session) -> list[Soak]:
    """Every soak, the newest first."""
    coupons: dict[str, list[Coupon]] = defaultdict(list)
    for row in session.scalars(select(CouponRow).order_by(CouponRow.soak_id, CouponRow.place)):
        coupons[row.soak_id].append(_coupon(row))
    rows = session.scalars(select(SoakRow).order_by(SoakRow.created_utc.desc(), SoakRow.id))
    return [_soak(row, coupons[row.id]) for row in rows]


def find_soak(session: Session, soak_id: str) -> Soak | None:
    row = session.get(SoakRow, soak_id)
    if row is None:
        return None
    placed = select(CouponRow).where(CouponRow.soak_id == soak_id).order_by(CouponRow.place)
    return _soak(row, [_coupon(coupon) for coupon in session.scalars(placed)])


def soaks_of_blades(session: Session, blade_ids: Iterable[str]) -> list[Soak]:
    """Every soak that one of the blades is in, the newest first."""
    ids = select(CouponRow.soak_id).where(CouponRow.blade_id.in_(list(blade_ids))).distinct()
    rows = session.scalars(
        select(SoakRow).where(SoakRow.id.in_(ids)).order_by(SoakRow.created_utc.desc())
    )
    found = [find_soak(session, row.id) for row in rows.all()]
    return [soak for soak in found if soak is not None]


def save_soak(session: Session, soak: Soak) -> None:
    """Insert or update a soak with its coupons; those that are left out of it go."""
    session.merge(
        SoakRow(
            **row_values(
                SoakRow,
                soak,
                started_utc=soak.started.utc if soak.started else "",
                started_offset=soak.started.offset_minutes if soak.started else 0,
            )
        )
    )
    session.flush()
    kept = [coupon.id for coupon in soak.coupons]
    session.execute(
        delete(CouponRow).where(CouponRow.soak_id == soak.id, CouponRow.id.not_in(kept))
    )
    for place, coupon in enumerate(soak.coupons):
        said = {k: v for k, v in asdict(coupon).items() if k not in ("id", "blade_id")}
        session.merge(
            CouponRow(
                id=coupon.id,
                soak_id=soak.id,
                blade_id=coupon.blade_id or None,
                place=place,
                said=said,
            )
        )
    session.flush()


def acts_by_soak(session: Session, soak_ids: Iterable[str]) -> dict[str, list[Act]]:
    """What was done, in the order of its true time."""
    found: dict[str, list[Act]] = defaultdict(list)
    wanted = select(SoakActRow).where(SoakActRow.soak_id.in_(list(soak_ids)))
    for row in session.scalars(wanted.order_by(SoakActRow.at_utc, SoakActRow.recorded_utc)):
        at = Moment(row.at_utc, row.at_offset)
        found[row.soak_id].append(Act(id=row.id, at=at, struck=row.struck, **row.said))
    return found


def find_act(session: Session, act_id: str) -> tuple[str, Act] | None:
    """An act with the id of its soak."""
    row = session.get(SoakActRow, act_id)
    if row is None:
        return None
    at = Moment(row.at_utc, row.at_offset)
    return row.soak_id, Act(id=row.id, at=at, struck=row.struck, **row.said)


def save_act(session: Session, soak_id: str, act: Act, now_utc: str) -> None:
    """Insert or update an act; one that is there keeps the time it was recorded at."""
    said = {k: v for k, v in asdict(act).items() if k not in _COLUMNS - {"coupon_id"}}
    there = session.get(SoakActRow, act.id)
    recorded = there.recorded_utc if there else now_utc
    session.merge(
        SoakActRow(
            id=act.id,
            soak_id=soak_id,
            at_utc=act.at.utc,
            at_offset=act.at.offset_minutes,
            said=said,
            struck=act.struck,
            recorded_utc=recorded,
        )
    )
    session.flush()


def looks_by_soak(session: Session, soak_ids: Iterable[str]) -> dict[str, list[Look]]:
    """The looks, in the order of their true time."""
    found: dict[str, list[Look]] = defaultdict(list)
    columns = (
        LookRow.id, LookRow.soak_id, LookRow.coupon_id, LookRow.at_utc, LookRow.at_offset,
        LookRow.said, LookRow.struck,
    )  # fmt: skip  # not how they were measured: a list has no use for it
    wanted = select(*columns).where(LookRow.soak_id.in_(list(soak_ids)))
    for row in session.execute(wanted.order_by(LookRow.at_utc, LookRow.recorded_utc)):
        found[row.soak_id].append(_look(row))
    return found


def find_look(session: Session, look_id: str) -> tuple[str, Look, Measuring | None] | None:
    """A look with the id of its soak, and how it was measured."""
    row = session.get(LookRow, look_id)
    return None if row is None else (row.soak_id, _look(row), _measuring(row.measuring))


def save_look(
    session: Session,
    soak_id: str,
    look: Look,
    measured: tuple[Measuring, bytes] | None,
    now_utc: str,
) -> None:
    """Insert or update a look, with how it was measured and its strip; one that is there keeps the
    time it was recorded at.
    """
    said = {k: v for k, v in asdict(look).items() if k not in _COLUMNS}
    there = session.get(LookRow, look.id)
    session.merge(
        LookRow(
            id=look.id,
            soak_id=soak_id,
            coupon_id=look.coupon_id,
            at_utc=look.at.utc,
            at_offset=look.at.offset_minutes,
            said=said,
            measuring=asdict(measured[0]) if measured else None,
            strip=measured[1] if measured else None,
            struck=look.struck,
            recorded_utc=there.recorded_utc if there else now_utc,
        )
    )
    session.flush()


def exclude_look(session: Session, look_id: str, reason: str) -> None:
    """Say why a look is left out; empty where it counts."""
    session.execute(update(LookRow).where(LookRow.id == look_id).values(struck=reason))


def find_strip(session: Session, soak_id: str, look_id: str) -> bytes | None:
    """The small picture of a look, where it was measured."""
    wanted = select(LookRow.strip).where(LookRow.id == look_id, LookRow.soak_id == soak_id)
    return session.scalar(wanted)


def _soak(row: SoakRow, coupons: list[Coupon]) -> Soak:
    started = Moment(row.started_utc, row.started_offset) if row.started_utc else None
    return record_of(Soak, row, coupons=tuple(coupons), started=started)


def _coupon(row: CouponRow) -> Coupon:
    return Coupon(id=row.id, blade_id=row.blade_id or "", **row.said)


def _look(row: Any) -> Look:  # noqa: ANN401 - a row of a table, or of some of its columns
    at = Moment(row.at_utc, row.at_offset)
    said = {**row.said, "doubts": tuple(row.said["doubts"])}
    look = Look(id=row.id, coupon_id=row.coupon_id, at=at, struck=row.struck, **said)
    return replace(look, clock_h=0.0)


def _measuring(kept: dict[str, Any] | None) -> Measuring | None:
    return from_plain(Measuring, kept) if kept else None
