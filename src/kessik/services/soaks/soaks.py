"""Soaks made and changed, what was done to them, and looks; each write is idempotent by its id."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from typing import Any

from kessik.core.corrosion.mass import check_weighing
from kessik.core.corrosion.measuring import Measuring, is_same_place
from kessik.core.corrosion.methods import check_dues
from kessik.core.corrosion.soaks import (
    SAME_LOOK_H,
    Act,
    Look,
    Soak,
    check_act,
    check_soak,
    checked_look,
)
from kessik.core.errors import ConflictError, NotAllowedNowError, OutOfRangeError, UnknownError
from kessik.core.limits import LIMITS
from kessik.core.moments import Moment
from kessik.interchange.masks import jpeg_of
from kessik.interchange.photos import DecodedPicture
from kessik.services.pictures.storing import decoded_picture
from kessik.services.soaks.rust import overlay_of, read_rust
from kessik.store.database import Database, Session
from kessik.store.queries import pictures, shelf, soaks

STRIP_PX = 480
"""How wide the small picture of a look is."""


def get_soak(session: Session, soak_id: str) -> Soak:
    """The soak, or UnknownError."""
    found = soaks.find_soak(session, soak_id)
    if found is None:
        raise UnknownError("there is no such soak", field="soak")
    return found


def make_soak(db: Database, soak: Soak, now: Moment) -> Soak:
    """Keep a new soak; the same id twice is one."""
    check_soak(soak)
    with db.write() as session:
        there = soaks.find_soak(session, soak.id)
        if there is not None:
            return there
        return _saved(session, replace(soak, created_utc=now.utc))


def change_soak(db: Database, soak_id: str, changes: Mapping[str, Any]) -> Soak:
    """Change what is said of a soak; a coupon that was looked at stays in it."""
    with db.write() as session:
        before = get_soak(session, soak_id)
        changed = replace(before, **changes)
        check_soak(changed)
        gone = {c.id for c in before.coupons} - {c.id for c in changed.coupons}
        looked_at = {look.coupon_id for look in soaks.looks_by_soak(session, [soak_id])[soak_id]}
        if gone & looked_at:
            name = next(c.name for c in before.coupons if c.id in gone & looked_at)
            raise NotAllowedNowError(
                f"{name} was inspected in this soak and stays in it; exclude its"
                " inspections instead",
                field="coupons",
            )
        return _saved(session, changed)


def start_soak(db: Database, soak_id: str, at: Moment, now: Moment) -> Soak:
    """Say when it began; said again, the start is put right, if no look or act comes before it."""
    if _seconds(at) > _seconds(now) + 60:
        raise OutOfRangeError("a soak cannot have begun in the future", field="at")
    with db.write() as session:
        soak = get_soak(session, soak_id)
        if not soak.coupons:
            raise NotAllowedNowError("add coupons before it begins", field="coupons")
        acts = soaks.acts_by_soak(session, [soak_id])[soak_id]
        looks = soaks.looks_by_soak(session, [soak_id])[soak_id]
        moments = [act.at for act in acts] + [look.at for look in looks]
        first = min(map(_seconds, moments), default=None)
        if first is not None and _seconds(at) > first:
            raise OutOfRangeError(
                "something of this soak is from before that time already; begin it earlier",
                field="at",
            )
        return _saved(session, replace(soak, started=at))


def put_act(db: Database, soak_id: str, act: Act, now: Moment) -> Act:
    """Keep something that was done, at its true time."""
    with db.write() as session:
        soak = get_soak(session, soak_id)
        kept = soaks.find_act(session, act.id)
        if kept is not None:
            return _same(kept, soak_id, act)
        timed = replace(act, clock_h=clock_h(_begun(soak), act.at))
        check_act(timed)
        if timed.kind == "prolonged" and timed.amount is not None:
            _check_prolonged(soak, timed.amount)
        _not_in_the_future(act.at, now)
        coupon = soak.coupon(act.coupon_id) if act.coupon_id else None
        if act.coupon_id and coupon is None:
            raise UnknownError("there is no such coupon in this soak", field="coupon_id")
        check_weighing(act, coupon)
        soaks.save_act(session, soak_id, timed, now.utc)
        return timed


def _check_prolonged(soak: Soak, whole_h: float) -> None:
    """A longer soak makes more dues; too many are refused at the hours."""
    try:
        check_dues(soak.method, whole_h)
    except OutOfRangeError as error:
        raise OutOfRangeError(error.message, field="amount", value=whole_h) from error


def exclude_act(db: Database, soak_id: str, act_id: str, reason: str, now: Moment) -> Act:
    """Say that an act was not so, with a reason, or that it was; it stays visible."""
    with db.write() as session:
        soak = get_soak(session, soak_id)
        kept = soaks.find_act(session, act_id)
        if kept is None or kept[0] != soak_id:
            raise UnknownError("there is no such entry", field="act")
        struck = replace(kept[1], struck=reason.strip(), clock_h=clock_h(_begun(soak), kept[1].at))
        soaks.save_act(session, soak_id, struck, now.utc)
        return struck


def put_look(
    db: Database, soak_id: str, look: Look, measuring: Measuring | None, now: Moment
) -> Look:
    """Keep a look, or what was put right in it; where it was measured, its area is read from its
    picture here.
    """
    measured = None
    if measuring is not None:
        if not look.picture:
            raise OutOfRangeError("a measurement belongs to a picture", field="picture")
        look, strip = read_look(decoded_picture(db, look.picture), look, measuring)
        measured = (measuring, strip)
    with db.write() as session:
        return keep_look(session, get_soak(session, soak_id), look, measured, now)


def keep_look(
    session: Session,
    soak: Soak,
    look: Look,
    measured: tuple[Measuring, bytes] | None,
    now: Moment,
    within_h: float = SAME_LOOK_H,
) -> Look:
    """Check a look against those that are there, and keep it; one of the same place `within_h` is
    the same.
    """
    if soak.coupon(look.coupon_id) is None:
        raise UnknownError("there is no such coupon in this soak", field="coupon_id")
    kept = soaks.find_look(session, look.id)
    if kept is not None and kept[0] != soak.id:
        raise ConflictError("this inspection belongs to another soak", field="look")
    timed = replace(look, clock_h=clock_h(_begun(soak), look.at))
    _not_in_the_future(look.at, now)
    others = soaks.looks_by_soak(session, [soak.id])[soak.id]
    if measured is not None:
        _refuse_another_coupon(session, soak, look, measured[0], others)
    whole = checked_look(timed, [with_clock(soak, other) for other in others], within_h)
    if kept is not None:
        whole = replace(whole, struck=kept[1].struck)
    soaks.save_look(session, soak.id, whole, measured, now.utc)
    if whole.picture:
        pictures.show_again(session, whole.picture, "look", whole.id, now.utc)
    return whole


def _refuse_another_coupon(
    session: Session, soak: Soak, look: Look, measuring: Measuring, others: Sequence[Look]
) -> None:
    """A part of a picture shows one coupon, whatever it is read as."""
    for other in others:
        if other.picture != look.picture or other.coupon_id == look.coupon_id or other.struck:
            continue
        kept = soaks.find_look(session, other.id)
        there = kept[2] if kept else None
        if there is not None and is_same_place(measuring.outline, there.outline):
            coupon = soak.coupon(other.coupon_id)
            name = coupon.name if coupon else "another coupon"
            raise OutOfRangeError(
                f"this part of the picture was read as {name} already: choose that coupon, or"
                " outline the other one",
                field="coupon_id",
            )


def exclude_look(db: Database, soak_id: str, look_id: str, reason: str) -> Look:
    """Leave a look out with a reason, or let it count again; it stays visible."""
    with db.write() as session:
        soak = get_soak(session, soak_id)
        kept = soaks.find_look(session, look_id)
        if kept is None or kept[0] != soak_id:
            raise UnknownError("there is no such inspection", field="look")
        struck = with_clock(soak, replace(kept[1], struck=reason.strip()))
        if not struck.struck:
            others = soaks.looks_by_soak(session, [soak_id])[soak_id]
            checked_look(struck, [with_clock(soak, other) for other in others])
        soaks.exclude_look(session, look_id, struck.struck)
        return struck


def clock_h(begun: Moment, at: Moment) -> float:
    """Hours by the clock from one moment to another."""
    return (_seconds(at) - _seconds(begun)) / 3600


def picture_clock_h(begun: Moment, taken_at: str) -> float | None:
    """Hours from the start to a camera's own time, which has no zone: that of this machine, with
    its summer time, where the soak was begun in that, else the offset it was begun at; None where
    the camera told no time.
    """
    if not taken_at:
        return None
    local = datetime.fromisoformat(taken_at)
    begun_s = _seconds(begun)
    here = datetime.fromtimestamp(begun_s, UTC).astimezone().utcoffset()
    if here == timedelta(minutes=begun.offset_minutes):
        taken_s = local.astimezone().timestamp()
    else:
        away = local.replace(tzinfo=UTC) - timedelta(minutes=begun.offset_minutes)
        taken_s = away.timestamp()
    return (taken_s - begun_s) / 3600


def with_clock(soak: Soak, look: Look) -> Look:
    """A look that knows its hour."""
    return replace(look, clock_h=clock_h(soak.started, look.at) if soak.started else 0.0)


def act_with_clock(soak: Soak, act: Act) -> Act:
    """An act that knows its hour."""
    return replace(act, clock_h=clock_h(soak.started, act.at) if soak.started else 0.0)


def read_look(picture: DecodedPicture, look: Look, measuring: Measuring) -> tuple[Look, bytes]:
    """The look with its area as it is read from a picture, and its strip."""
    reading = read_rust(picture, measuring)
    strip = jpeg_of(overlay_of(picture.rgb, reading, measuring.threshold), STRIP_PX)
    area = reading.area
    read = replace(
        look,
        rust_percent=area.rust_percent,
        rust_low=area.low,
        rust_high=area.high,
        stain_percent=area.stain_percent,
        how="brush" if measuring.strokes else "photo",
        doubts=area.doubts,
    )
    return read, strip


def _begun(soak: Soak) -> Moment:
    if soak.started is None:
        raise NotAllowedNowError("this soak has not begun; start it first", field="soak")
    return soak.started


def _not_in_the_future(at: Moment, now: Moment) -> None:
    if _seconds(at) > _seconds(now) + 60:
        raise OutOfRangeError("this time has not come yet", field="at")


def _seconds(moment: Moment) -> float:
    try:
        found = datetime.fromisoformat(moment.utc)
    except ValueError as wrong:
        raise OutOfRangeError(f"{moment.utc} is no time", field="at") from wrong
    if found.tzinfo is None:
        raise OutOfRangeError(f"{moment.utc} has no offset: is it here, or in UTC?", field="at")
    if not LIMITS["year"].holds(found.year):
        raise OutOfRangeError(LIMITS["year"].says(str(found.year)), field="at")
    return found.timestamp()


def _same(kept: tuple[str, Act], soak_id: str, act: Act) -> Act:
    there = kept[1]
    if kept[0] != soak_id or replace(there, struck="", clock_h=0) != replace(act, clock_h=0):
        raise ConflictError("this entry was saved before with other content", field="act")
    return there


def _saved(session: Session, soak: Soak) -> Soak:
    wanted = [coupon.blade_id for coupon in soak.coupons if coupon.blade_id]
    there = shelf.known_ids(session, wanted)
    if any(blade_id not in there for blade_id in wanted):
        raise UnknownError("there is no such blade", field="coupons")
    for coupon in soak.coupons:
        owner = soaks.soak_of_coupon(session, coupon.id)
        if owner is not None and owner != soak.id:
            raise ConflictError("this coupon belongs to another soak", field="coupons")
    tidy = replace(soak, name=soak.name.strip(), question=soak.question.strip())
    soaks.save_soak(session, tidy)
    return tidy
