"""Soaks over the wire: what is kept of them, and each in a line."""

from collections.abc import Sequence

from kessik.api.schemas.common import Wire
from kessik.api.schemas.soak_answers_out import SoakAnswerOut, standings_out
from kessik.api.schemas.soak_pictures_out import SoakPictureOut
from kessik.api.schemas.soaks import CouponBody, SoakMethodBody
from kessik.core.corrosion.course import Bounds
from kessik.core.corrosion.fairness import SoakFactor
from kessik.core.corrosion.methods import InspectionStage, SoakMethod
from kessik.core.corrosion.photo.area import DOUBTS
from kessik.core.corrosion.ratings import ratings
from kessik.core.corrosion.soaks import Act, ActKind, CouponSide, Discolouration, How, Look, Region
from kessik.core.corrosion.timing import DueStep, exposure_h
from kessik.core.words.soaks import (
    DEED_WORDS,
    area_words,
    conditions_words,
    doubts_words,
    first_words,
    kept_words,
    place_words,
    rating_words,
    soak_headline,
    superficial_words,
)
from kessik.services.soaks.sheets import SoakSheet
from kessik.services.soaks.side_by_side import Placed, PlaceTable


class ActOut(Wire):
    """Something done, at its true hour."""

    id: str
    kind: ActKind
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
    side: CouponSide
    stage: InspectionStage
    at_utc: str
    offset_minutes: int
    clock_h: float
    exposure_h: float
    region: Region
    rust_percent: float | None
    rust_low: float | None
    rust_high: float | None
    stain_percent: float | None
    pits: int | None
    deepest_pit_mm: float | None
    discolouration: Discolouration | None
    gone_matte: bool
    pivot: str
    lock: str
    handle: str
    how: How
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
    def of(cls, duty: DueStep) -> "DutyOut":
        return cls(
            what=duty.what,
            says=DEED_WORDS[duty.what],
            due_h=duty.due_h,
            clock_due_h=duty.clock_due_h,
            done_h=duty.done_h,
            is_late=duty.is_late,
        )


class CouponOut(CouponBody):
    """A coupon, with what its blade says of itself, and its own name in this soak."""

    called: str
    steel: str
    mark: int


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
        standing = next((s for s in standings_out(answer) if s.coupon_id == coupon_id), None)
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

    @classmethod
    def of_blade(cls, blade_id: str, sheets: Sequence[SoakSheet]) -> "list[BladeSoakOut]":
        """A line a coupon that was made of the blade."""
        return [
            cls.of(sheet, coupon.id)
            for sheet in sheets
            for coupon in sheet.soak.coupons
            if coupon.blade_id == blade_id
        ]


class BladeInSoaksOut(Wire):
    """A blade of a trial with what soaks say of it."""

    blade_id: str
    code: str
    mark: int
    soaks: list[BladeSoakOut]


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
