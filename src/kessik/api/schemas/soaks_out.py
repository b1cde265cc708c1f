"""Soaks over the wire: what is answered."""

import base64
import json
from collections.abc import Sequence
from dataclasses import asdict
from typing import Literal

from kessik.api.schemas.common import Wire
from kessik.api.schemas.soaks import (
    ActName,
    CouponBody,
    DiscolouredName,
    HowName,
    MeasuringBody,
    RegionName,
    SideName,
    SoakFactor,
    SoakMethodBody,
    StageName,
)
from kessik.core.corrosion.answer import Course, SoakAnswer, Worn
from kessik.core.corrosion.course import Bounds
from kessik.core.corrosion.fairness import NAMES, Held
from kessik.core.corrosion.measuring import Measuring
from kessik.core.corrosion.methods import SoakMethod
from kessik.core.corrosion.photo.area import DOUBTS
from kessik.core.corrosion.ratings import ratings
from kessik.core.corrosion.soaks import Act, Look, Soak
from kessik.core.corrosion.timing import Duty, exposure_h
from kessik.core.pictures import Shown
from kessik.core.words.soaks import (
    BORROWED,
    DEED_WORDS,
    DISCOLOURED_WORDS,
    STAGE_WORDS,
    area_words,
    coating_words,
    conditions_words,
    doubts_words,
    first_words,
    held_words,
    kept_words,
    place_words,
    rating_words,
    soak_headline,
    soak_reasons,
    superficial_words,
)
from kessik.interchange.masks import png_of
from kessik.services.soaks.pictures import Since
from kessik.services.soaks.rust import RustReading, map_codes
from kessik.services.soaks.sheets import SoakSheet
from kessik.services.soaks.side_by_side import Placed, PlaceTable
from kessik.services.soaks.soaks import picture_clock_h

SeverityName = Literal["enough", "perhaps", "not_enough", "no_baseline", "not_looked_at"]
HeldStatus = Literal["matched", "factor", "confounded", "pending", "let_go"]


class BoundsOut(Wire):
    """An area, per cent, with its bounds and in words."""

    low: float
    high: float
    best: float | None
    says: str

    @classmethod
    def of(cls, area: Bounds) -> "BoundsOut":
        return cls(low=area.low, high=area.high, best=area.best, says=area_words(area))


class ActOut(Wire):
    """Something done, at its true hour."""

    id: str
    kind: ActName
    at_utc: str
    offset_minutes: int
    clock_h: float
    exposure_h: float
    coupon_id: str
    amount: float | None
    ph: float | None
    salt_percent: float | None
    temperature_c: float | None
    said: str
    struck: str

    @classmethod
    def of(cls, act: Act, acts: Sequence[Act]) -> "ActOut":
        plain = {name: getattr(act, name) for name in cls.model_fields if hasattr(act, name)}
        return cls(
            **plain,
            at_utc=act.at.utc,
            offset_minutes=act.at.offset_minutes,
            exposure_h=exposure_h(act.clock_h, acts),
        )


class LookOut(Wire):
    """One look, at its true hour, with the grades its area has."""

    id: str
    coupon_id: str
    side: SideName
    stage: StageName
    at_utc: str
    offset_minutes: int
    clock_h: float
    exposure_h: float
    region: RegionName
    rust_percent: float | None
    rust_low: float | None
    rust_high: float | None
    stain_percent: float | None
    pits: int | None
    deepest_pit_mm: float | None
    discolouration: DiscolouredName | None
    gone_matte: bool
    pivot: str
    lock: str
    handle: str
    how: HowName
    said: str
    picture: str
    note: str
    struck: str
    area_says: str
    ratings: list[str]
    doubts: list[str]

    @classmethod
    def of(cls, look: Look, acts: Sequence[Act]) -> "LookOut":
        plain = {name: getattr(look, name) for name in cls.model_fields if hasattr(look, name)}
        says, grades = "", []
        if look.rust_low is not None and look.rust_high is not None:
            says = area_words(Bounds(look.rust_low, look.rust_high, look.rust_percent))
            found = ratings(look.rust_percent, look.rust_low, look.rust_high)
            grades = [rating_words(each) for each in found]
        read = look.how in ("photo", "brush")
        doubts = [doubt for doubt in DOUBTS if read and doubt in look.said.split()]
        return cls(
            **plain,
            at_utc=look.at.utc,
            offset_minutes=look.at.offset_minutes,
            exposure_h=exposure_h(look.clock_h, acts),
            area_says=says,
            ratings=grades,
            doubts=doubts_words(doubts),
        )


class DutyOut(Wire):
    """A look or an intervention, due at an hour of the soak."""

    what: str
    says: str
    due_h: float
    clock_due_h: float
    done_h: float | None
    is_late: bool

    @classmethod
    def of(cls, duty: Duty) -> "DutyOut":
        return cls(
            what=duty.what,
            says=DEED_WORDS[duty.what],
            due_h=duty.due_h,
            clock_due_h=duty.clock_due_h,
            done_h=duty.done_h,
            is_late=duty.is_late,
        )


class HeldOut(Wire):
    """One variable over the coupons; `says` where it is confounded."""

    variable: str
    name: str
    status: HeldStatus
    values: dict[str, str]
    odd: list[str]
    says: str

    @classmethod
    def of(cls, held: Held, names: dict[str, str]) -> "HeldOut":
        says = held_words(held, names) if held.status == "confounded" else ""
        return cls(
            variable=held.variable,
            name=NAMES[held.variable],
            status=held.status,
            values=dict(held.values),
            odd=list(held.odd),
            says=says,
        )


class PointOut(Wire):
    """An area at an hour of exposure."""

    hours: float
    side: SideName
    stage: StageName
    area: BoundsOut


class CourseOut(Wire):
    """One coupon along the soak."""

    coupon_id: str
    points: list[PointOut]
    first: str
    superficial: str
    pits: int | None
    deepest_pit_mm: float | None

    @classmethod
    def of(cls, course: Course) -> "CourseOut":
        points = [
            PointOut(hours=p.hours, side=p.side, stage=p.stage, area=BoundsOut.of(p.area))
            for p in course.points
        ]
        return cls(
            coupon_id=course.coupon_id,
            points=points,
            first=first_words(course.first),
            superficial=superficial_words(course.superficial) if course.superficial else "",
            pits=course.worst_pits,
            deepest_pit_mm=course.deepest_pit_mm,
        )


class StandingOut(Wire):
    """Where a coupon stands: its place, from 1, shared with all of the same place."""

    coupon_id: str
    place: int
    area: BoundsOut
    sides: int


class WornOut(Wire):
    """The wear part of a coating trial: what a coupon went through, and its rust where it was
    worn.
    """

    coupon_id: str
    counts: list[str]
    rust_where_worn: str


class DiscolouredOut(Wire):
    """Coupons that discoloured alike."""

    word: str
    coupon_ids: list[str]


class SoakAnswerOut(Wire):
    """What a soak says so far."""

    headline: str
    reasons: list[str]
    coatings: list[str]
    worn: list[WornOut]
    severity: SeverityName
    needed_percent: float
    hours: float
    whole_h: float
    judged_stage: str
    standings: list[StandingOut]
    ties: list[list[str]]
    discoloured: list[DiscolouredOut]
    courses: list[CourseOut]
    held: list[HeldOut]
    borrowed: str

    @classmethod
    def of(cls, sheet: SoakSheet) -> "SoakAnswerOut":
        answer, names = sheet.answer, sheet.names
        return cls(
            headline=soak_headline(sheet.soak, answer, names),
            reasons=soak_reasons(sheet.soak, answer, names),
            coatings=coating_words(sheet.soak, answer),
            worn=[_worn(answer, worn) for worn in answer.worn],
            severity=answer.validity.severity,
            needed_percent=answer.validity.needed_percent,
            hours=answer.hours,
            whole_h=answer.whole_h,
            judged_stage=STAGE_WORDS[answer.stage] if answer.stage else "",
            standings=_standings(answer),
            ties=[list(tie) for tie in answer.ranking.ties],
            discoloured=[
                DiscolouredOut(word=DISCOLOURED_WORDS[w], coupon_ids=list(ids))
                for w, ids in answer.discoloured
            ],
            courses=[CourseOut.of(course) for course in answer.courses],
            held=[HeldOut.of(held, names) for held in answer.held],
            borrowed=BORROWED,
        )


class CouponOut(CouponBody):
    """A coupon, with what its blade says of itself, and its own name in this soak."""

    called: str
    steel: str
    mark: int


class SoakPictureOut(Wire):
    """A picture on a soak's time line; `taken_at` is its camera's own time, empty where it told
    none.
    """

    hash: str
    taken_at: str
    added_utc: str
    clock_h: float | None
    width_px: int
    height_px: int

    @classmethod
    def of(cls, shown: Shown, soak: Soak) -> "SoakPictureOut":
        picture = shown.picture
        begun = soak.started
        return cls(
            clock_h=picture_clock_h(begun, picture.taken_at) if begun else None,
            hash=picture.hash,
            taken_at=picture.taken_at,
            added_utc=shown.added_utc,
            width_px=picture.width_px,
            height_px=picture.height_px,
        )


class TakenPicturesOut(Wire):
    """How many pictures were laid on the time line."""

    pictures: int


class TakenLooksOut(Wire):
    """How many looks of a file were kept."""

    looks: int


class SoakLineOut(Wire):
    """A soak in the list: where it stands, and what it says."""

    id: str
    name: str
    question: str
    method: str
    started_utc: str
    offset_minutes: int
    is_open: bool
    hours: float
    whole_h: float
    headline: str
    coupons: list[CouponOut]
    waiting: list[DutyOut]
    clock_h: float
    duties: list[DutyOut]

    @classmethod
    def of(cls, sheet: SoakSheet) -> "SoakLineOut":
        soak = sheet.soak
        return cls(
            id=soak.id,
            name=soak.name,
            question=soak.question,
            method=soak.method.name,
            started_utc=soak.started.utc if soak.started else "",
            offset_minutes=soak.started.offset_minutes if soak.started else 0,
            is_open=sheet.is_open,
            hours=sheet.answer.hours,
            whole_h=sheet.answer.whole_h,
            headline=soak_headline(soak, sheet.answer, sheet.names),
            coupons=_coupons(sheet),
            waiting=[DutyOut.of(duty) for duty in sheet.next],
            clock_h=sheet.clock_h,
            duties=[DutyOut.of(duty) for duty in sheet.duties],
        )


class SoakOut(SoakLineOut):
    """A soak, whole."""

    factor: SoakFactor
    how: SoakMethodBody
    salt: str
    water: str
    note: str
    let_go: list[str]
    created_utc: str
    acts: list[ActOut]
    looks: list[LookOut]
    pictures: list[SoakPictureOut]
    answer: SoakAnswerOut

    @classmethod
    def of(cls, sheet: SoakSheet) -> "SoakOut":
        soak = sheet.soak
        line = SoakLineOut.of(sheet)
        return cls(
            **{name: getattr(line, name) for name in SoakLineOut.model_fields},
            factor=soak.factor,  # type: ignore[arg-type]  # checked on the way in
            how=method_out(soak.method),
            salt=soak.salt,
            water=soak.water,
            note=soak.note,
            let_go=list(soak.let_go),
            created_utc=soak.created_utc,
            acts=[ActOut.of(act, sheet.acts) for act in sheet.acts],
            looks=[LookOut.of(look, sheet.acts) for look in sheet.looks],
            pictures=[SoakPictureOut.of(shown, soak) for shown in sheet.waiting],
            answer=SoakAnswerOut.of(sheet),
        )


class BladeSoakOut(Wire):
    """What a soak says of one blade, with the conditions it was got under."""

    soak_id: str
    name: str
    on: str
    called: str
    place_says: str
    area: str
    conditions: str
    superficial: str
    first: str

    @classmethod
    def of(cls, sheet: SoakSheet, coupon_id: str) -> "BladeSoakOut":
        answer, soak = sheet.answer, sheet.soak
        coupon = soak.coupon(coupon_id)
        course = next(c for c in answer.courses if c.coupon_id == coupon_id)
        standing = next((s for s in _standings(answer) if s.coupon_id == coupon_id), None)
        shared = [p for p in answer.ranking.places if coupon_id in p]
        says = ""
        if standing is not None:
            of = len(answer.ranking.standings)
            place = place_words(standing.place, is_shared=len(shared[0]) > 1)
            says = f"{place}, of {of}"
        return cls(
            soak_id=soak.id,
            name=soak.name,
            on=soak.started.utc[:10] if soak.started else "",
            called=sheet.names[coupon_id],
            place_says=says,
            area=standing.area.says if standing else "",
            conditions=conditions_words(soak, coupon, answer),
            superficial=superficial_words(course.superficial) if course.superficial else "",
            first=first_words(course.first),
        )


class PlacedOut(Wire):
    """A blade's place in a soak."""

    place_says: str
    area: str


class PlaceRowOut(Wire):
    """A blade's places, soak by soak."""

    blade: str
    places: list[PlacedOut | None]


class PlaceTableOut(Wire):
    """Places from soak to soak, and whether they are kept."""

    soaks: list[SoakLineOut]
    rows: list[PlaceRowOut]
    says: str

    @classmethod
    def of(cls, table: PlaceTable) -> "PlaceTableOut":
        return cls(
            soaks=[SoakLineOut.of(sheet) for sheet in table.soaks],
            rows=[
                PlaceRowOut(blade=name, places=[_placed(each) for each in places])
                for name, places in table.rows
            ],
            says=kept_words(table.kept),
        )


class GradeInWordsOut(Wire):
    """A grade of ISO 10289, the areas that have it, and what they look like."""

    grade: int
    above_percent: float
    up_to_percent: float
    looks_like: str


class AreaAtOut(Wire):
    """The area at a place of the slider."""

    threshold: float
    percent: float


class RustOut(Wire):
    """A measurement that is not kept yet: the area, its grades, and the map it was read in."""

    rust_percent: float | None
    low: float
    high: float
    stain_percent: float
    says: str
    ratings: list[str]
    doubts: list[str]
    by_threshold: list[AreaAtOut]
    new_percent: float | None
    colour_step: float | None
    left_px: int
    top_px: int
    width_px: int
    height_px: int
    map_png: str
    """Red the strength of rust, green the kind, blue what was rust at the look before."""

    @classmethod
    def of(cls, reading: RustReading, threshold: float, new: Since | None) -> "RustOut":
        area, maps = reading.area, reading.maps
        before = new.before if new else None
        codes = map_codes(reading, before)
        height, width = maps.view.shape
        return cls(
            rust_percent=area.rust_percent,
            low=area.low,
            high=area.high,
            stain_percent=area.stain_percent,
            says=area_words(Bounds(area.low, area.high, area.rust_percent)),
            ratings=[rating_words(each) for each in reading.ratings],
            doubts=doubts_words(area.doubts),
            by_threshold=[AreaAtOut(threshold=t, percent=p) for t, p in area.by_threshold],
            colour_step=new.colour_step if new else None,
            new_percent=new.percent(reading, threshold) if new else None,
            left_px=maps.view.corner[0],
            top_px=maps.view.corner[1],
            width_px=width * maps.view.step,
            height_px=height * maps.view.step,
            map_png="data:image/png;base64," + base64.b64encode(png_of(codes)).decode(),
        )


class OutlineOut(Wire):
    """Where the blade is in a picture, proposed or carried over from an earlier look; `white_point`
    where the earlier look had one.
    """

    outline: list[list[float]]
    white_point: list[float] | None
    likeness: float | None
    width_px: int
    height_px: int


class LookMeasuringOut(Wire):
    """How a look was measured."""

    picture: str
    measuring: MeasuringBody | None

    @classmethod
    def of(cls, look: Look, measuring: Measuring | None) -> "LookMeasuringOut":
        kept = None
        if measuring is not None:
            plain = {k: v for k, v in asdict(measuring).items() if k != "version"}
            kept = MeasuringBody.model_validate_json(json.dumps(plain))
        return cls(picture=look.picture, measuring=kept)


def method_out(method: SoakMethod) -> SoakMethodBody:
    """A method as the wire has it."""
    return SoakMethodBody.model_validate(method)


def _coupons(sheet: SoakSheet) -> list[CouponOut]:
    found = []
    for coupon in sheet.soak.coupons:
        blade = sheet.blades.get(coupon.blade_id)
        plain = {name: getattr(coupon, name) for name in CouponBody.model_fields}
        found.append(
            CouponOut(
                **plain,
                called=sheet.names[coupon.id],
                steel=(blade.claimed_grade or "") if blade else "",
                mark=blade.mark if blade else 0,
            )
        )
    return found


def _placed(found: Placed | None) -> PlacedOut | None:
    if found is None:
        return None
    says = place_words(found.place, is_shared=found.is_shared)
    return PlacedOut(place_says=says, area=area_words(found.standing.area))


def _worn(answer: SoakAnswer, worn: Worn) -> WornOut:
    course = next(c for c in answer.courses if c.coupon_id == worn.coupon_id)
    return WornOut(
        coupon_id=worn.coupon_id,
        counts=[f"{number:g} {what}" for what, number in worn.counts],
        rust_where_worn=area_words(course.worn_percent) if course.worn_percent else "",
    )


def _standings(answer: SoakAnswer) -> list[StandingOut]:
    if answer.validity.severity == "not_enough":
        return []
    place_of: dict[str, int] = {}
    first = 1
    for group in answer.ranking.places:
        place_of.update(dict.fromkeys(group, first))
        first += len(group)
    return [
        StandingOut(
            coupon_id=s.coupon_id,
            place=place_of[s.coupon_id],
            area=BoundsOut.of(s.area),
            sides=s.sides,
        )
        for s in answer.ranking.standings
    ]
