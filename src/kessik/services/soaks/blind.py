"""Grading the sides of a round again, without names."""

from dataclasses import dataclass

from kessik.core.corrosion.agreement import Agreement, rated_twice
from kessik.core.corrosion.blind import BlindPlace, blind_pass, place_of, round_to_grade
from kessik.core.corrosion.quick import graded
from kessik.core.corrosion.soaks import Look
from kessik.core.errors import UnknownError
from kessik.core.moments import Moment
from kessik.interchange.masks import jpeg_of
from kessik.services.pictures.storing import decoded_picture
from kessik.services.soaks.sheets import SoakSheet, soak_sheet
from kessik.services.soaks.soaks import keep_look
from kessik.store.database import Database
from kessik.store.queries import soaks

_SHOWN_PX = 1200
_MARGIN = 0.04
"""How much of the ground round a blade is shown, as a share of its length."""


@dataclass(frozen=True)
class BlindPass:
    """A pass with its sides in order, and how the raters of its round agree once it is done."""

    sheet: SoakSheet
    places: tuple[BlindPlace, ...]
    agreements: tuple[Agreement, ...]


def open_pass(db: Database, soak_id: str, pass_id: str, now: Moment) -> BlindPass:
    """A pass over the round it began with, else the last one."""
    sheet = soak_sheet(db, soak_id, now)
    rounds = sheet.answer.rounds
    found = round_to_grade(pass_id, rounds, sheet.looks)
    places = blind_pass(pass_id, found, sheet.looks, sheet.answer.hours)
    is_over = all(place.is_done for place in places)
    return BlindPass(sheet, places, rated_twice(sheet.looks, rounds).agreements if is_over else ())


def grade_blind(
    db: Database, soak_id: str, pass_id: str, number: int, grade: int, seen_by: str, now: Moment
) -> BlindPass:
    """Keep the grade of one side of a pass, as an inspection at the time the side was first seen;
    given again, the later grade counts.
    """
    opened = open_pass(db, soak_id, pass_id, now)
    place = place_of(opened.places, number)
    first = place.look
    again = Look(
        id=f"{pass_id}-{number}",
        coupon_id=first.coupon_id,
        side=first.side,
        stage=first.stage,
        at=first.at,
        picture=first.picture,
        seen_by=seen_by.strip(),
        blind=pass_id,
    )
    with db.write() as session:
        keep_look(session, opened.sheet.soak, graded(again, grade), None, now)
    return open_pass(db, soak_id, pass_id, now)


def picture_to_grade(db: Database, found: BlindPass, number: int) -> bytes:
    """The side with a number as a picture: the blade alone where it was outlined, and nothing laid
    over it; UnknownError where it was never pictured.
    """
    look = place_of(found.places, number).look
    if not look.picture:
        raise UnknownError("this side has no picture: grade it by hand", field="number")
    rgb = decoded_picture(db, look.picture).rgb
    with db.read() as session:
        kept = soaks.find_look(session, look.id)
    measuring = kept[2] if kept else None
    if measuring is not None and measuring.outline:
        across, down = zip(*measuring.outline, strict=True)
        margin = _MARGIN * (max(across) - min(across))
        left, top = (int(max(min(side) - margin, 0)) for side in (across, down))
        right, bottom = (int(max(side) + margin) + 1 for side in (across, down))
        rgb = rgb[top:bottom, left:right]
    return jpeg_of(rgb, _SHOWN_PX)


def laid_out(found: BlindPass) -> list[tuple[int, str]]:
    """What lies at which number, for whoever lays the coupons out."""
    names = found.sheet.names
    return [
        (place.number, f"{names[place.look.coupon_id]}, {place.look.side}")
        for place in found.places
    ]
