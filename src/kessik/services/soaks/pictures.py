"""Pictures of a soak: laid on its time line, measured, and compared with the look before."""

from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np
import scipy

from kessik.core.corrosion.measuring import Ends, Measuring, check_outline
from kessik.core.corrosion.photo.axes import Point
from kessik.core.corrosion.photo.colour import colour_difference, lab
from kessik.core.corrosion.photo.outline import Unsure
from kessik.core.corrosion.photo.registration import Laid, lay_over
from kessik.core.corrosion.photo.view import Bools
from kessik.core.errors import NotAllowedNowError, RefusedFileError, UnknownError
from kessik.core.moments import Moment
from kessik.core.pictures import Shown
from kessik.interchange.masks import mask_of_outlines
from kessik.interchange.named_files import NamedFile
from kessik.interchange.photos import DecodedPicture, read_photo
from kessik.services.pictures.storing import decoded_picture, hide_pictures, keep_picture
from kessik.services.soaks.rust import (
    RustReading,
    carried_white,
    kept_inside,
    proposed_outline,
    read_rust,
)
from kessik.services.soaks.soaks import get_soak, picture_clock_h
from kessik.store.database import Database
from kessik.store.queries import pictures, soaks

_SAME_BORDER_PX = 2
"""Rust this close to where rust was is not new: registration is no better."""


@dataclass(frozen=True)
class Outlined:
    """Where the blade is in a picture; `likeness` where it was carried over from an earlier one,
    `unsure` why no outline is proposed.
    """

    outline: tuple[Point, ...]
    white_point: Point | None
    likeness: float | None
    size_px: tuple[int, int]
    unsure: tuple[Unsure, ...] = ()


@dataclass(frozen=True)
class Since:
    """Beside the look before: what was rust then, in the view of this one, and how far the steel's
    own colour has moved since (CIEDE2000; about 1 is just seen).
    """

    before: Bools
    colour_step: float

    def percent(self, reading: RustReading, threshold: float) -> float:
        """Rust that was not there, per cent of what counts."""
        maps = reading.maps
        new = (maps.strength > threshold) & maps.counted & ~self.before
        return 100 * float(new.sum()) / max(int(maps.counted.sum()), 1)


def add_pictures(
    db: Database, soak_id: str, files: Sequence[NamedFile], now: Moment
) -> list[Shown]:
    """Keep pictures on a soak's time line; RefusedFileError where one is no picture, and then none
    of them is taken. The same picture twice is one.
    """
    with db.read() as session:
        get_soak(session, soak_id)
    for file in files:
        _look_through(file)
    kept = [keep_picture(db, file.data, now.utc) for file in files]
    shown = [Shown(picture, "soak", soak_id, "", now.utc) for picture in kept]
    with db.write() as session:
        get_soak(session, soak_id)
        for each in shown:
            pictures.keep(session, each.picture)
            pictures.show(session, each)
    return shown


def take_from_camera(db: Database, soak_id: str, now: Moment) -> int:
    """Lay the pictures that a camera wrote, and that nothing shows yet, on a soak's time line; how
    many. Those whose own time is before the soak began stay where they are.
    """
    with db.write() as session:
        soak = get_soak(session, soak_id)
        if soak.started is None:
            raise NotAllowedNowError("this soak has not begun; start it first", field="soak")
        taken = 0
        for picture in pictures.all_unshown(session):
            hours = picture_clock_h(soak.started, picture.taken_at)
            if hours is not None and hours < 0:
                continue
            pictures.show(session, Shown(picture, "soak", soak_id, "", now.utc))
            taken += 1
        return taken


def _look_through(file: NamedFile) -> None:
    """Refuse a file that is no picture by its name."""
    try:
        read_photo(file.data)
    except RefusedFileError as wrong:
        said = f"{file.name}: {wrong.faults[0].message}"
        raise RefusedFileError([replace(wrong.faults[0], message=said)]) from wrong


def delete_picture(db: Database, soak_id: str, content_hash: str) -> None:
    """Take a picture off a soak's time line; one that a look was read from stays."""
    with db.read() as session:
        get_soak(session, soak_id)
        looks = soaks.looks_by_soak(session, [soak_id])[soak_id]
        shown = pictures.shown_by(session, "soak", soak_id)
    if any(look.picture == content_hash for look in looks):
        raise NotAllowedNowError(
            "an inspection was read from this picture: it stays", field="picture"
        )
    hide_pictures(db, [each for each in shown if each.picture.hash == content_hash])


def outline_in(db: Database, content_hash: str, ends: Ends | None = None) -> Outlined:
    """The blade's outline as it is proposed, from its plunge line to its tip where both were
    pressed; without corners where it is unsure. OutOfRangeError where none stands out.
    """
    picture = decoded_picture(db, content_hash)
    outline, unsure = proposed_outline(picture, ends)
    return Outlined(() if unsure else outline, None, None, picture.size_px, unsure)


def outline_carried(db: Database, content_hash: str, look_id: str) -> Outlined:
    """The outline of an earlier look, carried over to a picture; NotAllowedNowError where the two
    pictures cannot be laid over each other.
    """
    earlier, measuring = _earlier(db, look_id)
    picture = decoded_picture(db, content_hash)
    laid = _laid(earlier, measuring, picture)
    if laid is None:
        raise NotAllowedNowError(
            "these two pictures cannot be laid over each other; draw the outline anew",
            field="outline",
        )
    inside = kept_inside(laid.carried(measuring.outline), picture.size_px)
    white = carried_white(measuring.white_point, laid, picture.size_px)
    return Outlined(inside, white, laid.likeness, picture.size_px)


def measured_rust(
    db: Database, content_hash: str, measuring: Measuring, earlier_look: str = ""
) -> tuple[RustReading, Since | None]:
    """Measure without keeping anything; with what is new since an earlier look where one is named
    and can be laid over.
    """
    picture = decoded_picture(db, content_hash)
    check_outline(measuring.outline, *picture.size_px, "outline")
    reading = read_rust(picture, measuring)
    if not earlier_look:
        return reading, None
    earlier, before = _earlier(db, earlier_look)
    laid = _laid(earlier, before, picture)
    if laid is None:
        return reading, None
    old = read_rust(earlier, before)
    return reading, Since(
        _carried_rust(old, before.threshold, laid, reading), _colour_step(old, reading)
    )


def look_strip(db: Database, soak_id: str, look_id: str) -> bytes:
    """The blade of a look cut out, with rust laid over it, as a small JPEG; UnknownError where it
    was not measured in a picture.
    """
    with db.read() as session:
        strip = soaks.find_strip(session, soak_id, look_id)
    if strip is None:
        raise UnknownError("that inspection was not measured in a picture", field="look")
    return strip


def _carried_rust(old: RustReading, threshold: float, laid: Laid, new: RustReading) -> Bools:
    view, there = old.maps.view, new.maps.view
    rust = scipy.ndimage.binary_dilation(old.maps.strength > threshold, iterations=_SAME_BORDER_PX)
    inverse = np.linalg.inv(np.asarray(laid.turn))
    rows, columns = np.indices(there.shape)
    x = (columns + 0.5) * there.step + there.corner[0] - laid.shift[0]
    y = (rows + 0.5) * there.step + there.corner[1] - laid.shift[1]
    from_x = (inverse[0, 0] * x + inverse[0, 1] * y - view.corner[0]) / view.step - 0.5
    from_y = (inverse[1, 0] * x + inverse[1, 1] * y - view.corner[1]) / view.step - 0.5
    found = scipy.ndimage.map_coordinates(rust.astype(np.float32), [from_y, from_x], order=1)
    return np.asarray(found > 0.5)


def _colour_step(old: RustReading, new: RustReading) -> float:
    one, other = (lab(np.asarray(each.maps.steel_light)) for each in (old, new))
    return float(colour_difference(one, other))


def _laid(earlier: DecodedPicture, measuring: Measuring, later: DecodedPicture) -> Laid | None:
    mask = mask_of_outlines([measuring.outline], earlier.size_px)
    return lay_over(earlier.rgb, mask, later.rgb)


def _earlier(db: Database, look_id: str) -> tuple[DecodedPicture, Measuring]:
    with db.read() as session:
        found = soaks.find_look(session, look_id)
    if found is None or found[2] is None or not found[1].picture:
        raise UnknownError("that inspection was not measured in a picture", field="look")
    return decoded_picture(db, found[1].picture), found[2]
