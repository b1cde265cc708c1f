"""A series of pictures from one place, measured as a whole: what was outlined in one of them is
carried to each of the others.
"""

from collections.abc import Iterator, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from uuid import NAMESPACE_URL, uuid5

from kessik.core.corrosion.measuring import KnownLength, Measuring
from kessik.core.corrosion.photo.registration import Laid, lay_beside
from kessik.core.corrosion.photo.view import Bools
from kessik.core.corrosion.soaks import Look, Soak
from kessik.core.errors import (
    CancelledError,
    NotAllowedNowError,
    OutOfRangeError,
    RefusedFileError,
)
from kessik.core.moments import Moment
from kessik.core.pictures import Picture
from kessik.interchange.masks import mask_of_outlines
from kessik.interchange.photos import DecodedPicture
from kessik.services.pictures.storing import decoded_picture
from kessik.services.soaks.rust import carried_white, kept_inside
from kessik.services.soaks.soaks import get_soak, keep_look, picture_clock_h, read_look
from kessik.services.work import ImportWork
from kessik.store.database import Database, Session
from kessik.store.queries import pictures, soaks

MEASURES = "measuring"
_SIDE_BY_SIDE = 2
_SERIES_PX = 800
"""Along a blade: a course wants many pictures soon, one inspection the finest spots."""
_LEFT = (OutOfRangeError, NotAllowedNowError, RefusedFileError)
"""What leaves one picture as it was, and no other."""


_Waiting = tuple[Picture, float]
"""A picture of the time line, and the hour it was taken at."""
_Read = tuple[Look, tuple[Measuring, bytes]]
"""An inspection, with how it was measured and its strip."""


@dataclass(frozen=True)
class NotRead:
    """A picture that was left as it was, and why."""

    picture: str
    why: str


@dataclass(frozen=True)
class SeriesRead:
    """How many pictures were read, with how many inspections; which were not."""

    pictures: int
    looks: int
    not_read: tuple[NotRead, ...] = ()
    is_cancelled: bool = False


@dataclass(frozen=True)
class _Outlined:
    """The picture that was measured by hand: every inspection in it, and a mask of all outlines."""

    picture: DecodedPicture
    looks: tuple[tuple[Look, Measuring], ...]
    mask: Bools


def read_series(
    db: Database, soak_id: str, content_hash: str, now: Moment, work: ImportWork
) -> SeriesRead:
    """Measure every picture of the time line that nothing was read from, like the one that was
    measured by hand; each is kept once it is read, and cancelling keeps those.

    NotAllowedNowError where nothing was measured in that picture, or no other one waits.
    """
    with db.read() as session:
        soak = get_soak(session, soak_id)
        looks = _measured_in(session, soak_id, content_hash)
        waiting = _waiting(session, soak, content_hash)
    if not looks:
        raise NotAllowedNowError(
            "nothing was measured in this picture yet: outline each coupon in it first",
            field="picture",
        )
    if not waiting:
        raise NotAllowedNowError(
            "no other picture with a time of its own waits on the time line", field="picture"
        )
    picture = decoded_picture(db, content_hash)
    mask = mask_of_outlines([measuring.outline for _, measuring in looks], picture.size_px)
    first = _Outlined(picture, looks, mask)
    read, made = 0, 0
    left: list[NotRead] = []
    work.begin(MEASURES, len(waiting))
    with ThreadPoolExecutor(_SIDE_BY_SIDE) as pool:
        for some in _pairs(waiting):
            asked = [pool.submit(_read_one, db, soak, first, *each) for each in some]
            for (waits, _), answer in zip(some, asked, strict=True):
                try:
                    made += _keep(db, soak, answer.result(), now)
                    read += 1
                except _LEFT as refused:
                    left.append(NotRead(waits.hash, refused.message))
            try:
                work.step(len(some))
            except CancelledError:
                return SeriesRead(read, made, tuple(left), is_cancelled=True)
    return SeriesRead(read, made, tuple(left))


def _pairs(waiting: Sequence[_Waiting]) -> Iterator[Sequence[_Waiting]]:
    for start in range(0, len(waiting), _SIDE_BY_SIDE):
        yield waiting[start : start + _SIDE_BY_SIDE]


def _measured_in(
    session: Session, soak_id: str, content_hash: str
) -> tuple[tuple[Look, Measuring], ...]:
    found = []
    for look in soaks.looks_by_soak(session, [soak_id])[soak_id]:
        if look.picture == content_hash and not look.struck:
            kept = soaks.find_look(session, look.id)
            if kept is not None and kept[2] is not None:
                found.append((look, kept[2]))
    return tuple(found)


def _waiting(session: Session, soak: Soak, content_hash: str) -> list[_Waiting]:
    """Pictures of the time line that nothing was read from, with their hours, in order."""
    if soak.started is None:
        return []
    read = {look.picture for look in soaks.looks_by_soak(session, [soak.id])[soak.id]}
    found = []
    for shown in pictures.shown_by(session, "soak", soak.id):
        clock_h = picture_clock_h(soak.started, shown.picture.taken_at)
        is_new = shown.picture.hash not in read and shown.picture.hash != content_hash
        if is_new and clock_h is not None and clock_h >= 0:
            found.append((shown.picture, clock_h))
    return sorted(found, key=lambda pair: pair[1])


def _read_one(
    db: Database, soak: Soak, first: _Outlined, picture: Picture, clock_h: float
) -> list[_Read]:
    """What is read of one picture; NotAllowedNowError where it shows something else."""
    decoded = decoded_picture(db, picture.hash)
    laid = lay_beside(first.picture.rgb, first.mask, decoded.rgb)
    if laid is None:
        raise NotAllowedNowError("it cannot be laid over the picture that was measured")
    at = _moment_at(soak, clock_h)
    found = []
    for look, measuring in _carried(soak, first.looks, laid, picture.hash, decoded.size_px):
        read, strip = read_look(decoded, replace(look, at=at), measuring)
        found.append((read, (measuring, strip)))
    return found


def _keep(db: Database, soak: Soak, found: Sequence[_Read], now: Moment) -> int:
    with db.write() as session:
        for look, measured in found:
            keep_look(session, get_soak(session, soak.id), look, measured, now)
    return len(found)


def _carried(
    soak: Soak,
    looks: Sequence[tuple[Look, Measuring]],
    laid: Laid,
    content_hash: str,
    size_px: tuple[int, int],
) -> Iterator[tuple[Look, Measuring]]:
    """The inspections as they lie in another picture; what a hand brushed stays with its own."""
    for look, measuring in looks:
        key = f"kessik:series:{soak.id}:{content_hash}:{look.id}"
        made = Look(
            str(uuid5(NAMESPACE_URL, key)),
            look.coupon_id,
            look.side,
            look.stage,
            look.at,
            region=look.region,
            how="photo",
            picture=content_hash,
            seen_by=look.seen_by,
        )
        outline = kept_inside(laid.carried(measuring.outline), size_px)
        left_out = tuple(kept_inside(laid.carried(each), size_px) for each in measuring.left_out)
        white = carried_white(measuring.white_point, laid, size_px)
        yield (
            made,
            replace(
                measuring,
                outline=outline,
                left_out=left_out,
                white_point=white,
                strokes=(),
                scale=_scale_carried(measuring, laid),
                work_px=min(measuring.work_px, _SERIES_PX),
            ),
        )


def _scale_carried(measuring: Measuring, laid: Laid) -> KnownLength | None:
    if measuring.scale is None:
        return None
    start, end = laid.carried((measuring.scale.start, measuring.scale.end))
    return replace(measuring.scale, start=start, end=end)


def _moment_at(soak: Soak, clock_h: float) -> Moment:
    assert soak.started is not None
    begun = datetime.fromisoformat(soak.started.utc).astimezone(UTC)
    taken = begun + timedelta(hours=clock_h)
    return Moment(taken.isoformat(timespec="seconds"), soak.started.offset_minutes)
